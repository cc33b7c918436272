import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { atPlace } from '../extract/row-names';
import { LOG_VERSION, entryOf, entrySchema, logSchema, type Decision, type Entry } from './entries';
import { entryText } from './entry-text';
import { foldLog, inForce, lastInForce, touched } from './fold';

const at = new Date('2026-01-05T10:00:00Z');
const log = (...decisions: Decision[]): Entry[] =>
  decisions.map((decision, i) => entryOf(decision, `e${i}`, at));
const decision: fc.Arbitrary<Decision> = fc.oneof(
  fc.record({
    type: fc.constant('confirm-kind' as const),
    kinds: fc.array(
      fc.record({
        variable: fc.constantFrom('a', 'b'),
        kind: fc.constantFrom('nominal' as const, 'count' as const),
      }),
      { minLength: 1, maxLength: 2 },
    ),
  }),
  fc.record({
    type: fc.constant('declare-missing' as const),
    variables: fc.constant<string[]>(['a']),
    codes: fc.array(
      fc.record({
        code: fc.constantFrom('9', '99'),
        reason: fc.constantFrom('refused' as const, 'not-asked' as const),
      }),
      { minLength: 1, maxLength: 2 },
    ),
    rule: fc.constant(null),
  }),
  fc.record({
    type: fc.constant('keep-valid' as const),
    variables: fc.constant<string[]>(['b']),
    codes: fc.constant<string[]>(['9']),
    rule: fc.constant('sentinel-code'),
  }),
  fc.record({
    type: fc.constant('merge-codes' as const),
    variables: fc.constant<string[]>(['a']),
    codes: fc.constant<string[]>(['9']),
    into: fc.constantFrom('8', '7'),
    rule: fc.constant(null),
  }),
  fc.record({
    type: fc.constant('set-aside' as const),
    rows: fc.array(fc.nat(5).map(atPlace), { minLength: 1, maxLength: 2 }),
    rule: fc.constant(null),
  }),
  fc.record({
    type: fc.constant('count-again' as const),
    rows: fc.array(fc.nat(5).map(atPlace), { minLength: 1, maxLength: 2 }),
  }),
  fc.record({
    type: fc.constant('confirm-role' as const),
    roles: fc.constant<{ variable: string; role: 'weight' }[]>([{ variable: 'a', role: 'weight' }]),
  }),
  fc.record({
    type: fc.constant('accept-universe' as const),
    variable: fc.constant('b'),
    by: fc.constant('a'),
    shut: fc.constant<string[]>(['2']),
  }),
  fc.record({
    type: fc.constant('ask-archive' as const),
    variables: fc.constant<string[]>(['a']),
    codes: fc.constant<string[]>(['7']),
    rule: fc.constant('undocumented-code'),
    question: fc.constant('What is 7?'),
  }),
  fc.record({
    type: fc.constant('sign-off' as const),
    variables: fc.constant<string[]>(['a']),
    done: fc.boolean(),
  }),
  fc.record({
    type: fc.constant('note' as const),
    variable: fc.constant('a'),
    text: fc.constantFrom('', 'look again'),
  }),
  fc.record({
    type: fc.constant('rename' as const),
    variable: fc.constant('a'),
    name: fc.constantFrom(null, 'b2'),
    label: fc.constantFrom(null, 'B'),
  }),
  fc.record({
    type: fc.constant('order-codes' as const),
    variables: fc.constant<string[]>(['a']),
    codes: fc.constant<string[]>(['2', '1']),
  }),
  fc.record({
    type: fc.constant('make-set' as const),
    set: fc.constantFrom('s1', 's2'),
    name: fc.constant('Heating'),
    variables: fc.constant<string[]>(['a']),
  }),
  fc.record({ type: fc.constant('view-sets' as const), sets: fc.subarray<string>(['s1', 's2']) }),
  fc.record({ type: fc.constant('drop-set' as const), set: fc.constantFrom('s1', 's2') }),
);

