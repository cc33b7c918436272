import { isMeasure } from '../../extract/words';
import { pulse } from '../../extract/pulse';
import type { Leaving, LeavingVariable } from '../leaving';
import { nativesOf, type Native } from '../native';
import { batches, bytesOf, type FileOut } from './file';

/**
 * A record a line (newline-delimited JSON); blank is null. Numbers are numbers whatever way they were written, truth is true
 * or false; everything else is text, as it came.
 */
export function jsonFile(leaving: Leaving): FileOut {
  const { name, variables, rows } = leaving;
  const keys = variables.map((one) => `${JSON.stringify(one.name)}:`);
  return {
    name: `${name}.ndjson`,
    *pieces() {
      const natives = nativesOf(leaving);
      const values = variables.map((one, i) => one.lift((text) => valueText(one, natives[i], text)));
      const record = (row: number): string => `{${values.map((value, i) => keys[i] + value(row)).join(',')}}`;
      for (const batch of batches(rows.each())) {
        pulse();
        yield bytesOf(`${batch.map(record).join('\n')}\n`);
      }
    },
  };
}

function valueText(variable: LeavingVariable, native: Native, text: string): string {
  if (text === '') return 'null';
  const number = numberText(variable, native, text);
  if (number !== null) return number === '' ? 'null' : number;
  const plain = native.type === 'boolean' ? native.plain(text) : null;
  return plain === null ? JSON.stringify(text) : plain === '' ? 'null' : plain;
}

/**
 * A number as a form writes it that keeps numbers as doubles; `null` where the cell is none, or a whole number with more
 * digits than a double holds. Identifiers of which one has as many are texts all of them.
 */
export function numberText({ inspected }: LeavingVariable, native: Native, text: string): string | null {
  const { type, beyond, plain } = native;
  if (type !== 'integer' && type !== 'number') return null;
  if (beyond && !isMeasure(inspected.kind)) return null;
  const number = plain(text);
  if (!number || type === 'number') return number;
  return Number.isSafeInteger(Number(number)) ? number : null;
}
