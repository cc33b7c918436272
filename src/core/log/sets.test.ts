import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { inView, membersOf, type ThematicSet } from '../sets/view';
import { setsFile, takeOver } from './carry-sets';
import { entryOf, entrySchema, type Decision, type Entry } from './entries';
import { entryText } from './entry-text';
import { foldLog } from './fold';

const at = new Date(0);
const log = (...decisions: Decision[]): Entry[] => decisions.map((one, i) => entryOf(one, `e${i}`, at));
const sets = (...decisions: Decision[]): Record<string, string> =>
  Object.fromEntries(
    [...foldLog(log(...decisions)).sets.values()].map(({ id, name, variables, within }) => [
      id,
      `${name}: ${variables.join(' ')}${within ? ` (in ${within})` : ''}`,
    ]),
  );
const HEAT: Decision = { type: 'make-set', set: 'h', name: 'Heating', variables: ['boiler', 'fuel'] };
const HOME: Decision = { type: 'make-set', set: 'o', name: 'Home', variables: ['rooms'] };

describe('sets in the log', () => {
  it('are made, renamed, added to at a place, thinned and dropped', () => {
    expect(
      sets(
        HEAT,
        { type: 'add-to-set', set: 'h', variables: ['age', 'cost'], before: 'fuel' },
        { type: 'take-from-set', set: 'h', variables: ['cost', 'gone'] },
        { type: 'rename-set', set: 'h', name: 'Heat' },
      ),
    ).toEqual({ h: 'Heat: boiler age fuel' });
    // What joins where it is already moves there: that is how a person orders.
    expect(sets(HEAT, { type: 'add-to-set', set: 'h', variables: ['boiler'] })).toEqual({
      h: 'Heating: fuel boiler',
    });
    expect(sets(HEAT, HOME, { type: 'drop-set', set: 'h' })).toEqual({ o: 'Home: rooms' });
  });

  it('are merged and split, with what is part of them', () => {
    const nested: Decision[] = [
      HEAT,
      HOME,
      { type: 'make-set', set: 'b', name: 'Boilers', variables: ['boiler'], within: 'h' },
    ];
    expect(sets(...nested, { type: 'merge-sets', sets: ['h', 'o', 'gone'], into: 'o' })).toEqual({
      o: 'Home: rooms boiler fuel',
      b: 'Boilers: boiler (in o)',
    });
    expect(sets(HEAT, { type: 'split-set', from: 'h', set: 'f', name: 'Fuel', variables: ['fuel'] })).toEqual(
      {
        h: 'Heating: boiler',
        f: 'Fuel: fuel',
      },
    );
    expect(sets(...nested, { type: 'drop-set', set: 'h' }).b).toBe('Boilers: boiler');
  });

  it('never go in a circle, and say nothing of sets that are not there', () => {
    expect(
      sets(
        HEAT,
        HOME,
        { type: 'nest-set', set: 'h', within: 'o' },
        { type: 'nest-set', set: 'o', within: 'h' },
      ),
    ).toEqual({ h: 'Heating: boiler fuel (in o)', o: 'Home: rooms' });
    expect(
      sets(
        HEAT,
        { type: 'add-to-set', set: 'gone', variables: ['x'] },
        { type: 'rename-set', set: 'no', name: 'X' },
      ),
    ).toEqual({
      h: 'Heating: boiler fuel',
    });
  });

  it('are taken back one by one, in any order', () => {
    const entries = log(
      HEAT,
      { type: 'add-to-set', set: 'h', variables: ['age'] },
      { type: 'add-to-set', set: 'h', variables: ['cost'] },
      { type: 'send-away', name: 'Money', variables: ['wage'] },
      { type: 'view-sets', sets: ['h'] },
      { type: 'view-always', on: true },
    );
    const without = (...ids: string[]) =>
      foldLog([...entries, ...ids.map((id, i) => entryOf({ type: 'undo', entry: id }, `u${i}`, at))]);
    expect(without('e1').sets.get('h')?.variables).toEqual(['boiler', 'fuel', 'cost']);
    expect(without('e1', 'e0').sets.size).toBe(0);
    expect(without('e0').shown.size).toBe(0);
    expect(without('e3').sentAway).toEqual([]);
    expect([without().always, without('e5').always]).toEqual([true, false]);
    expect(without().sentAway).toEqual([['wage']]);
  });

  it('undone in whatever order leave what the others made', () => {
    const names = fc.constantFrom('a', 'b', 'c', 'd');
    const decision: fc.Arbitrary<Decision> = fc.oneof(
      fc.record({
        type: fc.constant('add-to-set' as const),
        set: fc.constant('h'),
        variables: fc.array(names, { minLength: 1 }),
      }),
      fc.record({
        type: fc.constant('take-from-set' as const),
        set: fc.constant('h'),
        variables: fc.array(names, { minLength: 1 }),
      }),
      fc.record({ type: fc.constant('rename-set' as const), set: fc.constant('h'), name: names }),
    );
    fc.assert(
      fc.property(fc.array(decision, { maxLength: 8 }), fc.nat(), (decisions, which) => {
        const entries = log(HEAT, ...decisions);
        if (decisions.length === 0) return;
        const gone = 1 + (which % decisions.length);
        const undone = foldLog([...entries, entryOf({ type: 'undo', entry: `e${gone}` }, 'u', at)]).sets;
        expect(undone).toEqual(foldLog(entries.filter((_, i) => i !== gone)).sets);
      }),
    );
  });

  it('are told in a sentence each, and pass the schema', () => {
    const entries = log(
      {
        type: 'make-sets',
        sets: [
          { set: 'a', name: 'Place', variables: ['x'] },
          { set: 'b', name: 'Money', variables: ['y'] },
        ],
      },
      { type: 'add-to-set', set: 'a', variables: ['z'] },
      { type: 'merge-sets', sets: ['b'], into: 'a' },
      { type: 'nest-set', set: 'b', within: null },
      { type: 'split-set', from: 'a', set: 'c', name: 'Rest', variables: ['x', 'z'] },
      { type: 'send-away', name: 'Odd', variables: ['q'] },
      { type: 'view-always', on: true },
    );
    expect(
      entries.map((entry) => entryText(entry, { set: (id) => ({ a: 'Place', b: 'Money' })[id] ?? id })),
    ).toEqual([
      '2 sets made: Place, Money',
      'z put into “Place”',
      '“Money” merged into “Place”',
      'set “Money” stands by itself',
      '2 variables of “Place” made the set “Rest”',
      'proposed set “Odd” sent away',
      'identifier, wave, weight and design variables always in view',
    ]);
    for (const entry of entries) expect(entrySchema.parse(entry)).toEqual(entry);
  });
});

