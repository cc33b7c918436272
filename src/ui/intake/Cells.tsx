'use client';

import Form from 'react-bootstrap/Form';
import type { Marks } from '../../core/extract/extract';
import { counted, whole } from '../../core/handoff/words';
import type { FoundData } from './useWaiting';

interface Props {
  /** The file whose first rows are shown. */
  one: FoundData;
  data: readonly FoundData[];
  marks: Marks;
  change: (marks: Marks) => void;
  /** Texts taken for marks of nothing. */
  missing: ReadonlySet<string>;
  setMissing: (missing: ReadonlySet<string>) => void;
}

/** What the cells mean that can be written in several ways: decimal mark, order of dates, marks for nothing. */
export function Cells({ one, data, marks, change, missing, setMissing }: Props) {
  const { cells } = one;
  const markers = new Map<string, { count: number; columns: number }>();
  for (const file of data) {
    for (const { text, count, columns } of file.cells.markers) {
      const found = markers.get(text);
      markers.set(text, {
        count: (found?.count ?? 0) + count,
        columns: Math.max(found?.columns ?? 0, columns),
      });
    }
  }
  const toggle = (text: string): void => {
    const next = new Set(missing);
    if (!next.delete(text)) next.add(text);
    setMissing(next);
  };
  return (
    <section className="cellbox" aria-label="How cells are read">
      <h3>How cells are read</h3>
      <div className="guesses">
        <Form.Group controlId="decimal-mark">
          <Form.Label>Decimal mark</Form.Label>
          <Form.Select
            size="sm"
            value={marks.decimal ?? ''}
            onChange={(event) =>
              change({
                ...marks,
                decimal: event.target.value === '' ? undefined : event.target.value === ',' ? ',' : '.',
              })
            }
          >
            <option value="">
              {cells.decimal === ','
                ? 'a comma, as the cells show'
                : cells.decimal === '.'
                  ? 'a point, as the cells show'
                  : 'each column as its cells show'}
            </option>
            <option value=".">a point: 1,500 is fifteen hundred</option>
            <option value=",">a comma: 1.500 is fifteen hundred</option>
          </Form.Select>
          <Form.Text>
            {marks.decimal ? 'chosen, for columns that leave it open' : cells.decimalBecause}
          </Form.Text>
        </Form.Group>
        <Form.Group controlId="date-order">
          <Form.Label>Dates such as 03/04/2021</Form.Label>
          <Form.Select
            size="sm"
            value={marks.order ?? ''}
            onChange={(event) =>
              change({
                ...marks,
                order: event.target.value === '' ? undefined : event.target.value === 'mdy' ? 'mdy' : 'dmy',
              })
            }
          >
            <option value="">
              {cells.order === 'dmy'
                ? 'the day first, as the cells show'
                : cells.order === 'mdy'
                  ? 'the month first, as the cells show'
                  : 'each column as its cells show'}
            </option>
            <option value="dmy">the day first: 3 April</option>
            <option value="mdy">the month first: March 4</option>
          </Form.Select>
          <Form.Text>{marks.order ? 'chosen, for columns that leave it open' : cells.orderBecause}</Form.Text>
        </Form.Group>
        <fieldset className="markers">
          <legend className="form-label">Marks for nothing</legend>
          {markers.size === 0 && (
            <Form.Text>none in the rows looked at; what turns up later is flagged</Form.Text>
          )}
          {[...markers].map(([text, { count, columns }]) => (
            <Form.Check
              key={text}
              id={`marker ${text}`}
              label={
                <>
                  <span className="code">{text}</span>{' '}
                  <span className="soft">
                    in {counted(count, 'cell')} of{' '}
                    {columns === 1 ? 'one column' : `${whole(columns)} columns`}, first rows
                  </span>
                </>
              }
              checked={missing.has(text)}
              onChange={() => toggle(text)}
            />
          ))}
          {markers.size > 0 && (
            <Form.Text>
              ticked ones are declared missing wherever they stand; the cells keep their text
            </Form.Text>
          )}
        </fieldset>
      </div>
    </section>
  );
}
