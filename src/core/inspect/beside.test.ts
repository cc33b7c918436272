import { describe, expect, it } from 'vitest';
import { extractOf } from '../../testing/made';
import { linkCodebooks } from '../codebook/link';
import { bareEntry, type CodebookEntry } from '../extract/extract';
import { entryOf, type Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import { asWaves, besideOf, driftsOf, type Beside } from './beside';
import { Inspector } from './inspect';

const N = 400;
const column = (of: (i: number) => string | number): string[] =>
  Array.from({ length: N }, (_, i) => String(of(i)));
const codes = (list: Record<string, string>): CodebookEntry['categories'] =>
  Object.entries(list).map(([code, label]) => ({
    code,
    label,
    missing: false,
    reason: null,
    frequency: null,
  }));
function dig(
  name: string,
  columns: Record<string, string[]>,
  entries: CodebookEntry[],
  decisions: Decision[] = [],
): Inspector {
  const inspector = new Inspector(
    linkCodebooks({ ...extractOf(columns), name }, [
      { name: 'b', form: 'ddi-codebook', title: null, cases: null, entries, groups: [], notices: [] },
    ]),
  );
  inspector.lay(foldLog(decisions.map((one, i) => entryOf(one, `e${i}`, new Date(0)))));
  return inspector;
}

const FUEL = { '1': 'Gas', '2': 'Wood', '3': 'Peat' };
const earlier = dig(
  'homes_2019',
  {
    id: column((i) => 1000 + i),
    fuel: column((i) => 1 + (i % 3)),
    rent: column((i) => (300 + (i % 97) * 1.5).toFixed(2)),
    rooms: column((i) => 1 + (i % 6)),
    heat_a: column((i) => 1 + (i % 5)),
    old: column((i) => i % 4),
    same: column((i) => 1 + (i % 2)),
  },
  [
    { ...bareEntry('fuel'), label: 'Main fuel', categories: codes(FUEL) },
    { ...bareEntry('heat_a'), label: 'Warm enough in winter' },
    { ...bareEntry('rooms'), label: 'Rooms', question: 'How many rooms?' },
  ],
);
const later = dig(
  'homes_2020',
  {
    id: column((i) => 3000 + i),
    fuel: column((i) => [1, 2, 4][i % 3]),
    rent: column((i) => (3 + (i % 97) * 0.015).toFixed(4)),
    rooms: column((i) => (i % 4 === 0 ? '' : 1 + (i % 6))),
    warm: column((i) => 1 + (i % 5)),
    same: column((i) => 1 + (i % 2)),
  },
  [
    {
      ...bareEntry('fuel'),
      label: 'Main fuel',
      categories: codes({ '1': 'Town gas', '2': 'Wood', '4': 'Oil' }),
    },
    { ...bareEntry('warm'), label: 'Warm enough in winter' },
    { ...bareEntry('rooms'), label: 'Number of rooms', question: 'How many rooms have you?' },
  ],
  [{ type: 'confirm-kind', kinds: [{ variable: 'fuel', kind: 'nominal' }] }],
);

describe('two extracts beside each other', () => {
  const beside: Beside = besideOf(earlier, later, driftsOf(asWaves(earlier, later)));
  const says = (name: string): string[] => beside.changed.find((one) => one.name === name)?.says ?? [];

  it('tells who came and who went, and who may be the same', () => {
    expect(beside.came).toEqual([
      { name: 'warm', label: 'Warm enough in winter', kind: later.named('warm')?.kind, like: 'heat_a' },
    ]);
    expect(beside.went.map(({ name, like }) => [name, like])).toEqual([
      ['heat_a', 'warm'],
      ['old', null],
    ]);
    expect([beside.earlier, beside.later]).toEqual([
      { name: 'homes_2019', rows: N, variables: 7 },
      { name: 'homes_2020', rows: N, variables: 6 },
    ]);
  });

  it('tells codes that came and went, with their rows, and labels that are others', () => {
    expect(says('fuel')).toEqual(
      expect.arrayContaining([
        'holds 4 Oil (133 rows), which no row held before',
        'no row holds 3 Peat (133 rows) any more',
        '1 is “Town gas”, and “Gas” before',
      ]),
    );
  });

  it('tells a drift as between waves, other words, and blanks', () => {
    expect(says('rent').join()).toMatch(
      /half of the values lie above .* in homes_2019 and above .* in homes_2020/,
    );
    expect(says('rooms')).toEqual([
      'called “Number of rooms”, and “Rooms” before',
      'asked “How many rooms have you?”, and “How many rooms?” before',
      'without a valid answer in 25 of 100 rows, and in 0 before',
    ]);
  });

  it('is silent of what is the same, and of identifiers that go on', () => {
    expect(beside.changed.map(({ name }) => name).sort()).toEqual(['fuel', 'rent', 'rooms']);
    expect(beside.same).toBe(2);
    const second = besideOf(earlier, earlier, driftsOf(asWaves(earlier, earlier)));
    expect([second.came, second.went, second.changed]).toEqual([[], [], []]);
  });
});
