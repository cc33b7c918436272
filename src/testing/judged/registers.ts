import { v, type Judged } from './judged';
import {
  amounts,
  cycle,
  day,
  int,
  normal,
  NAMES,
  padded,
  pick,
  poisson,
  runsOf,
  skewed,
  sometimes,
  spread,
  whole,
  words,
} from './makers';

const PLACES = [
  'Fenwater',
  'Hawmoor',
  'Pellsey',
  'Quillmere',
  'Saltreach',
  'Marlhope',
  'Orlen',
  'Tarnby',
  'Old Forge',
  'Ninebridge',
  'Lower Ash',
  'Upper Ash',
  'Wick',
  'Sandholm',
  'Carrow',
];
const letters = 'ABCDEFGHIJKLMNOPQRSTUVWXYZ';
const someLetters = (at: number, n: number): string =>
  Array.from({ length: n }, (_, i) => letters[Math.floor(at / 26 ** (n - 1 - i)) % 26]).join('');

/** Landing places, one a row: codes that some would take for numbers, names, positions. */
export const landings: Judged[] = [
  v(
    'code',
    'identifier',
    (_, row) =>
      row % 9 === 4 ? `${padded(row % 97, 2)}${letters[row % 26]}${row}` : someLetters(row * 7 + 11, 4),
    { role: 'identifier' },
  ),
  v(
    'name',
    ['text', 'nominal'],
    (c, row) =>
      `${c.pick(PLACES)} ${c.pick(['Landing', 'Pier', 'Quay', 'Municipal', 'Regional'])}${row % 3 ? ` ${c.pick(words)}` : ''}`,
  ),
  v(
    'town',
    ['nominal', 'text'],
    (c) => `${c.pick(PLACES)}${c.odds(0.5) ? ` ${c.pick(['North', 'South', 'Hill', 'Mill'])}` : ''}`,
  ),
  v('county', 'nominal', pick(['OR', 'VA', 'SA', 'WE', 'NA', 'LO', 'HI'])),
  v('land', 'nominal', () => 'Ostrey'),
  v('latitude', 'continuous', normal(56, 1.2, 6)),
  v('longitude', 'continuous', normal(-4, 1.1, 6)),
  v('plotcode', 'identifier', (_, row) => padded(row * 13 + 501, 5)),
  v('postal_code', ['identifier', 'nominal'], (_, row) => padded(row * 3 + 210, 5)),
  v('depth_ft', ['continuous', 'count'], whole(14, 5, 2, 60)),
  v('vessels', 'count', spread(9)),
  v('opened', 'continuous', int(1840, 2019)),
  v('owner', 'nominal', pick(['town', 'private', 'crown', 'parish'])),
  v(
    'operator',
    ['nominal', 'text'],
    (c) =>
      `${c.pick(NAMES)} & ${c.pick(['Sons', 'Daughters', 'Partners', 'Co'])} ${c.pick(['Ferries', 'Boats', 'Lines'])}`,
  ),
  v('licence', 'identifier', (_, row) => `${someLetters(row * 31, 2)}-${padded(row * 17 + 1000, 5)}`),
  v('status', 'nominal', pick(['open', 'closed', 'seasonal'])),
  v('website', ['text', 'identifier'], (c, row) => `http://landing.example/${c.pick(words)}${row}`),
];

