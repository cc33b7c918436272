'use client';

import { useCallback, useEffect, useRef, useState } from 'react';
import { codeSays, figuresShown, leftOutSays } from '../../core/handoff/cell-figures';
import { counted, whole } from '../../core/handoff/words';
import type { CrossDocument } from '../../core/inspect/cross-document';
import { changeCross, showSkip, tableAsked } from '../../store/cross';
import { useSession, useParts } from '../../store/session';
import { ProblemText } from '../asking/ProblemText';
import { useAnswer } from '../asking/useAnswer';
import { fiveOf, scaleOf } from '../drawn/Box';
import { Problem } from '../frame/Problem';
import { Quiet } from '../frame/Quiet';
import { CellSays } from './CellSays';
import { cellAt, remarkable } from './cellsAt';
import { CrossAside } from './CrossAside';
import { CrossBar } from './CrossBar';
import { EverythingList } from './EverythingList';
import { Grid } from './Grid';
import { copyShown } from './saveTable';
import { askSide, Sides } from './Sides';
import { useCrossKeys } from './useCrossKeys';

/** One variable against another, within the levels of a third. */
export function Cross() {
  const crossing = useSession((session) => session.crossing);
  return (
    <div className="cross">
      <div className="crossside-by">
        <Problem />
        {crossing.view === 'everything' ? <EverythingList /> : <Tables />}
      </div>
      <CrossAside />
    </div>
  );
}

function Tables() {
  const crossing = useSession((session) => session.crossing);
  const room = useRef<HTMLDivElement>(null);
  const [said, say] = useState('');
  const asked = tableAsked(crossing);
  // How figures are shown changes no number.
  const { value: told, problem } = useAnswer(
    'cross',
    asked && [{ ...asked, shows: [], measured: [], blank: false }],
  );
  const copy = useCallback((): void => void copyShown().then(say), []);
  const onKey = useCrossKeys(told, copy);
  useEffect(() => room.current?.focus(), []);
  useEffect(() => say(''), [told, crossing.at]);
  return (
    <div className="crosstables" onKeyDown={onKey}>
      <Sides />
      <CrossBar copy={copy} weighted={told?.weight !== null && told !== null} />
      {crossing.skip && <SkipSays told={told} />}
      <div className="crossroom" ref={room} tabIndex={0} role="region" aria-label="Tables">
        {crossing.down === null ? (
          <Nothing />
        ) : problem ? (
          <ProblemText problem={problem} />
        ) : told ? (
          <Drawn told={told} />
        ) : (
          <p className="soft p-3">Counting…</p>
        )}
      </div>
      {told && <CellSays told={told} at={crossing.at} skip={crossing.skip} said={said} />}
    </div>
  );
}

function Nothing() {
  return (
    <div className="p-3 nothingyet">
      <p>
        Hold one variable against another: does the skip hold, are the blanks where they should be, does a
        code mean the same in every wave?
      </p>
      <p className="doings">
        <Quiet does={() => askSide('down')} shownKey="d">
          Choose what stands down…
        </Quiet>
        <Quiet does={() => askSide('everything')} shownKey="e">
          One against everything…
        </Quiet>
      </p>
      <p className="soft">
        In the ledger two variables that are chosen are held against each other with <kbd>v</kbd>; in a
        profile <kbd>v</kbd> asks against what.
      </p>
    </div>
  );
}

/** So many lines and columns are drawn at once. */
const MOST_LINES = 150;
const MOST_COLUMNS = 80;

function Drawn({ told }: { told: CrossDocument }) {
  const { crossing } = useParts('crossing');
  const { at, shows, measured, skip } = crossing;
  const figures = useStable({ shows: figuresShown(shows, told.across !== null), measured });
  const scale = scaleOf(
    told.tables.flatMap(({ cells, measure }) => [
      ...cells.map((cell) => fiveOf(cell.measure)),
      fiveOf(measure),
    ]),
  );
  const columns = told.across?.codes.length ?? 1;
  const lines = told.down.codes.length;
  const firstLine = Math.floor(Math.min(at?.line ?? 0, Math.max(0, lines - 1)) / MOST_LINES) * MOST_LINES;
  const firstColumn =
    Math.floor(Math.min(at?.column ?? 0, Math.max(0, columns - 1)) / MOST_COLUMNS) * MOST_COLUMNS;
  const go = useGo();
  return (
    <>
      <div className={`crossgrids${told.tables.length > 1 ? ' several' : ''}`}>
        {told.tables.map((table, t) => (
          <section key={table.within ?? '\u0000'} className={table.within === null ? 'whole' : undefined}>
            {told.within && (
              <h3>
                {table.within === null
                  ? `All of ${told.within.variable} together`
                  : codeSays(told.within.codes[t], told.within)}{' '}
                <span className="soft">{counted(table.rows, 'row')}</span>
              </h3>
            )}
            <Grid
              told={told}
              table={table}
              figures={figures}
              skip={skip}
              scale={scale}
              from={firstColumn}
              to={Math.min(columns, firstColumn + MOST_COLUMNS)}
              lines={[firstLine, Math.min(lines, firstLine + MOST_LINES)]}
              at={at?.table === t ? at : null}
              go={go[t] ?? (() => undefined)}
            />
            <p className="soft small mb-0">
              {table.cramersV !== null && (
                <>
                  Cramér’s V <strong>{table.cramersV.toFixed(2)}</strong>, χ²{' '}
                  {(table.chiSquare ?? 0).toFixed(1)} with {whole(table.degreesOfFreedom ?? 0)} degrees of
                  freedom.{' '}
                </>
              )}
            </p>
          </section>
        ))}
      </div>
      <Based told={told} />
      {(lines > MOST_LINES || columns > MOST_COLUMNS) && (
        <p className="soft small px-3">
          Drawn are lines {whole(firstLine + 1)} to {whole(Math.min(lines, firstLine + MOST_LINES))} of{' '}
          {whole(lines)}
          {columns > MOST_COLUMNS &&
            ` and columns ${whole(firstColumn + 1)} to ${whole(Math.min(columns, firstColumn + MOST_COLUMNS))} of ${whole(columns)}`}
          ; arrows go on beyond them, and a saved table has all.
        </p>
      )}
    </>
  );
}

