import { describe, expect, it } from 'vitest';
import { chance } from '../../../demo/random';
import { Inspector } from '../../inspect/inspect';
import { entryOf } from '../../log/entries';
import { foldLog } from '../../log/fold';
import { allFlags, extractOf, labels, make, type Cells } from '../../../testing/made';
import { notAskedIn } from './universe';

const ROWS = 800;
const boiler = make(ROWS, (c) => c.whole(1, 2));
const tenure = chanceOf(3, (c) => c.whole(1, 4));
const town = chanceOf(4, (c) => c.pick(['Fenwater', 'Hawmoor', 'Pellsey']));
const adults = chanceOf(5, (c) => c.whole(1, 5));
const age = chanceOf(8, (c) => c.whole(0, 90));

function chanceOf(seed: number, cell: (c: ReturnType<typeof chance>) => string | number): Cells {
  const c = chance(seed);
  return Array.from({ length: ROWS }, () => cell(c));
}
/** Answers of those asked; of them one in fifty says nothing. */
function asked(where: (row: number) => boolean, seed = 21): Cells {
  const c = chance(seed);
  return Array.from({ length: ROWS }, (_, row) => (where(row) && !c.odds(0.02) ? c.whole(1, 30) : ''));
}
const universes = (columns: Record<string, Cells>, entries = {}): string[] =>
  allFlags(columns, entries)
    .filter(({ rule }) => rule === 'universe-gate')
    .map(({ says }) => says.split(';')[0]);
const others = { boiler, tenure, town, adults, age };

describe('who was asked', () => {
  it('hangs on two variables at once', () => {
    const target = asked((row) => boiler[row] === 1 && Number(tenure[row]) >= 3);
    expect(universes({ ...others, target })).toEqual([
      expect.stringMatching(
        /^asked where (boiler is 1 and tenure is 3 or 4|tenure is 3 or 4 and boiler is 1)$/,
      ),
    ]);
  });

  it('hangs on one or the other', () => {
    const target = asked((row) => boiler[row] === 1 || town[row] === 'Hawmoor');
    expect(universes({ ...others, target })).toEqual([
      expect.stringMatching(
        /^asked where (boiler is 1, or town is Hawmoor|town is Hawmoor, or boiler is 1)$/,
      ),
    ]);
  });

  it('hangs on three', () => {
    const target = asked((row) => boiler[row] === 1 && (town[row] === 'Hawmoor' || tenure[row] === 4));
    const [says] = universes({ ...others, target });
    expect(says).toMatch(/boiler is 1/);
    expect(says).toMatch(/town is Hawmoor/);
    expect(says).toMatch(/tenure is 4/);
  });

  it('hangs on an age from some year on, and on a number of people', () => {
    expect(universes({ ...others, work: asked((row) => Number(age[row]) >= 16) })).toEqual([
      'asked where age is 16 to 90',
    ]);
    expect(universes({ ...others, pair: asked((row) => Number(adults[row]) > 1) })).toEqual([
      'asked where adults is 2 or 3 or 4 or 5',
    ]);
  });

  it('is looked for anew where the same rows are blank far from the gate', () => {
    const filler = Object.fromEntries(
      Array.from({ length: 140 }, (_, i) => [`f${i}x`, chanceOf(400 + i, (c) => c.whole(0, 100_000))]),
    );
    const early = asked((row) => boiler[row] === 1, 31);
    // The gate stands behind what comes first, and before what comes last.
    const columns = {
      early,
      town,
      adults,
      ...filler,
      boiler,
      late: early.map((cell) => (cell === '' ? '' : 7 - (Number(cell) % 7))),
    };
    expect(universes(columns).filter((says) => says.includes('boiler'))).toEqual(['asked where boiler is 1']);
  });

  it('is not guessed from blanks that have other reasons', () => {
    for (let seed = 1; seed <= 12; seed++) {
      const c = chance(seed);
      const share = c.next() * 0.8;
      const blanks = chanceOf(100 + seed, (one) => (one.odds(share) ? '' : one.whole(1, 9)));
      // Blanker where one lives, but by no rule.
      const leaning = chanceOf(200 + seed, (one) => one.next()).map((x, row) =>
        Number(x) < (town[row] === 'Hawmoor' ? 0.6 : 0.2) ? '' : 5,
      );
      expect(universes({ ...others, blanks, leaning })).toEqual([]);
    }
  });

  it('tells the rows that contradict, whatever gates', () => {
    const target = asked((row) => boiler[row] === 1 && Number(tenure[row]) >= 3);
    const wrong = target
      .flatMap((cell, row) => (cell === '' && boiler[row] === 2 ? [row] : []))
      .slice(10, 13);
    for (const row of wrong) target[row] = 7;
    expect(allFlags({ ...others, target }).filter(({ rule }) => rule === 'gate-breach')).toMatchObject([
      { variables: expect.arrayContaining(['target', 'boiler', 'tenure']) as string[], rows: 3, at: wrong },
    ]);
  });

  it('is one ruling, after which all shares follow, and undone is as before', () => {
    const target = asked((row) => boiler[row] === 1 || town[row] === 'Hawmoor');
    const dig = new Inspector(
      extractOf({ ...others, target }, { boiler: { categories: labels({ 1: 'Yes', 2: 'No' }) } }),
    );
    const before = JSON.stringify(dig.document());
    const universe = dig.flags.find(({ rule }) => rule === 'universe-gate')?.universe;
    if (!universe) throw new Error('nothing was inferred');
    const shut = target.filter((_, row) => boiler[row] === 2 && town[row] !== 'Hawmoor').length;
    const entry = entryOf({ type: 'accept-universe', variable: 'target', ...universe }, 'u', new Date(0));
    dig.lay(foldLog([entry]));
    expect(dig.named('target')?.counts).toMatchObject({ all: ROWS, notAsked: shut });
    expect(dig.flags.filter(({ rule }) => rule === 'universe-gate')).toEqual([]);
    expect(dig.asked('target')).toMatchObject({ accepted: true, notAsked: shut, breached: 0 });
    dig.lay(foldLog([entry, entryOf({ type: 'undo', entry: 'u' }, 'n', new Date(0))]));
    expect(JSON.stringify(dig.document())).toBe(before);
  });

  it('is unknown where a variable of it is not there', () => {
    expect(notAskedIn({ by: 'gone', shut: ['1'] }, () => undefined)).toBeNull();
  });
});
