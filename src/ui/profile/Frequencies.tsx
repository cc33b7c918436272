'use client';

import { useState } from 'react';
import { isMeasure } from '../../core/extract/words';
import { counted, percent, whole } from '../../core/handoff/words';
import type { InspectedVariable } from '../../core/inspect/schema';
import type { Weighted } from '../../core/inspect/weighted';
import { addCondition } from '../../store/sieve';
import { Quiet } from '../frame/Quiet';
import { CopyButton } from '../drawn/CopyButton';

/** Above so many values, a measured quantity's table stays folded away until asked for. */
const MEASURE_VALUES = 25;
const FIRST = 60;
type By = 'code' | 'label' | 'count';
type Row = InspectedVariable['frequencies'][number] & { cumulative: number | null };

/** Codes and labels together, with the rows that hold them, shares of all, of those asked, of valid, and running. */
export function Frequencies({
  variable: v,
  weighted,
}: {
  variable: InspectedVariable;
  weighted: Weighted | null;
}) {
  const [asked, setAsked] = useState<string | null>(null);
  const [all, setAll] = useState<string | null>(null);
  const [ticked, setTicked] = useState<{ of: string; codes: ReadonlySet<string> }>({
    of: v.name,
    codes: NONE,
  });
  const codes = ticked.of === v.name ? ticked.codes : NONE;
  const tick = (code: string): void => {
    const next = new Set(codes);
    if (!next.delete(code)) next.add(code);
    setTicked({ of: v.name, codes: next });
  };
  const [sort, setSort] = useState<{ by: By; down: boolean }>({ by: 'code', down: false });
  if (v.frequencies.length === 0 || v.kind === 'identifier') return null;
  const folds =
    (isMeasure(v.kind) || v.kind === 'date') && v.frequencies.length > MEASURE_VALUES && asked !== v.name;
  const missing = v.frequencies.filter((f) => f.missing).map((f) => ({ ...f, cumulative: null }));
  // A running share needs an order, and every value.
  const runs = v.frequenciesComplete && (v.kind === 'ordinal' || isMeasure(v.kind) || v.kind === 'date');
  let running = 0;
  const valid: Row[] = v.frequencies
    .filter((f) => !f.missing)
    .map((f) => ({ ...f, cumulative: runs ? (running += f.count) / Math.max(1, v.counts.valid) : null }));
  const compare: Record<By, (a: Row, b: Row) => number> = {
    code: () => 0,
    label: (a, b) => (a.label ?? '\uffff').localeCompare(b.label ?? '\uffff'),
    count: (a, b) => a.count - b.count,
  };
  const sorted =
    sort.by === 'code'
      ? sort.down
        ? [...valid].reverse()
        : valid
      : [...valid].sort((a, b) => (sort.down ? -1 : 1) * compare[sort.by](a, b));
  const columns = {
    asked: v.counts.notAsked > 0,
    weighted: weighted && new Map(weighted.codes.map((one) => [one.code, one])),
    runs: runs && sort.by === 'code' && !sort.down,
  };
  const by = (wanted: By): void =>
    setSort((now) => ({ by: wanted, down: now.by === wanted ? !now.down : wanted === 'count' }));
  if (folds) {
    return (
      <section aria-label="Frequencies">
        <h3>Frequencies</h3>
        {missing.length > 0 && (
          <Table rows={[]} missing={missing} title="Codes declared missing" columns={columns} />
        )}
        <button type="button" className="btn-bare" onClick={() => setAsked(v.name)}>
          Show the table of{' '}
          {v.frequenciesComplete
            ? `all ${v.frequencies.length} values`
            : `the ${v.frequencies.length} most frequent values`}
        </button>
      </section>
    );
  }
  const shown = all === v.name ? sorted : sorted.slice(0, FIRST);
  return (
    <section aria-label="Frequencies">
      <h3>
        Frequencies{' '}
        {!v.frequenciesComplete && <span className="soft">the {v.frequencies.length} most frequent</span>}{' '}
        <CopyButton what="the frequencies" />
      </h3>
      <Table
        rows={shown}
        missing={missing}
        title={`Frequencies of ${v.name}`}
        columns={columns}
        sort={sort}
        by={by}
        labels={v.frequencies.some(({ label }) => label !== null)}
        ticked={codes}
        tick={tick}
        population={weighted?.grosses ?? false}
      />
      {codes.size > 0 && (
        <p className="doings" role="status">
          {counted(codes.size, 'code')} ticked:{' '}
          <Quiet
            does={() => (
              addCondition({ variable: v.name, codes: [...codes] }),
              setTicked({ of: v.name, codes: NONE })
            )}
          >
            Keep only these rows
          </Quiet>
          <Quiet
            does={() => (
              addCondition({ not: { variable: v.name, codes: [...codes] } }),
              setTicked({ of: v.name, codes: NONE })
            )}
          >
            Drop them
          </Quiet>
        </p>
      )}
      {weighted && (
        <p className="small soft mb-0">
          Weighted by <span className="code">{weighted.weight}</span>: the valid rows come to{' '}
          {whole(weighted.valid)}
          {weighted.grosses && ', an estimate of the population'}
          {weighted.without > 0 && `; ${counted(weighted.without, 'row')} without a weight left out of it`}.
        </p>
      )}
      {shown.length < sorted.length && (
        <button type="button" className="btn-bare" onClick={() => setAll(v.name)}>
          Show all {v.frequencies.length}
        </button>
      )}
    </section>
  );
}

