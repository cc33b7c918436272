'use client';

import { useSyncExternalStore } from 'react';
import { counted, figure, percent, whole } from '../../core/handoff/words';
import type { Extreme, Profile } from '../../core/inspect/profile';
import type { Weighted } from '../../core/inspect/weighted';
import { useSession } from '../../store/session';
import { Box } from '../drawn/Box';
import { Stem } from '../drawn/Stem';

const DIGITS_KEY = 'dig-first-digits';
/** Characters of a figure's name and value that fit side by side in half a pane. */
const LONGEST = 22;
const USUAL_DIGITS = 6;
const listeners = new Set<() => void>();
let digitsNow: number | null = null;
const readDigits = (): number => {
  if (digitsNow === null) {
    try {
      digitsNow = Number(localStorage.getItem(DIGITS_KEY)) || USUAL_DIGITS;
    } catch {
      digitsNow = USUAL_DIGITS;
    }
  }
  return digitsNow;
};
function setDigits(digits: number): void {
  digitsNow = digits;
  try {
    localStorage.setItem(DIGITS_KEY, String(digits));
  } catch {
    // A browser that keeps nothing forgets this too.
  }
  for (const listen of listeners) listen();
}
/** Significant digits that figures are shown with, everywhere. */
export const useDigits = (): number =>
  useSyncExternalStore(
    (listen) => {
      listeners.add(listen);
      return () => listeners.delete(listen);
    },
    readDigits,
    () => USUAL_DIGITS,
  );

/** The statistics that suit the kind, and the extremes with the rows they stand in. */
export function Figures({ profile }: { profile: Profile }) {
  const {
    variable: { statistics: s, kind, counts, frequencies, distinctError },
    texts,
    ends,
    lowest,
    highest,
    middle,
    weighted,
    gaps,
    identity,
  } = profile;
  const digits = useDigits();
  const all: (readonly [string, number | string | null])[] = [
    [kind === 'date' ? 'Earliest' : 'Lowest', s.min],
    ['Lower quartile', s.q1],
    ['Median', kind === 'ordinal' ? medianText(s.median, frequencies, middle) : s.median],
    ['Upper quartile', s.q3],
    [kind === 'date' ? 'Latest' : 'Highest', s.max],
    ['Mean', s.mean],
    ['Standard deviation', s.sd],
    ['Variance', s.variance],
    ['Range', s.range],
    ['Skewness', s.skewness],
    ['Kurtosis (excess)', s.kurtosis],
  ];
  const shown = all.filter(([, value]) => value !== null);
  if (kind !== 'identifier' && s.mode.length)
    shown.push([
      s.mode.length > 1 ? 'Most frequent (tied)' : 'Most frequent',
      s.mode
        .slice(0, 4)
        .map((code) => withLabel(code, frequencies.find((f) => f.code === code)?.label ?? null))
        .join(', ') + (s.mode.length > 4 ? ` and ${s.mode.length - 4} more` : ''),
    ]);
  if (texts)
    shown.push(
      ['Shortest to longest', `${texts.shortest} to ${texts.longest} characters`],
      ['With blanks inside', `${whole(texts.withBlanks)} rows`],
    );
  if (kind === 'identifier')
    shown.push([
      'Unique',
      distinctError !== undefined
        ? `about ${whole(counts.distinct)} different values in ${whole(counts.valid)} rows`
        : counts.distinct === counts.valid
          ? 'yes, every value once'
          : `no, ${whole(counts.valid - counts.distinct)} rows repeat a value`,
    ]);
  if (identity) {
    shown.push([
      'Pattern of characters',
      identity.patterns
        .map(({ pattern, share }) =>
          identity.patterns.length > 1 ? `${pattern} (${percent(share)})` : pattern,
        )
        .join(', ') + (identity.more > 0 ? ` and ${identity.more} more` : ''),
    ]);
    if (identity.sequence)
      shown.push([
        'Left out of the sequence',
        identity.sequence.missing === 0
          ? 'none'
          : `${counted(identity.sequence.missing, 'number')}: ${identity.sequence.first.join(', ')}${identity.sequence.missing > identity.sequence.first.length ? ' …' : ''}`,
      ]);
  }
  if (kind === 'date' && s.min !== null)
    shown.push([
      'Gaps',
      gaps.length === 0
        ? 'none'
        : gaps
            .slice(0, MOST_GAPS)
            .map(({ from, to, periods }) => (periods === 1 ? from : `${from} to ${to}`))
            .join(', ') + (gaps.length > MOST_GAPS ? ` and ${gaps.length - MOST_GAPS} more` : ''),
    ]);
  if (ends)
    shown.push(['In the first row', ends.first || 'nothing'], ['In the last row', ends.last || 'nothing']);
  return (
    <>
      {shown.length > 0 && (
        <section aria-label="Statistics">
          <h3>
            Statistics <span className="soft">of {whole(counts.valid)} valid rows, unweighted</span>
            {s.mean !== null && (
              <label className="small soft digits">
                {' '}
                digits{' '}
                <input
                  type="number"
                  min={2}
                  max={15}
                  value={digits}
                  aria-label="Significant digits of all figures"
                  onChange={(event) =>
                    setDigits(Math.min(15, Math.max(2, Number(event.target.value) || USUAL_DIGITS)))
                  }
                />
              </label>
            )}
          </h3>
          {weighted?.statistics && (
            <WeightedFigures weighted={weighted} statistics={weighted.statistics} digits={digits} />
          )}
          <dl className="figures">
            {shown.map(([name, value]) => {
              const text = figure(value, digits);
              return (
                <div key={name} className={name.length + text.length > LONGEST ? 'long' : undefined}>
                  <dt>{name}</dt>
                  {/* A number is never broken; words may be. */}
                  <dd className={typeof value === 'number' ? 'number' : undefined}>{text}</dd>
                </div>
              );
            })}
          </dl>
          {s.min !== null &&
            typeof s.min === 'number' &&
            typeof s.max === 'number' &&
            s.q1 !== null &&
            s.median !== null &&
            s.q3 !== null &&
            s.max > s.min && <Box five={{ min: s.min, max: s.max, q1: s.q1, median: s.median, q3: s.q3 }} />}
        </section>
      )}
      {lowest.length > 0 && (
        <section aria-label="Extremes" className="extremes">
          <Edge title="Lowest values" values={lowest} />
          <Edge title="Highest values" values={highest} />
        </section>
      )}
      {profile.stem && <Stem stem={profile.stem} />}
    </>
  );
}

