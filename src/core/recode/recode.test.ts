import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractOf } from '../../testing/made';
import { Inspector } from '../inspect/inspect';
import { rowsDocument } from '../inspect/rows-document';
import { entryOf, type Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import { edgeText, stepsBetween } from './decimal';
import { readRecodes, type Recode } from './recode';

const laid = (columns: Record<string, string[]>, ...decisions: Decision[]): Inspector => {
  const dig = new Inspector(extractOf(columns));
  dig.lay(foldLog(decisions.map((decision, i) => entryOf(decision, `e${i}`, new Date(0)))));
  return dig;
};
const recode = (made: Recode): Decision => ({ type: 'make-recode', recode: made });
/** Codes and labels of a trial recode in its order, and what each row became. */
async function made(columns: Record<string, string[]>, one: Recode, ...before: Decision[]) {
  const dig = laid(columns, ...before, recode(one));
  expect(dig.trialMisfits).toEqual([]);
  const { records } = await rowsDocument(dig, {
    variables: [one.name],
    sort: [],
    find: null,
    dropped: false,
    from: 0,
    take: 99,
  });
  const told = dig.document().variables.find(({ name }) => name === one.name);
  return {
    rows: records.map(({ cells: [{ code, state }] }) => (state === 'valid' ? code : state)),
    codes: told?.frequencies.filter((f) => !f.missing).map(({ code, label }) => [code, label]),
    told,
  };
}
const AGES = { age: ['12', '13', '25.5', '40', '', 'x', '99', '-1'] };
const refused: Decision = {
  type: 'declare-missing',
  variables: ['age'],
  codes: [{ code: '99', reason: 'refused' }],
  rule: null,
};

describe('bands', () => {
  it('are closed at both ends, open where one is absent; what is in none is blank, and what is no answer stays what it is', async () => {
    const { rows, codes, told } = await made(
      AGES,
      {
        name: 'band',
        of: 'age',
        label: 'Age in bands',
        bands: [
          { from: 13, to: 25.5, code: '1', label: 'Young' },
          { from: 26, code: '2' },
        ],
      },
      refused,
    );
    expect(rows).toEqual(['blank', '1', '1', '2', 'blank', 'unreadable', 'missing', 'blank']);
    expect(codes).toEqual([
      ['1', 'Young'],
      ['2', null],
    ]);
    expect(told).toMatchObject({ label: 'Age in bands', kind: 'ordinal', trial: true, position: 2 });
    expect(told?.missingCodes).toMatchObject([{ code: '99', reason: 'refused', count: 1 }]);
  });
  it('take codes by name, missing ones among them, and leave the rest as it is where that is wanted', async () => {
    const columns = { t: ['a', 'b', 'c', 'd', '9'] };
    const missing: Decision = {
      type: 'declare-missing',
      variables: ['t'],
      codes: [{ code: '9', reason: 'refused' }],
      rule: null,
    };
    const { rows, codes } = await made(
      columns,
      { name: 'g', of: 't', bands: [{ values: ['c', 'a', '9'], code: 'first' }], rest: 'same' },
      missing,
    );
    expect(rows).toEqual(['first', 'b', 'first', 'd', 'first']);
    expect(codes).toEqual([
      ['first', null],
      ['b', null],
      ['d', null],
    ]);
  });
  it('of days are told by ISO days', async () => {
    const { rows } = await made(
      { day: ['31/12/2019', '01/01/2020', '15/06/2021', '20/02/2018'] },
      {
        name: 'y',
        of: 'day',
        bands: [
          { to: '2019-12-31', code: '1' },
          { from: '2020-01-01', to: '2020-12', code: '2' },
        ],
      },
    );
    expect(rows).toEqual(['1', '2', 'blank', '1']);
  });
  it.each<[Recode, RegExp]>([
    [
      {
        name: 'b',
        of: 'age',
        bands: [
          { to: 20, code: '1' },
          { from: 20, code: '2' },
        ],
      },
      /bands 1 and 2 overlap from 20 to 20/,
    ],
    [
      {
        name: 'b',
        of: 'age',
        bands: [
          { from: 0, to: 20, code: '1' },
          { values: ['13'], code: '2' },
        ],
      },
      /overlap at 13/,
    ],
    [
      {
        name: 'b',
        of: 'age',
        bands: [
          { values: ['13'], code: '1' },
          { values: ['40', '13.0'], code: '2' },
        ],
      },
      /overlap at 13/,
    ],
    [{ name: 'b', of: 'age', bands: [{ to: 20, code: '99' }] }, /99 stands for no answer in age/],
    [{ name: 'b', of: 'age', bands: [{ from: '2019-01-01', code: '1' }] }, /is no number/],
    [{ name: 'age', of: 'age', only: ['12'] }, /a variable has this name/],
    [{ name: 'b', of: 'gone', only: ['12'] }, /there is no variable gone/],
    [{ name: 'b', of: 't', width: { size: 2, start: 0 } }, /holds no numbers/],
  ])('that cannot be are refused with why: %j', (one, says) => {
    const dig = laid({ ...AGES, t: AGES.age.map(() => 'w') }, refused, recode(one));
    expect(dig.trialMisfits).toEqual([expect.stringMatching(says)]);
    expect(dig.variables.length).toBe(2);
  });
});

describe('bins of equal width', () => {
  it('hold their lower edge and not their upper, end where the data end, and are called by what they hold', async () => {
    const { rows, codes } = await made(
      { year: ['1969', '1970', '1979', '1972', '1980', '1999', ''] },
      { name: 'decade', of: 'year', width: { size: 10, start: 1970 } },
    );
    expect(rows).toEqual(['blank', '1970', '1970', '1970', '1980', '1990', 'blank']);
    expect(codes).toEqual([
      ['1970', '1970 to 1979'],
      ['1980', '1980'],
      ['1990', '1999'],
    ]);
  });
  it('are exact in decimals', async () => {
    const { rows } = await made(
      { x: ['0.3', '0.29999', '0.7', '0.1', '1.1', '0.6'] },
      { name: 'b', of: 'x', width: { size: 0.1, start: 0 } },
    );
    expect(rows).toEqual(['0.3', '0.2', '0.7', '0.1', '1.1', '0.6']);
    fc.assert(
      fc.property(
        fc.integer({ min: -2000, max: 2000 }),
        fc.integer({ min: 1, max: 500 }),
        fc.integer({ min: -300, max: 300 }),
        (v, w, s) => {
          // In thousandths, where all is whole.
          const steps = stepsBetween(v / 1000, s / 1000, w / 1000);
          expect(Number(steps)).toBe(Math.floor((v - s) / w));
          expect(Number(edgeText(s / 1000, w / 1000, steps))).toBeCloseTo((s + w * Number(steps)) / 1000, 9);
        },
      ),
    );
  });
});

describe('a trial recode', () => {
  it('of picks keeps them, and is a variable like any other, also to be recoded and sieved by', async () => {
    const columns = { y: ['2000', '2004', '2012', '2000'], n: ['1', '2', '3', '4'] };
    const { rows } = await made(columns, { name: 'y2', of: 'y', only: ['2000', '2012.0'] });
    expect(rows).toEqual(['2000', 'blank', '2012', '2000']);
    const dig = laid(
      columns,
      recode({ name: 'y2', of: 'y', only: ['2000', '2012'] }),
      recode({ name: 'y3', of: 'y2', bands: [{ values: ['2000'], code: '1' }] }),
      {
        type: 'make-sieve',
        sieve: 's',
        name: '',
        parts: [{ id: 'p', condition: { variable: 'y3', codes: ['1'] }, on: true }],
        use: true,
      },
    );
    expect(dig.rowCounts.kept).toBe(2);
    expect(dig.variables.map(({ name, trial }) => [name, trial])).toEqual([
      ['y', undefined],
      ['n', undefined],
      ['y2', 'y'],
      ['y3', 'y2'],
    ]);
    dig.lay(foldLog([]));
    expect(dig.variables.length).toBe(2);
    expect(dig.named('y2')).toBe(undefined);
  });
  it('follows what is ruled of what it is made of', () => {
    const columns = { a: ['1', '2', '3', '1'] };
    const one = recode({ name: 'g', of: 'a', bands: [{ values: ['1'], code: '1' }], rest: 'same' });
    const merge: Decision = { type: 'merge-codes', variables: ['a'], codes: ['3'], into: '1', rule: null };
    const counts = (dig: Inspector): unknown =>
      dig.named('g')?.levels.levels.map(({ code, count }) => [code, count]);
    const dig = laid(columns, one);
    expect(counts(dig)).toEqual([
      ['1', 2],
      ['2', 1],
      ['3', 1],
    ]);
    dig.lay(foldLog([one, merge].map((decision, i) => entryOf(decision, `e${i}`, new Date(0)))));
    expect(counts(dig)).toEqual([
      ['1', 3],
      ['2', 1],
    ]);
  });
});

describe('recodes as a file', () => {
  const of = (...recodes: unknown[]): unknown => ({ format: 'dig-first-recodes', version: 1, recodes });
  it.each<[unknown, string, RegExp]>([
    [of(), 'recodes', /no recodes/],
    [of({ name: 'a', of: 'b' }), 'recodes.0', /one way/],
    [of({ name: 'a', of: 'b', only: ['1'], width: { size: 1, start: 0 } }), 'recodes.0', /only|width/],
    [of({ name: 'a', of: 'b', width: { size: 0, start: 0 } }), 'recodes.0.width', /size above zero/],
    [
      of({ name: 'a', of: 'b', bands: [{ from: 1, code: '1' }, { from: 2 }] }),
      'recodes.0.bands.1',
      /and a code/,
    ],
    [of({ of: 'b', only: ['1'] }), 'recodes.0', /has a name/],
  ])('that are none are refused with their place: %j', (found, element, says) => {
    expect(readRecodes(found)).toEqual({ element, says: expect.stringMatching(says) as string });
  });
});
