import { askedIf, iso, YES_NO, type Household, type Item } from '../item';
import type { Chance } from '../random';

const THINGS = [
  ['wash', 'washing machine', 0.93],
  ['fridge', 'refrigerator', 0.98],
  ['oven', 'oven', 0.95],
  ['vac', 'vacuum cleaner', 0.9],
  ['cycle', 'cycle', 0.62],
  ['sew', 'sewing machine', 0.31],
  ['mower', 'lawn mower', 0.44],
  ['drill', 'power drill', 0.55],
  ['kettle', 'kettle', 0.97],
  ['radio', 'radio', 0.71],
  ['iron', 'iron', 0.86],
  ['lathe', 'lathe', 0.05],
] as const;
/** Of so many of them the age and where they come from is asked. */
const ASKED_MORE = 8;
const OWNED = 'Things owned';
const BROKEN = 'Repairs in the last year';
const universe = 'Something broke';
const brokeOnly = (draw: Item['draw']): Item['draw'] => askedIf(({ broke }) => broke, draw);
/** The same household has the same things in every wave, but for a few. */
const hasOne = ({ number, care, year }: Household, index: number, share: number): boolean =>
  (((number * 31 + index * 17 + Math.round(care * 10) + (number % 11 === index % 11 ? year : 0)) % 100) +
    100) %
    100 <
  share * 100;
const broken = ({ broke, number, year }: Household, index: number): boolean =>
  broke && (number * 7 + index * 5 + year * 3) % 5 < 2;

/** Whether there is one, how old it is, and whether it was new. */
const owned: readonly Item[] = THINGS.flatMap(([key, thing, share], i): Item[] => {
  const has = `Households with a ${thing}`;
  const mine = (draw: Item['draw']): Item['draw'] => askedIf((h) => hasOne(h, i, share), draw);
  return [
    {
      name: `own_${key}`,
      label: `Household has a ${thing}`,
      group: OWNED,
      codes: YES_NO,
      draw: (h) => (hasOne(h, i, share) ? 1 : 2),
    },
    ...(i < ASKED_MORE
      ? [
          {
            name: `yrs_${key}`,
            label: `Age of the ${thing} (years)`,
            group: OWNED,
            units: 'years',
            universe: has,
            codes: [[98, "Don't know", 'missing']],
            draw: mine((_, c) => (c.odds(0.02) ? 98 : Math.min(40, Math.round(Math.abs(7 * c.normal()))))),
          } satisfies Item,
          {
            name: `new_${key}`,
            label: `The ${thing} was bought new`,
            group: OWNED,
            universe: has,
            codes: [
              [1, 'New'],
              [2, 'Used'],
              [3, 'A gift'],
            ],
            draw: mine((h, c) => c.pick([1, 2, 3], [60 + h.income / 200, 28, 9])),
          } satisfies Item,
        ]
      : []),
  ];
});

const SHOPS = [
  'Pellsey Mending',
  'Tarn Electric',
  'The Second Screw',
  'Marlhope Wheels',
  'Old Forge Works',
  'Saltreach Service',
];
const cost = (c: Chance): string => Math.exp(3.4 + 0.8 * c.normal()).toFixed(2);