/** The median of ordered categories with its label, where it is one of them. */
function medianText(
  median: number | null,
  frequencies: Profile['variable']['frequencies'],
  middle: string | null,
): string | null {
  if (median === null) return middle;
  const found = frequencies.find(({ code, missing }) => !missing && Number(code) === median);
  return found ? withLabel(found.code, found.label) : figure(median, 6);
}

const MOST_GAPS = 4;
function WeightedFigures({
  weighted,
  statistics,
  digits,
}: {
  weighted: Weighted;
  statistics: NonNullable<Weighted['statistics']>;
  digits: number;
}) {
  const all = [
    ['Mean', statistics.mean],
    ['Standard deviation', statistics.sd],
    ['Lower quartile', statistics.q1],
    ['Median', statistics.median],
    ['Upper quartile', statistics.q3],
  ] as const;
  return (
    <p className="small mb-1" aria-label="Weighted statistics">
      Weighted by <span className="code">{weighted.weight}</span>:{' '}
      {all
        .filter(([, value]) => value !== null)
        .map(([name, value], i) => (
          <span key={name}>
            {i > 0 && ', '}
            {name.toLowerCase()} <strong>{figure(value, digits)}</strong>
          </span>
        ))}{' '}
      <span className="soft">of {whole(weighted.rows)} valid rows with a weight</span>
    </p>
  );
}

const withLabel = (code: string, label: string | null): string =>
  label === null ? code : `${code}  ${label}`;

function Edge({ title, values }: { title: string; values: Extreme[] }) {
  return (
    <table className="grounds">
      <thead>
        <tr>
          <th scope="col">{title}</th>
          <th scope="col" className="n">
            Rows
          </th>
          <th scope="col">Standing in row</th>
        </tr>
      </thead>
      <tbody>
        {values.map(({ code, label, count, rows }) => (
          <tr key={code}>
            <td className="code">{withLabel(code, label)}</td>
            <td className="n">{whole(count)}</td>
            <td>
              {rows.map((row) => (
                <button
                  type="button"
                  key={row}
                  className="btn-bare"
                  title={`Open the record card of row ${whole(row)}`}
                  onClick={() => useSession.setState({ record: row - 1 })}
                >
                  {whole(row)}
                </button>
              ))}
              {count > rows.length && ' …'}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
