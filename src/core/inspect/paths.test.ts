import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { column, DECISIONS, ENTRIES, HOMES } from '../../testing/homes';
import { extractOf } from '../../testing/made';
import { linkCodebooks } from '../codebook/link';
import type { Extract } from '../extract/extract';
import { entryOf, type Decision, type Entry } from '../log/entries';
import { foldLog } from '../log/fold';
import { Inspector } from './inspect';

/** Homes with an identifier that repeats, columns that repeat each other, and a row that stands twice. */
const columns: Record<string, string[]> = {
  ...HOMES,
  name: column((i) => (i === 59 ? 'Household 58' : `Household ${i}`)),
  copy: column((i) => [1, 2, 3, 9, 1][i % 5]),
  scale: column((i) => (i % 11 === 0 ? 99 : 1 + (i % 5))),
  yes: column((i) => (i % 4 === 0 ? 1 : 2)),
  no: column((i) => (i % 4 === 0 ? 2 : 1)),
};
for (const cells of Object.values(columns)) cells[31] = cells[12];

const extract = (): Extract =>
  linkCodebooks(extractOf(columns), [
    {
      name: 'b',
      form: 'ddi-codebook',
      title: null,
      cases: null,
      entries: ENTRIES,
      groups: [],
      notices: [],
    },
  ]);

const names = Object.keys(columns);
const kinds = ['identifier', 'nominal', 'ordinal', 'count', 'continuous', 'text'] as const;
const roles = ['analysis', 'identifier', 'weight', 'wave', 'admin', 'imputation'] as const;
const decision: fc.Arbitrary<Decision> = fc.oneof(
  fc.constantFrom(...DECISIONS),
  fc
    .tuple(fc.constantFrom(...names), fc.constantFrom(...kinds))
    .map(([variable, kind]): Decision => ({ type: 'confirm-kind', kinds: [{ variable, kind }] })),
  fc
    .tuple(fc.constantFrom(...names), fc.constantFrom(...roles))
    .map(([variable, role]): Decision => ({ type: 'confirm-role', roles: [{ variable, role }] })),
  fc
    .tuple(fc.constantFrom(...names), fc.constantFrom('1', '9', '99', '-8'))
    .map(([variable, code]): Decision => ({
      type: 'declare-missing',
      variables: [variable],
      codes: [{ code, reason: 'refused' }],
      rule: null,
    })),
);
/** A step: a decision, or taking back one of those before. */
const step = fc.oneof(
  { weight: 3, arbitrary: decision.map((made) => ({ made })) },
  { weight: 1, arbitrary: fc.nat().map((undo) => ({ undo })) },
);

const told = (inspector: Inspector): unknown => JSON.parse(JSON.stringify(inspector.flags));
function fresh(log: readonly Entry[]): Inspector {
  const inspector = new Inspector(extract());
  inspector.lay(foldLog(log));
  return inspector;
}

describe('flags', () => {
  it('are those of the log, whatever way it came about', { timeout: 120_000 }, () => {
    fc.assert(
      fc.property(fc.array(step, { minLength: 1, maxLength: 7 }), (steps) => {
        const inspector = new Inspector(extract());
        const log: Entry[] = [];
        for (const [i, one] of steps.entries()) {
          if ('made' in one) log.push(entryOf(one.made, `e${i}`, new Date(0)));
          else if (log.length)
            log.push(entryOf({ type: 'undo', entry: log[one.undo % log.length].id }, `e${i}`, new Date(0)));
          inspector.lay(foldLog(log));
          // Asked after each step, so that all that is remembered has been worked out before.
          told(inspector);
        }
        expect(told(inspector)).toEqual(told(fresh(log)));
      }),
      { numRuns: 40 },
    );
  });

  it('follow a kind that makes an identifier of a text, and go with it', () => {
    const inspector = new Inspector(extract());
    const before = told(inspector);
    const log = [
      entryOf({ type: 'confirm-kind', kinds: [{ variable: 'name', kind: 'identifier' }] }, 'k', new Date(0)),
    ];
    inspector.lay(foldLog(log));
    const ofName = inspector.flags.filter(({ variables }) => variables.includes('name'));
    expect(ofName.map(({ rule }) => rule)).toEqual(['duplicate-identifier']);
    expect(told(inspector)).toEqual(told(fresh(log)));
    inspector.lay(foldLog([...log, entryOf({ type: 'undo', entry: 'k' }, 'u', new Date(0))]));
    expect(told(inspector)).toEqual(before);
  });
});
