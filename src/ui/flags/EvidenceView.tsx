'use client';

import { counted, percent, whole } from '../../core/handoff/words';
import type { Evidence, EvidenceBar } from '../../core/inspect/evidence';
import type { Flag } from '../../core/flags/rule';
import { useAnswer } from '../asking/useAnswer';
import { useSession } from '../../store/session';

/** What a flag rests on; asked for anew after each ruling. */
export const useEvidence = (flag: Flag, wanted: boolean): Evidence | null =>
  useAnswer('evidence', wanted ? [flag] : null).value;

/** The distribution with the suspects marked, their neighbours, the codebook's entry, the siblings, the waves, the rows. */
export function EvidenceView({ evidence }: { evidence: Evidence }) {
  const { bars, base, near, codebook, gates, siblings, family, waves, rows, variable } = evidence;
  const least =
    waves.length > 0 &&
    waves.some(({ holding }) => holding === 0) &&
    waves.some(({ holding }) => holding > 0);
  return (
    <div className="evidence">
      {bars.length > 1 && <Strip bars={bars} name={variable} base={base} />}
      {near.length > 0 && (
        <table className="grounds near">
          <caption>The codes beside it, of {counted(base, 'valid row')}</caption>
          <tbody>
            {near.map(({ code, label, count, suspect }) => (
              <tr key={code} className={suspect ? 'suspect' : ''}>
                <td>
                  {suspect && <span className="visually-hidden">flagged: </span>}
                  <span className="code">{code === '' ? 'blank' : code}</span> {label}
                </td>
                <td className="n">{whole(count)}</td>
                <td className="n soft">{percent(count / Math.max(1, base))}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <ul className="says">
        {codebook.map((says) => (
          <li key={says}>{says}</li>
        ))}
        {gates.map((says) => (
          <li key={says} className="telling">
            {says}
          </li>
        ))}
        {family > 0 && near.length > 0 && (
          <li>
            {siblings.length ? (
              <>
                Siblings that hold it too:{' '}
                {siblings.map(({ name, label, rows: holding }, i) => (
                  <span key={name}>
                    {i > 0 && ', '}
                    <span className="code" title={label ?? undefined}>
                      {name}
                    </span>{' '}
                    {counted(holding, 'row')}
                  </span>
                ))}
                .
              </>
            ) : (
              `None of its ${whole(family)} siblings holds it.`
            )}
          </li>
        )}
        {waves.length > 0 && (
          <li className={least ? 'telling' : ''}>
            By wave:{' '}
            {waves
              .map(({ wave, holding, rows: all }) => `${wave} ${whole(holding)} of ${whole(all)}`)
              .join(', ')}
            .
          </li>
        )}
      </ul>
      {rows.length > 0 && (
        <table className="grounds rowsheld">
          <caption>Rows; each opens its record card</caption>
          <thead>
            <tr>
              <th scope="col">Row</th>
              {rows[0].cells.map(({ name }) => (
                <th scope="col" key={name} className="code">
                  {name}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map(({ row, cells }) => (
              <tr key={row}>
                <td>
                  <button
                    type="button"
                    className="btn-bare"
                    onClick={() =>
                      useSession.setState({ record: row, ...(variable ? { current: variable } : {}) })
                    }
                    aria-label={`Record card of row ${whole(row + 1)}`}
                  >
                    {whole(row + 1)}
                  </button>
                </td>
                {cells.map(({ name, text, label }) => (
                  <td key={name}>
                    {text.trim() === '' ? (
                      <span className="soft">blank</span>
                    ) : (
                      <>
                        <span className="code">{text.length > 24 ? `${text.slice(0, 23)}…` : text}</span>{' '}
                        {label}
                      </>
                    )}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </div>
  );
}

const WIDTH = 420;
const HEIGHT = 54;
const GAP = 10;

/** Bars side by side; the suspects have a mark under them besides their tone, and a gap in the values is a gap in the row of bars. */
function Strip({ bars, name, base }: { bars: readonly EvidenceBar[]; name: string; base: number }) {
  const gaps = bars.filter(({ apart }) => apart).length;
  const step = (WIDTH - gaps * GAP) / bars.length;
  const most = Math.max(1, ...bars.map(({ count }) => count));
  let x = 0;
  const placed = bars.map((bar) => {
    if (bar.apart) x += GAP;
    const at = x;
    x += step;
    return { ...bar, at, height: bar.count > 0 ? Math.max(2, (HEIGHT * bar.count) / most) : 0 };
  });
  const suspects = placed.filter(({ suspect }) => suspect);
  const says = `Distribution of ${name}, ${counted(base, 'valid row')}; marked: ${suspects.map((bar) => `${bar.name}, ${counted(bar.count, 'row')}`).join('; ') || 'none'}`;
  return (
    <svg className="strip" role="img" aria-label={says} viewBox={`0 0 ${WIDTH} ${HEIGHT + 22}`}>
      {placed.map(({ name: bar, count, suspect, at, height, apart }, i) => (
        <g key={i} className={suspect ? 'suspect' : ''}>
          <title>{`${bar}: ${counted(count, 'row')}`}</title>
          <rect x={at} y={HEIGHT - height} width={Math.max(1.5, step - 1)} height={height} />
          {suspect && <path d={`M${at + step / 2 - 4} ${HEIGHT + 8} l4 -6 l4 6 z`} />}
          {apart && <path className="break" d={`M${at - GAP + 2} ${HEIGHT + 3} l3 -6 m1 6 l3 -6`} />}
        </g>
      ))}
      <line x1={0} x2={WIDTH} y1={HEIGHT + 0.5} y2={HEIGHT + 0.5} />
      <text x={0} y={HEIGHT + 20}>
        {clip(bars[0].name)}
      </text>
      <text x={WIDTH} y={HEIGHT + 20} textAnchor="end">
        {clip(bars[bars.length - 1].name)}
      </text>
    </svg>
  );
}

const clip = (text: string): string => (text.length > 26 ? `${text.slice(0, 25)}…` : text);