describe('what is in view', () => {
  const all = ['a', 'b', 'c', 'd'].map((name) => ({
    name,
    role: name === 'd' ? ('weight' as const) : ('analysis' as const),
  }));
  const set = (id: string, variables: string[], within: string | null = null): [string, ThematicSet] => [
    id,
    { id, name: id, variables, within, proposed: null },
  ];
  const made = new Map([set('s', ['c', 'a']), set('t', ['b', 'a']), set('u', ['c'], 't')]);
  const names = (shown: string[], always = false): string =>
    inView(all, { sets: made, shown: new Set(shown), always })
      .map(({ name }) => name)
      .join('');

  it('is all variables of the sets in view together, in file order, and everything where none is', () => {
    expect([names(['s']), names(['s', 't']), names([]), names(['gone'])]).toEqual([
      'ac',
      'abc',
      'abcd',
      'abcd',
    ]);
  });
  it('has the variables of sets within a set too', () => {
    expect(names(['t'])).toBe('abc');
    expect(membersOf(new Map([set('x', ['a'], 'y'), set('y', ['b'], 'x')]), 'x')).toEqual(['a', 'b']);
  });
  it('keeps what identifies and weighs rows, if a person wishes so', () => {
    expect([names(['s'], true), names([], true)]).toEqual(['acd', 'abcd']);
  });
});

describe('sets of another extract', () => {
  const state = foldLog(
    log(HEAT, { type: 'make-set', set: 'b', name: 'Boilers', variables: ['boiler', 'serv'], within: 'h' }),
  );
  let n = 0;
  const newId = (): string => `n${n++}`;
  it('are taken over by the names of variables, nested as they were, and what does not fit is said', () => {
    const file = setsFile('upkeep', state.sets);
    const {
      sets: taken,
      misfits,
      problem,
    } = takeOver('s.json', file, ['boiler', 'fuel', 'rooms'], new Map(), newId);
    expect(problem).toBeNull();
    expect(taken).toMatchObject([
      { name: 'Heating', variables: ['boiler', 'fuel'], within: null },
      { name: 'Boilers', variables: ['boiler'], within: taken[0].set },
    ]);
    expect(misfits).toEqual(['serv of “Boilers” not in this extract']);
  });
  it('of a dig log are those that it leaves', () => {
    const dig = JSON.stringify({
      format: 'dig-first-log',
      version: 2,
      extract: 'x',
      entries: log(HEAT, HOME, { type: 'drop-set', set: 'o' }),
    });
    expect(takeOver('l.json', dig, ['boiler'], new Map(), newId).sets).toMatchObject([
      { name: 'Heating', variables: ['boiler'] },
    ]);
  });
  it('that are there already are left out, and what is none is refused with what to do', () => {
    expect(takeOver('s.json', setsFile('x', state.sets), ['boiler'], state.sets, newId)).toMatchObject({
      sets: [],
      misfits: [expect.stringContaining('“Heating” left out'), expect.stringContaining('“Boilers” left out')],
    });
    for (const text of ['{', '{"format":"other"}', '[]'])
      expect(takeOver('s.json', text, [], new Map(), newId).problem?.says).toMatch(/choose a file of sets/);
  });
});
