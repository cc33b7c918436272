import type { SchemaElement } from 'hyparquet';
import { codebookCarried } from '../../codebook/handed';
import { HANDED_ALL } from '../../extract/carried';
import { pulse } from '../../extract/pulse';
import { isNumericStorage } from '../../extract/words';
import type { Leaving, LeavingVariable } from '../leaving';
import type { FileOut } from './file';

/** Rows of a row group. */
const GROUP = 100_000;
const PIECE = 1 << 20;

/** An Apache Parquet file: typed columns, text where a cell is not of the type; what codes mean stands in its key-value metadata. */
export function parquetFile({ name, title, variables, groups, rows }: Leaving): FileOut {
  return {
    name: `${name}.parquet`,
    async *pieces() {
      const { parquetWriteBuffer } = await import('hyparquet-writer');
      const all = Uint32Array.from(rows.each());
      const columns = variables.map((variable) => columnOf(variable, all));
      const made = new Uint8Array(
        parquetWriteBuffer({
          columnData: columns.map(({ element, data }) => ({ name: element.name, data })),
          schema: [{ name: 'root', num_children: columns.length }, ...columns.map(({ element }) => element)],
          rowGroupSize: GROUP,
          kvMetadata: [
            {
              key: HANDED_ALL,
              value: JSON.stringify(
                codebookCarried({ title, entries: variables.map(({ entry }) => entry), groups }),
              ),
            },
          ],
        }),
      );
      for (let at = 0; at < made.length; at += PIECE) yield made.subarray(at, at + PIECE);
    },
  };
}

const DAY = /^\d{4}-(0[1-9]|1[0-2])-\d{2}$/;

interface Column {
  element: SchemaElement;
  data: (string | number | bigint | Date | null)[];
}

function columnOf(variable: LeavingVariable, rows: Uint32Array): Column {
  pulse();
  const { name, storage } = variable;
  const texts = Array.from(rows, (row) => variable.text(row));
  const filled = texts.filter((text) => text !== '');
  const every = (is: (text: string) => boolean): boolean => filled.length > 0 && filled.every(is);
  const column = (
    type: SchemaElement['type'],
    make: (text: string) => Column['data'][number],
    converted?: SchemaElement['converted_type'],
  ): Column => ({
    element: { name, type, repetition_type: 'OPTIONAL', ...(converted ? { converted_type: converted } : {}) },
    data: texts.map((text) => (text === '' ? null : make(text))),
  });
  if (isNumericStorage(storage)) {
    if (every((text) => isWhole(text) && Math.abs(Number(text)) < 2 ** 31)) return column('INT32', Number);
    if (every((text) => isWhole(text) && isLong(text))) return column('INT64', BigInt);
    if (every(isDecimal)) return column('DOUBLE', Number);
  }
  if (storage === 'date' && every((text) => DAY.test(text) && isDay(text)))
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
