import { useSession } from '../../store/session';
import { SORTS, type SortBy } from './rows';

/** What the ledger can be sorted by, in words. */
export const SORT_NAMES: Record<SortBy, string> = {
  position: 'place in the file',
  name: 'name',
  label: 'label',
  kind: 'kind',
  distinct: 'number of distinct valid values',
  valid: 'share of valid rows',
  flags: 'flags',
  standing: 'progress',
  sets: 'set',
};
export const isSort = (key: string): key is SortBy => (SORTS as readonly string[]).includes(key);

/** Sorts by a column; by the same once more, the other way round. */
export const sortBy = (by: SortBy): void =>
  useSession.setState(({ sort }) => ({
    sort: { by, down: sort.by === by ? !sort.down : by === 'flags' || by === 'distinct' },
  }));
