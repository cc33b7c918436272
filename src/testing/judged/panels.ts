import { v, type Judged } from './judged';
import {
  cycle,
  day,
  int,
  labels,
  normal,
  padded,
  pick,
  poisson,
  runsOf,
  skewed,
  sometimes,
  spread,
  steps,
  whole,
} from './makers';

const flagged = { 0: 'As reported', 1: 'Imputed' };

/** A diary: persons that come back, markers beside amounts, numbers of vehicles and lines. */
export const diary: Judged[] = [
  v('pid', ['identifier', 'nominal'], (c) => c.whole(10001, 10420)),
  v('trip_id', 'identifier', (_, row) => `T${padded(row * 3 + 70, 6)}`),
  v('day_nr', ['ordinal', 'nominal', 'count'], int(1, 7)),
  v('walk_min', ['continuous', 'count'], whole(8, 2.6, 1, 25)),
  v(
    'ride_min',
    ['continuous', 'count'],
    (c) => 4 + c.pick([0, 5, 10, 15, 20, 25, 30, 40, 55]) + c.whole(0, 4),
  ),
  v('vehicle', 'nominal', (c) => c.whole(501, 560)),
  v('tram_no', ['nominal', 'identifier'], (c) => c.whole(2001, 2046)),
  v('line', 'nominal', pick([3, 4, 9, 11, 14, 15, 22])),
  v('stop_from', 'nominal', (c) => c.whole(100, 149)),
  v('stop_cd', 'nominal', (c) => padded(c.whole(1, 62), 3)),
  v('route', 'nominal', (c) => padded(c.whole(1, 24), 2)),
  v('fare', 'continuous', pick(['1.20', '2.40', '0.00', '3.10'])),
  v('fare_imp', 'nominal', pick([0, 1], [92, 8]), {
    entry: labels(flagged),
    label: 'Fare: imputed',
    role: 'imputation',
  }),
  v('wage_fl', 'nominal', pick([0, 1], [95, 5])),
  v('height_imp', 'nominal', pick([0, 1], [97, 3])),
  v('hours_st', 'nominal', pick([1, 2, 3], [90, 6, 4]), {
    entry: labels({ 1: 'Reported', 2: 'Edited', 3: 'Carried forward' }),
    label: 'Hours: edit status',
  }),
  v('persons', 'count', (c) => 1 + poisson(0.6)(c)),
  v('delay', ['continuous', 'count'], whole(2, 4, -6, 40)),
  v('boarded', 'count', spread(11)),
  v('yob', 'continuous', int(1931, 2004)),
  v('int_yr', 'continuous', pick([2017, 2018, 2019])),
  v('married_yr', 'continuous', sometimes(0.4, '', int(1955, 2019))),
  v('precinct', 'nominal', (c) => Math.min(c.whole(1, 53), c.whole(1, 53))),
  v('ward', 'nominal', (c) => Math.min(c.whole(0, 30), c.whole(0, 30), c.whole(0, 30))),
  v('constituency', 'nominal', spread(6)),
  v('safe_a', 'ordinal', steps(1, 5, 3.6, 1)),
  v('safe_b', 'ordinal', steps(1, 5, 2.6, 1.3)),
  v('safe_c', 'ordinal', pick([1, 2, 3, 4, 5], [20, 5, 40, 5, 30])),
  v('safe_d', 'ordinal', pick([1, 2, 3, 4, 5], [5, 30, 5, 30, 30])),
  v('safe_e', 'ordinal', steps(1, 5, 3, 1)),
];

/** Kennels and keepers: chips, tags, ages in months, colours, weights, fees. */
export const kennels: Judged[] = [
  v('tag', 'identifier', (c, row) => `${c.pick(['K', 'N'])}-${1000 + row}`),
  v('chip_no', 'identifier', (c) => `9810${c.whole(10000000000, 99999999999)}`),
  v(
    'chip',
    'identifier',
    sometimes(0.3, '', (c) => `98${c.whole(1000000000000, 9999999999999)}`),
  ),
  v('phone', 'identifier', (c) => `6${c.whole(10000000, 99999999)}`),
  v('age_mo', ['continuous', 'count'], (c) => Math.round(Number(skewed(30, 0.9)(c)))),
  v(
    'litter',
    'count',
    sometimes(0.5, '', (c) => 1 + poisson(2.6)(c)),
  ),
  v('fleas', 'count', spread(2)),
  v('worms', 'count', (c) => 2 + spread(9)(c)),
  v('ticks_n', 'count', poisson(1)),
  v('weight_g', ['continuous', 'count'], whole(4100, 900, 400, 8800)),
  v('colour', 'nominal', pick(['black', 'tabby', 'ginger', 'white', 'grey'])),
  v('coat', ['nominal', 'ordinal'], pick(['short', 'medium', 'long'])),
  v('fee', 'continuous', pick([0, 25, 40, 60, 85])),
  v('neutered', 'nominal', pick([0, 1, 9], [30, 60, 10])),
  v('temperament', ['ordinal', 'nominal'], pick([1, 2, 3, 4], [30, 40, 20, 10])),
  v('came_as', 'nominal', pick(['stray', 'given up', 'born here', 'seized', 'returned'])),
  v('cage', 'nominal', int(1, 36)),
  v('kennel', 'nominal', (c) => padded(c.whole(1, 40), 2)),
  v('days_here', ['count', 'continuous'], (c) => 1 + spread(24)(c)),
  v('breed', 'nominal', (c) => c.pick(['mixed', 'longhair', 'shorthair', 'forest', 'blue'])),
  v('in_on', 'date', day(18200, 800)),
  v('hour_in', ['ordinal', 'continuous', 'count'], whole(14, 4, 0, 23)),
  v(
    'story',
    'text',
    (c) =>
      `${c.pick(['Found', 'Left', 'Seen', 'Brought'])} ${c.pick(['near', 'behind', 'under'])} the ${c.pick(['mill', 'school', 'barn', 'bridge'])} ${c.pick(['at night', 'in rain', 'by a child'])}, ${c.whole(2, 999)} steps away`,
  ),
];

