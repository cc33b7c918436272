'use client';

import Form from 'react-bootstrap/Form';
import { FORMS, type Form as FileForm } from '../../core/extract/extract';
import { counted, whole } from '../../core/handoff/words';
import { delimiterName, USUAL_DELIMITERS } from '../../core/read/dialect';
import { ENCODINGS } from '../../core/read/encoding';
import type { Look, Reading } from '../../core/read/look';
import { FORM_NAMES } from './readAs';
import type { FoundData } from './useWaiting';

type Change = (part: Partial<Reading>) => void;

/** One data file before it is read: what it is taken for, why, and its first and last rows. */
export function FileCard({
  one,
  others,
  together,
  setTogether,
  change,
}: {
  one: FoundData;
  others: number;
  together: boolean;
  setTogether: (together: boolean) => void;
  change: Change;
}) {
  const { look } = one;
  return (
    <article className="filecard" aria-label={`How ${look.name} is read`}>
      <header>
        <strong className="code">{look.name}</strong>
        <span className="soft">
          {counted(look.names.length, 'column')}
          {look.all !== null && `, ${counted(look.all, 'row')}`}
        </span>
        {others > 0 && (
          <Form.Check
            type="checkbox"
            id={`together ${one.key}`}
            className="ms-auto"
            label={`What is changed here holds for the other ${others === 1 ? 'file' : `${others} files`} of this form too`}
            checked={together}
            onChange={(event) => setTogether(event.target.checked)}
          />
        )}
      </header>
      <Guesses look={look} change={change} />
      <Preview look={look} columns={one.cells.columns} />
    </article>
  );
}

function Guesses({ look, change }: { look: Look; change: Change }) {
  const { reading, because } = look;
  const { form } = reading;
  const text = form === 'delimited' || form === 'fixed-width';
  const group = (part: keyof Reading, title: string, control: React.ReactNode) => (
    <Form.Group controlId={`${part} ${look.name}`}>
      <Form.Label>{title}</Form.Label>
      {control}
      {because[part] && <Form.Text>{because[part]}</Form.Text>}
    </Form.Group>
  );
  return (
    <div className="guesses">
      {/* What the bytes themselves decide is not asked. */}
      {text || form === 'json'
        ? group(
            'form',
            'Form',
            <Form.Select
              size="sm"
              value={form}
              onChange={(event) => change({ form: FORMS.find((known) => known === event.target.value) })}
            >
              {FORMS.filter(
                (known): known is FileForm =>
                  known === form || known === 'delimited' || known === 'fixed-width',
              ).map((known) => (
                <option key={known} value={known}>
                  {FORM_NAMES[known]}
                </option>
              ))}
            </Form.Select>,
          )
        : group('form', 'Form', <div>{FORM_NAMES[form]}</div>)}
      {form === 'delimited' &&
        group(
          'delimiter',
          'Delimiter',
          <Form.Select
            size="sm"
            value={reading.delimiter}
            onChange={(event) => change({ delimiter: event.target.value })}
          >
            {[...new Set<string>([...USUAL_DELIMITERS, reading.delimiter])].map((sign) => (
              <option key={sign} value={sign}>
                {delimiterName(sign)}
              </option>
            ))}
          </Form.Select>,
        )}
      {form === 'delimited' &&
        group(
          'quote',
          'Quotes',
          <Form.Select
            size="sm"
            value={reading.quote}
            onChange={(event) => change({ quote: event.target.value })}
          >
            <option value={'"'}>quotation marks "</option>
            <option value="'">apostrophes '</option>
            <option value="">none, marks belong to the text</option>
          </Form.Select>,
        )}
      {form === 'workbook' &&
        group(
          'sheet',
          'Sheet',
          <Form.Select
            size="sm"
            value={reading.sheet ?? ''}
            onChange={(event) => change({ sheet: event.target.value })}
          >
            {look.sheets.map(({ name, rows }) => (
              <option key={name} value={name}>
                {name} ({counted(rows, 'row')})
              </option>
            ))}
          </Form.Select>,
        )}
      {(form === 'delimited' || form === 'workbook') &&
        group(
          'header',
          'First row',
          <Form.Select
            size="sm"
            value={reading.header ? 'names' : 'data'}
            onChange={(event) => change({ header: event.target.value === 'names' })}
          >
            <option value="names">names the columns</option>
            <option value="data">is data</option>
          </Form.Select>,
        )}
      {(form === 'delimited' || form === 'workbook') &&
        group(
          'titles',
          'Title rows above',
          <Form.Control
            size="sm"
            type="number"
            min={0}
            max={50}
            value={reading.titles}
            onChange={(event) => change({ titles: Math.max(0, Math.floor(Number(event.target.value) || 0)) })}
          />,
        )}
      {text &&
        group(
          'encoding',
          'Encoding',
          <Form.Select
            size="sm"
            value={reading.encoding}
            onChange={(event) =>
              change({ encoding: ENCODINGS.find((known) => known === event.target.value) })
            }
          >
            {ENCODINGS.map((encoding) => (
              <option key={encoding} value={encoding}>
                {encoding.toUpperCase()}
              </option>
            ))}
          </Form.Select>,
        )}
      {form === 'json' &&
        group(
          'records',
          'Records',
          <div>{RECORDS[reading.records] ?? `the list under ${reading.records.slice(3)}`}</div>,
        )}
    </div>
  );
}

const RECORDS: Record<string, string> = { lines: 'one to a line', list: 'a list' };
const FIRST = 7;

function Preview({ look, columns }: { look: Look; columns: readonly string[] }) {
  const beyond = [...look.rows, ...look.last].some((row) => row.length > look.names.length);
  const line = (row: string[], n: string) => (
    <tr key={n}>
      <td className="n soft">{n}</td>
      {look.names.map((_, c) => (
        <td key={c}>{row[c] ?? ''}</td>
      ))}
      {beyond && <td className="beyond">{row.slice(look.names.length).join(' | ')}</td>}
    </tr>
  );
  return (
    <div className="firstrows" tabIndex={0} role="region" aria-label={`First and last rows of ${look.name}`}>
      <table>
        <thead>
          <tr>
            <th scope="col" className="n">
              Row
            </th>
            {look.names.map((name, i) => (
              <th scope="col" key={i}>
                {name}
                <small>{columns[i]}</small>
              </th>
            ))}
            {beyond && (
              <th scope="col" className="beyond">
                beyond the last name, not read
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {look.rows.slice(0, look.last.length ? FIRST : FIRST + 4).map((row, i) => line(row, whole(i + 1)))}
          {look.last.length > 0 && (
            <tr className="between">
              <td colSpan={look.names.length + (beyond ? 2 : 1)}>
                the last {look.last.length === 1 ? 'row' : `${look.last.length} rows`}:
              </td>
            </tr>
          )}
          {look.last.map((row, i) =>
            line(
              row,
              look.all === null
                ? `last${i < look.last.length - 1 ? ` −${look.last.length - 1 - i}` : ''}`
                : whole(look.all - look.last.length + i + 1),
            ),
          )}
        </tbody>
      </table>
    </div>
  );
}