/** Money that comes and goes: whole amounts, most of them nothing. */
export const accounts: Judged[] = [
  v('Entry', 'identifier', (_, row) => 1 + row),
  v('Donor_ID', 'identifier', (_, row) => `D${padded(row * 11 + 40021, 8)}`, { role: 'identifier' }),
  v(
    'Donor',
    ['text', 'nominal'],
    (c) =>
      `${c.pick(NAMES).toUpperCase()}, ${c.pick(['A', 'B', 'C', 'M', 'J'])} ${c.pick(['HOLM', 'BERG', 'LIND', 'ASH', 'WELL', 'TARN', 'FOX'])}${c.whole(1, 400)}`,
  ),
  v('Grants_from_Parishes', 'continuous', amounts(0.7, 4000)),
  v('Total_Donations', 'continuous', amounts(0.25, 22000)),
  v('Loans_Repaid', 'continuous', amounts(0.93, 9000)),
  v('Refunds', 'continuous', amounts(0.9, 300)),
  v('Membership_Fees', 'continuous', amounts(0.4, 1200)),
  v('Legacies', 'continuous', amounts(0.96, 60000)),
  v('Debts_Owed', 'continuous', amounts(0.85, 15000)),
  v('Cash_in_Hand', 'continuous', (c) => Math.round(2500 * Math.exp(1.5 * c.normal()) - 400)),
  v('Other_Receipts', 'continuous', () => 0, { judgedBy: 'words' }),
  v('gifts', ['count', 'continuous'], spread(14)),
  v('Party', 'nominal', pick(['GRN', 'BLU', 'IND', 'OLD', 'NEW'])),
  v('Seat', 'nominal', pick(['01', '02', '03', '04', '07', '11', '00'])),
  v('Incumbent', 'nominal', pick(['I', 'C', 'O'])),
  v('Ledger_Code', 'nominal', pick([4000, 4010, 4020, 4100, 4200, 5000, 5010, 6000, 6900])),
  v('amount_paid', 'continuous', (c) => `${c.whole(2, 60)}.${c.pick(['90', '50', '95', '00'])}`),
  v('qty', 'count', (c) => 1 + poisson(1.4)(c)),
  v('Closing', 'date', day(17000, 700)),
  v('Year', 'continuous', pick([2014, 2016, 2018])),
  v('fiscal', 'date', (c) => {
    const year = c.whole(2009, 2020);
    return `${year}/${padded((year + 1) % 100, 2)}`;
  }),
];

/** Large counts of people and things, by place and stretch of time. */
export const returns: Judged[] = [
  v('quarter', 'date', (_, row) => `${1961 + (row >> 2)}Q${1 + (row % 4)}`),
  v('halfyear', 'date', (_, row) => `${1920 + (row >> 1)}-H${1 + (row % 2)}`),
  v('isoweek', 'date', (c) => `${c.whole(2011, 2020)}-W${padded(c.whole(1, 52), 2)}`),
  v('year', 'continuous', (_, row) => 1990 + (row % 24)),
  v('month', 'ordinal', (c) => c.whole(1, 12)),
  v('day_of_month', ['ordinal', 'nominal'], int(1, 31)),
  v('dayofweek', ['ordinal', 'nominal'], int(1, 7)),
  v('hour', ['ordinal', 'continuous'], int(0, 23)),
  v('votes', 'count', (c) => Math.round(Number(skewed(9000, 0.5)(c)))),
  v('deaths', 'count', whole(740, 130, 120)),
  v('births', 'count', whole(11400, 2100, 900)),
  v('marriages', 'count', spread(210)),
  v('arrivals', 'count', (c) => Math.round(Number(skewed(52000, 0.7)(c)))),
  v('households', ['count', 'continuous'], (c) => Math.round(Number(skewed(21000, 0.6)(c)))),
  v('population', ['count', 'continuous'], (c) => Math.round(Number(skewed(61000, 0.9)(c)))),
  v('cattle', 'count', (c) => Math.round(Number(skewed(400, 1)(c)))),
  v('accidents', 'count', poisson(6)),
  v('fires', 'count', poisson(0.8)),
  v('rate', 'continuous', normal(12.4, 2.1, 1)),
  v('index', 'continuous', normal(100, 9, 1)),
  v('turnout_pct', 'continuous', (c) => c.whole(31, 88)),
  v(
    'bracket',
    'ordinal',
    cycle([
      '<10000',
      '10000 to 14999',
      '15000 to 24999',
      '25000 to 34999',
      '35000 to 49999',
      '50000 to 74999',
      '75000 to 99999',
      '100000+',
    ]),
  ),
  v('district_no', 'nominal', (_, row) => 1 + (row % 26)),
  v('region', 'nominal', cycle(['North', 'Vale', 'Coast', 'Isles'])),
  v('revised', 'nominal', pick(['p', 'r', ''])),
];

