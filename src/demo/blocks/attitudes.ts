import { sometimes, step, type Code, type Fault, type Item } from '../item';
import { wasFilledIn } from './things';

const OFTEN: readonly Code[] = [
  [1, 'Never'],
  [2, 'Rarely'],
  [3, 'Sometimes'],
  [4, 'Often'],
  [5, 'Always'],
  [9, 'No answer', 'missing'],
];
const AGREE: readonly Code[] = [
  [1, 'Strongly disagree'],
  [2, 'Disagree'],
  [3, 'Neither'],
  [4, 'Agree'],
  [5, 'Strongly agree'],
  [8, "Don't know", 'missing'],
];
const HABITS = [
  'mend clothes',
  'sharpen knives',
  'borrow tools',
  'oil hinges',
  'darn socks',
  'glue china',
  'patch tyres',
  'paint window frames',
  'swap parts with neighbours',
  'read the manual',
  'keep spare screws',
  'clear the gutters',
];
const VIEWS = [
  'Things used to last longer',
  'I would rather repair than replace',
  'Repairing is too dear',
  'It is fun to mend things',
  'I look after what I own',
  'Shops ought to repair what they sell',
  'Mending is worth the time',
  'I was taught to look after things',
  'Everyone should know how to mend',
];
const SATISFACTIONS = [
  'the state of the home',
  'the warmth of the home',
  'the things they own',
  'the help of neighbours',
  'repair shops nearby',
  'the county tip',
  'the price of repairs',
  'life as a whole',
];
const WORRIES = ['the cost of keeping the home', 'things breaking', 'having nobody who can mend'];
const PLANS = [
  ['plan_rep', 'a large repair'],
  ['plan_buy', 'buying a large appliance'],
  ['plan_mov', 'moving house'],
] as const;
/** Items whose codebook entry forgets that 9 is no answer. */
const FORGOTTEN = new Map<number, Fault>(
  [2, 7, 10].map((item, i) => [item, { rule: 'sentinel-code', write: ['9'], rows: [38 + 11 * i] }]),
);
/** The view that is coded the other way round, and the one that started at 0 in the first wave. */
const TURNED = 2;
const FROM_ZERO = 7;
const letter = (i: number): string => String.fromCharCode(97 + i);

const habits = HABITS.map((habit, i): Item => {
  const fault = FORGOTTEN.get(i);
  const draw: Item['draw'] = (h, c) => step(1, 5, 2.6 + 0.5 * h.care + 0.15 * ((i * 5) % 7) - 0.4, 1.1, c);
  return {
    name: `oft_${letter(i)}`,
    label: `How often: ${habit}`,
    group: 'Mending habits',
    question: `How often do you or others in your household ${habit}?`,
    codes: fault ? OFTEN.slice(0, 5) : OFTEN,
    draw: fault ? draw : sometimes(0.012, 9, draw),
    faults: fault && [fault],
  };
});

const views = VIEWS.map((view, i): Item => ({
  name: `agr_${letter(i)}`,
  label: view,
  group: 'Agree or disagree',
  codes: AGREE,
  draw: sometimes(
    0.03,
    8,
    (h, c) =>
      step(1, 5, 3.2 + (i === TURNED ? -0.9 : 0.9) * h.care, 0.9, c) -
      (i === FROM_ZERO && h.year === 2019 ? 1 : 0),
  ),
}));

const feelings: readonly Item[] = [
  ...SATISFACTIONS.map((subject, i): Item => ({
    name: `sat_${letter(i)}`,
    label: `Satisfaction with ${subject} (0–10)`,
    group: 'Satisfaction, worries, plans',
    codes: [
      [0, 'Not at all satisfied'],
      [10, 'Completely satisfied'],
      [99, 'Refused', 'missing'],
    ],
    range: [0, 10],
    draw: sometimes(0.01, 99, (h, c) => step(0, 10, 6.3 + 0.4 * h.care - 0.3 * i, 2.2, c)),
  })),
  ...WORRIES.map((worry, i): Item => ({
    name: `worry_${i + 1}`,
    label: `Worried about ${worry}`,
    group: 'Satisfaction, worries, plans',
    codes: [
      [1, 'Not at all worried'],
      [2, 'Not very worried'],
      [3, 'Fairly worried'],
      [4, 'Very worried'],
      [9, 'No answer', 'missing'],
    ],
    draw: sometimes(0.01, 9, (h, c) => step(1, 4, 2.7 - 0.2 * i - h.income / 6000, 0.9, c)),
  })),
  // The codebook does not declare that those who can't say gave no answer.
  ...PLANS.map(([name, plan], i): Item => ({
    name,
    label: `Plans ${plan} next year`,
    group: 'Satisfaction, worries, plans',
    codes: [[1, 'Yes'], [2, 'No'], i === 1 ? [8, "Can't say"] : [8, "Don't know", 'missing']],
    draw: sometimes(0.07, 8, (h, c) => (c.odds(Math.max(0.04, 0.3 - 0.1 * i + 0.08 * h.care)) ? 1 : 2)),
  })),
];

