import { describe, expect, it } from 'vitest';
import type { Condition } from '../../core/sieve/condition';
import { conditionOf, formOf, type ConditionForm } from './conditionForm';
import { conditionOfBar, endsOf } from './ends';
import { nextSort } from './sorting';
import { inOrder } from './tableLook';

const form = (part: Partial<ConditionForm>): ConditionForm => ({
  test: 'codes',
  codes: new Set(),
  from: '',
  to: '',
  text: '',
  drop: false,
  ...part,
});

describe('the form of a condition', () => {
  const age = { name: 'age', storage: 'integer' as const };
  it('makes what is filled in, and says what is missing', () => {
    expect(conditionOf(form({ codes: new Set(['1']) }), age)).toEqual({
      condition: { variable: 'age', codes: ['1'] },
    });
    expect(conditionOf(form({ test: 'stretch', from: '16', to: ' 64 ', drop: true }), age)).toEqual({
      condition: { not: { variable: 'age', from: 16, to: 64 } },
    });
    expect(conditionOf(form({ test: 'stretch', to: '2,5' }), age)).toEqual({
      condition: { variable: 'age', to: 2.5 },
    });
    expect(conditionOf(form({ test: 'stretch', from: '2019-03' }), { name: 'day', storage: 'date' })).toEqual(
      {
        condition: { variable: 'day', from: '2019-03' },
      },
    );
    expect(conditionOf(form({}), age)).toMatchObject({ says: /code/ });
    expect(conditionOf(form({ test: 'stretch' }), age)).toMatchObject({ says: /from where/ });
    expect(conditionOf(form({ test: 'stretch', from: '9', to: '1' }), age)).toMatchObject({
      says: /lies above/,
    });
    expect(conditionOf(form({ test: 'stretch', from: 'x' }), age)).toMatchObject({ says: /no number/ });
  });
  it('is filled in again by the condition that it made', () => {
    const conditions: Condition[] = [
      { variable: 'age', codes: ['1', '2'] },
      { not: { variable: 'age', from: 3, to: 4 } },
      { variable: 'age', to: 4 },
      { variable: 'age', answered: false },
      { not: { variable: 'age', contains: 'x' } },
    ];
    for (const condition of conditions) {
      const filled = formOf(condition);
      expect(filled && conditionOf(filled.form, age)).toEqual({ condition });
    }
    expect(formOf({ any: conditions })).toBe(null);
  });
});

describe('the bars of a picture', () => {
  it('stand for stretches with both ends: whole numbers end before the next bar', () => {
    const histogram = { start: 10, width: 5, counts: [1, 2] };
    expect(endsOf({ form: 'histogram', histogram }, true)).toEqual([
      { from: '10', to: '14' },
      { from: '15', to: '19' },
    ]);
    expect(conditionOfBar('x', { form: 'histogram', histogram }, 1, false)).toEqual({
      variable: 'x',
      from: 15,
      to: 20,
    });
    expect(
      conditionOfBar('d', { form: 'periods', by: 'year', periods: [{ name: '2019', count: 1 }] }, 0, false),
    ).toEqual({
      variable: 'd',
      from: '2019-01-01',
      to: '2019-12-31',
    });
    const bars = [{ code: '3', label: 'Lent', count: 2 }];
    expect(conditionOfBar('t', { form: 'bars', bars, rest: 4 }, 0, false)).toEqual({
      variable: 't',
      codes: ['3'],
    });
    expect(conditionOfBar('t', { form: 'bars', bars, rest: 4 }, 1, false)).toBe(null);
  });
});

describe('the columns of the table', () => {
  it('stand as they were moved, new ones behind what they follow in the ledger', () => {
    expect(inOrder(['a', 'b', 'c'], undefined)).toEqual(['a', 'b', 'c']);
    expect(inOrder(['a', 'b', 'c', 'd'], ['c', 'gone', 'a', 'd'])).toEqual(['c', 'a', 'b', 'd']);
    expect(inOrder(['n', 'a'], ['a'])).toEqual(['n', 'a']);
  });
  it('are sorted by up, down and not, alone or within others', () => {
    const up = nextSort([], 'a', false);
    expect(up).toEqual([{ variable: 'a', down: false }]);
    const down = nextSort(up, 'a', false);
    expect(down).toEqual([{ variable: 'a', down: true }]);
    expect(nextSort(down, 'a', false)).toEqual([]);
    expect(nextSort(down, 'b', true)).toEqual([...down, { variable: 'b', down: false }]);
    expect(nextSort(nextSort(down, 'b', true), 'a', true)).toEqual([{ variable: 'b', down: false }]);
    expect(nextSort(down, 'b', false)).toEqual([{ variable: 'b', down: false }]);
  });
});