/** What instruments report of each event. */
export const tremors: Judged[] = [
  v('time', 'date', (c) => 1500000000000 + c.whole(0, 2000000000) * 7),
  v('changed', 'date', (c) => 1510000000000 + c.whole(0, 1900000000) * 3),
  v('received', 'date', (c) => 1500000000 + c.whole(0, 30000000)),
  v(
    'place',
    ['text', 'nominal'],
    (c) => `${c.whole(1, 140)}km ${c.pick(['NNE', 'SW', 'E', 'WNW'])} of ${c.pick(PLACES)}`,
  ),
  v('mag', 'continuous', normal(1.8, 0.8, 2)),
  v('depth', 'continuous', skewed(9, 0.9, 2)),
  v('stations', 'count', (c) => 3 + spread(17)(c)),
  v('nph', 'count', (c) => 4 + spread(22)(c)),
  v('azgap', 'continuous', whole(120, 60, 12, 355)),
  v('rms', 'continuous', (c) => (0.02 + c.next() * c.next()).toFixed(2)),
  v('net', 'nominal', pick(['or', 've', 'ci', 'nn'])),
  v('eventid', 'identifier', (c, row) =>
    c.odds(0.2) ? String(70000000 + row * 9) : `${c.pick(['or', 've'])}${padded(row * 12 + 100023, 8)}`,
  ),
  v('felt', 'count', sometimes(0.9, '', spread(8))),
  v('alert', ['nominal', 'ordinal'], sometimes(0.97, '', pick(['green', 'yellow']))),
  v('status', 'nominal', pick(['automatic', 'reviewed'])),
  v('tsunami', 'nominal', pick([0, 1], [97, 3])),
  v('sig', ['continuous', 'count'], (c) => Math.round(Number(skewed(60, 0.9)(c)))),
  v('magtype', 'nominal', pick(['ml', 'md', 'mb', 'mww'])),
  v('link', ['text', 'identifier'], (c, row) => `https://tremor.example/event/${row * 7}${c.pick(words)}`),
  v('station_no', 'nominal', (c) => c.pick([3, 5, 8, 13, 21, 34, 41, 42, 43, 55])),
  v(
    'logger',
    'nominal',
    runsOf(40, (at) => `L-${padded(at + 1, 3)}`),
  ),
];

/** Stretches and points of time as tables of an office carry them. */
export const calendar: Judged[] = [
  v('period', 'date', (_, row) => `${1960 + (row % 60)}-Q${1 + (row % 4)}`),
  v('term', 'date', (_, row) => `Q${1 + (row % 4)} ${1990 + ((row >> 2) % 30)}`),
  v('week', 'date', (_, row) => `${2001 + (((row / 52) | 0) % 20)}W${padded(1 + (row % 52), 2)}`),
  v('half', 'date', (c) => `${c.whole(1990, 2019)}H${c.whole(1, 2)}`),
  v('school_year', 'date', (_, row) => `${1980 + (row % 40)}/${1981 + (row % 40)}`),
  v('stamp', 'date', (c) => 1400000000 + c.whole(0, 90000000)),
  v('modified', 'date', (c) => 1300000000000 + c.whole(0, 2000000000) * 9),
  v('t', 'date', (_, row) => 1600000000000 + row * 60000),
  v('epoch', 'date', (c) => 946684800 + 86400 * c.whole(0, 6000)),
  v('amount', 'continuous', (c) => Math.round(1500000000 * Math.exp(0.8 * c.normal()))),
  v('bytes', ['count', 'continuous'], (c) => c.whole(90000000, 990000000)),
];
