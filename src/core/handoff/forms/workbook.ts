import { entryCarried } from '../../codebook/handed';
import { InputError } from '../../extract/problem';
import { pulse } from '../../extract/pulse';
import { CODE_HEADS, SHEETS, VARIABLE_HEADS } from '../../read/handed-workbook';
import type { Leaving, LeavingVariable } from '../leaving';
import { batches, type FileOut } from './file';
import { carriedWith, nativesOf, type Native } from '../native';
import { numberText } from './json';
import { momentFormat, numberFormat, serialOf } from './number-formats';
import {
  CellFormats,
  lettersOf,
  MOST_SIGNS,
  numberCell,
  rowXml,
  textCell,
  truthCell,
  workbookBytes,
  type SheetOut,
} from './sheets';

/** Rows and columns of a sheet that the form has room for (ISO/IEC 29500 as spreadsheets read it). */
const MOST_ROWS = 1_048_575;
const MOST_COLUMNS = 16_384;

/** A ruling as the last sheet lists it. */
export interface RulingLine {
  at: string;
  says: string;
  why: string;
}

/** A workbook with the data, the variables, their codes, and the rulings. Text stays text, so that a spreadsheet runs nothing. */
export function workbookFile(leaving: Leaving, rulings: readonly RulingLine[]): FileOut {
  const { variables, rows } = leaving;
  const file = `${leaving.name}.xlsx`;
  return {
    name: file,
    async *pieces() {
      const more =
        rows.count > MOST_ROWS
          ? `${rows.count} rows are more than the ${MOST_ROWS}`
          : variables.length > MOST_COLUMNS
            ? `${variables.length} variables are more than the ${MOST_COLUMNS}`
            : null;
      if (more !== null)
        throw new InputError({
          file,
          says: `${more} that a sheet holds; choose another form, or fewer of them`,
        });
      const formats = new CellFormats();
      const natives = nativesOf(leaving);
      const cellsOf = variables.map((variable, i) => cellWriter(file, variable, natives[i], formats));
      yield* workbookBytes(file, formats, [
        dataSheet(leaving, cellsOf),
        table(SHEETS.variables, [[...VARIABLE_HEADS], ...aboutVariables(leaving, natives)]),
        table(SHEETS.codes, [[...CODE_HEADS], ...aboutCodes(leaving, cellsOf)]),
        table(SHEETS.rulings, [
          ['when', 'ruling', 'reason'],
          ...rulings.map(({ at, says, why }) => [at, says, why]),
        ]),
      ]);
    },
  };
}

function dataSheet({ variables, rows }: Leaving, cellsOf: readonly ((text: string) => string)[]): SheetOut {
  return {
    name: SHEETS.data,
    *rows() {
      const letters = lettersOf(variables.length);
      yield rowXml(
        1,
        letters,
        variables.map(({ name }) => textCell(name)),
      );
      const cells = variables.map((variable, i) => variable.lift(cellsOf[i]));
      let at = 2;
      for (const batch of batches(rows.each())) {
        pulse();
        let xml = '';
        for (const row of batch)
          xml += rowXml(
            at++,
            letters,
            cells.map((cell) => cell(row)),
          );
        yield xml;
      }
    },
  };
}

/**
 * What writes the cells of a variable: numbers as numbers, days and moments as those of the sheet, truth as truth, each in a
 * format that shows it as it came; everything else as text.
 */
function cellWriter(
  file: string,
  variable: LeavingVariable,
  native: Native,
  formats: CellFormats,
): (text: string) => string {
  const { type, spelling } = native;
  // A sheet knows no zones.
  const shown =
    spelling?.as === 'moment' && /^(Z|UTC|[+-]00(:?00)?)?$/.test(spelling.zone ?? '') ? spelling : null;
  const moment = shown ? formats.of(momentFormat(shown)) : 0;
  return (text) => {
    if (text === '') return '';
    if (text.length > MOST_SIGNS)
      throw new InputError({
        file,
        says: `${variable.name} holds a text of ${text.length} signs, more than the ${MOST_SIGNS} that a cell of a workbook holds; choose another form`,
      });
    const number = numberText(variable, native, text);
    if (number) return numberCell(number, formats.of(numberFormat(text, number, inForm(variable))));
    if (number === '') return '';
    const plain = type === 'text' ? null : native.plain(text);
    if (plain === '') return '';
    if (type === 'boolean' && plain !== null) return truthCell(plain === 'true');
    const serial = plain === null || moment === 0 ? null : serialOf(plain);
    return serial === null ? textCell(text) : numberCell(serial, moment);
  };
}

const inForm = ({ inspected }: LeavingVariable): '.' | ',' => inspected.written.numberForm.decimal;

/** A cell that is made already. */
interface Made {
  cell: string;
}
type Value = string | number | Made | null;

/** A small sheet of its own. */
function table(name: string, rows: readonly (readonly Value[])[]): SheetOut {
  return {
    name,
    *rows() {
      const letters = lettersOf(rows.reduce((most, { length }) => Math.max(most, length), 0));
      for (const [i, row] of rows.entries())
        yield rowXml(
          i + 1,
          letters,
          row.map((value) =>
            value === null || value === ''
              ? ''
              : typeof value === 'object'
                ? value.cell
                : typeof value === 'number'
                  ? numberCell(String(value))
                  : textCell(value),
          ),
        );
    },
  };
}

function* aboutVariables({ variables, groups }: Leaving, natives: readonly Native[]): Generator<Value[]> {
  for (const [i, { name, storage, entry, inspected }] of variables.entries()) {
    const { kind, confirmed, role, counts } = inspected;
    const sets = groups.filter((group) => group.variables.includes(name)).map((group) => group.name);
    const carried = JSON.stringify(entryCarried({ ...carriedWith(entry, natives[i]), categories: [] }));
    const short = (text: string | null): string | null => text?.slice(0, MOST_SIGNS) ?? null;
    yield [
      name,
      short(entry.label),
      short(entry.question),
      short(entry.universe),
      entry.units,
      storage,
      kind,
      confirmed ? 'confirmed' : 'presumed',
      role,
      counts.valid,
      counts.distinct,
      short(sets.join('\n')),
      // What one cell has no room for goes on in the next.
      ...piecesOf(carried),
    ];
  }
}

const piecesOf = (text: string): string[] =>
  Array.from({ length: Math.ceil(text.length / MOST_SIGNS) }, (_, i) =>
    text.slice(i * MOST_SIGNS, (i + 1) * MOST_SIGNS),
  );

/** Codes stand as the cells do that hold them, so that one can be looked up by the other. */
function* aboutCodes(
  { variables }: Leaving,
  cellsOf: readonly ((text: string) => string)[],
): Generator<Value[]> {
  for (const [i, { name, entry }] of variables.entries())
    for (const { code, label, missing, reason, frequency } of entry.categories)
      yield [
        name,
        { cell: cellsOf[i](code) || textCell(code) },
        label,
        missing ? 'yes' : null,
        reason,
        frequency,
      ];
}