/** What all figures are of, and what was left out. */
function Based({ told }: { told: CrossDocument }) {
  const { base, down, across, within, weight, rows } = told;
  const left = leftOutSays(told);
  const bins = [down, across, within].flatMap((side) =>
    side?.bins ? [{ variable: side.variable, ...side.bins }] : [],
  );
  return (
    <div className="px-3 pb-2 based">
      <p className="mb-0">
        <strong>{whole(base.rows)}</strong> of {counted(rows.kept, 'row')}
        {left.length > 0 && ` (left out: ${left.join(', ')})`}
        {weight === null
          ? ', unweighted.'
          : `; shares are weighted by ${weight}, whose sum is ${whole(base.weighted)}.`}
      </p>
      {bins.map(({ variable, size, start }) => (
        <p key={variable} className="mb-0">
          <span className="code">{variable}</span> stands in bins of{' '}
          <input
            type="number"
            step="any"
            min={0}
            className="form-control form-control-sm binsize"
            aria-label={`Width of the bins of ${variable}`}
            defaultValue={size}
            key={size}
            onKeyDown={(event) => {
              if (event.key === 'Enter') event.currentTarget.blur();
            }}
            onBlur={(event) => setBins(variable, Number(event.target.value), size, start)}
          />{' '}
          for this table alone; <kbd>b</kbd> makes bands of it that stay.
        </p>
      ))}
    </div>
  );
}

function setBins(variable: string, wanted: number, size: number, start: number): void {
  if (!(wanted > 0) || wanted === size) return;
  const { bins } = useSession.getState().crossing;
  const from = Number((Math.floor(start / wanted) * wanted).toPrecision(12));
  changeCross({ bins: { ...bins, [variable]: { size: wanted, start: from } }, at: null });
}

function SkipSays({ told }: { told: CrossDocument | null }) {
  const skip = useSession((session) => session.crossing.skip);
  if (!skip) return null;
  const breaches = told ? remarkable(told, skip) : [];
  const rows = breaches.reduce((sum, at) => sum + (told ? (cellAt(told, at)?.rows ?? 0) : 0), 0);
  return (
    <p className="skipsays" role="status">
      Does the skip hold? <span className="code">{skip.gated}</span>{' '}
      {skip.accepted ? 'is taken for' : 'is by its blanks'} <strong>{skip.says}</strong>
      {skip.documented && <>; the codebook says: “{skip.documented}”</>}.{' '}
      {skip.more.length > 0 && `Not shown: ${skip.more.join(', ')}. `}
      {breaches.length === 0 ? (
        told && <strong>It holds: no row is in a hatched cell.</strong>
      ) : (
        <>
          <strong>
            {counted(rows, 'row')} in {counted(breaches.length, 'cell')} should be in none
          </strong>
          : <kbd>n</kbd> goes to them.
        </>
      )}{' '}
      <button type="button" className="btn-bare" onClick={() => void showSkip(skip.gated)}>
        Look anew
      </button>
    </p>
  );
}

/** The same object as long as what it holds is the same. */
function useStable<T>(value: T): T {
  const kept = useRef(value);
  if (JSON.stringify(kept.current) !== JSON.stringify(value)) kept.current = value;
  return kept.current;
}

/** For each table who puts the cell at hand somewhere; the same as long as the station is shown. */
function useGo(): ((line: number, column: number) => void)[] {
  const made = useRef<((line: number, column: number) => void)[]>([]);
  const tables = 200;
  if (made.current.length === 0)
    made.current = Array.from(
      { length: tables },
      (_, table) => (line: number, column: number) => changeCross({ at: { table, line, column } }),
    );
  return made.current;
}
