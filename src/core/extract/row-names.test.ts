import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { withFiles, withoutFile } from '../intake/rejoin';
import { readExtract, type Choices } from '../intake/receive';
import { sourceOf } from '../read/source';
import type { Extract } from './extract';
import { atPlace, locateRows, nameRows, rowText } from './row-names';

const read = (files: Record<string, string>, choices: Choices = {}): Promise<Extract> =>
  readExtract(
    Object.entries(files).map(([name, text]) => ({ source: sourceOf(name, text) })),
    {},
    choices,
  );
const WAVE_1 = 'hid,rooms,fuel\nA1,3,gas\nA2,4,oil\nA3,5,gas\nA3,5,gas\n';
const WAVE_2 = 'hid,rooms,fuel\nA1,3,gas\nA2,9,oil\nA4,1,peat\n';
const both = (): Promise<Extract> => read({ 'h_2020.csv': WAVE_1, 'h_2021.csv': WAVE_2 });
/** Where the named rows stand in another extract. */
const rowsIn = (extract: Extract, names: ReturnType<typeof nameRows>): (number | null)[] =>
  locateRows(extract, names).map(({ row }) => row);
const saidIn = (extract: Extract, names: ReturnType<typeof nameRows>): (string | null)[] =>
  locateRows(extract, names).map(({ says }) => says);

describe('a named row', () => {
  it('is known by its file, its place there, its cells and its identifier', async () => {
    const [name] = nameRows(await both(), [5], 'hid');
    expect(name).toMatchObject({
      file: 'h_2021.csv',
      row: 1,
      of: null,
      identifier: { variable: 'hid', text: 'A2' },
    });
    expect(name.cells).toMatch(/^[0-9a-f]{16}$/);
    expect(rowText(name)).toBe('row 2 of h_2021.csv, hid A2');
  });

  it('stays the same observation when a file before it is left out, or one is added', async () => {
    const extract = await both();
    const names = nameRows(extract, [4, 6], 'hid');
    expect(rowsIn(withoutFile(extract, 0), names)).toEqual([0, 2]);
    expect(rowsIn(withFiles(await read({ 'h_2018.csv': WAVE_1 }), extract), names)).toEqual([8, 10]);
    // Columns that only later files have do not make it another row.
    const more = await read({ 'h_2022.csv': 'hid,rooms,fuel,new\nA9,1,gas,7\n' });
    expect(rowsIn(withFiles(extract, more), names)).toEqual([4, 6]);
  });

  it('goes when its file goes, and that is told; the same answers elsewhere are another observation', async () => {
    const extract = await both();
    const names = nameRows(extract, [1], 'hid');
    const without = withoutFile(extract, 0);
    expect(rowsIn(without, names)).toEqual([null]);
    expect(saidIn(without, names)).toEqual(['h_2020.csv is not among the files']);
    // Without an identifier equal cells in a file of another name may be anybody.
    expect(rowsIn(without, nameRows(extract, [0], null))).toEqual([null]);
    expect(rowsIn(await read({ 'again.csv': WAVE_1 }), nameRows(extract, [1], 'hid'))).toEqual([1]);
  });

  it('is found where its file was sorted anew, each of two equal rows once', async () => {
    const names = nameRows(await both(), [0, 2, 3], 'hid');
    const sorted = await read({ 'h_2020.csv': 'fuel,rooms,hid\ngas,5,A3\noil,4,A2\ngas,5,A3\ngas,3,A1\n' });
    expect(rowsIn(sorted, names)).toEqual([3, 2, 0]);
    expect(saidIn(sorted, names)).toEqual([
      'it stands in row 4 of h_2020.csv now',
      null,
      'it stands in row 1 of h_2020.csv now',
    ]);
  });

  it('is known by its identifier where its cells were corrected, and left alone where nothing tells it', async () => {
    const names = nameRows(await both(), [1, 2], 'hid');
    const corrected = await read({
      'h_2020.csv': 'hid,rooms,fuel\nA2,6,oil\nA1,3,gas\nA3,1,gas\nA3,2,gas\n',
    });
    expect(rowsIn(corrected, names)).toEqual([0, 2]);
    expect(saidIn(corrected, names)[0]).toContain('its cells have changed');
    const other = await read({ 'h_2020.csv': 'hid,rooms,fuel\nB1,6,oil\nB2,3,gas\nB3,1,gas\n' });
    expect(rowsIn(other, names)).toEqual([null, null]);
    expect(saidIn(other, names)[0]).toBe('no row of h_2020.csv holds what it held');
  });

  it('named in a first look at some variables is the same row in the whole', async () => {
    const part = await read({ 'h_2020.csv': WAVE_1 }, { part: { rows: 3, names: ['hid', 'fuel'] } });
    const names = nameRows(part, [2], 'hid');
    expect(names[0].of).toEqual(['hid', 'fuel']);
    expect(rowsIn(await both(), names)).toEqual([2]);
    // The other way round its other cells are out of sight: the identifier tells, or nothing.
    const whole = nameRows(await both(), [1], 'hid');
    expect(rowsIn(part, whole)).toEqual([1]);
    expect(saidIn(part, whole)[0]).toContain('hid alone');
    expect(rowsIn(part, nameRows(await both(), [1], null))).toEqual([null]);
  });

  it('of an earlier log has but its place', async () => {
    expect(rowsIn(await both(), [atPlace(6), atPlace(7)])).toEqual([6, null]);
    expect(rowText(atPlace(6))).toBe('row 7');
  });

  it('is found again in any order of files and columns, with any others around it', async () => {
    const cell = fc.constantFrom('', '1', '2', 'x');
    const table = fc.array(fc.tuple(cell, cell, cell), { minLength: 2, maxLength: 8 });
    await fc.assert(
      fc.asyncProperty(table, table, fc.nat(), async (one, two, n) => {
        const text = (rows: string[][], turned = false): string =>
          [['a', 'b', 'c'], ...rows].map((row) => (turned ? [...row].reverse() : row).join(',')).join('\n') +
          '\n';
        const extract = await read({ 'p.csv': text(one), 'q.csv': text(two) });
        const row = n % extract.rows;
        const names = nameRows(extract, [row], null);
        const other = await read({ 'z.csv': text(two), 'q.csv': text(two, true), 'p.csv': text(one, true) });
        const expected = row < one.length ? two.length * 2 + row : two.length + (row - one.length);
        expect(rowsIn(other, names)).toEqual([expected]);
      }),
      { numRuns: 50 },
    );
  });
});
