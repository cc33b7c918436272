import { askedIf, REFUSED, sometimes, step, YES_NO, type Item } from '../item';

const group = 'Heating and rooms';
const universe = 'Homes with a boiler';
const MAKES = [
  'Hallam',
  'Brightwell',
  'Nordofen',
  'Tarn Works',
  'Calida',
  'Ember & Son',
  'unknown to respondent',
];
const ROOMS = ['kitchen', 'living room', 'bedroom', 'bathroom', 'hall'];
const withBoiler = (draw: Item['draw']): Item['draw'] => askedIf(({ boiler }) => boiler, draw);

export const heating: readonly Item[] = [
  {
    name: 'boiler',
    label: 'Home has a boiler',
    group,
    codes: YES_NO,
    draw: ({ boiler }) => (boiler ? 1 : 2),
  },
  // For the same thing, no number, one wave wrote −1 and two others −8.
  {
    name: 'boil_age',
    label: 'Age of the boiler (years)',
    group,
    units: 'years',
    universe,
    draw: withBoiler((_, c) => Math.min(34, Math.round(Math.abs(9 * c.normal())))),
    faults: [
      { rule: 'sentinel-code', write: ['-8'], rows: [27], waves: [2020, 2021] },
      { rule: 'sentinel-code', write: ['-1'], rows: [31], waves: [2019] },
    ],
  },
  {
    name: 'boil_mk',
    label: 'Make of the boiler',
    group,
    universe,
    draw: withBoiler((_, c) => c.pick(MAKES, [22, 20, 18, 14, 11, 9, 6])),
  },
  {
    name: 'serv_mon',
    label: 'Month of the last boiler service',
    group,
    universe,
    codes: [[98, "Can't remember", 'missing']],
    range: [1, 12],
    draw: withBoiler(sometimes(0.09, 98, (_, c) => c.whole(1, 12))),
    faults: [{ rule: 'out-of-range', write: ['13'], rows: [2], waves: [2021] }],
  },
  {
    name: 'serv_yr',
    label: 'Year of the last boiler service',
    group,
    universe,
    draw: withBoiler(({ year }, c) => year - Math.min(9, Math.floor(Math.abs(1.6 * c.normal())))),
  },
  {
    name: 'coldroom',
    label: 'Coldest room in winter',
    group,
    codes: [
      [1, 'Kitchen'],
      [2, 'Living room'],
      [3, 'Bedroom'],
      [4, 'Bathroom'],
      [5, 'Hall'],
      [6, 'Loft or cellar'],
    ],
    draw: (_, c) => c.pick([1, 2, 3, 4, 5, 6], [6, 8, 25, 16, 22, 23]),
  },
  {
    name: 'colddeg',
    label: 'Temperature of the coldest room (degrees Celsius)',
    group,
    units: 'degrees Celsius',
    interval: 'continuous',
    draw: (_, c) => Math.round(8 + 4.5 * c.normal()),
  },
  {
    name: 'heathrs',
    label: 'Hours heated on a winter day',
    group,
    units: 'hours',
    codes: [REFUSED],
    range: [0, 24],
    draw: sometimes(0.01, 99, (_, c) => step(0, 24, 11, 4.5, c)),
  },
  {
    name: 'insul',
    label: 'Loft or roof is insulated',
    group,
    codes: [
      [1, 'Yes'],
      [2, 'In part'],
      [3, 'No'],
      [8, "Don't know", 'missing'],
    ],
    draw: sometimes(0.08, 8, (_, c) => c.pick([1, 2, 3], [51, 21, 28])),
  },
  {
    name: 'pc_glaz',
    label: 'Share of windows with double panes (percent)',
    group,
    units: 'percent',
    interval: 'continuous',
    draw: (_, c) => (c.odds(0.4) ? 100 : c.odds(0.15) ? 0 : Math.round((10 + 90 * c.next()) / 5) * 5),
  },
  ...ROOMS.map((room, i): Item => ({
    name: `warm_${String.fromCharCode(97 + i)}`,
    label: `Warm enough in winter: ${room}`,
    group,
    codes: [
      [1, 'Always'],
      [2, 'Mostly'],
      [3, 'Seldom'],
      [4, 'Never'],
      [9, 'No answer', 'missing'],
    ],
    draw: sometimes(0.01, 9, (h, c) => step(1, 4, 2 + 0.12 * i - h.income / 8000, 0.8, c)),
  })),
];
