import { describe, expect, it } from 'vitest';
import { extractOf } from '../../testing/made';
import { bitsOf, rowsIn } from '../extract/bits';
import { columnOf } from '../extract/column';
import { PackedColumn } from '../extract/packed-column';
import { placeReceived } from '../extract/extract';
import { atPlace } from '../extract/row-names';
import { subsetOf } from '../extract/subset';
import { placeOf } from '../flags/rows/repeated-header';
import { entryOf, type Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import type { Condition, Part } from '../sieve/condition';
import { Inspector } from './inspect';
import { rowsHolding } from './listed';
import { failedIn, flaggedRows, listingOf, type ListAsk } from './listing';
import { previewOf } from './preview';
import { sheetLines } from './sheet';

const laid = (columns: Record<string, string[]>, ...decisions: Decision[]): Inspector => {
  const dig = new Inspector(extractOf(columns));
  dig.lay(foldLog(decisions.map((decision, i) => entryOf(decision, `e${i}`, new Date(0)))));
  return dig;
};
const parts = (...conditions: (Condition | { off: Condition })[]): Part[] =>
  conditions.map((one, i) =>
    'off' in one ? { id: `p${i}`, condition: one.off, on: false } : { id: `p${i}`, condition: one, on: true },
  );
const COLUMNS = { id: ['a', 'b', 'c', 'd', 'e'], t: ['1', '2', '1', '', '2'], n: ['5', '6', '7', '8', 'x'] };
const T1 = { variable: 't', codes: ['1'] };
const N6 = { variable: 'n', from: 6 };

describe('a listing', () => {
  const aside: Decision = { type: 'set-aside', rows: [atPlace(1)], rule: null };
  const list = (part: Partial<ListAsk>): number[] => [
    ...listingOf(laid(COLUMNS, aside), { which: 'kept', parts: parts(T1), flag: null, sort: [], ...part })
      .rows,
  ];
  it('holds the rows kept, those dropped, both, or those set aside too, by a sieve that need not be in force', () => {
    expect(list({})).toEqual([0, 2]);
    expect(list({ which: 'dropped' })).toEqual([3, 4]);
    expect(list({ which: 'there' })).toEqual([0, 2, 3, 4]);
    expect(list({ which: 'received' })).toEqual([0, 1, 2, 3, 4]);
    expect(list({ parts: null })).toEqual([0, 2, 3, 4]);
    expect(list({ parts: null, which: 'dropped' })).toEqual([]);
    expect(list({ sort: [{ variable: 'n', down: true }] })).toEqual([2, 0]);
  });
  it('says which conditions a row fails, those that are switched off aside', () => {
    const listing = listingOf(laid(COLUMNS), {
      which: 'dropped',
      parts: parts(T1, { off: { variable: 'id', codes: ['none'] } }, N6),
      flag: null,
      sort: [],
    });
    expect([...listing.rows].map((row) => [row, failedIn(listing, row)])).toEqual([
      [0, ['p2']],
      [1, ['p0']],
      [3, ['p0']],
      [4, ['p0', 'p2']],
    ]);
  });
  it('of a flag holds the rows with its codes in any of its variables, or those that it names', () => {
    const dig = laid(COLUMNS);
    const flag = { rule: 'mixed-content', variables: ['n'], codes: ['x', '7'] };
    expect([...rowsIn(flaggedRows(dig, flag))]).toEqual([2, 4]);
    expect([...rowsIn(flaggedRows(dig, { ...flag, codes: [] }))]).toEqual([]);
    const twice = Array.from({ length: 60 }, (_, i) => String(i === 59 ? 3 : i));
    const doubled = laid(
      Object.fromEntries('abcde'.split('').map((name, k) => [name, twice.map((text) => `${text}${k}`)])),
    );
    const found = doubled.flags.find(({ rule }) => rule === 'duplicate-row');
    expect(found && [...rowsIn(flaggedRows(doubled, found))]).toEqual([59]);
  });
});

describe('a preview', () => {
  it('tells each condition alone and in company, and those switched off by themselves', () => {
    const { rows, parts: told } = previewOf(
      laid(COLUMNS),
      parts(T1, N6, { off: { variable: 'id', codes: ['a'] } }),
    );
    expect(rows).toEqual({ all: 5, aside: 0, kept: 1 });
    expect(told.map(({ keeps, drops, dropsAlone, left }) => [keeps, drops, dropsAlone, left])).toEqual([
      [2, 3, 2, 2],
      [3, 2, 1, 1],
      [1, 4, 0, 1],
    ]);
  });
  it('says where everyone without an answer goes too, unless that is what was asked', () => {
    const told = (...conditions: Condition[]): number[] =>
      previewOf(laid(COLUMNS), parts(...conditions)).parts.map(({ unanswered }) => unanswered);
    expect(told(T1, N6, { not: T1 }, { variable: 't', answered: true })).toEqual([1, 1, 0, 0]);
  });
  it('says what does not fit, which drops nothing', () => {
    const { rows, parts: told } = previewOf(laid(COLUMNS), parts({ variable: 'gone', answered: true }, T1));
    expect(rows.kept).toBe(2);
    expect(told[0]).toMatchObject({ misfit: 'there is no variable gone', drops: 0, left: 5 });
  });
  it('changes nothing', () => {
    const dig = laid(COLUMNS);
    const before = JSON.stringify(dig.document());
    previewOf(dig, parts(T1));
    expect(JSON.stringify(dig.document())).toBe(before);
  });
});

describe('a sheet of corrections', () => {
  const rows = Array.from({ length: 40 }, (_, i) => i);
  const dig = laid({
    hhid: rows.map((i) => `H${1000 + (i === 39 ? 38 : i)}`),
    n: rows.map((i) => String(i % 7)),
  });
  it('is checked line by line: what is meant is told, what is not is told with why', () => {
    expect(dig.unitsBy).toBe('hhid');
    const told = sheetLines(
      dig,
      'hhid\tvariable\tvalue\nH1002\tn\t9\n\nH1003\tnum\t9\nH9\tn\t1\nH1038\tn\t1\nH1004\tn\t4\nH1005\tn\nH1006\tn\t1\t2',
    );
    expect(told.map(({ line, cell, says }) => [line, cell, says])).toEqual([
      [2, { row: 2, variable: 'n', from: '2' }, null],
      [4, null, expect.stringMatching(/there is no variable num; near are n/)],
      [5, null, 'no row has hhid H9'],
      [6, null, expect.stringMatching(/2 rows have hhid H1038/)],
      [7, null, 'the cell holds that already'],
      [8, null, expect.stringMatching(/2 cells, three are needed|already/)],
      [9, null, '4 cells, three are needed'],
    ]);
  });
  it('knows rows by their number where nothing tells them apart, and keeps what was received', () => {
    const plain = laid(
      { n: ['1', '2', '1', '2'] },
      {
        type: 'correct-cells',
        cells: [{ row: atPlace(1), variable: 'n', from: '2', to: '3' }],
        rule: null,
      },
    );
    expect(sheetLines(plain, '2,n,4\n9,n,1').map(({ cell, says }) => [cell, says])).toEqual([
      [{ row: 1, variable: 'n', from: '2' }, null],
      [null, 'there is no row 9'],
    ]);
  });
});

describe('finding a text', () => {
  it('looks into numbers for digits, a point or a minus, and into what else stands among them for anything', () => {
    const amounts = Array.from({ length: 1200 }, (_, i) =>
      i % 40 === 7 ? 'n.a.' : ((i * 13 - 500) / 100).toFixed(2),
    );
    const inspector = laid({ amount: amounts, n: amounts.map((_, i) => String(i)) });
    for (const sought of ['a', '1.3', '-4', '.', 'N.', '5', 'x', '-']) {
      const rows = [...rowsIn(rowsHolding(inspector, ['amount'], sought))];
      const expected = amounts.flatMap((text, row) => (text.includes(sought.toLowerCase()) ? [row] : []));
      expect(rows).toEqual(expected);
    }
  });
});

describe('some rows as an extract', () => {
  it('hold the cells of those rows in either form of column, and know where they were received', () => {
    const texts = ['a', '', 'éé', 'a', 'long enough'];
    const encoder = new TextEncoder();
    let used = 0;
    const ends = Uint32Array.from(texts, (text) => (used += encoder.encode(text).length));
    const packed = new PackedColumn(encoder.encode(texts.join('')), ends);
    const within = bitsOf(5, (row) => row !== 1 && row !== 3);
    for (const column of [columnOf(texts), packed]) {
      const extract = extractOf({ x: texts });
      extract.variables[0] = { ...extract.variables[0], column };
      const file = {
        name: 'f.csv',
        bytes: 0,
        columns: 1,
        form: 'delimited' as const,
        encoding: 'utf-8',
        delimiter: ',',
        header: true,
        names: ['x'],
        notices: [],
      };
      extract.files = [
        { ...file, rows: 2, lines: [[0, 2]] },
        { ...file, name: 'g.csv', rows: 3, lines: [[0, 2]] },
      ];
      const some = subsetOf(extract, within);
      expect(some.rows).toBe(3);
      expect(some.files.map(({ rows }) => rows)).toEqual([1, 2]);
      const { column: own } = some.variables[0];
      expect([0, 1, 2].map((row) => own.text(row))).toEqual(['a', 'éé', 'long enough']);
      expect([0, 1, 2].map((row) => placeReceived(some, row))).toEqual([0, 2, 4]);
      expect(placeOf(some, 2)).toBe('row 3 of g.csv (line 4)');
      expect(own.listed.text(1)).toBe('éé');
    }
  });
});
