import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it } from 'vitest';
import { entryOf, type Entry } from '../core/log/entries';
import { extractOf } from '../testing/made';
import { announce, keepColumns, openKept, removeKept, renameKept, sweep, takePlace } from './extracts';
import { appendEntries, openLog } from './log';
import { listKept } from './records';
import { GoneError, inTime, refusalText, refusedBy, SilentError } from './refusal';
import { keepStanding, openStanding } from './standing';
import { keepFound, openFound } from './found';
import { stores } from './stores';
import { keepView, lastOpen, openView, setLastOpen } from './view';

const note = (id: string, text = id): Entry =>
  entryOf({ type: 'note', variable: 'rooms', text }, id, new Date(0));
const ids = ({ entries }: { entries: Entry[] }): string[] => entries.map(({ id }) => id);
const EXTRACT = { ...extractOf({ rooms: [1, 2, 99], fuel: ['gas', 'oil', ''] }), name: 'homes' };
const keep = async (id: string, instead: string | null = null): Promise<void> => {
  await announce(id, EXTRACT, instead);
  await keepColumns(id, EXTRACT);
};

beforeEach(async () => {
  for (const store of Object.values(stores)) await store.clear();
});

describe('a kept extract', () => {
  it('is opened as it was kept, listed, renamed and removed with all that belongs to it', async () => {
    await keep('a');
    await appendEntries('a', [note('n')], 0);
    await keepView('a', {
      current: null,
      chosen: [],
      search: 'x',
      sort: { by: 'name', down: false },
      station: 'flags',
      seen: [],
      narrow: {},
      draft: null,
      crossing: null,
    });
    const shown = { name: 'homes', summaries: [], flags: [] };
    await keepFound('a', 'one log', shown);
    expect(await openFound('a', 'one log')).toEqual(shown);
    expect(await openFound('a', 'another log')).toBeNull();
    expect(await openFound('b', 'one log')).toBeNull();
    await renameKept('a', 'my homes');
    expect((await listKept()).kept).toMatchObject([{ id: 'a', name: 'my homes', rows: 3, variables: 2 }]);
    const opened = await openKept('a');
    expect([opened.name, opened.rows, ...opened.variables.map(({ column }) => column.text(2))]).toEqual([
      'my homes',
      3,
      '99',
      '',
    ]);
    await removeKept('a');
    expect((await Promise.all(Object.values(stores).map((store) => store.keys()))).flat()).toEqual([]);
    await expect(openKept('a')).rejects.toThrow('not kept here any more');
  });

  it('of which a sample is held keeps what all rows told', async () => {
    const pass = { texts: ['1', '2'], counts: Float64Array.of(700, 300), others: null };
    const extract = { ...EXTRACT, pass: { rows: 1000 } };
    extract.variables = extract.variables.map((variable) => ({ ...variable, pass }));
    await announce('s', extract, null);
    await keepColumns('s', extract);
    const opened = await openKept('s');
    expect([opened.pass, opened.variables[0].pass]).toEqual([{ rows: 1000 }, pass]);
  });

  it('that is damaged anywhere says what is, and the others are listed', async () => {
    await keep('a');
    await keep('b');
    const damage: [string, () => Promise<unknown>, RegExp][] = [
      [
        'no version',
        () => stores.extracts.setItem('a', { name: 'homes' }),
        /“homes” is kept here, but its record is damaged/,
      ],
      ['a number', () => stores.extracts.setItem('a', 7), /its record is damaged/],
      ['a later version', () => stores.extracts.setItem('a', { version: 9, name: 'homes' }), /later version/],
    ];
    for (const [, work, says] of damage) {
      await work();
      const { kept, unusable } = await listKept();
      expect([kept.map(({ id }) => id), unusable.map(({ id }) => id)]).toEqual([['b'], ['a']]);
      expect(unusable[0].says).toMatch(says);
      await expect(openKept('a')).rejects.toThrow(says);
    }
    await keep('a');
    await stores.columns.setItem('a:0', 'junk');
    await expect(openKept('a')).rejects.toThrow('some of its columns are gone or damaged');
    await stores.columns.setItem('a:description', { name: 'x' });
    await expect(openKept('a')).rejects.toThrow('its description is gone or damaged');
  });

  it('of the first version is opened like any', async () => {
    await keep('a');
    const {
      state: _,
      version: __,
      ...rest
    } = (await stores.extracts.getItem('a')) as Record<string, unknown>;
    await stores.extracts.setItem('a', { ...rest, version: 1 });
    expect((await listKept()).kept).toHaveLength(1);
    expect((await openKept('a')).rows).toBe(3);
  });
});

