import { Zip, ZipDeflate } from 'fflate';
import { InputError } from '../../extract/problem';
import { bytesOf } from './file';

/**
 * A workbook as SpreadsheetML in its container (ISO/IEC 29500-1, 18.3; 29500-2), written row by row, so that no more of it
 * is held than a batch. Text stands in its cell (`inlineStr`, 18.18.11), so that no table of all texts is held either.
 */

/** A sheet, and its cells as XML, row by row. */
export interface SheetOut {
  name: string;
  /** Pieces of rows, each row as `rowXml` gives it. */
  rows(): Iterable<string>;
}

/** Signs of a cell that the form has room for (ISO/IEC 29500 as spreadsheets read it). */
export const MOST_SIGNS = 32_767;
/** A part of the container that is longer has no place in its directory. */
const MOST_BYTES = 2 ** 32 - 2;
const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';
const LINKS = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006';
const TYPE = 'application/vnd.openxmlformats-officedocument.spreadsheetml';
const HEAD = '<?xml version="1.0" encoding="UTF-8" standalone="yes"?>\n';

/** @param file its name, for what cannot be written @throws InputError where a sheet is longer than the container holds */
export async function* workbookBytes(
  file: string,
  formats: CellFormats,
  sheets: readonly SheetOut[],
): AsyncGenerator<Uint8Array> {
  const ready: Uint8Array[] = [];
  let failed: Error | null = null;
  const zip = new Zip((error, piece) => {
    if (error) failed = error;
    else ready.push(piece);
  });
  const taken = (): Uint8Array[] => {
    if (failed) throw failed;
    return ready.splice(0);
  };
  const put = (name: string, text: string): void => {
    // Some readers look for the end of a part, whose length stands behind it, and find it only where it is packed.
    const part = new ZipDeflate(name, { level: 3 });
    zip.add(part);
    part.push(bytesOf(text), true);
  };
  for (const [name, text] of partsOf(sheets)) put(name, text);
  for (const [i, sheet] of sheets.entries()) {
    // Speed counts for more than the last tenth of size here.
    const part = new ZipDeflate(`xl/worksheets/sheet${i + 1}.xml`, { level: 3 });
    zip.add(part);
    part.push(bytesOf(SHEET_BEGINS));
    let bytes = 0;
    for (const rows of sheet.rows()) {
      const piece = bytesOf(rows);
      bytes += piece.length;
      if (bytes > MOST_BYTES)
        throw new InputError({
          file,
          says: `its sheet ${sheet.name} is longer than the 4 GB that a workbook has room for; choose another form, or a sieve`,
        });
      part.push(piece);
      yield* taken();
    }
    part.push(bytesOf('</sheetData></worksheet>'), true);
    yield* taken();
  }
  // Which formats there are is known once all cells are written.
  put('xl/styles.xml', formats.xml());
  zip.end();
  yield* taken();
}

const SHEET_BEGINS = `${HEAD}<worksheet xmlns="${MAIN}"><sheetViews><sheetView workbookViewId="0"><pane ySplit="1" topLeftCell="A2" activePane="bottomLeft" state="frozen"/></sheetView></sheetViews><sheetData>`;