const NONE: ReadonlySet<string> = new Set();

interface TableProps {
  /** Whether weighted sums are figures of the population. */
  population?: boolean;
  ticked?: ReadonlySet<string>;
  tick?: (code: string) => void;
  rows: Row[];
  missing: Row[];
  title: string;
  columns: { asked: boolean; runs: boolean; weighted: ReadonlyMap<string, Weighted['codes'][number]> | null };
  sort?: { by: By; down: boolean };
  by?: (by: By) => void;
  labels?: boolean;
}

function Table({
  population = false,
  rows,
  missing,
  title,
  columns,
  sort,
  by,
  labels = false,
  ticked = NONE,
  tick,
}: TableProps) {
  const head = (key: By, name: string) =>
    by ? (
      <button type="button" className="sorter" onClick={() => by(key)} title={`Sort by ${key}`}>
        {name}
        {sort?.by === key && (sort.down ? ' ↓' : ' ↑')}
      </button>
    ) : (
      name
    );
  const order = (key: By): 'ascending' | 'descending' | undefined =>
    sort?.by === key ? (sort.down ? 'descending' : 'ascending') : undefined;
  const line = (f: Row) => (
    <tr key={f.code} className={f.missing ? 'missing' : undefined}>
      <td>
        {tick && (
          <input
            type="checkbox"
            className="tick"
            checked={ticked.has(f.code)}
            onChange={() => tick(f.code)}
            aria-label={`Tick ${f.code}${f.label ? ` ${f.label}` : ''} for the sieve`}
          />
        )}
        <span className="code">{f.code}</span> {f.label}
        {f.missing && <span className="soft"> (missing)</span>}
        {f.spellings && <span className="soft"> also written {f.spellings.slice(1, 4).join(', ')}</span>}
      </td>
      <td className="n">{whole(f.count)}</td>
      <td className="n">{percent(f.shareOfAll)}</td>
      {columns.asked && <td className="n">{percent(f.shareOfAsked) || '–'}</td>}
      <td className="n">{percent(f.shareOfValid) || '–'}</td>
      {columns.runs && <td className="n">{percent(f.cumulative) || '–'}</td>}
      {columns.weighted && (
        <>
          <td className="n weighted">{whole(columns.weighted.get(f.code)?.sum ?? 0)}</td>
          <td className="n weighted">{percent(columns.weighted.get(f.code)?.shareOfValid ?? null) || '–'}</td>
        </>
      )}
    </tr>
  );
  return (
    <table className="grounds freq" aria-label={title}>
      <thead>
        <tr>
          <th scope="col" aria-sort={order('code') ?? order('label')}>
            {head('code', 'Code')}
            {labels ? <> {head('label', 'and label')}</> : by ? '' : ' and label'}
          </th>
          <th scope="col" className="n" aria-sort={order('count')}>
            {head('count', 'Rows')}
          </th>
          <th scope="col" className="n">
            of all
          </th>
          {columns.asked && (
            <th scope="col" className="n">
              of asked
            </th>
          )}
          <th scope="col" className="n">
            of valid
          </th>
          {columns.runs && (
            <th scope="col" className="n">
              running
            </th>
          )}
          {columns.weighted && (
            <>
              <th scope="col" className="n">
                {population ? 'population' : 'weighted'}
              </th>
              <th scope="col" className="n">
                of valid, weighted
              </th>
            </>
          )}
        </tr>
      </thead>
      <tbody>{rows.map(line)}</tbody>
      {missing.length > 0 && <tbody className="apart">{missing.map(line)}</tbody>}
    </table>
  );
}
