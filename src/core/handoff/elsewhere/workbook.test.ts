import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import Papa from 'papaparse';
import { beforeAll, describe, expect, it } from 'vitest';
import { read, utils, type WorkSheet } from 'xlsx';
import { demoWave, sumsOf } from '../../../testing/demo-wave';
import { HABITS, HABITS_CELLS, HABITS_DECISIONS, HABITS_ENTRIES } from '../../../testing/habits';
import { dig, HOMES, written } from '../../../testing/homes';

/** What an independent package makes of a cell: numbers, truth, ISO days and moments, texts. */
function valueIn(sheet: WorkSheet, row: number, column: number): unknown {
  const cell = sheet[utils.encode_cell({ r: row, c: column })] as { t: string; v: unknown } | undefined;
  if (!cell) return null;
  if (!(cell.v instanceof Date)) return cell.v;
  const iso = new Date(Math.round(cell.v.getTime() / 1000) * 1000).toISOString();
  return iso.endsWith('T00:00:00.000Z') ? iso.slice(0, 10) : iso.slice(0, 19);
}

const bytesOf = async (from: ReturnType<typeof dig>): Promise<Uint8Array> =>
  (await written(from, ['workbook'])).get('made.xlsx') ?? new Uint8Array();

describe('a workbook, read by an independent package', () => {
  let book: ReturnType<typeof read>;
  beforeAll(async () => {
    book = read(await bytesOf(dig(HABITS_CELLS, HABITS_DECISIONS, HABITS_ENTRIES)), {
      cellDates: true,
      cellNF: true,
    });
  });

  it.each(Object.entries(HABITS))('holds %s as what it is', (name, { values }) => {
    const column = Object.keys(HABITS).indexOf(name);
    const wanted = values.map((value, i) =>
      value === null && HABITS[name].cells[i].trim() !== ''
        ? Number(HABITS[name].cells[i].replace(',', '.'))
        : value,
    );
    expect(values.map((_, i) => valueIn(book.Sheets.data, i + 1, column))).toEqual(wanted);
  });

  it('shows numbers as they came', () => {
    const shown = (name: string, row: number): unknown => {
      const at = utils.encode_cell({ r: row + 1, c: Object.keys(HABITS).indexOf(name) });
      return (book.Sheets.data[at] as { w: string }).w;
    };
    expect([
      shown('zeros', 2),
      shown('euros', 1),
      shown('percents', 7),
      shown('brackets', 0),
      shown('minus', 1),
      shown('narrow', 1),
      shown('dmy', 1),
    ]).toEqual(['1.50', '€ 3.5', '7%', '(1.25)', '\u22122', '1,987', '02/02/2021']);
  });

  it('names codes as the cells hold them', () => {
    expect(utils.sheet_to_json(book.Sheets.codes, { header: 1, blankrows: false }).slice(1, 3)).toEqual([
      ['coded', 1.5, 'Good', undefined, undefined, 14],
      ['coded', -9, 'None given', 'yes', 'no-answer', 13],
    ]);
  });

  it('holds the nasty extract to the letter', async () => {
    const sheet = read(await bytesOf(dig(HOMES))).Sheets.data;
    const rows = utils.sheet_to_json<string[]>(sheet, { header: 1, raw: true, defval: '' });
    const remark = rows[0].indexOf('remark');
    expect(rows.slice(1, 8).map((row) => row[remark])).toEqual(HOMES.remark.slice(0, 7));
    expect(rows.slice(1).map((row) => row[rows[0].indexOf('zero')])).toEqual(HOMES.zero);
  });

  it('adds up to what the columns of the demo add up to', { timeout: 120_000 }, async () => {
    const wave = demoWave();
    const { Sheets } = read(await bytesOf(dig(wave.columns)));
    const rows = utils.sheet_to_json<Record<string, unknown>>(Sheets.data);
    expect(sumsOf(wave.numbers, (name) => rows.map((row) => row[name]))).toEqual(
      sumsOf(wave.numbers, (name) => wave.columns[name].map(Number)),
    );
  });
});

const office = ['soffice', 'libreoffice'].find((command) => spawnSync(command, ['--version']).status === 0);

describe('a workbook, read by an office program', () => {
  it.skipIf(!office)('holds what it is (skipped where none is installed)', { timeout: 120_000 }, async () => {
    const folder = mkdtempSync(join(tmpdir(), 'dig-office-'));
    writeFileSync(
      join(folder, 'made.xlsx'),
      await bytesOf(dig(HABITS_CELLS, HABITS_DECISIONS, HABITS_ENTRIES)),
    );
    execFileSync(
      office ?? '',
      [
        `-env:UserInstallation=file://${folder}/profile`,
        '--headless',
        '--convert-to',
        // Cells as they are, not as they are shown; UTF-8; the first sheet.
        'csv:Text - txt - csv (StarCalc):44,34,76,1,,0,false,false,false,false,false,1',
        '--outdir',
        folder,
        join(folder, 'made.xlsx'),
      ],
      { stdio: 'ignore' },
    );
    const [names, ...rows] = Papa.parse<string[]>(
      readFileSync(join(folder, 'made-data.csv'), 'utf8').trim(),
    ).data;
    const of = (name: string): string[] => rows.map((row) => row[names.indexOf(name)]);
    for (const name of ['zeros', 'commas', 'euros', 'narrow', 'percents', 'brackets', 'minus', 'halves'])
      expect(of(name).map((text) => (text === '' ? null : Number(text)))).toEqual(HABITS[name].values);
    expect(of('long20')).toEqual(HABITS.long20.values);
    expect(of('day')).toEqual(HABITS.day.values);
    expect(of('truth')).toEqual(HABITS.truth.cells);
  });
});
