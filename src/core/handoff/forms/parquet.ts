import type { SchemaElement } from 'hyparquet';
import { codebookCarried } from '../../codebook/handed';
import { HANDED_ALL } from '../../extract/carried';
import { pulse } from '../../extract/pulse';
import { isNumericStorage } from '../../extract/words';
import type { Leaving, LeavingVariable } from '../leaving';
import type { FileOut } from './file';

/** Rows of a row group. */
const GROUP = 100_000;

/** An Apache Parquet file: typed columns, text where a cell is not of the type; what codes mean stands in its key-value metadata. */
export function parquetFile({ name, title, variables, groups, rows }: Leaving): FileOut {
  return {
    name: `${name}.parquet`,
    async *pieces() {
      const { ByteWriter, ParquetWriter } = await import('hyparquet-writer');
      const all = Uint32Array.from(rows.each());
      const columns = variables.map((variable) => columnOf(variable, all));
      const bytes = new ByteWriter();
      /** What is written so far; the place in the file goes on. */
      const taken = (): Uint8Array => {
        const piece = bytes.getBytes().slice();
        bytes.index = 0;
        return piece;
      };
      const writer = new ParquetWriter({
        writer: bytes,
        schema: [{ name: 'root', num_children: columns.length }, ...columns.map(({ element }) => element)],
        kvMetadata: [
          {
            key: HANDED_ALL,
            value: JSON.stringify(
              codebookCarried({ title, entries: variables.map(({ entry }) => entry), groups }),
            ),
          },
        ],
      });
      for (let from = 0; from < all.length; from += GROUP) {
        pulse();
        const group = all.subarray(from, from + GROUP);
        await writer.write({
          columnData: columns.map(({ element, value }) => ({
            name: element.name,
            data: Array.from(group, value),
          })),
          rowGroupSize: GROUP,
        });
        yield taken();
      }
      await writer.finish();
      yield taken();
    },
  };
}

const DAY = /^\d{4}-(0[1-9]|1[0-2])-\d{2}$/;

type Value = string | number | bigint | Date | null;
interface Column {
  element: SchemaElement;
  /** What a zero-based row of the extract holds. */
  value(row: number): Value;
}

/** Types that all cells may be of, as bits. */
const SHORT = 1;
const LONG = 2;
const DECIMAL = 4;
const DATE = 8;

function typesOf(text: string): number {
  const whole = isWhole(text);
  return (
    (whole && Math.abs(Number(text)) < 2 ** 31 ? SHORT : 0) |
    (whole && isLong(text) ? LONG : 0) |
    (isDecimal(text) ? DECIMAL : 0) |
    (DAY.test(text) && isDay(text) ? DATE : 0)
  );
}

function columnOf(variable: LeavingVariable, rows: Uint32Array): Column {
  pulse();
  const { name, storage } = variable;
  const types = variable.lift((text) => (text === '' ? -1 : typesOf(text)));
  let common = SHORT | LONG | DECIMAL | DATE;
  let filled = false;
  for (const row of rows) {
    const own = types(row);
    if (own < 0) continue;
    filled = true;
    if ((common &= own) === 0) break;
  }
  const column = (
    type: SchemaElement['type'],
    make: (text: string) => Value,
    converted?: SchemaElement['converted_type'],
  ): Column => ({
    element: { name, type, repetition_type: 'OPTIONAL', ...(converted ? { converted_type: converted } : {}) },
    value: variable.lift((text) => (text === '' ? null : make(text))),
  });
  if (filled && isNumericStorage(storage)) {
    if (common & SHORT) return column('INT32', Number);
    if (common & LONG) return column('INT64', BigInt);
    if (common & DECIMAL) return column('DOUBLE', Number);
  }
  if (filled && storage === 'date' && common & DATE)
    return column('INT32', (text) => new Date(`${text}T00:00:00Z`), 'DATE');
  return column('BYTE_ARRAY', (text) => text, 'UTF8');
}

const isWhole = (text: string): boolean => /^(0|-?[1-9]\d{0,18})$/.test(text);
const isLong = (text: string): boolean => {
  const value = BigInt(text);
  return value >= -(2n ** 63n) && value < 2n ** 63n;
};
/** A number by value: one whose shortest form is another text is the same number still, one with more digits than a double holds is not. */
const isDecimal = (text: string): boolean =>
  /^-?(0|[1-9]\d*)(\.\d+)?$/.test(text) &&
  text.replace(/[-.]/g, '').replace(/^0+/, '').length <= 15 &&
  Number.isFinite(Number(text));
const isDay = (text: string): boolean => {
  const time = Date.parse(`${text}T00:00:00Z`);
  return !Number.isNaN(time) && new Date(time).toISOString().startsWith(text);
};
