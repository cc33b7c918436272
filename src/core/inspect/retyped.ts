import type { Extract, Notice, Variable } from '../extract/extract';
import { isNumericStorage, type Storage } from '../extract/words';
import { inferStorage, type Hints } from '../infer/storage';
import { fileStarts } from '../extract/files';
import { tallyColumn } from '../tally/tally';

/** Variables whose cells are written otherwise in one file than in another; whole numbers and decimals are both numbers. */
export function retyped(
  { files, variables }: Pick<Extract, 'files' | 'variables'>,
  hints: (variable: Variable) => Hints,
): Notice[] {
  if (files.length < 2) return [];
  const starts = fileStarts(files);
  return variables.flatMap((variable) => {
    const storages = files.map(
      (_, i) => inferStorage(tallyColumn(variable.column, starts[i], starts[i + 1]), hints(variable)).storage,
    );
    const first = storages.findIndex((storage) => storage !== 'empty');
    const other = storages.findIndex(
      (storage) => storage !== 'empty' && family(storage) !== family(storages[first]),
    );
    return other < 0
      ? []
      : [
          {
            says: `${variable.name} is written as ${storages[first]} in ${files[first].name} and as ${storages[other]} in ${files[other].name}`,
          },
        ];
  });
}

const family = (storage: Storage): Storage => (isNumericStorage(storage) ? 'decimal' : storage);