/** What broke and what became of it. */
const repairs: readonly Item[] = [
  {
    name: 'broke',
    label: 'Something broke in the last 12 months',
    group: BROKEN,
    codes: YES_NO,
    draw: ({ broke }) => (broke ? 1 : 2),
  },
  {
    name: 'n_broke',
    label: 'Number of things that broke',
    group: BROKEN,
    universe,
    draw: brokeOnly((_, c) => 1 + Math.floor(Math.abs(1.3 * c.normal()))),
  },
  {
    name: 'rep_what',
    label: 'What was repaired last',
    group: BROKEN,
    universe,
    codes: [
      [1, 'Appliance'],
      [2, 'Furniture'],
      [3, 'Clothing or shoes'],
      [4, 'Vehicle or cycle'],
      [5, 'Part of the home'],
      [6, 'Other'],
    ],
    draw: brokeOnly((_, c) => c.pick([1, 2, 3, 4, 5, 6], [34, 11, 19, 21, 12, 3])),
  },
  {
    name: 'rep_try',
    label: 'Tried to have it repaired',
    group: BROKEN,
    universe,
    codes: [
      [1, 'Yes'],
      [2, 'No'],
      [3, 'Not yet'],
    ],
    draw: brokeOnly((h, c) => c.pick([1, 2, 3], [Math.max(10, 50 + 15 * h.care), 40, 10])),
  },
  {
    name: 'rep_who',
    label: 'Who did the repair',
    group: BROKEN,
    universe,
    codes: [
      [1, 'Someone in the household'],
      [2, 'Friend or neighbour'],
      [3, 'Repair shop'],
      [4, 'Maker of the thing'],
      [5, 'Repair circle'],
    ],
    draw: brokeOnly((_, c) => c.pick([1, 2, 3, 4, 5], [34, 14, 30, 14, 8])),
  },
  {
    name: 'rep_cost',
    label: 'Cost of the last repair (crowns)',
    group: BROKEN,
    universe,
    units: 'crowns',
    interval: 'continuous',
    decimals: 2,
    draw: brokeOnly((_, c) => cost(c)),
    faults: [
      // Said that nothing broke, and then told what the repair cost.
      {
        rule: 'gate-breach',
        write: ['24.00', '18.50'],
        codes: [],
        beside: ['broke'],
        rows: [9, 5],
        waves: [2021],
        where: (cell) => cell === '',
      },
      { rule: 'far-out-value', write: ['98000.00'], rows: [1], waves: [2020] },
    ],
  },
  {
    name: 'rep_days',
    label: 'Days waited for the repair',
    group: BROKEN,
    universe,
    units: 'days',
    draw: brokeOnly((_, c) => Math.min(150, Math.floor(Math.exp(2.3 + 1.05 * c.normal())))),
  },
  {
    name: 'rep_last',
    label: 'The repair lasted',
    group: BROKEN,
    universe,
    codes: [
      [1, 'Yes'],
      [2, 'No'],
      [3, 'Too early to say'],
    ],
    draw: brokeOnly((_, c) => c.pick([1, 2, 3], [61, 17, 22])),
  },
  {
    name: 'rep_date',
    label: 'Date of the last repair',
    group: BROKEN,
    universe,
    draw: brokeOnly(({ day }, c) => iso(day - c.whole(3, 360))),
    faults: [{ rule: 'future-date', write: ['2031-04-17'], rows: [1], waves: [2022] }],
  },
  {
    name: 'rep_shop',
    label: 'Name of the shop',
    group: BROKEN,
    universe,
    draw: brokeOnly((_, c) => c.pick(SHOPS, [25, 20, 18, 15, 12, 10])),
    faults: [
      {
        rule: 'stray-whitespace',
        write: [(cell) => ` ${cell}`, (cell) => cell.replace(' ', '\u00a0')],
        codes: [],
        rows: [9, 5],
        waves: [2022],
        where: (cell) => cell.startsWith('Tarn') || cell.startsWith('Pellsey'),
      },
    ],
  },
  ...THINGS.slice(0, 5).flatMap(([key, thing], i): Item[] => {
    const asked = `The ${thing} broke`;
    const its = (draw: Item['draw']): Item['draw'] => askedIf((h) => broken(h, i), draw);
    return [
      {
        name: `rt_${key}`,
        label: `Tried to have the ${thing} repaired`,
        group: BROKEN,
        universe: asked,
        codes: [
          [1, 'Yes'],
          [2, 'No'],
          [3, 'Not yet'],
        ],
        draw: its((_, c) => c.pick([1, 2, 3], [58, 33, 9])),
      },
      {
        name: `rw_${key}`,
        label: `Who repaired the ${thing}`,
        group: BROKEN,
        universe: asked,
        codes: [
          [1, 'Someone in the household'],
          [2, 'Friend or neighbour'],
          [3, 'Repair shop'],
          [4, 'Maker of the thing'],
          [5, 'Repair circle'],
        ],
        draw: its((_, c) => c.pick([1, 2, 3, 4, 5], [30, 16, 34, 12, 8])),
      },
      {
        name: `rc_${key}`,
        label: `Cost of repairing the ${thing} (crowns)`,
        group: BROKEN,
        universe: asked,
        units: 'crowns',
        interval: 'continuous',
        decimals: 2,
        draw: its((_, c) => cost(c)),
      },
      {
        name: `rl_${key}`,
        label: `The repair of the ${thing} lasted`,
        group: BROKEN,
        universe: asked,
        codes: [
          [1, 'Yes'],
          [2, 'No'],
          [3, 'Too early to say'],
        ],
        draw: its((_, c) => c.pick([1, 2, 3], [63, 15, 22])),
      },
    ];
  }),
];

