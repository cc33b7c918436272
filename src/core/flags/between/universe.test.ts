import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnOf } from '../../extract/column';
import { askedSaid, codesSaid, notAskedIn, type Universe } from './universe';

const plain = (...codes: string[]): { code: string; label: null }[] =>
  codes.map((code) => ({ code, label: null }));

describe('a universe', () => {
  it('is a list of steps, of which the first that knows a row decides', () => {
    const codes = fc.array(fc.constantFrom('1', '2', '3'), { minLength: 1, maxLength: 2 });
    const name = fc.constantFrom('a', 'b', 'c');
    const step = fc.record({ by: name, codes, asked: fc.boolean() });
    const cells = fc.array(
      fc.record({
        a: fc.constantFrom('1', '2', '3', ''),
        b: fc.constantFrom('1', ' 2', '3'),
        c: fc.constantFrom('1', '2', '3'),
      }),
      { minLength: 1, maxLength: 40 },
    );
    fc.assert(
      fc.property(cells, fc.array(step, { maxLength: 3 }), name, codes, (rows, steps, by, shut) => {
        const universe: Universe = { steps, by, shut };
        const columns = new Map(
          (['a', 'b', 'c'] as const).map((one) => [one as string, columnOf(rows.map((row) => row[one]))]),
        );
        const notAsked = notAskedIn(universe, (one) => columns.get(one));
        rows.forEach((row, i) => {
          const holds = (one: string, some: string[]): boolean => some.includes(row[one as 'a'].trim());
          let expected = holds(by, shut);
          for (const { by: first, codes: settled, asked } of [...steps].reverse())
            if (holds(first, settled)) expected = !asked;
          expect(notAsked?.(i)).toBe(expected);
        });
      }),
    );
  });

  it('is said with "and" where codes shut, with "or" where they let ask', () => {
    const and = { by: 'boiler', codes: plain('2'), rest: plain('1'), asked: false };
    const or = { by: 'town', codes: plain('Hawmoor'), rest: plain('Fenwater'), asked: true };
    expect(askedSaid([], 'tenure', plain('3', '4'))).toBe('tenure is 3 or 4');
    expect(askedSaid([and], 'tenure', plain('3'))).toBe('boiler is 1 and tenure is 3');
    expect(askedSaid([or], 'tenure', plain('3'))).toBe('town is Hawmoor, or tenure is 3');
    expect(askedSaid([and, or], 'tenure', plain('3'))).toBe(
      'boiler is 1 and (town is Hawmoor, or tenure is 3)',
    );
    expect(askedSaid([or, and], 'tenure', plain('3'))).toBe(
      'town is Hawmoor, or boiler is 1 and tenure is 3',
    );
  });

  it('names many numbers by the first and the last, many words by the first few', () => {
    expect(
      codesSaid([
        { code: '1', label: 'Yes' },
        { code: '3', label: null },
      ]),
    ).toBe('1 Yes or 3');
    expect(codesSaid(plain('16', '17', '18', '19', '20'))).toBe('16 to 20');
    expect(codesSaid(plain('a', 'b', 'c', 'd', 'e', 'f'))).toBe('a or b or c or d or 2 more');
  });
});
