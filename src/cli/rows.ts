import { InputError } from '../core/extract/problem';
import type { Sorting } from '../core/inspect/listed';
import { rowsDocument } from '../core/inspect/rows-document';
import { give } from './files';
import { namedIn } from './named';
import { openedWithLog, type OpenOptions } from './open';

interface RowsOptions extends OpenOptions {
  dropped?: true;
  sort: string[];
  find?: string;
  variables?: string[];
  from: number;
  take: number;
}

/** `dig rows` */
export async function rows(paths: string[], options: RowsOptions): Promise<void> {
  const { dropped = false, sort, find, variables, from, take } = options;
  if (dropped && options.sieve === undefined)
    throw new InputError({
      file: '--dropped',
      says: 'without a sieve no row is dropped; give one with --sieve',
    });
  if (find === '') throw new InputError({ file: '--find', says: 'there is nothing to look for' });
  if (from < 1) throw new InputError({ file: '--from', says: 'rows are counted from 1' });
  const { inspector, all } = await openedWithLog(paths, options, false);
  const named = namedIn(inspector);
  const sortings = sort.map((text): Sorting => {
    // A name may end like a direction.
    const direction = named.has(text) ? null : /^(.*):(down|up)$/s.exec(text);
    return { variable: named.one(direction?.[1] ?? text, '--sort'), down: direction?.[2] === 'down' };
  });
  const shown =
    variables?.map((name) => named.one(name, '--variables')) ??
    inspector.extract.variables.map(({ name }) => name);
  give(
    await rowsDocument(
      inspector,
      {
        variables: shown,
        sort: sortings,
        find: find ?? null,
        dropped,
        from: from - 1,
        take,
      },
      all,
    ),
    options.out,
  );
}