/** Establishments that answer each quarter: units over waves, turnover, staff, codes with and without labels. */
export const firms: Judged[] = [
  v('firm_no', ['identifier', 'nominal'], cycle(Array.from({ length: 210 }, (_, i) => 3001 + i * 3))),
  v('ent_id', ['identifier', 'nominal'], (c) => `E${c.whole(2000, 2199)}`),
  v(
    'wave',
    ['ordinal', 'nominal'],
    runsOf(210, (at) => 1 + at),
  ),
  v('staff', 'count', spread(23)),
  v('apprentices', 'count', poisson(0.8)),
  v('turnover', 'continuous', (c) => Math.round(Number(skewed(240000, 1)(c)) / 100) * 100),
  v('turnover_i', 'nominal', pick([0, 1], [90, 10])),
  v('edit_st', ['nominal', 'ordinal'], pick([0, 1, 2], [88, 8, 4]), {
    label: 'Edit status, number of edits',
    entry: labels({ 0: 'As received', 1: 'Corrected', 2: 'Estimated' }),
  }),
  v('sizecl', 'ordinal', pick([1, 2, 3, 4, 5], [50, 25, 13, 8, 4])),
  v('branch', 'nominal', pick([10, 11, 13, 14, 22, 25, 31, 47, 56])),
  v('nace4', 'nominal', (c) => c.pick([1071, 1072, 1073, 1081, 1082, 4711, 4724, 5610, 5621, 5630])),
  v('legal', 'nominal', pick([1, 2, 3, 4], [60, 20, 15, 5])),
  v('exports_pct', 'continuous', (c) => (c.odds(0.7) ? 0 : c.whole(1, 20) * 5)),
  v('outlook', 'ordinal', pick([1, 2, 3], [25, 50, 25]), {
    label: 'Outlook',
    entry: labels({ 1: 'Better', 2: 'The same', 3: 'Worse' }),
  }),
  v('gf', 'continuous', (c) => (1 + 30 * c.next() ** 2).toFixed(3), {
    role: 'weight',
    label: 'Grossing-up factor',
  }),
  v('poids', 'continuous', (c) => (80 + 400 * c.next()).toFixed(1), { role: 'weight' }),
  v(
    'hsn',
    ['identifier', 'nominal'],
    runsOf(2, (at) => 900 + at),
  ),
  v('founded', 'continuous', (c) => 2018 - Math.floor(60 * c.next() ** 2)),
  v('training', ['ordinal', 'nominal'], pick([1, 2, 3, 4]), {
    label: 'Highest course',
    entry: labels({ 1: 'None', 2: 'Short course', 3: 'Certificate', 4: 'Diploma' }),
  }),
  v('why_not', 'nominal', pick([1, 2, 3, 4, 5]), {
    label: 'Main reason for not hiring',
    entry: labels({
      1: 'Missing orders',
      2: 'No space',
      3: 'Wages too high',
      4: 'Refused by the bank',
      5: 'Other',
    }),
  }),
  v('courier', 'nominal', pick([0, 1, 2, 3]), {
    label: 'Carrier',
    entry: labels({ 0: 'None of them', 1: 'Own van', 2: 'Rail', 3: 'Post' }),
  }),
  v('stock', ['count', 'continuous'], spread(140)),
  v('visitors', 'count', (c) => 4 + poisson(18)(c)),
  v('crew', 'count', (c) => 2 + poisson(7)(c)),
  v('vat_no', 'identifier', (_, row) => `OS${padded(row * 77 + 1200345, 9)}`),
  v('canopy%', 'continuous', whole(54, 18, 0, 100)),
  v('margin', 'continuous', normal(7, 6, 1)),
];
