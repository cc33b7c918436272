import { describe, expect, it } from 'vitest';
import type { Flag } from '../../core/flags/rule';
import type { Summary } from '../../core/inspect/summary';
import { entryOf } from '../../core/log/entries';
import { foldLog } from '../../core/log/fold';
import { NARROW_NOTHING, type Narrow } from '../../store/narrow';
import { flagsByVariable, ledgerRows, portability } from './rows';

const summary = (
  name: string,
  position: number,
  label: string | null,
  distinct: number,
  valid: number,
): Summary => ({
  name,
  position,
  label,
  storage: 'integer',
  kind: distinct > 5 ? 'continuous' : 'nominal',
  presumed: 'nominal',
  confirmed: false,
  confidence: 0.9,
  because: [],
  role: 'analysis',
  counts: { all: 10, blank: 10 - valid, unreadable: 0, missing: 0, notAsked: 0, valid, distinct },
  sketch: null,
  words: '',
  archiveLabel: null,
  codeList: null,
  trial: null,
  values: [],
  span: null,
  estimated: false,
  inFiles: name === 'q9' ? [1] : name === 'q10' ? [0] : [0, 1],
});
const ALL = [
  summary('rooms', 1, 'Number of rooms', 8, 10),
  summary('q10', 2, 'Heating hours', 3, 5),
  summary('q9', 3, null, 3, 7),
  summary('boiler', 4, 'Home has a boiler (heating)', 2, 10),
];
const NOTHING = foldLog([]);
const FLAGS: Flag[] = [
  { rule: 'r', variables: ['q9'], codes: [], rows: 1, severity: 'high', certainty: 1, says: '' },
];
const names = (
  search = '',
  by = 'position',
  down = false,
  state = NOTHING,
  narrow: Partial<Narrow> = {},
  all = ALL,
): string[] =>
  ledgerRows(all, state, {
    search,
    sort: { by, down },
    narrow: { ...NARROW_NOTHING, ...narrow },
    seen: new Set(['q10']),
    flags: FLAGS,
    numbers: flagsByVariable(FLAGS),
    waves: ['2019', '2020'],
  }).map(({ name }) => name);

describe('the rows of the ledger', () => {
  it('are found by every word, in name or label, whatever the case', () => {
    expect(names('HEATING')).toEqual(['q10', 'boiler']);
    expect(names('home heat')).toEqual(['boiler']);
    expect(names('q')).toEqual(['q10', 'q9']);
    expect(names('nothing like it')).toEqual([]);
  });

  it.each([
    ['position', false, ['rooms', 'q10', 'q9', 'boiler']],
    ['name', false, ['boiler', 'q9', 'q10', 'rooms']],
    ['name', true, ['rooms', 'q10', 'q9', 'boiler']],
    ['label', false, ['q10', 'boiler', 'rooms', 'q9']],
    ['distinct', true, ['rooms', 'q10', 'q9', 'boiler']],
    ['valid', false, ['q10', 'q9', 'rooms', 'boiler']],
    ['flags', true, ['q9', 'rooms', 'q10', 'boiler']],
    ['kind', false, ['rooms', 'q10', 'q9', 'boiler']],
  ])('sort by %s, down %s, ties in file order', (by, down, expected) => {
    expect(names('', by, down)).toEqual(expected);
  });

  it.each([
    ['every', ['rooms', 'boiler']],
    ['some', ['q10', 'q9']],
    ['in:2019', ['rooms', 'q10', 'boiler']],
    ['out:2019', ['q9']],
    ['out:2020', ['q10']],
  ])('are narrowed by wave: %s', (wave, expected) => {
    expect(names('', 'position', false, NOTHING, { wave })).toEqual(expected);
  });

  it('are those of the sets in view', () => {
    const log = [
      entryOf(
        { type: 'make-set', set: 's', name: 'Heating', variables: ['boiler', 'q10'] },
        '1',
        new Date(0),
      ),
      entryOf({ type: 'view-sets', sets: ['s'] }, '2', new Date(0)),
    ];
    expect(names('', 'position', false, foldLog(log))).toEqual(['q10', 'boiler']);
    expect(names('home', 'position', false, foldLog(log))).toEqual(['boiler']);
  });

  it('are narrowed by progress, kind, role, flags, completeness and set', () => {
    const state = foldLog([
      entryOf({ type: 'sign-off', variables: ['rooms'], done: true }, '1', new Date(0)),
      entryOf({ type: 'make-set', set: 's', name: 'S', variables: ['q9', 'boiler'] }, '2', new Date(0)),
    ]);
    const narrowed = (narrow: Partial<Narrow>): string[] => names('', 'position', false, state, narrow);
    expect([
      narrowed({ progress: 'signed off' }),
      narrowed({ progress: 'seen' }),
      narrowed({ progress: 'unseen' }),
    ]).toEqual([['rooms'], ['q10'], ['q9', 'boiler']]);
    expect([
      narrowed({ kind: 'continuous' }),
      narrowed({ kind: 'presumed' }),
      narrowed({ role: 'weight' }),
    ]).toEqual([['rooms'], ['rooms', 'q10', 'q9', 'boiler'], []]);
    expect([
      narrowed({ flags: 'any' }),
      narrowed({ flags: 'none' }),
      narrowed({ flags: 'r' }),
      narrowed({ flags: 'other' }),
    ]).toEqual([['q9'], ['rooms', 'q10', 'boiler'], ['q9'], []]);
    expect([
      narrowed({ complete: 'whole' }),
      narrowed({ complete: 'half' }),
      narrowed({ set: 's' }),
      narrowed({ set: 's', complete: 'whole' }),
    ]).toEqual([['rooms', 'boiler'], [], ['q9', 'boiler'], ['boiler']]);
  });

  it('are found by question, labels of codes, note and new name too, what fits best coming first', () => {
    const all = ALL.map((one) =>
      one.name === 'q9' ? { ...one, words: 'what do you heat with? | gas | boiler oil' } : one,
    );
    const state = foldLog([
      entryOf({ type: 'note', variable: 'q10', text: 'ask about the boiler' }, '1', new Date(0)),
      entryOf({ type: 'rename', variable: 'rooms', name: 'n_rooms', label: null }, '2', new Date(0)),
    ]);
    expect(names('boiler', 'position', false, state, {}, all)).toEqual(['boiler', 'q10', 'q9']);
    expect(names('gas', 'position', false, state, {}, all)).toEqual(['q9']);
    expect(names('n_ro', 'position', false, state, {}, all)).toEqual(['rooms']);
    expect(names('heat', 'name', false, state, {}, all)).toEqual(['boiler', 'q9', 'q10']);
  });
});

describe('a name that other software would refuse', () => {
  it.each([
    ['rooms_2', null],
    ['', 'needed'],
    ['taken', 'another variable'],
    ['TAKEN', 'but for case'],
    ['2nd', 'begin with a letter'],
    ['two words', 'a blank'],
    ['p%', 'other than letters'],
    ['käse', 'other than letters'],
    ['end_', 'ends in'],
    ['a'.repeat(40), 'at 32'],
    ['a'.repeat(70), 'at 64'],
  ])('%j', (name, says) => {
    if (says === null) expect(portability(name, ['taken'])).toBeNull();
    else expect(portability(name, ['taken'])).toContain(says);
  });
});
