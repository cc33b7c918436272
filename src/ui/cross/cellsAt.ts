import type { CrossDocument, TableTold } from '../../core/inspect/cross-document';
import type { Skip } from '../../core/inspect/skip';
import type { CellAt } from '../../core/inspect/cell-rows';
import { standsOutBy } from '../../core/cross/standing-out';
import type { CrossView } from '../../store/session';

export type At = NonNullable<CrossView['at']>;

/** Lines and columns of a table, the margins behind them included. */
export const sizeOf = (told: CrossDocument): { lines: number; columns: number } => ({
  lines: told.down.codes.length + 1,
  columns: told.across ? told.across.codes.length + 1 : 1,
});

/** The cell at some line and column; `null` on a margin. */
export function cellAt(told: CrossDocument, { table, line, column }: At): TableTold['cells'][number] | null {
  const width = Math.max(1, told.across?.codes.length ?? 1);
  if (line >= told.down.codes.length || (told.across && column >= told.across.codes.length)) return null;
  return told.tables.at(table)?.cells.at(line * width + column) ?? null;
}

/** The codes at which a cell stands; `null` on a margin. */
export const codesAt = (told: CrossDocument, { table, line, column }: At): CellAt => ({
  down: told.down.codes.at(line)?.code ?? null,
  across: told.across?.codes.at(column)?.code ?? null,
  within: told.tables.at(table)?.within ?? null,
});

/** Whether a cell should hold no row by who was asked: an answer where nobody was, or a code of not being asked where all were. */
export function shouldBeEmpty(told: CrossDocument, skip: Skip | null, at: CellAt): boolean {
  if (!skip || at.down === null || at.across === null) return false;
  const turned = told.down.variable === skip.gated;
  const [gate, code] = turned ? [at.across, at.down] : [at.down, at.across];
  const gated = (turned ? told.down : told.across)?.codes.find((one) => one.code === code);
  if (!gated || (skip.within !== null && at.within === null)) return false;
  const shut = skip.shut.some(
    ({ within, down }) => down === gate && (skip.within === null || within === at.within),
  );
  const answers = gated.state === 'valid' || gated.state === 'missing' || gated.state === 'unreadable';
  return shut ? answers : gated.state === 'notAsked';
}

/** Cells that are to be looked at: those that should be empty and are not, else those that stand out; in order. */
export function remarkable(told: CrossDocument, skip: Skip | null): At[] {
  const width = Math.max(1, told.across?.codes.length ?? 1);
  const places = told.tables.flatMap((table, t) =>
    table.cells.map((cell, i) => ({
      cell,
      at: { table: t, line: Math.floor(i / width), column: i % width },
    })),
  );
  return places
    .filter(({ cell, at }) =>
      skip
        ? cell.rows > 0 && shouldBeEmpty(told, skip, codesAt(told, at))
        : standsOutBy(cell.adjustedResidual),
    )
    .map(({ at }) => at);
}
