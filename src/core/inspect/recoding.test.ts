import { describe, expect, it } from 'vitest';
import { extractOf } from '../../testing/made';
import { entryOf, type Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import { recodeSays } from '../recode/says';
import { endText, endTyped, endValue } from '../recode/ends';
import { validOf, type Levels } from '../infer/levels';
import { Inspector } from './inspect';
import { middleOf, recodableOf, recodePreviewOf } from './recoding';

const dig = (columns: Record<string, string[]>, ...decisions: Decision[]): Inspector => {
  const made = new Inspector(extractOf(columns));
  made.lay(foldLog(decisions.map((decision, i) => entryOf(decision, `e${i}`, new Date(0)))));
  return made;
};
const AGES = { age: ['20', '20', '25', '31', '40', '40', '40', '64', '99', ''] };
const refused: Decision = {
  type: 'declare-missing',
  variables: ['age'],
  codes: [{ code: '99', reason: 'refused' }],
  rule: null,
};

it('what could not be read before a trial recode counts as that in what is made of it', () => {
  const age = [...Array.from({ length: 40 }, (_, i) => String(20 + i)), 'abc'];
  const recode = { name: 'b', of: 'age', bands: [{ to: 59, code: 'young' }] };
  const made = dig({ age }, { type: 'make-recode', recode });
  const { counts, levels } = made.named('b') ?? {};
  expect(counts).toMatchObject({ all: 41, unreadable: 1, valid: 40 });
  expect(validOf(levels as Levels).levels.codes).not.toContain('abc');
});

describe('what a trial recode would make', () => {
  it('is told by code, with what falls in none and what is no answer, and before beside after', () => {
    const preview = recodePreviewOf(
      dig(AGES, refused),
      {
        name: 'b',
        of: 'age',
        bands: [
          { to: 24, code: '1', label: 'Young' },
          { from: 30, to: 40, code: '2' },
          { from: 90, code: '3' },
        ],
      },
      null,
    );
    expect(preview).toMatchObject({ misfit: null, none: 2, unanswered: 2 });
    expect(preview.codes).toEqual([
      { code: '1', label: 'Young', rows: 2, from: '20', to: '20' },
      { code: '2', label: null, rows: 4, from: '31', to: '40' },
      { code: '3', label: null, rows: 0, from: null, to: null },
    ]);
    expect(preview.cells).toEqual([
      { says: '20', rows: [2, 0, 0], none: 0 },
      { says: '25', rows: [0, 0, 0], none: 1 },
      { says: '31', rows: [0, 1, 0], none: 0 },
      { says: '40', rows: [0, 3, 0], none: 0 },
      { says: '64', rows: [0, 0, 0], none: 1 },
    ]);
  });
  it('is of the rows that a sieve keeps; parts add up to the whole', () => {
    const made = dig(AGES, refused, {
      type: 'make-sieve',
      sieve: 's',
      name: '',
      parts: [{ id: 'p', condition: { variable: 'age', from: 25 }, on: true }],
      use: true,
    });
    const { codes, none, unanswered, cells } = recodePreviewOf(
      made,
      { name: 'b', of: 'age', width: { size: 10, start: 30 } },
      null,
    );
    expect(codes.reduce((sum, { rows }) => sum + rows, none + unanswered)).toBe(made.rowCounts.kept);
    expect(cells.reduce((sum, { rows, none: out }) => sum + rows.reduce((a, b) => a + b, out), 0)).toBe(
      made.rowCounts.kept - unanswered,
    );
  });
  it('says why it cannot be, and may take the place of the one that it changes', () => {
    const recode = { name: 'b', of: 'age', only: ['20'] };
    const made = dig(AGES, { type: 'make-recode', recode });
    expect(recodePreviewOf(made, { ...recode, name: 'age' }, null).misfit).toMatch(
      /has the name age already/,
    );
    expect(recodePreviewOf(made, recode, null).misfit).toMatch(/has the name b/);
    expect(recodePreviewOf(made, recode, 'b').misfit).toBe(null);
    expect(recodePreviewOf(made, { ...recode, of: 'gone' }, null).misfit).toMatch(/no variable gone/);
  });
});

describe('what trial recodes are made on', () => {
  it('has bars, a step and quick starts for numbers, groups for labels, neither for words', () => {
    const about = recodableOf(dig({ x: Array.from({ length: 100 }, (_, i) => String(i / 2)) }), 'x');
    expect(about?.scale).toEqual({ low: 0, high: 49.5, step: 0.1, bins: { size: 5, start: 0 } });
    expect(about?.bars.reduce((sum, { count }) => sum + count, 0)).toBe(100);
    expect(about?.starts.map(({ says, bands }) => [says, bands.length])).toEqual([
      ['Quartiles', 4],
      ['Thirds', 3],
      ['Halves', 2],
      ['Steps of 5', 10],
    ]);
    expect(recodableOf(dig({ w: ['some', 'few', 'many'] }), 'w')).toMatchObject({
      scale: null,
      starts: [],
      bars: [],
    });
    expect(recodableOf(dig({ w: ['x'] }), 'gone')).toBe(null);
  });
  it('is split where half of the rows lie on either side, and each side keeps a value', () => {
    const made = dig(AGES, refused);
    expect(middleOf(made, 'age', null, null)).toBe(40);
    expect(middleOf(made, 'age', 40, null)).toBe(64);
    expect(middleOf(made, 'age', 20, 22)).toBe(null);
  });
  it('of days has ends that are ISO days', () => {
    const value = endValue('2020-01-31', 'from', 'date');
    expect(value).not.toBe(null);
    expect(endText(value ?? 0, 'date')).toBe('2020-01-31');
    expect(endValue('31.1.', 'from', 'date')).toBe(null);
    expect([endTyped(' 2.5 ', 'decimal'), endTyped('two', 'integer')]).toEqual([2.5, null]);
  });
  it('is told in one line', () => {
    expect(
      recodeSays({
        name: 'b',
        of: 'a',
        bands: [
          { values: ['1', '2'], code: '1', label: 'Own' },
          { from: 3, to: 5, code: '2' },
        ],
        rest: 'same',
      }),
    ).toBe('1, 2 → 1 Own; 3 to 5 → 2; the rest as it is');
    expect(recodeSays({ name: 'b', of: 'a', width: { size: 10, start: 0 } })).toBe('bins of 10 from 0');
  });
});
