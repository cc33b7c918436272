import { atPlace } from '../extract/row-names';
import { describe, expect, it } from 'vitest';
import { extractOf, labels, make, type Cells } from '../../testing/made';
import { entryOf, type Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import { Inspector } from './inspect';

const ROWS = 400;
const boiler = make(ROWS, (c) => c.whole(1, 2));
const town: Cells = Array.from({ length: ROWS }, (_, row) => ['Fenwater', 'Hawmoor', 'Pellsey'][row % 3]);
const age: Cells = boiler.map((has, row) => (has === 1 ? 1 + (row % 29) : ''));
const NO = labels({ 1: 'Yes', 2: 'No' });
const shut = boiler.flatMap((has, row) => (has === 2 ? [row] : []));
const dig = (cells: Cells, ...decisions: Decision[]): Inspector => {
  const inspector = new Inspector(
    extractOf({ boiler, town, boil_age: cells }, { boiler: { categories: NO } }),
  );
  inspector.lay(foldLog(decisions.map((decision, i) => entryOf(decision, `e${i}`, new Date(0)))));
  return inspector;
};
const answered = (...rows: number[]): Cells => age.map((cell, row) => (rows.includes(row) ? 5 : cell));

describe('who was asked', () => {
  it('is told by the blanks until a person says so, with the rows that contradict', () => {
    const wrong = shut.slice(4, 6);
    expect(dig(answered(...wrong)).asked('boil_age')).toMatchObject({
      says: 'asked where boiler is 1 Yes',
      notAsked: shut.length - 2,
      breaches: wrong,
      breached: 2,
      accepted: false,
      flag: { rule: 'universe-gate' },
    });
    expect(
      dig(answered(...wrong), {
        type: 'accept-universe',
        variable: 'boil_age',
        by: 'boiler',
        shut: ['2'],
      }).asked('boil_age'),
    ).toEqual({
      says: 'asked where boiler is 1 Yes',
      notAsked: shut.length - 2,
      breaches: wrong,
      breached: 2,
      accepted: true,
      flag: null,
    });
    expect(dig(age).asked('town')).toBeNull();
  });

  it('is what the person said, where that is another universe than the blanks tell', () => {
    const inHawmoor = town.flatMap((name, row) => (name === 'Hawmoor' ? [row] : []));
    const asked = dig(age, {
      type: 'accept-universe',
      variable: 'boil_age',
      by: 'town',
      shut: ['Hawmoor'],
    }).asked('boil_age');
    const filled = inHawmoor.filter((row) => age[row] !== '');
    expect(asked).toMatchObject({
      says: 'asked where town is Fenwater or Pellsey',
      notAsked: inHawmoor.length - filled.length,
      breached: filled.length,
      breaches: filled.slice(0, 20),
      accepted: true,
    });
  });

  it('leaves a stray code of a few rows unnamed, such as a total, but not one that the codebook lists', () => {
    const withTotal: Cells = [...boiler, 200];
    const ages: Cells = [...age, 2900];
    const taken = (categories: ReturnType<typeof labels>): string | undefined => {
      const inspector = new Inspector(
        extractOf({ boiler: withTotal, boil_age: ages }, { boiler: { categories } }),
      );
      inspector.lay(
        foldLog([
          entryOf(
            { type: 'accept-universe', variable: 'boil_age', by: 'boiler', shut: ['2'] },
            'e',
            new Date(0),
          ),
        ]),
      );
      return inspector.asked('boil_age')?.says;
    };
    expect(taken(NO)).toBe('asked where boiler is 1 Yes');
    expect(taken(labels({ 1: 'Yes', 2: 'No', 200: 'Several' }))).toBe(
      'asked where boiler is 1 Yes or 200 Several',
    );
  });

  it('counts no row that was set aside', () => {
    const wrong = shut.slice(0, 3);
    const before = dig(answered(...wrong));
    expect(before.flags.find(({ rule }) => rule === 'gate-breach')?.at).toEqual(wrong);
    const after = dig(answered(...wrong), {
      type: 'set-aside',
      rows: wrong.slice(0, 2).map(atPlace),
      rule: null,
    });
    expect(after.flags.find(({ rule }) => rule === 'gate-breach')).toMatchObject({ rows: 1, at: [wrong[2]] });
    expect(after.asked('boil_age')).toMatchObject({ breached: 1, notAsked: shut.length - 3 });
    const accepted = dig(
      answered(...wrong),
      { type: 'set-aside', rows: wrong.map(atPlace), rule: null },
      { type: 'accept-universe', variable: 'boil_age', by: 'boiler', shut: ['2'] },
    );
    expect(accepted.asked('boil_age')).toMatchObject({ breached: 0, notAsked: shut.length - 3 });
    expect(accepted.named('boil_age')?.counts.notAsked).toBe(shut.length - 3);
  });

  it('is unknown where the variable that it hangs on is not there', () => {
    expect(
      dig(age, { type: 'accept-universe', variable: 'boil_age', by: 'gone', shut: ['2'] }).asked('boil_age'),
    ).toBeNull();
    expect(
      dig(age, { type: 'accept-universe', variable: 'boil_age', by: 'gone', shut: ['2'] }).named('boil_age')
        ?.counts.notAsked,
    ).toBe(0);
  });
});