const REMARKS = [
  'the old radio',
  'a good neighbour with tools',
  'the cobbler in the high street',
  'spare parts',
  'nothing really',
  'time to do it properly',
  'my father’s bench',
  'the hardware shop',
  'a warm shed',
];
const WHEN = [
  'before they closed',
  'and everyone knows it',
  'since we moved',
  'more than I can say',
  'these days',
  'in winter',
  'when the children were small',
  'after the flood',
];
/** UTF-8 that was taken for Windows-1252 and written as UTF-8 once more. */
const twice = (text: string): string => text.replace(/’/g, 'â€™');
const words = (name: string, label: string, odds: number): Item => ({
  name,
  label,
  group: 'Free text',
  draw: (_, c) =>
    c.odds(odds)
      ? null
      : `${c.pick(REMARKS)} ${c.pick(WHEN)}${c.odds(0.5) ? `, ${c.pick(WHEN)}` : ''} (${1960 + c.whole(0, 60)})`,
});
const texts: readonly Item[] = [
  {
    ...words('missed', 'The thing most missed, in their own words', 0.45),
    faults: [
      {
        rule: 'encoding-damage',
        write: [twice],
        codes: [],
        rows: [40],
        waves: [2021],
        where: (cell) => cell.includes('’'),
      },
    ],
  },
  words('remark', 'Remarks at the end of the interview', 0.7),
  words('advice', 'Advice to the county, in their own words', 0.6),
  words('wish', 'What they would mend first', 0.5),
];

const MARKERS = [
  ['inc', 'income', 0.08],
  ['age', 'age', 0.02],
  ['hhs', 'household size', 0.01],
  ['rooms', 'number of rooms', 0.03],
  ['sav', 'savings', 0.05],
  ['rent', 'rent or loan', 0.06],
  ['cost', 'cost of the last repair', 0.04],
  ['sprep', 'spending on repairs', 0],
  ['spnew', 'spending on new things', 0.05],
  ['hrs', 'hours heated', 0.02],
] as const;
const office: readonly Item[] = [
  ...MARKERS.map(([name, subject, share]): Item => ({
    name: `z_${name}`,
    label: `Marker: ${subject} filled in by the producer`,
    group: 'Markers',
    codes: [
      [0, 'As answered'],
      [1, 'Filled in'],
    ],
    draw: (h, c) => ((name === 'sprep' ? wasFilledIn(h) : c.odds(share)) ? 1 : 0),
  })),
  {
    name: 'wt_hh',
    label: 'Household weight (mean 1)',
    group: 'Weights',
    weight: true,
    interval: 'continuous',
    decimals: 4,
    draw: (h, c) => (0.35 + 0.25 * h.adults + 0.35 * c.next()).toFixed(4),
  },
  {
    name: 'wt_pop',
    label: 'Population weight',
    group: 'Weights',
    weight: true,
    interval: 'continuous',
    decimals: 3,
    draw: (h, c) => (31.7 * (0.35 + 0.25 * h.adults + 0.35 * c.next())).toFixed(3),
  },
  { name: 'seqno', label: 'Running number', group: 'Left over', draw: ({ row }) => row + 1 },
  { name: 'fileid', label: 'File number', group: 'Left over', draw: () => 4417 },
  { name: 'spare1', label: 'Not used', group: 'Left over', draw: () => null },
  {
    name: 'vstamp',
    label: 'Version stamp',
    group: 'Left over',
    draw: ({ year }) => `v2.${year - 2018} ${year + 1}-02-14`,
  },
];

export const attitudes: readonly Item[] = [...habits, ...views];
export const closing: readonly Item[] = [...feelings, ...texts, ...office];
