'use client';

import Form from 'react-bootstrap/Form';
import { percent, whole } from '../../core/handoff/words';
import type { RecodePreview } from '../../core/inspect/recoding';
import type { TypedBand } from './recodeForm';

/** The bands with their ends, codes and labels, typed; and what each holds. */
export function BandTable({
  bands,
  preview,
  valid,
  change,
  split,
  merge,
}: {
  bands: readonly TypedBand[];
  preview: RecodePreview | null;
  /** Rows with a valid answer. */
  valid: number;
  change: (bands: readonly TypedBand[]) => void;
  split: (place: number) => void;
  merge: (place: number) => void;
}) {
  const set = (place: number, part: Partial<TypedBand>): void =>
    change(bands.map((band, i) => (i === place ? { ...band, ...part } : band)));
  const field = (place: number, part: keyof TypedBand, placeholder = ''): React.ReactElement => (
    <Form.Control
      size="sm"
      value={bands[place][part]}
      placeholder={placeholder}
      autoComplete="off"
      spellCheck={part === 'label'}
      className={part === 'label' ? undefined : 'code'}
      aria-label={`${NAMES[part]} of band ${place + 1}`}
      onChange={(event) => set(place, { [part]: event.target.value })}
    />
  );
  return (
    <table className="grounds bandtable" aria-label="Bands">
      <thead>
        <tr>
          <th scope="col">From</th>
          <th scope="col">To</th>
          <th scope="col">Code</th>
          <th scope="col">Label</th>
          <th scope="col" className="n">
            Rows
          </th>
          <th scope="col" className="n">
            of valid
          </th>
          <th>
            <span className="visually-hidden">Split, merge</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {bands.map(({ code }, i) => {
          const held = preview?.codes.find((one) => one.code === code.trim());
          return (
            <tr key={i}>
              <td>{field(i, 'from', 'lowest')}</td>
              <td>{field(i, 'to', 'highest')}</td>
              <td className="coded">{field(i, 'code')}</td>
              <td className="labelled">{field(i, 'label')}</td>
              <td className="n">{held ? whole(held.rows) : '–'}</td>
              <td className="n">{held && valid ? percent(held.rows / valid) : '–'}</td>
              <td className="doings">
                <button
                  type="button"
                  className="btn-bare"
                  onClick={() => split(i)}
                  aria-label={`Split band ${i + 1}`}
                >
                  split
                </button>
                {i + 1 < bands.length && (
                  <button
                    type="button"
                    className="btn-bare"
                    onClick={() => merge(i)}
                    aria-label={`Merge band ${i + 1} with the next`}
                  >
                    merge ↓
                  </button>
                )}
                <button
                  type="button"
                  className="btn-bare clear"
                  onClick={() => change(bands.filter((_, other) => other !== i))}
                  aria-label={`Remove band ${i + 1}`}
                >
                  ×
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const NAMES: Record<keyof TypedBand, string> = { from: 'From', to: 'To', code: 'Code', label: 'Label' };
