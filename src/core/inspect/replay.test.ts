import { describe, expect, it } from 'vitest';
import { extractOf } from '../../testing/made';
import { linkCodebooks } from '../codebook/link';
import { bareEntry } from '../extract/extract';
import { entryOf, type Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import { Inspector } from './inspect';
import { replayOf } from './replay';

const DECISIONS: Decision[] = [
  { type: 'confirm-kind', kinds: [{ variable: 'fuel', kind: 'nominal' }] },
  { type: 'confirm-kind', kinds: [{ variable: 'rent', kind: 'nominal' }] },
  { type: 'label-codes', variables: ['fuel'], labels: [{ code: '1', label: 'Gas' }] },
  {
    type: 'declare-missing',
    variables: ['fuel', 'gone'],
    codes: [{ code: '9', reason: 'refused' }],
    rule: null,
  },
  { type: 'declare-missing', variables: ['fuel'], codes: [{ code: '77', reason: 'refused' }], rule: null },
  { type: 'order-codes', variables: ['fuel'], codes: ['1', '2'] },
  { type: 'accept-universe', variable: 'fuel', by: 'boiler', shut: ['2'] },
  { type: 'make-set', set: 's', name: 'Old', variables: ['gone'], within: null },
  { type: 'sign-off', variables: ['fuel'], done: true },
];

describe('an earlier log over another extract', () => {
  const inspector = new Inspector(
    linkCodebooks(
      extractOf({
        fuel: Array.from({ length: 40 }, (_, i) => String([1, 2, 3, 9][i % 4])),
        rent: Array.from({ length: 40 }, (_, i) => (100 + i * 7.35).toFixed(2)),
      }),
      [
        {
          name: 'b',
          form: 'ddi-codebook',
          title: null,
          cases: null,
          entries: [
            {
              ...bareEntry('fuel'),
              categories: [{ code: '1', label: 'Town gas', missing: false, reason: null, frequency: null }],
            },
          ],
          groups: [],
          notices: [],
        },
      ],
    ),
  );
  const log = DECISIONS.map((decision, i) => entryOf(decision, `e${i}`, new Date(0)));
  inspector.lay(foldLog(log));
  const { fits, changed, misfits } = replayOf(log, inspector);
  it('fits where all is as it was', () => {
    expect(fits.map(({ entry, why }) => [entry, why])).toEqual([
      ['e0', null],
      ['e8', null],
    ]);
  });
  it('fits changed where a kind, a label, a code or some of the variables are others, with why', () => {
    expect(changed.map(({ entry, why }) => [entry, why])).toEqual([
      ['e1', 'rent would be presumed continuous'],
      ['e2', 'fuel: the codebook calls 1 “Town gas”'],
      ['e3', 'there is no gone here'],
      ['e5', 'fuel holds 3 besides'],
    ]);
  });
  it('does not fit where nothing of it is there, or its gate is not', () => {
    expect(misfits.map(({ entry, why }) => [entry, why])).toEqual([
      ['e4', 'no row holds 77'],
      ['e6', 'there is no boiler here'],
      ['e7', 'there is no gone here'],
    ]);
  });
  it('says nothing of what was taken back', () => {
    const undone = [...log, entryOf({ type: 'undo', entry: 'e6' }, 'u', new Date(0))];
    expect(replayOf(undone, inspector).misfits.map(({ entry }) => entry)).toEqual(['e4', 'e7']);
  });
});
