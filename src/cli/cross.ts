import { crossDocument } from '../core/inspect/crossing';
import { everythingDocument } from '../core/inspect/everything';
import { inView } from '../core/sets/view';
import { InputError } from '../core/extract/problem';
import { give } from './files';
import { namedIn } from './named';
import { openExtract, type OpenOptions } from './open';

interface CrossOptions extends OpenOptions {
  down: string;
  across?: string;
  within?: string;
  weight?: string;
  measure?: string;
  withMissing?: true;
  everything?: true;
  small: number;
}

/** `dig cross` */
export async function cross(paths: string[], options: CrossOptions): Promise<void> {
  const { across, within, weight, measure, withMissing = false, everything = false, small } = options;
  if (everything && (across !== undefined || within !== undefined || measure !== undefined))
    throw new InputError({
      file: '--everything',
      says: 'holds one variable against all others: leave out --across, --within and --measure',
    });
  if (everything && withMissing)
    throw new InputError({
      file: '--everything',
      says: 'tells how strongly variables hang together by their valid rows: leave out --with-missing',
    });
  const inspector = await openExtract(paths, options, false);
  const named = namedIn(inspector);
  const one = (name: string | undefined, option: string): string | null =>
    name === undefined ? null : named.one(name, option);
  const down = named.one(options.down, '--down');
  const by = one(weight, '--weight');
  give(
    everything
      ? await everythingDocument(
          inspector,
          { down, weight: by },
          // What a person put out of view is held against nothing.
          inView(inspector.variables, inspector.decided).map(({ name }) => name),
        )
      : await crossDocument(inspector, {
          down,
          across: one(across, '--across'),
          within: one(within, '--within'),
          weight: by,
          measure: one(measure, '--measure'),
          withMissing,
          small,
        }),
    options.out,
  );
}