describe('a log', () => {
  it('has the entries of all windows in one order, whoever wrote them', async () => {
    await keep('a');
    // Each window believes that the place after what it has seen is free.
    const writing = Array.from({ length: 12 }, (_, i) => appendEntries('a', [note(`w${i % 3}-${i}`)], 0));
    const results = await Promise.all(writing);
    const log = await openLog('a');
    expect(new Set(ids(log)).size).toBe(12);
    expect(results.map(({ next }) => next).sort((x, y) => x - y)).toEqual(
      Array.from({ length: 12 }, (_, i) => i + 1),
    );
    // What others wrote before comes back, in the same order.
    const { others, next } = await appendEntries('a', [note('last')], 5);
    expect(others.map(({ id }) => id)).toEqual(ids(log).slice(5));
    expect(next).toBe(13);
    expect(await appendEntries('a', [], 0)).toMatchObject({ next: 13 });
  });

  it('is not written where the extract is gone, and says where it went', async () => {
    await expect(appendEntries('never', [note('n')], 0)).rejects.toBeInstanceOf(GoneError);
    await keep('a');
    await keep('b', 'a');
    await appendEntries('a', [note('late')], 0);
    await takePlace('a', 'b');
    await expect(appendEntries('a', [note('n')], 0)).rejects.toMatchObject({ replacedBy: 'b' });
    expect(ids(await openLog('b'))).toEqual(['late']);
    expect(refusedBy(new GoneError('b'))).toEqual({ why: 'replaced', by: 'b' });
  });

  it('keeps apart what it cannot read, and reads entries of the first version', async () => {
    await keep('a');
    await stores.log.setItem('a:00000000:old', { ...note('old'), type: 'set-aside', rows: [2], rule: null });
    await stores.log.setItem('a:00000001:worse', { junk: true });
    await appendEntries('a', [note('new')], 2);
    await stores.log.setItem('a:00000003', {
      version: 2,
      entries: [note('new'), { type: 'nothing' }, note('newer')],
    });
    const { entries, apart, next } = await openLog('a');
    expect(entries.map(({ id }) => id)).toEqual(['old', 'new', 'newer']);
    expect(entries[0]).toMatchObject({ rows: [{ file: null, row: 2 }] });
    expect([apart.length, next]).toEqual([2, 4]);
    expect(await stores.log.keys()).toHaveLength(4);
  });
});

describe('what a window that was killed left behind', () => {
  it('is cleared away, and what was decided meanwhile is in the log of the extract that stays', async () => {
    await keep('a');
    await appendEntries('a', [note('before')], 0);
    await announce('half', EXTRACT, 'a');
    await appendEntries('half', [note('before'), note('meanwhile')], 0);
    await stores.columns.setItem('half:0', 'block');
    await stores.columns.setItem('orphan:0', 'block');
    await stores.log.setItem('orphan:00000000', note('x'));
    await setLastOpen('a');
    await sweep(Date.now());
    expect((await stores.columns.keys()).sort()).toEqual(['a:0', 'a:description']);
    expect(ids(await openLog('a'))).toEqual(['before', 'meanwhile']);
    expect(await lastOpen()).toEqual({ id: 'a', damaged: false });
    expect((await listKept()).kept.map(({ id }) => id)).toEqual(['a']);
  });
});

describe('standing rules', () => {
  const rule = (
    id: string,
  ): { id: string; code: string; reason: 'refused'; names: string; note: string } => ({
    id,
    code: '9',
    reason: 'refused',
    names: '*',
    note: '',
  });
  it('of two windows both stay', async () => {
    await keepStanding([], [rule('one')]);
    await keepStanding([], [rule('two')]);
    expect((await openStanding()).rules.map(({ id }) => id)).toEqual(['one', 'two']);
    await keepStanding([rule('one'), rule('two')], [rule('two')]);
    expect((await openStanding()).rules.map(({ id }) => id)).toEqual(['two']);
  });
  it('that were kept as one list are found, and damaged ones counted', async () => {
    await stores.standing.setItem('rules', [rule('one'), { id: 3 }]);
    expect(await openStanding()).toMatchObject({ rules: [{ id: 'one' }], unreadable: 1 });
    expect(await stores.standing.keys()).not.toContain('rules');
  });
});

describe('how the screen was left', () => {
  it('that is damaged is told, not used', async () => {
    await stores.view.setItem('a:view', { current: 5 });
    await stores.view.setItem('last-open', 7);
    expect([await openView('a'), await openView('b'), await lastOpen()]).toEqual([
      { view: null, damaged: true },
      { view: null, damaged: false },
      { id: null, damaged: true },
    ]);
  });
});

describe('refusals', () => {
  it('are told apart, in words', async () => {
    const text = (cause: unknown): string => refusalText(refusedBy(cause));
    expect(text(new DOMException('no room', 'QuotaExceededError'))).toContain('storage is full');
    expect(text(new Error('No available storage method found.'))).toContain('allows this page no storage');
    expect(text(new SilentError())).toContain('does not answer');
    expect(text(new GoneError(null))).toContain('removed in another window');
    expect(text('odd')).toContain('could not store this (odd)');
    await expect(inTime(new Promise(() => undefined), 10)).rejects.toBeInstanceOf(SilentError);
    expect(await inTime(Promise.resolve(3), 10)).toBe(3);
  });
});
