'use client';

import { codeSays, measureFigure, signed } from '../../core/handoff/cell-figures';
import { counted, percent, whole } from '../../core/handoff/words';
import type { CrossDocument } from '../../core/inspect/cross-document';
import type { Skip } from '../../core/inspect/skip';
import { cellAt, codesAt, shouldBeEmpty, type At } from './cellsAt';

/** The cell at hand in words: what it is of, and how it stands to what the margins lead one to expect. */
export function CellSays({
  told,
  at,
  skip,
  said,
}: {
  told: CrossDocument;
  at: At | null;
  skip: Skip | null;
  /** What came of what was done last. */
  said: string;
}) {
  return (
    <p className="cellline" role="status">
      {at ? (
        <Said told={told} at={at} skip={skip} />
      ) : (
        <span className="soft">Arrows go from cell to cell; Enter looks at the rows of one.</span>
      )}
      {said && <span>{said}</span>}
    </p>
  );
}

function Said({ told, at, skip }: { told: CrossDocument; at: At; skip: Skip | null }) {
  const table = told.tables.at(at.table);
  if (!table) return null;
  const codes = codesAt(told, at);
  const named = (side: CrossDocument['down'] | null, code: string | null): string => {
    const found = side?.codes.find((one) => one.code === code);
    return side === null ? '' : `${side.variable} ${found ? codeSays(found, side) : 'all'}`;
  };
  const where = [
    named(told.down, codes.down),
    named(told.across, codes.across),
    codes.within === null ? '' : named(told.within, codes.within),
  ].filter(Boolean);
  const cell = cellAt(told, at);
  const margin =
    codes.down !== null ? table.down[at.line] : codes.across !== null ? table.across?.[at.column] : null;
  const one = cell ?? margin ?? table;
  const measure = one.measure;
  return (
    <>
      <span className="what">
        {where.join(' × ')}: <strong>{counted(one.rows, 'row')}</strong>
        {cell && told.across && (
          <>
            {' '}
            ({percent(cell.shareOfRow) || '–'} of the row, {percent(cell.shareOfColumn) || '–'} of the column
            {told.weight !== null && `, weighted ${whole(cell.weighted)}`})
          </>
        )}
        {cell?.expected !== null && cell?.expected !== undefined && (
          <span className="soft">
            {' '}
            expected {cell.expected.toFixed(1)}
            {cell.adjustedResidual !== null && `, adjusted residual ${signed(cell.adjustedResidual)}`}
          </span>
        )}
        {measure && (
          <span className="soft">
            {' '}
            median {measureFigure(measure, 'median')}, mean {measureFigure(measure, 'mean')} of{' '}
            {counted(measure.n, 'value')}
          </span>
        )}
        {shouldBeEmpty(told, skip, codes) && (
          <strong> {one.rows > 0 ? 'should be none' : 'none, as it should be'}</strong>
        )}
      </span>
      {one.rows > 0 && (
        <span className="soft">
          <kbd>Enter</kbd> its rows, <kbd>k</kbd> keeps them, <kbd>x</kbd> drops them
        </span>
      )}
    </>
  );
}
