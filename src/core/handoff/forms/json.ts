import { isNumericStorage } from '../../extract/words';
import { pulse } from '../../extract/pulse';
import type { Leaving, LeavingVariable } from '../leaving';
import { batches, bytesOf, type FileOut } from './file';

/** A record a line (newline-delimited JSON); blank is null. Numbers that JSON writes back to the letter are numbers. */
export function jsonFile({ name, variables, rows }: Leaving): FileOut {
  const keys = variables.map((one) => `${JSON.stringify(one.name)}:`);
  return {
    name: `${name}.ndjson`,
    *pieces() {
      const values = variables.map((one) => one.lift((text) => valueText(one, text)));
      const record = (row: number): string => `{${values.map((value, i) => keys[i] + value(row)).join(',')}}`;
      for (const batch of batches(rows.each())) {
        pulse();
        yield bytesOf(`${batch.map(record).join('\n')}\n`);
      }
    },
  };
}

function valueText({ storage }: LeavingVariable, text: string): string {
  if (text === '') return 'null';
  return isNumericStorage(storage) && isPlain(text) ? text : JSON.stringify(text);
}

/** Whether a text is a number that is written back to the letter. */
export function isPlain(text: string): boolean {
  const value = Number(text);
  return Number.isFinite(value) && String(value) === text && !Object.is(value, -0) && !/e/i.test(text);
}
