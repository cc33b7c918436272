import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractOf } from '../../testing/made';
import { rowsIn } from '../extract/bits';
import { atPlace } from '../extract/row-names';
import { Inspector } from '../inspect/inspect';
import { rowsDocument } from '../inspect/rows-document';
import { entryOf, type Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import { readSieve, type Condition } from './condition';
import { conditionSays } from './says';
import { misfitOf, unheld } from './sift';

const laid = (columns: Record<string, string[]>, ...decisions: Decision[]): Inspector => {
  const dig = new Inspector(extractOf(columns));
  dig.lay(foldLog(decisions.map((decision, i) => entryOf(decision, `e${i}`, new Date(0)))));
  return dig;
};
const sieve = (...conditions: Condition[]): Decision => ({
  type: 'make-sieve',
  sieve: 's',
  name: '',
  parts: conditions.map((condition, i) => ({ id: String(i), condition, on: true })),
  use: true,
});
const kept = (columns: Record<string, string[]>, ...conditions: Condition[]): number[] =>
  [...rowsIn(laid(columns, sieve(...conditions)).within ?? new Int32Array(0))].map((row) => row + 1);

describe('a condition', () => {
  const columns = {
    n: ['1', '2.0', '2', 'x', '', ' ', '40', '-3'],
    t: ['Mill Lane', 'mill', '', 'Quay', 'QUAY', 'quay', 'N/A', 'Millbrook'],
    day: [
      '2019-03-30',
      '2019-03-31',
      '2019-04-01',
      '',
      '2020-01-01',
      '2019-03-31',
      '2019-12-31',
      '2018-01-01',
    ],
    at: [
      '2019-03-31 00:00',
      '2019-03-31 23:59',
      '2019-04-01 00:00',
      '',
      '2019-03-30 23:59',
      '2020-01-01 12:00',
      '2019-03-31 12:30',
      '2019-01-01 01:01',
    ],
  };
  it.each<[Condition, number[]]>([
    [{ variable: 'n', codes: ['2'] }, [2, 3]],
    [{ variable: 'n', codes: ['1.00', 'x'] }, [1, 4]],
    [{ variable: 't', codes: ['QUAY'] }, [5]],
    [{ variable: 'n', from: 2, to: 40 }, [2, 3, 7]],
    [{ variable: 'n', to: 1 }, [1, 8]],
    [{ variable: 'n', answered: true }, [1, 2, 3, 7, 8]],
    [{ variable: 'n', answered: false }, [4, 5, 6]],
    [{ variable: 't', contains: 'MILL' }, [1, 2, 8]],
    [{ variable: 'n', contains: 'X' }, [4]],
    [{ not: { variable: 't', contains: 'mill' } }, [3, 4, 5, 6, 7]],
    [{ not: { variable: 'n', from: 2 } }, [1, 4, 5, 6, 8]],
    [
      {
        any: [
          { variable: 'n', codes: ['1'] },
          { variable: 't', codes: ['mill'] },
        ],
      },
      [1, 2],
    ],
    [{ variable: 'day', from: '2019-03-31', to: '2019-12-31' }, [2, 3, 6, 7]],
    [{ variable: 'day', to: '2019-03' }, [1, 2, 6, 8]],
    [{ variable: 'at', from: '2019-03-31', to: '2019-03-31' }, [1, 2, 7]],
    [{ variable: 'at', from: '2019-03-31T12:00', to: '2019-03-31T23:00' }, [7]],
  ])('%j keeps the rows that it says', (condition, rows) => {
    expect(kept(columns, condition)).toEqual(rows);
  });

  it('is in words what it keeps', () => {
    const labels = (_: string, code: string): string | null => (code === '1' ? 'Yes' : null);
    expect(
      (
        [
          { variable: 'a', codes: ['1', '2'] },
          { not: { variable: 'a', codes: ['3'] } },
          { variable: 'age', from: 16, to: 64 },
          { not: { variable: 'age', from: 16 } },
          { variable: 'age', from: 7, to: 7 },
          { not: { variable: 'a', answered: true } },
          { not: { variable: 't', contains: 'x' } },
          {
            any: [
              { variable: 'a', codes: ['1'] },
              {
                any: [
                  { variable: 'b', to: 3 },
                  { variable: 'b', codes: ['9'] },
                ],
              },
            ],
          },
        ] as Condition[]
      ).map((condition) => conditionSays(condition, labels)),
    ).toEqual([
      'a is 1 Yes or 2',
      'a is not 3',
      'age is 16 to 64',
      'age is not 16 or more',
      'age is 7',
      'a is not answered',
      't does not contain “x”',
      'a is 1 Yes, or (b is 3 or less, or b is 9)',
    ]);
  });

  it('that does not suit a variable is told, and codes that no row holds are', () => {
    const { lookup } = new Inspector(extractOf(columns));
    expect(
      (
        [
          { variable: 'gone', answered: true },
          { variable: 't', from: 1 },
          { variable: 'n', from: '2019-01-01' },
          { variable: 'day', from: 3 },
          { variable: 'day', from: '2019-02-31' },
          { variable: 'n', from: 5, to: 4 },
          { any: [{ variable: 'n', answered: true }, { not: { variable: 'at', to: '12:00' } }] },
        ] as Condition[]
      ).map((condition) => misfitOf(condition, lookup)),
    ).toEqual([
      'there is no variable gone',
      't: from 1 does not suit it: its values are texts; name codes, or what they contain',
      'n: from "2019-01-01" is no number, and its values are numbers',
      'day: from 3 is not a day (2019-03-31)',
      'day: from "2019-02-31" is not a day (2019-03-31)',
      'n: from 5 lies above to 4',
      'at: to "12:00" is not a day or a moment (2019-03-31T08:30)',
    ]);
    expect(unheld({ not: { variable: 'n', codes: ['2.00', '7', 'q'] } }, lookup)).toEqual([
      { variable: 'n', code: '7' },
      { variable: 'n', code: 'q' },
    ]);
  });
});

describe('a sieve as a file', () => {
  const of = (...conditions: unknown[]): unknown => ({
    format: 'dig-first-sieve',
    version: 1,
    name: 'x',
    conditions,
  });
  it.each<[unknown, string, RegExp]>([
    [of(), 'conditions', /at least one/],
    [{ ...(of({ variable: 'a', answered: true }) as object), version: 2 }, 'version', /no sieve/],
    [of({ variable: 'a', codes: [] }), 'conditions.0.codes', /at least one code/],
    [of({ variable: 'a', contains: '' }), 'conditions.0.contains', /nothing to look for/],
    [
      of({ variable: 'a', codes: ['1'], from: 3 }),
      'conditions.0',
      /one test, not several \(codes, from or to\)/,
    ],
    [of({ variable: 'a' }), 'conditions.0', /has one test/],
    [
      of({
        not: {
          any: [
            { variable: 'a', answered: true },
            { variable: 'b', near: 1 },
          ],
        },
      }),
      'conditions.0.not.any.1',
      /one test/,
    ],
    [of({ variable: 'a', answered: true, near: 1 }), 'conditions.0.near', /has near/],
    [of({ variable: 'a', codes: [1] }), 'conditions.0', /codes are texts/],
    [of({ any: [] }), 'conditions.0.any', /at least one/],
    [of(null), 'conditions.0', /is an object/],
    [[...Array(90).keys()].reduce<unknown>((inner) => ({ not: inner }), null), 'format', /no sieve/],
  ])('that is none is refused with its place: %j', (found, element, says) => {
    expect(readSieve(found)).toEqual({ element, says: expect.stringMatching(says) as string });
  });
  it('is read whole, but not deeper than anybody thinks', () => {
    const deep = Array(60)
      .fill(0)
      .reduce<unknown>((inner) => ({ not: inner }), { variable: 'a', answered: true });
    expect(readSieve(of(deep))).toMatchObject({ says: expect.stringMatching(/deep/) as string });
    expect(readSieve(of({ not: { variable: 'a', to: 3 } }))).toMatchObject({ sieve: { name: 'x' } });
  });
});

/** What a cell comes to, worked out for each cell by itself. */
interface Meant {
  state: string;
  code: string | null;
  value: number | null;
}

describe('rows kept', () => {
  const texts = { n: ['1', '2', '3', '2.0', '9', 'x', '', ' '], t: ['a', 'b', 'Ab', 'c', ''] };
  const FIRST = { n: ['1', '2', '3', '2', '1', '3'], t: ['a', 'b', 'c', 'a', 'b', 'c'] };
  const rowsOf = fc.array(fc.tuple(fc.constantFrom(...texts.n), fc.constantFrom(...texts.t)), {
    minLength: 1,
    maxLength: 30,
  });
  const leaf: fc.Arbitrary<Condition> = fc.oneof(
    fc.record({
      variable: fc.constant('n'),
      codes: fc.subarray(['1', '2', '2.00', '9', 'x', '7'], { minLength: 1 }),
    }),
    fc.record({ variable: fc.constant('t'), codes: fc.subarray(['a', 'b', 'Ab', 'z'], { minLength: 1 }) }),
    fc.record({ variable: fc.constant('n'), from: fc.constantFrom(0, 1, 2), to: fc.constantFrom(2, 3, 9) }),
    fc.record({ variable: fc.constantFrom('n', 't'), answered: fc.boolean() }),
    fc.record({ variable: fc.constantFrom('n', 't'), contains: fc.constantFrom('A', '2', 'x') }),
  );
  const condition: fc.Arbitrary<Condition> = fc.letrec<{ condition: Condition }>((tie) => ({
    condition: fc.oneof(
      { maxDepth: 2 },
      leaf,
      fc.record({ not: tie('condition') }),
      fc.record({ any: fc.array(tie('condition'), { minLength: 1, maxLength: 3 }) }),
    ),
  })).condition;
  const decisions: Decision[] = [
    { type: 'declare-missing', variables: ['n'], codes: [{ code: '9', reason: 'refused' }], rule: null },
    { type: 'merge-codes', variables: ['n'], codes: ['3'], into: '1', rule: null },
    { type: 'merge-codes', variables: ['t'], codes: ['b'], into: 'a', rule: null },
  ];
  const meant = (variable: string, text: string, ruled: boolean): Meant => {
    if (text.trim() === '') return { state: 'blank', code: null, value: null };
    if (variable === 't') return { state: 'valid', code: ruled && text === 'b' ? 'a' : text, value: null };
    if (text === 'x') return { state: 'unreadable', code: 'x', value: null };
    const value = ruled && text === '3' ? 1 : Number(text);
    return { state: ruled && value === 9 ? 'missing' : 'valid', code: String(value), value };
  };
  const holds = (one: Condition, row: Record<string, string>, ruled: boolean): boolean => {
    if ('not' in one) return !holds(one.not, row, ruled);
    if ('any' in one) return one.any.some((other) => holds(other, row, ruled));
    const { state, code, value } = meant(one.variable, row[one.variable], ruled);
    if ('codes' in one)
      return one.codes.some((named) => {
        const wanted = meant(one.variable, named, ruled);
        return state !== 'blank' && (wanted.value === null ? wanted.code === code : wanted.value === value);
      });
    if ('answered' in one) return (state === 'valid') === one.answered;
    if ('contains' in one)
      return state !== 'blank' && (code ?? '').toLowerCase().includes(one.contains.toLowerCase());
    return state === 'valid' && value !== null && value >= Number(one.from) && value <= Number(one.to);
  };

  it('are those that a plain loop over rows keeps, the account adds up, and every figure is of them alone', async () => {
    await fc.assert(
      fc.asyncProperty(
        rowsOf,
        fc.array(condition, { minLength: 1, maxLength: 3 }),
        fc.boolean(),
        fc.array(fc.nat(20), { maxLength: 4 }),
        async (table, conditions, ruled, gone) => {
          const columns = {
            n: [...FIRST.n, ...table.map(([n]) => n)],
            t: [...FIRST.t, ...table.map(([, t]) => t)],
          };
          const aside = [...new Set(gone)]
            .map((row) => row + FIRST.n.length)
            .filter((row) => row < columns.n.length);
          const dig = laid(
            columns,
            ...(ruled ? decisions : []),
            ...(aside.length ? [{ type: 'set-aside' as const, rows: aside.map(atPlace), rule: null }] : []),
            sieve(...conditions),
          );
          const there = columns.n.map((_, row) => row).filter((row) => !aside.includes(row));
          const at = (row: number): Record<string, string> => ({ n: columns.n[row], t: columns.t[row] });
          const fails = (row: number): number[] =>
            conditions.flatMap((one, i) => (holds(one, at(row), ruled) ? [] : [i]));
          const left = there.filter((row) => fails(row).length === 0);
          expect([...rowsIn(dig.within ?? new Int32Array(0))]).toEqual(left);
          expect(dig.rowCounts).toEqual({ all: there.length, aside: aside.length, kept: left.length });
          dig.account.forEach(({ keeps, drops, dropsAlone, left: after }, i) => {
            expect(keeps + drops).toBe(there.length);
            expect(drops).toBe(there.filter((row) => fails(row).includes(i)).length);
            expect(dropsAlone).toBe(there.filter((row) => fails(row).join() === String(i)).length);
            expect(after).toBe(there.filter((row) => !fails(row).some((j) => j <= i)).length);
          });
          // Counts by the cell, and as if the other rows had never been there.
          const told = dig.document();
          expect(told.rows).toBe(left.length);
          for (const variable of ['n', 't'] as const) {
            const { counts } = told.variables.find(({ name }) => name === variable) ?? told.variables[0];
            const states = left.map((row) => meant(variable, columns[variable][row], ruled).state);
            expect(counts).toMatchObject({
              all: left.length,
              blank: states.filter((state) => state === 'blank').length,
              unreadable: states.filter((state) => state === 'unreadable').length,
              missing: states.filter((state) => state === 'missing').length,
              valid: states.filter((state) => state === 'valid').length,
            });
          }
          const dropped = await rowsDocument(dig, {
            variables: ['n'],
            sort: [],
            find: null,
            dropped: true,
            from: 0,
            take: 99,
          });
          expect(dropped.records.map(({ row, failed }) => [row - 1, failed])).toEqual(
            there.filter((row) => fails(row).length > 0).map((row) => [row, fails(row)]),
          );
        },
      ),
    );
  });

  it('stand in no rule’s way: flags under a sieve are raised without a fault, even where nobody is left', () => {
    const columns = {
      n: Array.from({ length: 60 }, (_, i) => String(i % 5)),
      m: Array.from({ length: 60 }, (_, i) => (i % 5 ? String(i) : '')),
      t: Array.from({ length: 60 }, (_, i) => (i % 7 ? 'yes' : 'no')),
    };
    for (const codes of [['1'], ['none'], ['0', '1', '2']]) {
      const dig = laid(columns, sieve({ variable: 'n', codes }));
      expect(dig.document().flags).toEqual(expect.any(Array));
      for (const { at = [] } of dig.flags) for (const row of at) expect(codes).toContain(columns.n[row]);
    }
  });
});
