import { describe, expect, it } from 'vitest';
import { extractOf, make, type Cells } from '../../../testing/made';
import { Inspector } from '../../inspect/inspect';
import { gateOfTexts, saidOf } from './gates';

const ROWS = 600;
const work = make(ROWS, (c) => c.whole(1, 3));
const told = (columns: Record<string, Cells>, name: string, ...texts: string[]): string | null => {
  const { whole } = new Inspector(extractOf(columns));
  const gate = gateOfTexts(
    whole,
    whole.subjects.findIndex((subject) => subject.name === name),
    new Set(texts),
  );
  return gate && saidOf(gate, whole.subjects);
};

describe('a code stands for not asked', () => {
  it('where another variable shuts the question, whatever else is blank', () => {
    const hours = work.map((one, i) => (one !== 1 ? 999 : i % 9 ? 10 + (i % 50) : ''));
    expect(told({ work, hours }, 'hours', '999')).toBe('asked where work is 1');
  });

  it('though the names of both begin alike, as all of a file may', () => {
    const hours = work.map((one, i) => (one !== 1 ? -1 : 10 + (i % 50)));
    expect(told({ emp_work: work, emp_hours: hours }, 'emp_hours', '-1')).toBe('asked where emp_work is 1');
  });

  it('from an age on', () => {
    const age = make(ROWS, (c) => c.whole(0, 90));
    const income = age.map((years, i) => (Number(years) < 15 ? 9999999 : 900 + ((i * 37) % 4000)));
    expect(told({ age, income }, 'income', '9999999')).toMatch(/^asked where age is 15 to 90$/);
  });

  it('with some rows that contradict', () => {
    const hours = work.map((one, i) => (one !== 1 && i !== 40 && i !== 41 ? 999 : 10 + (i % 50)));
    expect(told({ work, hours }, 'hours', '999')).toBe('asked where work is 1');
  });
});

describe('a code stands for something else', () => {
  it('where it is spread over all rows', () => {
    const hours = make(ROWS, (c) => (c.odds(0.2) ? 999 : c.whole(10, 60)));
    expect(told({ work, hours }, 'hours', '999')).toBeNull();
  });

  it('where only the blanks follow the other variable', () => {
    const hours = work.map((one, i) => (one !== 1 ? '' : i % 6 ? 10 + (i % 50) : 99));
    expect(told({ work, hours }, 'hours', '99')).toBeNull();
  });

  it('where those who refuse one question refuse the next', () => {
    const refuses = make(ROWS, (c) => c.whole(1, 8)).map((one) => one === 1);
    const item = (shift: number): Cells => refuses.map((no, i) => (no ? 9 : 1 + ((i + shift) % 4)));
    expect(told({ glad: item(0), calm: item(1), tired: item(2) }, 'calm', '9')).toBeNull();
  });

  it('and in a few rows nothing is told', () => {
    expect(
      told(
        { work: work.slice(0, 30), hours: work.slice(0, 30).map((one) => (one === 1 ? 20 : 999)) },
        'hours',
        '999',
      ),
    ).toBeNull();
  });
});