const ROUTES = [
  'household waste',
  'county tip',
  'charity shop',
  'given to a friend',
  'sold',
  'kept in the loft',
  'returned to the shop',
  'scrap dealer',
  'left by the road',
  'school fair',
  'burnt',
  'buried in the garden',
  'elsewhere',
];
const ELSEWHERE = [
  'at the allotment',
  'with my brother',
  'in the old quarry',
  'by the ferry',
  'theatre group took it',
  'museum store',
];
/** Tick all that apply. */
const thrown: readonly Item[] = [
  ...ROUTES.map((route, i): Item => ({
    name: `toss_${i + 1}`,
    label: `Got rid of things: ${route}`,
    group: 'Where thrown away',
    codes: [
      [0, 'Not ticked'],
      [1, 'Ticked'],
    ],
    draw: ({ care, number, year }, c) =>
      i === 12
        ? (number + year) % 16 === 3
          ? 1
          : 0
        : c.odds(0.08 + 0.06 * ((i * 3) % 5) + (i > 1 ? 0.04 * care : 0))
          ? 1
          : 0,
  })),
  {
    name: 'toss_oth',
    label: 'Got rid of things: where else, in their own words',
    group: 'Where thrown away',
    universe: 'Ticked elsewhere',
    draw: askedIf(
      ({ number, year }) => (number + year) % 16 === 3,
      (_, c) => `${c.pick(ELSEWHERE)}${c.odds(0.5) ? ` (${c.whole(2, 90)} kg)` : ''}`,
    ),
  },
];

const SPENT = 'Distances and spending';
/** What the producer filled in for those who did not tell what they spent on repairs, wave by wave. */
const FILLED_IN = new Map([
  [2019, '63'],
  [2020, '58'],
  [2021, '61'],
  [2022, '66'],
]);
export const wasFilledIn = ({ number, year }: Household): boolean => (number * 5 + year) % 12 === 7;

