import { rowsIn, type Bits } from './bits';
import type { Extract, Variable } from './extract';
import { fileStarts } from './files';

/**
 * Some rows of an extract as an extract of its own, for whatever looks at all rows there are: it need not know that there
 * were others. Columns are gathered when they are first asked for.
 * @param within the rows that are taken
 */
export function subsetOf(extract: Extract, within: Bits): Extract {
  const rows = rowsIn(within);
  const starts = fileStarts(extract.files);
  const held = extract.files.map(() => 0);
  let file = 0;
  for (const row of rows) {
    while (file < held.length && row >= starts[file + 1]) file++;
    if (file < held.length) held[file]++;
  }
  return {
    ...extract,
    rows: rows.length,
    files: extract.files.map((source, i) => ({
      ...source,
      rows: held[i],
      lines: undefined,
      begins: undefined,
    })),
    variables: extract.variables.map((variable) => gathered(variable, rows)),
    taken: { from: extract, rows },
  };
}

function gathered(variable: Variable, rows: Uint32Array): Variable {
  let column: Variable['column'] | null = null;
  return {
    ...variable,
    get column() {
      return (column ??= variable.column.gather(rows));
    },
  };
}
