import { iso, type Item } from '../item';

const group = 'Identification and fieldwork';
const TOWNS = [
  'Quillmere',
  'Ostrey Bridge',
  'Fenwater',
  'Marlhope',
  'Upper Tarn',
  'Lower Tarn',
  'Cobblewick',
  'Saltreach',
  'Hawmoor',
  'Dunnock Green',
  'Brackenford',
  'Pellsey',
];
const MONTHS = [
  'January',
  'February',
  'March',
  'April',
  'May',
  'June',
  'July',
  'August',
  'September',
  'October',
  'November',
  'December',
];
const parish = (cell: string): string => cell.replace(/^0+/, '');

/** Who was interviewed, when, where and how. */
export const fieldwork: readonly Item[] = [
  { name: 'hhid', label: 'Household identifier', group, draw: ({ id }) => id },
  { name: 'wave', label: 'Wave of the panel', group, draw: ({ year }) => year },
  {
    name: 'intdate',
    label: 'Date of interview',
    group,
    draw: ({ day }, c) => (c.odds(0.004) ? null : iso(day)),
    faults: [{ rule: 'placeholder-date', write: ['1900-01-01'], rows: [3], waves: [2019, 2021] }],
  },
  {
    name: 'intdmy',
    label: 'Date of interview (day/month/year)',
    group,
    draw: ({ day }) => iso(day).split('-').reverse().join('/'),
    faults: [{ rule: 'impossible-date', write: ['31/06/2021'], rows: [2], waves: [2021] }],
  },
  { name: 'intyr', label: 'Year of interview', group, draw: ({ day }) => Number(iso(day).slice(0, 4)) },
  {
    name: 'intmon',
    label: 'Month of interview',
    group,
    codes: MONTHS.map((label, i) => [i + 1, label] as const),
    draw: ({ day }) => Number(iso(day).slice(5, 7)),
  },
  {
    name: 'intday',
    label: 'Day of the month of interview',
    group,
    draw: ({ day }) => Number(iso(day).slice(8)),
  },
  {
    name: 'intmode',
    label: 'Mode of interview',
    group,
    codes: [
      [1, 'Face to face'],
      [2, 'Telephone'],
      [3, 'Web'],
    ],
    draw: ({ year }, c) => c.pick([1, 2, 3], year === 2020 ? [1, 6, 4] : [5, 2, 3]),
  },
  {
    name: 'intvr',
    label: 'Interviewer number',
    group,
    draw: (h, c) => 100 + ((h.town * 7 + c.whole(0, 5)) % 60),
  },
  {
    name: 'intmin',
    label: 'Length of interview (minutes)',
    group,
    units: 'minutes',
    interval: 'continuous',
    draw: (h, c) => Math.max(14, Math.round(38 + 3 * h.adults + 9 * c.normal())),
    faults: [{ rule: 'sentinel-code', write: ['998'], rows: [6] }],
  },
  {
    name: 'parish',
    label: 'Parish code',
    group,
    draw: (h) => String(h.parish).padStart(4, '0'),
    faults: [{ rule: 'leading-zeros', write: [parish], codes: [], rows: [60], waves: [2020] }],
  },
  {
    name: 'town',
    label: 'Nearest town',
    group,
    draw: ({ town }) => TOWNS[town],
    faults: [
      {
        rule: 'variant-spelling',
        write: ['quillmere', 'Quilmere', 'QUILLMERE', 'Quillmere '],
        rows: [7, 3, 4, 6],
        waves: [2020, 2022],
        where: (cell) => cell === 'Quillmere',
      },
    ],
  },
  { name: 'stratum', label: 'Sampling stratum', group, draw: ({ town }) => 1 + (town >> 1) },
  {
    name: 'cluster',
    label: 'Primary sampling unit (cluster)',
    group,
    draw: (h) => 1000 + h.town * 10 + (h.parish % 8),
  },
];
