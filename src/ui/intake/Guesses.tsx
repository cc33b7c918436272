'use client';

import type { ReactNode } from 'react';
import Form from 'react-bootstrap/Form';
import { FORMS } from '../../core/extract/extract';
import { counted } from '../../core/handoff/words';
import { delimiterName, USUAL_DELIMITERS } from '../../core/read/dialect';
import { ENCODINGS } from '../../core/read/encoding';
import type { Look, Reading } from '../../core/read/look';
import { FORM_NAMES } from './readAs';

export type Change = (part: Partial<Reading>) => void;

/** What is offered for one part of a reading: what it is called, and what it would be. */
interface Offer {
  part: keyof Reading;
  title: string;
  now: string;
  /** Values with their names; `null` where the bytes themselves decide and nothing is asked. */
  among: (readonly [value: string, name: string])[] | null;
  as(value: string): Partial<Reading>;
}

/** How a file is taken to be read, each part with its reason and a way to change it. */
export function Guesses({ look, change }: { look: Look; change: Change }) {
  const { form, titles } = look.reading;
  return (
    <div className="guesses">
      {offersOf(look).map(({ part, title, now, among, as }) => (
        <Part key={part} look={look} part={part} title={title}>
          {among === null ? (
            <div>{now}</div>
          ) : (
            <Form.Select size="sm" value={now} onChange={(event) => change(as(event.target.value))}>
              {among.map(([value, name]) => (
                <option key={value} value={value}>
                  {name}
                </option>
              ))}
            </Form.Select>
          )}
        </Part>
      ))}
      {(form === 'delimited' || form === 'workbook') && (
        <Part look={look} part="titles" title="Title rows above">
          <Form.Control
            size="sm"
            type="number"
            min={0}
            max={50}
            value={titles}
            onChange={(event) => change({ titles: Math.max(0, Math.floor(Number(event.target.value) || 0)) })}
          />
        </Part>
      )}
    </div>
  );
}

function Part({
  look: { name, because },
  part,
  title,
  children,
}: {
  look: Look;
  part: keyof Reading;
  title: string;
  children: ReactNode;
}) {
  return (
    <Form.Group controlId={`${part} ${name}`}>
      <Form.Label>{title}</Form.Label>
      {children}
      {because[part] && <Form.Text>{because[part]}</Form.Text>}
    </Form.Group>
  );
}

const RECORDS: Record<string, string> = {
  lines: 'one to a line',
  list: 'a list',
  columns: 'none: a list for each column',
  index: 'an object for each row',
  split: 'names and rows apart',
};

function offersOf({ reading, sheets }: Look): Offer[] {
  const { form, delimiter, quote, sheet, header, encoding, records } = reading;
  const text = form === 'delimited' || form === 'fixed-width';
  const offers: (Offer | false)[] = [
    {
      part: 'form',
      title: 'Form',
      now: text || form === 'json' ? form : FORM_NAMES[form],
      among:
        text || form === 'json'
          ? FORMS.filter((known) => known === form || known === 'delimited' || known === 'fixed-width').map(
              (known) => [known, FORM_NAMES[known]],
            )
          : null,
      as: (value) => ({ form: FORMS.find((known) => known === value) }),
    },
    form === 'delimited' && {
      part: 'delimiter',
      title: 'Delimiter',
      now: delimiter,
      among: [...new Set<string>([...USUAL_DELIMITERS, delimiter])].map((sign) => [
        sign,
        delimiterName(sign),
      ]),
      as: (value) => ({ delimiter: value }),
    },
    form === 'delimited' && {
      part: 'quote',
      title: 'Quotes',
      now: quote,
      among: [
        ['"', 'quotation marks "'],
        ["'", "apostrophes '"],
        ['', 'none, marks belong to the text'],
      ],
      as: (value) => ({ quote: value }),
    },
    form === 'workbook' && {
      part: 'sheet',
      title: 'Sheet',
      now: sheet ?? '',
      among: sheets.map(({ name, rows }) => [name, `${name} (${counted(rows, 'row')})`]),
      as: (value) => ({ sheet: value }),
    },
    (form === 'delimited' || form === 'workbook') && {
      part: 'header',
      title: 'First row',
      now: header ? 'names' : 'data',
      among: [
        ['names', 'names the columns'],
        ['data', 'is data'],
      ],
      as: (value) => ({ header: value === 'names' }),
    },
    text && {
      part: 'encoding',
      title: 'Encoding',
      now: encoding,
      among: ENCODINGS.map((one) => [one, one.toUpperCase()]),
      as: (value) => ({ encoding: ENCODINGS.find((known) => known === value) }),
    },
    form === 'json' && {
      part: 'records',
      title: 'Records',
      now: RECORDS[records] ?? `the list under ${records.slice(3)}`,
      among: null,
      as: () => ({}),
    },
  ];
  return offers.filter((offer) => offer !== false);
}
