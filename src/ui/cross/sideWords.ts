import { isCategorical, isMeasure } from '../../core/extract/words';
import type { Summary } from '../../core/inspect/summary';
import type { Side } from '../../store/cross-words';

export const SIDE_NAMES: Record<Side, string> = {
  down: 'Down',
  across: 'Across',
  within: 'Within',
  measure: 'In the cells',
};

/** More distinct values than this can stand in no table by themselves. */
const MOST_DISTINCT = 60;

/** Why a variable cannot stand somewhere as it is; `null` where it can. */
export function whyNot({ kind, counts }: Summary, where: Side | 'everything' | 'against'): string | null {
  if (where === 'measure') return isMeasure(kind) ? null : `${kind}: only counts and continuous ones`;
  if (counts.distinct === 0) return 'no valid answer';
  if (isCategorical(kind) || counts.distinct <= MOST_DISTINCT) return null;
  // A table puts a measure into bins; groups of rows are not made so.
  if (isMeasure(kind) && where !== 'everything') return null;
  return `${counts.distinct} distinct values: put it into bands first`;
}

const TELLING =
  /\b(interviewer|int(er)?v(r)?(iewer)? ?(no|id|number)?|mode|region|wave|country|area|sample point|batch|coder|keyer)\b/i;

/** Variables by whose levels one looks for differences first: waves, interviewers, modes, regions. */
export function telling(all: readonly Summary[]): Summary[] {
  const rank = ({ role, name, label }: Summary): number =>
    role === 'wave'
      ? 0
      : TELLING.test(`${name.replace(/_/g, ' ')} ${label ?? ''}`)
        ? 1
        : role === 'design'
          ? 2
          : 3;
  return all
    .filter((one) => rank(one) < 3 && whyNot(one, 'everything') === null && one.counts.distinct > 1)
    .sort((a, b) => rank(a) - rank(b))
    .slice(0, 8);
}
