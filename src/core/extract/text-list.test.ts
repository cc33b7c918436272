import { describe, expect, it } from 'vitest';
import { looksOf } from '../read/text-looks';
import { NumberTexts, placeInAnyCase, textArray, textAt, textsAt } from './text-list';

const made = (): NumberTexts =>
  new NumberTexts(
    Float64Array.of(1250, NaN, -5, 0, NaN),
    2,
    new Map([
      [1, 'NA'],
      [4, ' '],
    ]),
  );
const TEXTS = ['12.50', 'NA', '-0.05', '0.00', ' '];

describe('texts that are held as numbers', () => {
  it('are those that an array of them would be', () => {
    const list = made();
    expect(TEXTS.map((_, place) => textAt(list, place))).toEqual(TEXTS);
    expect([list.at(5), list.length]).toEqual([undefined, 5]);
    expect([...list]).toEqual(TEXTS);
    expect(list.at(2)).toBe('-0.05');
    expect(list.map((text, place) => `${place}${text}`)).toEqual(
      TEXTS.map((text, place) => `${place}${text}`),
    );
    expect(list.filter((text) => text.includes('0'))).toEqual(['12.50', '-0.05', '0.00']);
    expect([made().some((text) => text === ' '), made().findIndex((text) => text === '0.00')]).toEqual([
      true,
      3,
    ]);
    expect(list.reduce((sum, text) => sum + text.length, 0)).toBe(TEXTS.join('').length);
    expect(textArray(list)).toEqual(TEXTS);
    expect(textArray(TEXTS)).toBe(TEXTS);
  });

  it('show what the same texts show', () => {
    const [numbers, array] = [looksOf(made()), looksOf(TEXTS)];
    // How long they would be written is a bound alone.
    expect(numbers.longest).toBeGreaterThanOrEqual(array.longest);
    expect({ ...numbers, longest: array.longest }).toEqual(array);
  });

  it('can be some of them', () => {
    expect([...textsAt(made(), [4, 0, 1])]).toEqual([' ', '12.50', 'NA']);
    expect(textsAt(TEXTS, [2])).toEqual(['-0.05']);
  });

  it('are read only where they are odd, where all numbers come to the same', () => {
    const read: string[] = [];
    expect(made().mapOdd((text) => read.push(text) > 0, false)).toEqual([false, true, false, false, true]);
    expect(read).toEqual(['NA', ' ']);
  });

  it.each([
    ['na', 1],
    ['0.00', 3],
    ['0', -1],
    ['none', -1],
  ])('are found without regard to case: %s', (sought, place) => {
    expect([placeInAnyCase(made(), sought), placeInAnyCase(TEXTS, sought)]).toEqual([place, place]);
  });
});
