import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractOf } from '../../testing/made';
import { associationOf } from '../cross/standing-out';
import { etaSquared } from '../cross/summary';
import { entryOf, type Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import { crossDocument, type CrossAsk } from './crossing';
import { everythingDocument } from './everything';
import { Inspector } from './inspect';

const laid = (columns: Record<string, string[]>, ...decisions: Decision[]): Inspector => {
  const dig = new Inspector(extractOf(columns));
  dig.lay(foldLog(decisions.map((decision, i) => entryOf(decision, `e${i}`, new Date(0)))));
  return dig;
};
const ask = (part: Partial<CrossAsk>): CrossAsk => ({
  down: 'a',
  across: 'b',
  within: null,
  weight: null,
  measure: null,
  withMissing: false,
  small: 10,
  ...part,
});
const kinds: Decision = {
  type: 'confirm-kind',
  kinds: [
    { variable: 'a', kind: 'nominal' },
    { variable: 'b', kind: 'nominal' },
    { variable: 'c', kind: 'nominal' },
    { variable: 'm', kind: 'continuous' },
  ],
};
const missing: Decision = {
  type: 'declare-missing',
  variables: ['a', 'b'],
  codes: [{ code: '9', reason: 'refused' }],
  rule: null,
};

describe('a table', () => {
  const cell = fc.tuple(
    fc.constantFrom('1', '2', '3', '9', ''),
    fc.constantFrom('1', '2', '9', '', 'x'),
    fc.constantFrom('1', '2'),
    fc.constantFrom('0', '1', '2.5', '-1', ''),
    fc.constantFrom('1', '4', '10', '', 'x'),
  );
  const FIRST = [
    ['1', '1', '1', '1', '1'],
    ['2', '2', '2', '2.5', '4'],
    ['3', '1', '1', '1', '10'],
    ['9', '9', '2', '0', '4'],
  ];
  const tables = fc.array(cell, { minLength: 1, maxLength: 40 }).map((rows) => [...FIRST, ...rows]);
  const columnsOf = (rows: readonly (readonly string[])[]): Record<string, string[]> =>
    Object.fromEntries(['a', 'b', 'c', 'w', 'm'].map((name, i) => [name, rows.map((row) => row[i])]));
  const valid = (text: string, name: string): boolean =>
    text !== '' && text !== 'x' && !((name === 'a' || name === 'b') && text === '9');

  it('counts as a plain loop over rows does, weighted or not; margins and levels add up; what is left out is told by reason', async () => {
    await fc.assert(
      fc.asyncProperty(tables, fc.boolean(), fc.boolean(), async (rows, weighted, third) => {
        const dig = laid(columnsOf(rows), kinds, missing);
        const weight = weighted ? 'w' : null;
        const found = await crossDocument(dig, ask({ within: third ? 'c' : null, weight, measure: 'm' }));
        const leftOut = { down: 0, across: 0, within: 0, weight: 0 };
        const base = rows.filter(([a, b, , w]) => {
          const lacks = !valid(a, 'a')
            ? 'down'
            : !valid(b, 'b')
              ? 'across'
              : weighted && (w === '' || Number(w) < 0)
                ? 'weight'
                : null;
          if (lacks) leftOut[lacks]++;
          return lacks === null;
        });
        const heavy = ([, , , w]: readonly string[]): number => (weighted ? Number(w) : 1);
        const sum = (some: readonly (readonly string[])[]): number =>
          some.reduce((all, row) => all + heavy(row), 0);
        expect(found.base.leftOut).toEqual(leftOut);
        expect(found.base.rows).toBe(base.length);
        expect(found.base.weighted).toBeCloseTo(sum(base), 9);
        expect(found.tables.map(({ within }) => within)).toEqual(third ? ['1', '2', null] : [null]);
        for (const table of found.tables) {
          const own = base.filter(([, , c]) => table.within === null || c === table.within);
          expect(table.rows).toBe(own.length);
          expect(table.cells.length).toBe(3 * 2);
          for (const one of table.cells) {
            const here = own.filter(([a, b]) => a === one.down && b === one.across);
            expect(one.rows).toBe(here.length);
            expect(one.weighted).toBeCloseTo(sum(here), 9);
            expect(one.small).toBe(here.length > 0 && here.length < 10);
            const values = here.filter((row) => valid(row[4], 'm') && heavy(row) > 0);
            const total = sum(values);
            expect(one.measure?.n).toBe(values.length);
            if (total > 0)
              expect(one.measure?.mean).toBeCloseTo(
                values.reduce((all, row) => all + Number(row[4]) * heavy(row), 0) / total,
                9,
              );
            else expect(one.measure?.mean).toBe(null);
          }
          for (const side of ['down', 'across'] as const)
            for (const { code, rows: n, share } of table[side] ?? []) {
              const cells = table.cells.filter((one) => one[side] === code);
              expect(n).toBe(cells.reduce((all, one) => all + one.rows, 0));
              if (table.weighted > 0)
                expect(share).toBeCloseTo(
                  cells.reduce((all, one) => all + (one.shareOfAll ?? 0), 0),
                  9,
                );
              else expect(share).toBe(null);
            }
        }
      }),
    );
  });

  it('turned round is the same turned round, and weights of one change nothing', async () => {
    await fc.assert(
      fc.asyncProperty(tables, async (rows) => {
        const columns = { ...columnsOf(rows), w: rows.map(() => '1') };
        const dig = laid(columns, kinds, missing);
        const [one] = (await crossDocument(dig, ask({}))).tables;
        const [other] = (await crossDocument(dig, ask({ down: 'b', across: 'a' }))).tables;
        const [weighted] = (await crossDocument(dig, ask({ weight: 'w' }))).tables;
        expect(weighted).toEqual(one);
        const close = (x: number | null, y: number | null): void =>
          x === null || y === null ? expect(x).toBe(y) : expect(x).toBeCloseTo(y, 9);
        close(one.cramersV, other.cramersV);
        close(one.chiSquare, other.chiSquare);
        for (const cellOf of one.cells) {
          const back = other.cells.find(
            ({ down, across }) => down === cellOf.across && across === cellOf.down,
          );
          expect(back?.rows).toBe(cellOf.rows);
          close(cellOf.adjustedResidual, back?.adjustedResidual ?? null);
          close(cellOf.shareOfRow, back?.shareOfColumn ?? null);
        }
      }),
    );
  });

  it('has lines for what is no answer where they are wanted, and the codes of rows that a sieve drops', async () => {
    const columns = { a: ['1', '2', '9', '', '1', '2'], b: ['1', '2', '1', '2', 'x', '1'] };
    const found = await crossDocument(laid(columns, missing), ask({ withMissing: true }));
    expect(found.down.codes.map(({ code, state }) => [code, state])).toEqual([
      ['1', 'valid'],
      ['2', 'valid'],
      ['9', 'missing'],
      ['blank', 'blank'],
    ]);
    expect(found.across?.codes.at(-1)).toEqual({ code: 'unreadable', label: null, state: 'unreadable' });
    expect(found.base).toMatchObject({ rows: 6, leftOut: { down: 0, across: 0 } });
    const sieved = laid(columns, missing, {
      type: 'make-sieve',
      sieve: 's',
      name: '',
      parts: [{ id: 'p', condition: { variable: 'a', codes: ['1'] }, on: true }],
      use: true,
    });
    const { down, tables, rows } = await crossDocument(sieved, ask({}));
    expect(rows).toEqual({ all: 6, aside: 0, kept: 2 });
    expect(down.codes.map(({ code }) => code)).toEqual(['1', '2']);
    expect(tables[0].cells.map((one) => one.rows)).toEqual([1, 0, 0, 0]);
  });

  it('of one side has one column, and nothing that needs two', async () => {
    const {
      across,
      tables: [table],
    } = await crossDocument(laid({ a: ['1', '2', '1'] }), ask({ across: null }));
    expect(across).toBe(null);
    expect(table).toMatchObject({ across: null, chiSquare: null, degreesOfFreedom: null, cramersV: null });
    expect(table.cells).toMatchObject([
      { down: '1', across: null, rows: 2, shareOfRow: 1, expected: null, adjustedResidual: null },
      { down: '2', across: null, rows: 1, shareOfRow: 1 },
    ]);
  });

  it('is refused for what makes none, with the way on', async () => {
    const dig = laid({
      a: Array.from({ length: 80 }, (_, i) => String(i * 1.5)),
      b: Array.from({ length: 80 }, (_, i) => String(i % 3)),
    });
    await expect(crossDocument(dig, ask({}))).rejects.toThrow(/put it into bands first/);
    await expect(crossDocument(dig, ask({ down: 'b', across: null, measure: 'b' }))).rejects.toThrow(
      /only counts and continuous/,
    );
  });
});

describe('what stands out', () => {
  it('is worked out as by hand', () => {
    // Expected 30 20 / 30 20; χ² = 4·(10²/30 + 10²/20)/2 = 16.667; V = √(16.667/100); residual 10 ÷ √(30·0.5·0.4).
    const { chiSquare, cramersV, degreesOfFreedom, expected, residuals } = associationOf(
      [40, 10, 20, 30],
      2,
      2,
      100,
    );
    expect(chiSquare).toBeCloseTo(50 / 3, 9);
    expect(degreesOfFreedom).toBe(1);
    expect(cramersV).toBeCloseTo(Math.sqrt(1 / 6), 9);
    expect(expected).toEqual([30, 20, 30, 20]);
    expect(residuals.map((one) => one?.toFixed(4))).toEqual(['4.0825', '-4.0825', '-4.0825', '4.0825']);
  });
  it('is nothing where a line is all there is, and empty lines count in no degree of freedom', () => {
    expect(associationOf([5, 7, 0, 0], 2, 2, 12)).toMatchObject({
      degreesOfFreedom: 0,
      cramersV: null,
      residuals: [null, null, null, null],
    });
    expect(associationOf([5, 7, 0, 0, 6, 2], 3, 2, 20).degreesOfFreedom).toBe(1);
    expect(associationOf([0, 0], 1, 2, 0)).toMatchObject({ chiSquare: null, expected: [null, null] });
  });
  it('pretends no more rows than there are, whatever the weights add up to', () => {
    const one = associationOf([40, 10, 20, 30], 2, 2, 100);
    const other = associationOf([40e3, 10e3, 20e3, 30e3], 2, 2, 100);
    expect(other.chiSquare).toBeCloseTo(one.chiSquare ?? 0, 9);
  });
  it('of a measure is the share of its spread that lies between groups', () => {
    const group = (...values: number[]) => ({
      values: Float64Array.from(values),
      rows: Float64Array.from(values, () => 1),
      weights: Float64Array.from(values, () => 1),
    });
    expect(etaSquared([group(1, 1), group(3, 3)])).toBeCloseTo(1, 12);
    // Means 2 and 4, all 3: between 4·1, within 4·1.
    expect(etaSquared([group(1, 3), group(3, 5)])).toBeCloseTo(0.5, 12);
    expect(etaSquared([group(2, 2), group(2)])).toBe(null);
  });
});

describe('against everything', () => {
  it('ranks by strength, categories and measures together, and says on how many rows', async () => {
    const n = 300;
    const columns = {
      a: Array.from({ length: n }, (_, i) => String(1 + (i % 3))),
      copy: Array.from({ length: n }, (_, i) => (i === 7 ? '' : 'xyz'[i % 3])),
      noise: Array.from({ length: n }, (_, i) => String(1 + ((i * 7) % 4))),
      rent: Array.from({ length: n }, (_, i) => (200 + (i % 3) * 300 + ((i * 13) % 97)).toFixed(1)),
      id: Array.from({ length: n }, (_, i) => `U${i}`),
    };
    const { pairs } = await everythingDocument(
      laid(columns),
      { down: 'a', weight: null },
      Object.keys(columns),
    );
    expect(pairs.map(({ variable, base }) => [variable, base])).toEqual([
      ['copy', 299],
      ['rent', 300],
      ['noise', 300],
    ]);
    expect(pairs[0].cramersV).toBeCloseTo(1, 9);
    expect(pairs[0].cells).toBe(9);
    expect(pairs[1].etaSquared).toBeGreaterThan(0.8);
  });
});
