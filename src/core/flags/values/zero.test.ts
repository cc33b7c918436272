import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { NO_OTHERS, type Level } from '../../infer/level-list';
import { beginsAfterZero, breaksOff, isBalanced, livesFarFromZero, runsOut } from './zero';

const level = (value: number, count: number): Level => ({
  code: String(value),
  spellings: NO_OTHERS,
  value,
  label: null,
  count,
  standing: 'valid',
  reason: null,
  declaredBy: null,
});
const levels = (pairs: Record<number, number>): Level[] =>
  Object.entries(pairs)
    .map(([value, count]) => level(Number(value), count))
    .sort((a, b) => (a.value ?? 0) - (b.value ?? 0));

describe('zero', () => {
  const years = levels({ 1930: 9, 1950: 20, 1970: 31, 1990: 40, 2010: 22 });
  it('is far from what lives beyond it, on either side', () => {
    expect(livesFarFromZero(level(0, 4), years)).toBe(true);
    expect(
      livesFarFromZero(level(0, 4), years.map((one) => level(-(one.value ?? 0), one.count)).reverse()),
    ).toBe(true);
    expect(livesFarFromZero(level(0, 4), levels({ 1: 40, 2: 30, 5: 9, 12: 2 }))).toBe(false);
    expect(livesFarFromZero(level(0, 4), levels({ [-3]: 9, 4: 30, 9: 2 }))).toBe(false);
  });
  it('is near where many have none, unless it is out of all reach', () => {
    const hours = levels({ 20: 90, 30: 120, 40: 300, 45: 80 });
    expect(livesFarFromZero(level(0, 9), hours)).toBe(true);
    expect(livesFarFromZero(level(0, 200), hours)).toBe(false);
    expect(livesFarFromZero(level(0, 200), years)).toBe(true);
  });
  it('of two codes is the other answer', () => {
    expect(livesFarFromZero(level(0, 3), levels({ 1: 90 }))).toBe(false);
  });
  it('before a scale from one is odd where it is far rarer than any code', () => {
    const scale = levels({ 1: 90, 2: 120, 3: 60, 4: 40 });
    expect(beginsAfterZero({ kind: 'ordinal' }, level(0, 4), scale)).toBe(true);
    expect(beginsAfterZero({ kind: 'ordinal' }, level(0, 30), scale)).toBe(false);
    expect(beginsAfterZero({ kind: 'count' }, level(0, 4), scale)).toBe(false);
    expect(beginsAfterZero({ kind: 'ordinal' }, level(0, 4), levels({ 1: 90, 2: 120, 5: 60 }))).toBe(false);
  });
});

describe('below zero', () => {
  it('a quantity breaks off where the first answers are many, beside a slope that is not as steep', () => {
    expect(breaksOff(levels({ [-1]: 8 }), levels({ 0: 200, 1: 180 }))).toBe(true);
    expect(breaksOff(levels({ [-1]: 60 }), levels({ 0: 90, 1: 130 }))).toBe(false);
    // What rises as steeply further on does not end there.
    expect(breaksOff(levels({ [-1]: 3 }), levels({ 0: 30, 1: 300 }))).toBe(false);
  });
  it('it runs out step by step, without holes', () => {
    expect(runsOut(levels({ [-3]: 2, [-2]: 6, [-1]: 14 }), levels({ 0: 30, 1: 60 }))).toBe(true);
    expect(runsOut(levels({ [-8]: 2, [-1]: 14 }), levels({ 0: 30, 1: 60 }))).toBe(false);
    expect(runsOut(levels({ [-2]: 9, [-1]: 3 }), levels({ 0: 30, 1: 60 }))).toBe(false);
  });
  it('a scale is balanced that reaches as far as above, whatever the counts, but not with a code missing', () => {
    fc.assert(
      fc.property(fc.integer({ min: 2, max: 10 }), fc.integer({ min: 20, max: 90 }), (end, count) => {
        const all = Array.from({ length: 2 * end + 1 }, (_, i) => level(i - end, count));
        expect(isBalanced(all)).toBe(true);
        expect(isBalanced([...all].reverse())).toBe(true);
        expect(isBalanced(all.filter(({ value }) => value !== 1))).toBe(false);
        expect(isBalanced(all.slice(1))).toBe(false);
      }),
    );
    expect(isBalanced(levels({ [-2]: 1, [-1]: 1, 0: 90, 1: 80, 2: 70 }))).toBe(false);
  });
});
