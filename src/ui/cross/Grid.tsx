'use client';

import { memo, type CSSProperties } from 'react';
import {
  cellFigure,
  codeSays,
  FIGURE_NAMES,
  marginFigure,
  measureFigure,
  MEASURE_NAMES,
  signed,
  standsOut,
  totalFigure,
  type Measured,
} from '../../core/handoff/cell-figures';
import type { KeptTable } from '../../core/cross/kept-table';
import type { CrossDocument, TableTold } from '../../core/inspect/cross-document';
import type { Skip } from '../../core/inspect/skip';
import { Box, fiveOf } from '../drawn/Box';
import { shouldBeEmpty } from './cellsAt';

type Figures = Pick<KeptTable, 'shows' | 'measured'>;
type Cell = TableTold['cells'][number];

/** How residuals are told: the weight of the mark grows in steps. */
const FAR = [5, 10];

interface Shared {
  told: CrossDocument;
  figures: Figures;
  skip: Skip | null;
  scale: readonly [number, number];
  /** Columns that are drawn. */
  from: number;
  to: number;
}

/** One table with its margins, which stay in sight while it is scrolled. */
export function Grid({
  table,
  at,
  go,
  lines,
  ...shared
}: Shared & {
  table: TableTold;
  /** The cell at hand, where it is in this table. */
  at: { line: number; column: number } | null;
  go: (line: number, column: number) => void;
  /** Lines that are drawn. */
  lines: readonly [number, number];
}) {
  const { told, figures, from, to } = shared;
  const across = told.across?.codes ?? null;
  const columns = across?.length ?? 1;
  const D = told.down.codes.length;
  /** Place of what stands at the right: all columns, or the only one. */
  const end = across ? columns : 0;
  return (
    <table
      className="crosstable"
      aria-label={told.across ? `${told.down.variable} by ${told.across.variable}` : told.down.variable}
    >
      <thead>
        <tr>
          <th scope="col" className="corner">
            <span className="code">{told.down.variable}</span>
            {across && (
              <>
                {' '}
                <span className="soft">by</span> <span className="code">{told.across?.variable}</span>
              </>
            )}
            <FigureNames figures={figures} measured={table.measure !== undefined} />
          </th>
          {across?.slice(from, to).map((code) => (
            <th
              scope="col"
              key={code.code}
              title={codeSays(code, told.across ?? {})}
              className={code.state === 'valid' ? '' : 'stateless'}
            >
              <span>{codeSays(code, told.across ?? {})}</span>
            </th>
          ))}
          <th scope="col" className="all">
            {across ? 'All' : 'Rows'}
          </th>
        </tr>
      </thead>
      <tbody>
        {told.down.codes.slice(lines[0], lines[1]).map((code, i) => {
          const line = lines[0] + i;
          return (
            <Line
              key={code.code}
              {...shared}
              line={line}
              code={code}
              within={table.within}
              cells={table.cells.slice(line * columns + from, line * columns + Math.min(to, columns))}
              margin={table.down[line]}
              at={at?.line === line ? at.column : -1}
              go={go}
            />
          );
        })}
        <tr className="all">
          <th scope="row">All</th>
          {table.across?.slice(from, to).map((margin, i) => (
            <td
              key={margin.code}
              className={at && at.line === D && at.column === from + i ? 'at' : undefined}
              onClick={() => go(D, from + i)}
            >
              <Told texts={figures.shows.map((what) => marginFigure(margin, what, 'across'))} />
              <MeasureTold measure={margin.measure} figures={figures} scale={shared.scale} />
            </td>
          ))}
          <td
            className={`all${at && at.line === D && at.column === end ? ' at' : ''}`}
            onClick={() => go(D, end)}
          >
            <Told texts={figures.shows.map((what) => totalFigure(table, what))} />
            <MeasureTold measure={table.measure} figures={figures} scale={shared.scale} />
          </td>
        </tr>
      </tbody>
    </table>
  );
}

/** What stands in a cell, from top to bottom. */
function FigureNames({ figures, measured }: { figures: Figures; measured: boolean }) {
  const names = [
    ...figures.shows.map((one) => FIGURE_NAMES[one]),
    ...(measured ? figures.measured.map((one) => MEASURE_NAMES[one]) : []),
  ];
  return <span className="soft legend-of">{names.join(' / ')}</span>;
}

