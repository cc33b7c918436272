import { entryCarried } from '../../codebook/handed';
import { InputError } from '../../extract/problem';
import { pulse } from '../../extract/pulse';
import { isNumericStorage } from '../../extract/words';
import { CODE_HEADS, SHEETS, VARIABLE_HEADS } from '../../read/handed-workbook';
import type { Leaving, LeavingVariable } from '../leaving';
import { batches, type FileOut } from './file';
import { isPlain } from './json';
import { lettersOf, MOST_SIGNS, numberCell, rowXml, textCell, workbookBytes, type SheetOut } from './sheets';

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
      yield* workbookBytes(file, [
        dataSheet(file, leaving),
        table(SHEETS.variables, [[...VARIABLE_HEADS], ...aboutVariables(leaving)]),
        table(SHEETS.codes, [[...CODE_HEADS], ...aboutCodes(leaving)]),
        table(SHEETS.rulings, [
          ['when', 'ruling', 'reason'],
          ...rulings.map(({ at, says, why }) => [at, says, why]),
        ]),
      ]);
    },
  };
}

function dataSheet(file: string, { variables, rows }: Leaving): SheetOut {
  return {
    name: SHEETS.data,
    *rows() {
      const letters = lettersOf(variables.length);
      yield rowXml(
        1,
        letters,
        variables.map(({ name }) => textCell(name)),
      );
      const cells = variables.map((variable) =>
        variable.lift<string>((text) => cellOf(file, variable, text)),
      );
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

function cellOf(file: string, { name, storage }: LeavingVariable, text: string): string {
  if (text === '') return '';
  if (text.length > MOST_SIGNS)
    throw new InputError({
      file,
      says: `${name} holds a text of ${text.length} signs, more than the ${MOST_SIGNS} that a cell of a workbook holds; choose another form`,
    });
  return isNumericStorage(storage) && isPlain(text) && exact(text) ? numberCell(text) : textCell(text);
}

type Value = string | number | null;

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
              : typeof value === 'number'
                ? numberCell(String(value))
                : textCell(value),
          ),
        );
    },
  };
}

function* aboutVariables({ variables, groups }: Leaving): Generator<Value[]> {
  for (const { name, storage, entry, inspected } of variables) {
    const { kind, confirmed, role, counts } = inspected;
    const sets = groups.filter((group) => group.variables.includes(name)).map((group) => group.name);
    const carried = JSON.stringify(entryCarried({ ...entry, categories: [] }));
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

function* aboutCodes({ variables }: Leaving): Generator<Value[]> {
  for (const { name, entry } of variables)
    for (const { code, label, missing, reason, frequency } of entry.categories)
      yield [name, code, label, missing ? 'yes' : null, reason, frequency];
}

/** A cell of a workbook keeps fifteen digits. */
const exact = (text: string): boolean => text.replace(/[-.]/g, '').length <= 15;