const spending: readonly Item[] = [
  {
    name: 'km_shop',
    label: 'Distance to the nearest repair shop (kilometres)',
    group: SPENT,
    units: 'kilometres',
    interval: 'continuous',
    decimals: 1,
    draw: (h, c) => Math.min(48, 0.3 + Math.exp(1.1 + 0.07 * h.town + 0.7 * c.normal())).toFixed(1),
    faults: [{ rule: 'sentinel-code', write: ['99.9'], rows: [35] }],
  },
  {
    name: 'km_tip',
    label: 'Distance to the county tip (kilometres)',
    group: SPENT,
    units: 'kilometres',
    interval: 'continuous',
    draw: (h, c) => Math.min(60, Math.max(1, Math.round(6 + h.town * 0.7 + 4 * c.normal()))),
    faults: [
      {
        rule: 'unit-mixture',
        write: [(cell) => String(Number(cell) * 1000)],
        codes: [],
        rows: [150],
        waves: [2021],
      },
    ],
  },
  {
    name: 'min_shop',
    label: 'Minutes to the nearest repair shop',
    group: SPENT,
    units: 'minutes',
    draw: (h, c) => Math.round((4 + Math.exp(1.9 + 0.05 * h.town + 0.5 * c.normal())) / 5) * 5,
  },
  {
    name: 'km_work',
    label: 'Distance to work (kilometres)',
    group: SPENT,
    units: 'kilometres',
    interval: 'continuous',
    decimals: 1,
    draw: askedIf(
      ({ age }) => age < 66,
      (_, c) => Math.min(120, Math.exp(1.9 + 0.9 * c.normal())).toFixed(1),
    ),
  },
  {
    name: 'sp_rep',
    label: 'Spent on repairs in the last year (crowns)',
    group: SPENT,
    units: 'crowns',
    draw: (h, c) =>
      wasFilledIn(h)
        ? (FILLED_IN.get(h.year) ?? 60)
        : c.odds(0.42)
          ? 0
          : Math.round(Math.exp(4.1 + 0.3 * h.care + 0.8 * c.normal())),
  },
  {
    name: 'sp_new',
    label: 'Spent on new things in the last year (crowns)',
    group: SPENT,
    units: 'crowns',
    draw: (h, c) => (c.odds(0.12) ? 0 : Math.round(Math.exp(5.6 - 0.2 * h.care + 0.9 * c.normal()))),
    faults: [{ rule: 'far-out-value', write: ['480000'], rows: [1], waves: [2019] }],
  },
  {
    name: 'sp_tools',
    label: 'Spent on tools in the last year (crowns)',
    group: SPENT,
    units: 'crowns',
    draw: ({ number, year, care }) => tools(number, year, care),
  },
  {
    name: 'sp_tls',
    label: 'Tools, crowns in the last year',
    group: SPENT,
    units: 'crowns',
    draw: ({ number, year, care }) => tools(number, year, care),
  },
  {
    name: 'sp_heat',
    label: 'Spent on heating in a winter month (crowns)',
    group: SPENT,
    units: 'crowns',
    interval: 'continuous',
    draw: (h, c) => Math.max(8, Math.round(70 + 22 * h.adults + 30 * c.normal())),
  },
  {
    name: 'sp_oth.',
    label: 'Spent on other upkeep in the last year (crowns)',
    group: SPENT,
    units: 'crowns',
    draw: (_, c) => (c.odds(0.5) ? 0 : Math.round(Math.exp(3.6 + 0.9 * c.normal()))),
  },
  {
    name: 'n_tools',
    label: 'Number of tools lent or borrowed in the last year',
    group: SPENT,
    codes: [[15, '15 or more']],
    draw: (h, c) => Math.min(15, Math.floor(Math.exp(0.2 * h.care + 0.9 * c.normal()) * 1.4)),
  },
  {
    name: 'pc_rep',
    label: 'Share of broken things that were repaired (percent)',
    group: SPENT,
    units: 'percent',
    interval: 'continuous',
    universe,
    draw: brokeOnly((h, c) =>
      c.odds(0.3)
        ? 100
        : c.odds(0.3)
          ? 0
          : Math.min(100, Math.max(0, Math.round(50 + 8 * h.care + 20 * c.normal()))),
    ),
  },
];

/** No chance of its own, so that two columns can say the same. */
function tools(number: number, year: number, care: number): number {
  const mixed = Math.imul(number * 2654435761 + year * 40503, 2246822519) >>> 0;
  return mixed % 5 < 2
    ? 0
    : Math.round(5 + ((mixed >>> 8) % 1000) * (0.12 + 0.02 * Math.max(-2, Math.min(2, care))));
}

export const things: readonly Item[] = [...owned, ...repairs, ...thrown, ...spending];
