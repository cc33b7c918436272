import type { SchemaElement } from 'hyparquet';
import { codebookCarried } from '../../codebook/handed';
import { HANDED_ALL } from '../../extract/carried';
import { pulse } from '../../extract/pulse';
import type { Leaving, LeavingVariable } from '../leaving';
import { carriedWith, nativesOf, type Native } from '../native';
import type { FileOut } from './file';
import { annotate, arrowSchema, fieldMetadata, tableMetadata } from './parquet-metadata';

/** Rows of a row group. */
const GROUP = 100_000;

/** An Apache Parquet file: typed columns, text where a cell is not of the type; labels, codes and reasons stand in the metadata of its fields. */
export function parquetFile(leaving: Leaving): FileOut {
  const { name, title, variables, groups, rows } = leaving;
  return {
    name: `${name}.parquet`,
    async *pieces() {
      const { ByteWriter, ParquetWriter } = await import('hyparquet-writer');
      const all = Uint32Array.from(rows.each());
      const natives = nativesOf(leaving);
      const columns = variables.map((variable, i) => columnOf(variable, natives[i], all));
      const said = variables.map((variable, i) => fieldMetadata(variable, natives[i]));
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
              codebookCarried({
                title,
                entries: variables.map(({ entry }, i) =>
                  columns[i].element.type === 'BYTE_ARRAY' ? entry : carriedWith(entry, natives[i]),
                ),
                groups,
              }),
            ),
          },
          ...tableMetadata(
            title,
            said.map((metadata, i) => ({ name: variables[i].name, metadata })),
          ),
          await arrowSchema(
            columns.map(({ element }) => element),
            said,
          ),
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
      for (const group of writer.row_groups)
        group.columns.forEach((column, i) => annotate(column.meta_data, said[i]));
      await writer.finish();
      yield taken();
    },
  };
}

type Value = string | number | bigint | boolean | null;
interface Column {
  element: SchemaElement;
  /** What a zero-based row of the extract holds. */
  value(row: number): Value;
}

/** The type that suits all cells that go out, text where none does. */
function columnOf(variable: LeavingVariable, native: Native, rows: Uint32Array): Column {
  pulse();
  const { name } = variable;
  const column = (
    type: SchemaElement['type'],
    make: (plain: string) => Value,
    said: Pick<SchemaElement, 'converted_type' | 'logical_type'> = {},
  ): Column => ({
    element: { name, type, repetition_type: 'OPTIONAL', ...said },
    value: variable.lift((text) => {
      const plain = native.plain(text);
      return plain === '' || plain === null ? null : make(plain);
    }),
  });
  const asText = (): Column => ({
    ...column('BYTE_ARRAY', (text) => text, { converted_type: 'UTF8', logical_type: { type: 'STRING' } }),
    value: variable.lift((text) => (text === '' ? null : text)),
  });
  if (!native.whole) return asText();
  switch (native.type) {
    case 'integer': {
      const widest = most(variable, native, rows, width);
      if (widest === WIDTH.short) return column('INT32', Number);
      return widest === WIDTH.long ? column('INT64', BigInt) : asText();
    }
    case 'number':
      return most(variable, native, rows, digits) <= MOST_DIGITS ? column('DOUBLE', Number) : asText();
    case 'boolean':
      return column('BOOLEAN', (plain) => plain === 'true');
    case 'day':
      return column('INT32', (plain) => Date.parse(`${plain}T00:00:00Z`) / 86_400_000, {
        converted_type: 'DATE',
        logical_type: { type: 'DATE' },
      });
    case 'time':
      if (most(variable, native, rows, fraction) > 6) return asText();
      return column('INT64', (plain) => micros(`1970-01-01T${plain}`), {
        logical_type: { type: 'TIME', isAdjustedToUTC: native.zoned, unit: 'MICROS' },
      });
    case 'instant':
      if (most(variable, native, rows, fraction) > 6) return asText();
      return column('INT64', micros, {
        // The older mark means moments in UTC.
        ...(native.zoned ? { converted_type: 'TIMESTAMP_MICROS' as const } : {}),
        logical_type: { type: 'TIMESTAMP', isAdjustedToUTC: native.zoned, unit: 'MICROS' },
      });
    default:
      return asText();
  }
}

/** The largest of a figure of cells that go out. */
function most(
  variable: LeavingVariable,
  native: Native,
  rows: Uint32Array,
  of: (plain: string) => number,
): number {
  const figure = variable.lift((text) => {
    const plain = native.plain(text);
    return plain ? of(plain) : 0;
  });
  let largest = 0;
  for (const row of rows) largest = Math.max(largest, figure(row));
  return largest;
}

const WIDTH = { short: 1, long: 2, none: 3 } as const;
function width(plain: string): number {
  // An exponent that makes no whole number of a double's digits has no exact form.
  if (!/^-?\d+$/.test(plain)) return WIDTH.none;
  const value = BigInt(plain);
  if (value >= -(2n ** 31n) && value < 2n ** 31n) return WIDTH.short;
  return value >= -(2n ** 63n) && value < 2n ** 63n ? WIDTH.long : WIDTH.none;
}

/** Digits by which any two doubles can be told apart (IEEE 754, 5.12.2); a number with more would lose some. */
const MOST_DIGITS = 17;
const digits = (plain: string): number =>
  plain.replace(/e.*$/i, '').replace(/[-.]/g, '').replace(/^0+/, '').length;
const fraction = (plain: string): number => /\.(\d+)/.exec(plain)?.[1].length ?? 0;

/** Microseconds since 1970 of an ISO text of at most six decimals. */
function micros(iso: string): bigint {
  const [whole, rest = ''] = iso.replace(/Z$/, '').split('.');
  return BigInt(Date.parse(`${whole}Z`)) * 1000n + BigInt(rest.padEnd(6, '0'));
}
