import { entryCarried } from '../../codebook/handed';
import { InputError } from '../../extract/problem';
import { pulse } from '../../extract/pulse';
import { isNumericStorage } from '../../extract/words';
import { CODE_HEADS, SHEETS, VARIABLE_HEADS } from '../../read/handed-workbook';
import type { Leaving } from '../leaving';
import type { FileOut } from './file';
import { isPlain } from './json';

/** Rows of a sheet, and signs of a cell, that the form has room for (ISO/IEC 29500 as spreadsheets read it). */
const MOST_ROWS = 1_048_575;
const MOST_SIGNS = 32_767;
const PIECE = 1 << 20;

/** A ruling as the last sheet lists it. */
export interface RulingLine {
  at: string;
  says: string;
  why: string;
}

/** A workbook with the data, the variables, their codes, and the rulings. Text stays text, so that a spreadsheet runs nothing. */
export function workbookFile(
  { name, variables, groups, rows }: Leaving,
  rulings: readonly RulingLine[],
): FileOut {
  return {
    name: `${name}.xlsx`,
    async *pieces() {
      if (rows.count > MOST_ROWS)
        throw new InputError({
          file: `${name}.xlsx`,
          says: `${rows.count} rows are more than the ${MOST_ROWS} that a sheet holds; choose another form, or a sieve`,
        });
      const { default: excel } = await import('exceljs');
      const book = new excel.Workbook();
      const data = book.addWorksheet(SHEETS.data);
      data.addRow(variables.map((one) => one.name));
      let done = 0;
      for (const row of rows.each()) {
        if (done++ % 2000 === 0) pulse();
        data.addRow(
          variables.map((one) => {
            const text = one.text(row);
            if (text.length > MOST_SIGNS)
              throw new InputError({
                file: `${name}.xlsx`,
                says: `${one.name} holds a text of ${text.length} signs, more than the ${MOST_SIGNS} that a cell of a workbook holds; choose another form`,
              });
            if (text === '') return null;
            return isNumericStorage(one.storage) && isPlain(text) && exact(text)
              ? Number(text)
              : escaped(text);
          }),
        );
      }
      const about = book.addWorksheet(SHEETS.variables);
      about.addRow([...VARIABLE_HEADS]);
      const codes = book.addWorksheet(SHEETS.codes);
      codes.addRow([...CODE_HEADS]);
      for (const { name: own, storage, entry, inspected } of variables) {
        const { kind, confirmed, role, counts } = inspected;
        const sets = groups.filter((group) => group.variables.includes(own)).map((group) => group.name);
        about.addRow([
          own,
          entry.label,
          entry.question,
          entry.universe,
          entry.units,
          storage,
          kind,
          confirmed ? 'confirmed' : 'presumed',
          role,
          counts.valid,
          counts.distinct,
          sets.join('\n'),
          JSON.stringify(entryCarried({ ...entry, categories: [] })).slice(0, MOST_SIGNS),
        ]);
        for (const { code, label, missing, reason, frequency } of entry.categories)
          codes.addRow([own, code, label, missing ? 'yes' : null, reason, frequency]);
      }
      const ruled = book.addWorksheet(SHEETS.rulings);
      ruled.addRow(['when', 'ruling', 'reason']);
      for (const { at, says, why } of rulings) ruled.addRow([at, says, why]);
      for (const sheet of book.worksheets) sheet.views = [{ state: 'frozen', ySplit: 1 }];
      const made = new Uint8Array(await book.xlsx.writeBuffer());
      for (let at = 0; at < made.length; at += PIECE) yield made.subarray(at, at + PIECE);
    },
  };
}

/** Signs that XML has no room for, or changes, as the form escapes them (ISO/IEC 29500, 22.9.2.19). */
const escaped = (text: string): string =>
  text
    .replace(/_x[0-9A-Fa-f]{4}_/g, (found) => `_x005F${found}`)
    .replace(
      /[\0-\x08\x0b-\x1f\ufffe\uffff]/g,
      (sign) => `_x${sign.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}_`,
    );

/** A cell of a workbook keeps fifteen digits. */
const exact = (text: string): boolean => text.replace(/[-.]/g, '').length <= 15;
