import type { CatalogueColumn } from './catalogue';
import { quoted } from './connection';

/** A column as statements ask for it. */
export interface AskedColumn {
  name: string;
  /** Its type, as SQL writes it, and what stands for its value. */
  type: string;
  cell: string;
  /** Its cell as `COPY … TO` writes it, with nothing where it is NULL. */
  text: string;
  /** What rows are counted by: its value where equal values are written alike, else its cell. */
  by: string;
  /** The same of what a subquery calls `c` and was counted by. */
  textOfC: string;
  /** The number that such a `c` is; NULL where it is none. */
  numberOfC: string;
  /** The number that its cell is in a row. */
  number: string;
}

/** Numbers as programs write them: what JavaScript reads as one, but for words and other bases, and what has no room in 64 bits. */
const PLAIN_NUMBER = String.raw`^\s*[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d{1,2})?\s*$`;
const LONGEST_NUMBER = 100;
const MOST_NUMBER = '1e300';
const NUMBERS = /^(smallint|integer|bigint|numeric|real|double precision)\b/;

/** How a column is asked for. `concat` writes a value by the very function that `COPY` writes it by. */
export function asked({ name, type, base, alike }: CatalogueColumn): AskedColumn {
  const cell = quoted(name);
  const numeric = NUMBERS.test(type) || NUMBERS.test(base);
  const text = `concat(${cell})`;
  const isWhole = /^(smallint|integer|bigint)/.test(base);
  const value = (of: string): string => (isWhole ? `${of}::float8` : finiteNumber(of));
  const byValue = alike && !/^(text|character varying)/.test(type);
  const by = alike ? cell : text;
  const ofText = (one: string): string =>
    `CASE WHEN length(${one}) <= ${LONGEST_NUMBER} AND ${one} ~ '${PLAIN_NUMBER}' THEN trim(both E' \\t\\r\\n' from ${one})::float8 END`;
  return {
    name,
    type,
    cell,
    text,
    by,
    textOfC: alike ? 'concat(c)' : 'c',
    numberOfC: numeric && byValue ? value('c') : ofText(alike ? 'concat(c)' : 'c'),
    number: numeric ? value(cell) : ofText(text),
  };
}

/** What is no number, without end, or has no room in 64 bits, is no value here. */
const finiteNumber = (of: string): string =>
  `CASE WHEN ${of} > -${MOST_NUMBER} AND ${of} < ${MOST_NUMBER} THEN ${of}::float8 END`;