/** The parts that say what the others are. */
function partsOf(sheets: readonly SheetOut[]): [name: string, text: string][] {
  const each = (of: (sheet: SheetOut, n: number) => string): string =>
    sheets.map((sheet, i) => of(sheet, i + 1)).join('');
  return [
    [
      '[Content_Types].xml',
      `${HEAD}<Types xmlns="${PACKAGE}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/xl/workbook.xml" ContentType="${TYPE}.sheet.main+xml"/><Override PartName="/xl/styles.xml" ContentType="${TYPE}.styles+xml"/>${each((_, n) => `<Override PartName="/xl/worksheets/sheet${n}.xml" ContentType="${TYPE}.worksheet+xml"/>`)}</Types>`,
    ],
    [
      '_rels/.rels',
      `${HEAD}<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="rId1" Type="${LINKS}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
    ],
    [
      'xl/workbook.xml',
      `${HEAD}<workbook xmlns="${MAIN}" xmlns:r="${LINKS}"><sheets>${each((sheet, n) => `<sheet name="${attribute(sheet.name)}" sheetId="${n}" r:id="rId${n}"/>`)}</sheets></workbook>`,
    ],
    [
      'xl/_rels/workbook.xml.rels',
      `${HEAD}<Relationships xmlns="${PACKAGE}/relationships">${each((_, n) => `<Relationship Id="rId${n}" Type="${LINKS}/worksheet" Target="worksheets/sheet${n}.xml"/>`)}<Relationship Id="rId${sheets.length + 1}" Type="${LINKS}/styles" Target="styles.xml"/></Relationships>`,
    ],
  ];
}

/** Formats beyond so many are left out: spreadsheets keep some 200 of a workbook's own. */
const MOST_FORMATS = 180;
/** The first number that a workbook's own formats may have (ISO/IEC 29500-1, 18.8.30). */
const OWN_FORMATS = 164;

/** The formats in which cells of a workbook show numbers, each once. */
export class CellFormats {
  private readonly places = new Map<string, number>([['', 0]]);

  /** The place of a format among those of the workbook; 0, which is the general one, for an empty one and where there are too many. */
  of(code: string): number {
    const known = this.places.get(code);
    if (known !== undefined) return known;
    if (this.places.size > MOST_FORMATS) return 0;
    this.places.set(code, this.places.size);
    return this.places.size - 1;
  }

  /** The part of the container that lists them. */
  xml(): string {
    const codes = [...this.places.keys()].slice(1);
    const own = codes.map(
      (code, i) => `<numFmt numFmtId="${OWN_FORMATS + i}" formatCode="${attribute(code)}"/>`,
    );
    const cells = codes.map(
      (_, i) =>
        `<xf numFmtId="${OWN_FORMATS + i}" fontId="0" fillId="0" borderId="0" xfId="0" applyNumberFormat="1"/>`,
    );
    return `${HEAD}<styleSheet xmlns="${MAIN}">${own.length ? `<numFmts count="${own.length}">${own.join('')}</numFmts>` : ''}<fonts count="1"><font><sz val="11"/><name val="Calibri"/></font></fonts><fills count="2"><fill><patternFill patternType="none"/></fill><fill><patternFill patternType="gray125"/></fill></fills><borders count="1"><border><left/><right/><top/><bottom/><diagonal/></border></borders><cellStyleXfs count="1"><xf numFmtId="0" fontId="0" fillId="0" borderId="0"/></cellStyleXfs><cellXfs count="${cells.length + 1}"><xf numFmtId="0" fontId="0" fillId="0" borderId="0" xfId="0"/>${cells.join('')}</cellXfs><cellStyles count="1"><cellStyle name="Normal" xfId="0" builtinId="0"/></cellStyles></styleSheet>`;
  }
}

/** What stands in a cell behind its place: a text, a number as it is written in the place of a format, or truth; nothing for an empty cell. */
export const textCell = (text: string): string =>
  ` t="inlineStr"><is><t xml:space="preserve">${content(text)}</t></is></c>`;
export const numberCell = (written: string, format = 0): string =>
  `${format ? ` s="${format}"` : ''}><v>${written}</v></c>`;
export const truthCell = (is: boolean): string => ` t="b"><v>${is ? 1 : 0}</v></c>`;
/** Cells of a row as XML. @param row one-based @param cells as `textCell` and `numberCell` make them; empty for no cell */
export function rowXml(row: number, letters: readonly string[], cells: readonly string[]): string {
  let xml = `<row r="${row}">`;
  for (let column = 0; column < cells.length; column++)
    if (cells[column] !== '') xml += `<c r="${letters[column]}${row}"${cells[column]}`;
  return `${xml}</row>`;
}

/** Names of the first columns: A to Z, AA and so on. */
export function lettersOf(columns: number): string[] {
  return Array.from({ length: columns }, (_, column) => {
    let letters = '';
    for (let left = column + 1; left > 0; left = Math.floor((left - 1) / 26))
      letters = String.fromCharCode(65 + ((left - 1) % 26)) + letters;
    return letters;
  });
}

/** Signs that XML has no room for, or changes, as the form escapes them (ISO/IEC 29500-1, 22.9.2.19). */
const content = (text: string): string =>
  text
    .replace(/_x[0-9A-Fa-f]{4}_/g, (found) => `_x005F${found}`)
    .replace(
      /[\0-\x08\x0b-\x1f\ufffe\uffff]/g,
      (sign) => `_x${sign.charCodeAt(0).toString(16).toUpperCase().padStart(4, '0')}_`,
    )
    .replace(/[&<>]/g, (sign) => (sign === '&' ? '&amp;' : sign === '<' ? '&lt;' : '&gt;'));
const attribute = (text: string): string => content(text).replaceAll('"', '&quot;');