interface LineProps extends Shared {
  line: number;
  code: CrossDocument['down']['codes'][number];
  within: string | null;
  cells: readonly Cell[];
  margin: TableTold['down'][number];
  /** Place of the column at hand; −1 for none. */
  at: number;
  go: (line: number, column: number) => void;
}

const Line = memo(function Line({
  told,
  figures,
  skip,
  scale,
  from,
  line,
  code,
  within,
  cells,
  margin,
  at,
  go,
}: LineProps) {
  const columns = told.across?.codes.length ?? 0;
  return (
    <tr className={code.state === 'valid' ? undefined : 'stateless'}>
      <th scope="row" title={codeSays(code, told.down)}>
        <span>{codeSays(code, told.down)}</span>
      </th>
      {told.across &&
        cells.map((cell, i) => (
          <CellTold
            key={cell.across}
            cell={cell}
            figures={figures}
            scale={scale}
            skip={skip !== null}
            empty={shouldBeEmpty(told, skip, { down: code.code, across: cell.across, within })}
            at={at === from + i}
            go={() => go(line, from + i)}
          />
        ))}
      <td className={`all${at === columns ? ' at' : ''}`} onClick={() => go(line, columns)}>
        <Told texts={figures.shows.map((what) => marginFigure(margin, what, 'down'))} />
        <MeasureTold measure={margin.measure} figures={figures} scale={scale} />
      </td>
    </tr>
  );
}, sameLine);

/** Lines whose cells are the same ones need not be drawn again, though they were cut out anew. */
function sameLine(a: LineProps, b: LineProps): boolean {
  return (
    a.told === b.told &&
    a.figures === b.figures &&
    a.skip === b.skip &&
    a.scale[0] === b.scale[0] &&
    a.scale[1] === b.scale[1] &&
    a.from === b.from &&
    a.to === b.to &&
    a.line === b.line &&
    a.margin === b.margin &&
    a.at === b.at
  );
}

function CellTold({
  cell,
  figures,
  scale,
  skip,
  empty,
  at,
  go,
}: {
  cell: Cell;
  skip: boolean;
  figures: Figures;
  scale: readonly [number, number];
  /** Whether no row should be in it. */
  empty: boolean;
  at: boolean;
  go: () => void;
}) {
  // Where it is asked whether a skip holds nothing else is marked.
  const out = skip ? '' : standsOut(cell.adjustedResidual);
  const breach = empty && cell.rows > 0;
  const step = FAR.filter((far) => Math.abs(cell.adjustedResidual ?? 0) >= far).length;
  const share =
    figures.shows.includes('ofColumn') && !figures.shows.includes('ofRow')
      ? cell.shareOfColumn
      : cell.shareOfRow;
  const classes = [
    cell.small && 'few',
    cell.rows === 0 && 'none',
    out && 'out',
    empty && 'shut',
    breach && 'breach',
    at && 'at',
  ].filter(Boolean);
  return (
    <td
      className={classes.join(' ') || undefined}
      style={{ '--share': share ?? 0 } as CSSProperties}
      onClick={go}
      title={cell.small ? 'few rows: too small to be read as a finding' : undefined}
    >
      {breach && <span className="breachmark">should be none</span>}
      <Told texts={figures.shows.map((what) => cellFigure(cell, what))} />
      <MeasureTold measure={cell.measure} figures={figures} scale={scale} />
      {out && (
        <span className={`stake ${(cell.adjustedResidual ?? 0) > 0 ? 'more' : 'fewer'} by${step}`}>
          {signed(cell.adjustedResidual ?? 0)}
        </span>
      )}
    </td>
  );
}

const Told = ({ texts }: { texts: readonly string[] }) => (
  <>
    {texts.map((text, i) => (
      <span key={i} className={i === 0 ? 'figure' : 'figure soft'}>
        {text}
      </span>
    ))}
  </>
);

function MeasureTold({
  measure,
  figures,
  scale,
}: {
  measure: Measured | undefined;
  figures: Figures;
  scale: readonly [number, number];
}) {
  if (!measure) return null;
  const five = fiveOf(measure);
  return (
    <>
      {five ? <Box five={five} scale={scale} small /> : <span className="nobox" />}
      {figures.measured.map((what) => (
        <span key={what} className="figure soft" title={MEASURE_NAMES[what]}>
          {measureFigure(measure, what)}
        </span>
      ))}
    </>
  );
}
