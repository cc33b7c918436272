import Papa from 'papaparse';
import { pulse } from '../../extract/pulse';
import type { Leaving } from '../leaving';
import { batches, bytesOf, type FileOut } from './file';

/** Delimited text (RFC 4180, UTF-8): names, then a record for each row. */
export function delimitedFile({ name, variables, rows }: Leaving): FileOut {
  // An empty line would be no record.
  const options = { newline: '\r\n', header: false, quotes: variables.length === 1 };
  return {
    name: `${name}.csv`,
    *pieces() {
      yield bytesOf(`${Papa.unparse([variables.map((one) => one.name)], options)}\r\n`);
      for (const batch of batches(rows.each())) {
        pulse();
        yield bytesOf(
          `${Papa.unparse(
            batch.map((row) => variables.map((one) => one.spreadsheetText(row))),
            options,
          )}\r\n`,
        );
      }
    },
  };
}
