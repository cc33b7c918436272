import { isTableShape } from '../core/read/json-tables';
import type { Form } from '../core/extract/extract';
import { InputError } from '../core/extract/problem';
import type { Encoding } from '../core/read/encoding';
import type { Reading } from '../core/read/look';

/** Options by which a person fixes how files are read. */
export interface ReadingOptions {
  form?: Form;
  delimiter?: string;
  quote?: string;
  encoding?: Encoding;
  header?: 'yes' | 'no';
  titles?: number;
  sheet?: string;
  records?: string;
}

/** What the command line fixes of how files are read. */
export function readingOf({
  form,
  delimiter,
  quote,
  encoding,
  header,
  titles,
  sheet,
  records,
}: ReadingOptions): Partial<Reading> {
  return {
    ...(form ? { form } : {}),
    ...(delimiter === undefined ? {} : { delimiter: signOf(delimiter) }),
    ...(quote === undefined ? {} : { quote: quote === 'none' ? '' : quote }),
    ...(encoding ? { encoding } : {}),
    ...(header ? { header: header === 'yes' } : {}),
    ...(titles === undefined ? {} : { titles }),
    ...(sheet === undefined ? {} : { sheet }),
    ...(records === undefined
      ? {}
      : {
          records:
            records === 'list' || records === 'lines' || isTableShape(records)
              ? records
              : (`in ${records}` as const),
        }),
  };
}

const SIGNS: ReadonlyMap<string, string> = new Map([
  ['tab', '\t'],
  ['\\t', '\t'],
  ['comma', ','],
  ['semicolon', ';'],
  ['bar', '|'],
  ['pipe', '|'],
  ['blank', ' '],
  ['space', ' '],
  ['colon', ':'],
]);

function signOf(text: string): string {
  const sign = SIGNS.get(text) ?? text;
  if (sign.length !== 1)
    throw new InputError({
      file: '--delimiter',
      says: `“${text}” is no single character; give one, or tab, comma, semicolon, bar, blank`,
    });
  return sign;
}