describe('the dig log', () => {
  it('folds to the present state, the later decision counting', () => {
    const state = foldLog(
      log(
        { type: 'confirm-kind', kinds: [{ variable: 'a', kind: 'count' }] },
        {
          type: 'declare-missing',
          variables: ['a', 'b'],
          codes: [{ code: '99', reason: 'refused' }],
          rule: 'sentinel-code',
        },
        {
          type: 'declare-missing',
          variables: ['a'],
          codes: [{ code: '99', reason: 'dont-know' }],
          rule: null,
        },
        { type: 'confirm-kind', kinds: [{ variable: 'a', kind: 'ordinal' }] },
      ),
    );
    expect(state.kinds.get('a')).toBe('ordinal');
    expect(state.missing.get('a')).toEqual([{ code: '99', reason: 'dont-know' }]);
    expect(state.missing.get('b')).toEqual([{ code: '99', reason: 'refused' }]);
  });

  it('counts rows again in one entry, however many were set aside together, and sets them aside anew', () => {
    const rows = Array.from({ length: 200 }, (_, i) => atPlace(i));
    const all = log({ type: 'set-aside', rows, rule: null }, { type: 'count-again', rows: rows.slice(1) });
    expect(foldLog(all).aside).toEqual([rows[0]]);
    expect(JSON.stringify(all).length).toBeLessThan(3 * JSON.stringify(rows).length);
    expect(foldLog([...all, entryOf({ type: 'undo', entry: 'e1' }, 'u', at)]).aside).toHaveLength(200);
    const again = log(
      ...[
        { type: 'set-aside' as const, rows, rule: null },
        { type: 'count-again' as const, rows },
        { type: 'set-aside' as const, rows: [rows[7]], rule: null },
      ],
    );
    expect(foldLog(again).aside).toEqual([rows[7]]);
  });

  it('undo restores the state before, whatever was decided, and undo of undo brings it back', () => {
    fc.assert(
      fc.property(fc.array(decision, { maxLength: 8 }), decision, (before, last) => {
        const done = log(...before, last);
        const undone = [...done, entryOf({ type: 'undo', entry: `e${before.length}` }, 'u1', at)];
        expect(foldLog(undone)).toEqual(foldLog(log(...before)));
        expect(foldLog([...undone, entryOf({ type: 'undo', entry: 'u1' }, 'u2', at)])).toEqual(foldLog(done));
      }),
    );
  });

  it('undo removes nothing from the log, and works in any order', () => {
    const entries = log(
      { type: 'keep-valid', variables: ['b'], codes: ['9'], rule: 'sentinel-code' },
      { type: 'confirm-kind', kinds: [{ variable: 'a', kind: 'count' }] },
      { type: 'undo', entry: 'e0' },
    );
    expect(entries).toHaveLength(3);
    expect(inForce(entries).map(({ id }) => id)).toEqual(['e1']);
    expect(lastInForce(entries)?.id).toBe('e1');
  });

  it('survives being written and read', () => {
    fc.assert(
      fc.property(fc.array(decision, { maxLength: 8 }), (decisions) => {
        const written = JSON.parse(
          JSON.stringify({
            format: 'dig-first-log',
            version: LOG_VERSION,
            extract: 'x',
            entries: log(...decisions),
          }),
        ) as unknown;
        expect(logSchema.parse(written).entries).toEqual(log(...decisions));
      }),
    );
    expect(
      entrySchema.safeParse({
        type: 'confirm-kind',
        id: 'e',
        at: 'now',
        why: null,
        kinds: [{ variable: 'a', kind: 'colour' }],
      }).success,
    ).toBe(false);
  });

  it('tells which variables a decision touches', () => {
    const before = foldLog([]);
    expect(
      touched(before, foldLog(log({ type: 'confirm-kind', kinds: [{ variable: 'a', kind: 'count' }] }))),
    ).toEqual(new Set(['a']));
    expect(
      touched(before, foldLog(log({ type: 'make-set', set: 's', name: 'S', variables: ['a'] }))),
    ).toEqual(new Set());
  });

  it('lets the later word count where codes would count for each other in a circle', () => {
    const merge = (codes: string[], into: string): Decision => ({
      type: 'merge-codes',
      variables: ['a'],
      codes,
      into,
      rule: null,
    });
    const merges = (...decisions: Decision[]): [string, string][] => [
      ...(foldLog(log(...decisions)).merges.get('a') ?? []),
    ];
    expect(merges(merge(['2'], '10'), merge(['10'], '2'))).toEqual([['10', '2']]);
    expect(merges(merge(['1'], '2'), merge(['2'], '3'), merge(['3'], '1'))).toEqual([
      ['2', '3'],
      ['3', '1'],
    ]);
    expect(merges(merge(['1'], '2'), merge(['2'], '3'))).toEqual([
      ['1', '2'],
      ['2', '3'],
    ]);
    // The earlier word counts again once the later is taken back.
    const entries = log(merge(['2'], '10'), merge(['10'], '2'));
    expect([
      ...(foldLog([...entries, entryOf({ type: 'undo', entry: entries[1].id }, 'u', at)]).merges.get('a') ??
        []),
    ]).toEqual([['2', '10']]);
  });

  it('says each decision in a sentence', () => {
    expect(
      log(
        {
          type: 'declare-missing',
          variables: ['rooms'],
          codes: [{ code: '99', reason: 'refused' }],
          rule: null,
        },
        { type: 'make-set', set: 's', name: 'Heating', variables: ['a', 'b'] },
        { type: 'view-sets', sets: ['s'] },
      ).map((entry) => entryText(entry, { set: () => 'Heating' })),
    ).toEqual([
      '99 (refused) declared missing in rooms',
      'set “Heating” made of 2 variables',
      'in view: Heating',
    ]);
  });
});
