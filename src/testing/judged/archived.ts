import { v, type Judged } from './judged';
import {
  int,
  labels,
  normal,
  padded,
  pick,
  poisson,
  skewed,
  sometimes,
  spread,
  steps,
  whole,
} from './makers';

const AGREE = labels({
  1: 'Strongly agree',
  2: 'Agree',
  3: 'Neither',
  4: 'Disagree',
  5: 'Strongly disagree',
});
const YES_NO = labels({ 1: 'Yes', 2: 'No' });
const measured = { interval: 'continuous' as const };
const listed = { interval: 'discrete' as const };

/** A household survey as an archive hands it out: every variable with its label, most with their codes. */
export const archived: Judged[] = [
  v('HH1', 'identifier', (_, row) => 100100 + row * 10, { label: 'Household number' }),
  v('HH2', ['nominal', 'identifier'], (_, row) => 1 + Math.floor(row / 15), { label: 'Enumeration area' }),
  v('A1', 'nominal', pick([1, 2]), { label: 'Sex of head', entry: labels({ 1: 'Man', 2: 'Woman' }) }),
  v('A2', 'continuous', int(17, 96), { label: 'Age of head, in years', entry: measured }),
  v('A3', 'nominal', pick([1, 2, 3, 4, 8]), {
    label: 'Language',
    entry: labels({ 1: 'Ostrian', 2: 'Valish', 3: 'Both', 4: 'Other', 8: 'Does not speak' }),
  }),
  v('A4', 'count', (c) => 1 + poisson(2)(c), { label: 'Persons in the household', entry: listed }),
  v('A5', 'count', poisson(0.8), { label: 'Children under 14' }),
  v('A6', 'count', pick([0, 1, 2, 3], [60, 25, 10, 5]), { label: 'Number of children at school' }),
  v('B1', 'continuous', (c) => Math.round(Number(skewed(2600, 0.6)(c)) / 10) * 10, {
    label: 'Net income last month',
    entry: { ...measured, units: 'crowns' },
  }),
  v('B2', 'ordinal', whole(6, 2.5, 1, 12), {
    label: 'Net income, bands',
    entry: labels(
      Object.fromEntries(
        Array.from({ length: 12 }, (_, i) => [
          i + 1,
          i < 11 ? `${i * 500} to ${i * 500 + 499}` : '5500 or more',
        ]),
      ),
    ),
  }),
  v(
    'B3',
    'continuous',
    sometimes(0.05, 9999, (c) => c.whole(0, 300) * 5),
    { label: 'Rent per month', entry: labels({ 9999: 'Refused' }) },
  ),
  v('B4', 'nominal', pick([1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11, 12, 13, 14]), {
    label: 'Occupation of head, groups',
    entry: labels(
      Object.fromEntries(
        [
          'Farm work',
          'Building',
          'Metal',
          'Wood',
          'Textile',
          'Food',
          'Transport',
          'Trade',
          'Office',
          'Teaching',
          'Health',
          'Services',
          'Army',
          'None',
        ].map((w, i) => [i + 1, w]),
      ),
    ),
  }),
  v('B5', 'nominal', (c) => c.whole(1, 9) * 100 + c.whole(1, 9) * 10 + c.whole(1, 9), {
    label: 'Occupation, three digits',
  }),
  v('C1', 'ordinal', steps(1, 5, 2.4, 1), { label: 'The parish does enough', entry: AGREE }),
  v('C2', 'ordinal', steps(1, 5, 3.4, 1), { label: 'Prices rise too fast', entry: AGREE }),
  v('C3', 'ordinal', sometimes(0.05, 8, steps(1, 5)), { label: 'Young people move away', entry: AGREE }),
  v('C4', 'ordinal', steps(0, 10, 6, 2), {
    label: 'Trust in the council',
    entry: labels({ 0: 'No trust at all', 10: 'Full trust' }),
  }),
  v('C5', 'ordinal', steps(1, 7, 4, 1.5), {
    label: 'Life as a whole',
    entry: labels({ 1: 'Terrible', 7: 'Delightful' }),
  }),
  v('C6', 'nominal', pick([0, 1]), {
    label: 'Mentioned: roof',
    entry: labels({ 0: 'Not mentioned', 1: 'Mentioned' }),
  }),
  v('C7', 'nominal', pick([0, 1], [8, 2]), { label: 'Mentioned: heating' }),
  v('D1', 'nominal', pick([1, 2]), { label: 'Has a garden', entry: YES_NO }),
  v('D2', ['continuous', 'count'], sometimes(0.5, '', int(20, 900)), {
    label: 'Size of the garden',
    entry: { units: 'square metres', ...measured },
  }),
  v('D3', 'count', sometimes(0.5, '', spread(3)), { label: 'Number of fruit trees', entry: measured }),
  v('D4', 'continuous', normal(2.4, 0.3, 1), {
    label: 'Height of ceilings',
    entry: { units: 'm', ...measured },
  }),
  v('D5', 'nominal', pick([1, 2, 3, 4, 5]), {
    label: 'Kind of dwelling',
    entry: labels({ 1: 'Farm house', 2: 'Detached', 3: 'Row house', 4: 'Flat', 5: 'Other' }),
  }),
  v('D6', 'ordinal', pick([1, 2, 3, 4]), {
    label: 'State of the roof',
    entry: labels({ 1: 'Good', 2: 'Fair', 3: 'Poor', 4: 'Very poor' }),
  }),
  v('D7', 'continuous', int(1790, 2016), { label: 'Year the house was built' }),
  v('E1', 'ordinal', pick([1, 2, 3, 4, 5, 6]), {
    label: 'How often do you bake?',
    entry: labels({
      1: 'Daily',
      2: 'Several times a week',
      3: 'Once a week',
      4: 'Once a month',
      5: 'Less often',
      6: 'Never',
    }),
  }),
  v('E2', ['count', 'continuous'], whole(4, 2, 0, 14), { label: 'Loaves a week' }),
  v('E3', 'continuous', pick([5, 10, 15, 20, 30, 45, 60, 90, 120]), {
    label: 'Minutes to the mill',
    entry: measured,
  }),
  v('E4', 'ordinal', int(1, 12), { label: 'Month of the visit' }),
  v('E5', 'nominal', (c) => 300 + c.whole(1, 34), { label: 'Interviewer' }),
  v('E6', 'nominal', pick([1, 2, 3]), {
    label: 'Result of the visit',
    entry: labels({ 1: 'Complete', 2: 'Broken off', 3: 'By another person' }),
  }),
  v('E7', 'continuous', () => 2019, { label: 'Year of the survey', entry: measured }),
  v('E8', ['ordinal', 'nominal'], pick([1, 2, 3, 4], [40, 30, 20, 10]), {
    label: 'Size of settlement',
    entry: labels({ 1: 'Hamlet', 2: 'Village', 3: 'Town', 4: 'City' }),
  }),
  v('WGT', 'continuous', (c) => (0.3 + 2 * c.next()).toFixed(4), {
    label: 'Household weight',
    role: 'weight',
  }),
  v('STR', 'nominal', int(1, 18), { label: 'Stratum', role: 'design' }),
  v(
    'yrs_stove',
    ['continuous', 'count'],
    sometimes(0.5, '', (c) => Math.min(30, Math.floor(-Math.log(1 - c.next()) * 7))),
    { label: 'Stove: years in use' },
  ),
  v('yrs_pump', 'continuous', (c) => Math.min(25, Math.floor(-Math.log(1 - c.next()) * 5)), {
    label: 'Pump: years in use',
  }),
  v('boil_age', 'continuous', (c) => Math.floor(-Math.log(1 - c.next()) * 8), {
    label: 'Age of the boiler, years',
  }),
  v('km_mill', 'continuous', (c) => Math.ceil(-Math.log(1 - c.next()) * 6), {
    label: 'Distance to the mill, km',
  }),
  v('hrs_fire', 'continuous', (c) => Math.min(24, Math.floor(-Math.log(1 - c.next()) * 5)), {
    label: 'Hours a day that the fire burns',
  }),
  v('sp_wood', 'continuous', spread(140), { label: 'Spent on wood last year' }),
  v('F1', 'count', pick([0, 1, 2, 3], [43, 28, 15, 14]), { label: 'Number of bicycles' }),
  v('F2', 'count', pick([1, 2, 3, 4, 5], [30, 40, 20, 7, 3]), { label: 'How many rooms are heated' }),
  v('F3', 'count', poisson(2.5), { label: 'Number of visits to the doctor' }),
  v('F4', 'count', pick([0, 1, 2], [70, 25, 5]), { label: 'How many times has the roof leaked?' }),
  v('F5', 'count', whole(5, 1.6, 0, 9), { label: 'Anzahl der Fenster' }),
  v('F6', 'count', spread(30), { label: 'Nombre de poules' }),
  v('F7', 'count', pick([0, 1, 2, 3, 4], [20, 20, 20, 20, 20]), {
    label: 'Number of chimneys',
    entry: listed,
  }),
  v('F8', 'count', spread(260), { label: 'Number of steps to the well' }),
  v('F9', 'count', pick([0, 1, 2, 3, 4, 5, 6, 7], [50, 10, 8, 8, 6, 6, 4, 8]), {
    label: 'On how many days was bread baked last week?',
  }),
  v('G1', 'ordinal', steps(1, 4, 2.4, 0.9), { label: 'Difficulty with stairs' }),
  v('G2', 'ordinal', steps(0, 6, 3, 1.5), { label: 'Pain when climbing' }),
  v('G3', 'nominal', int(1, 8), { label: 'Where the water comes from' }),
  v('G4', 'nominal', pick([1, 2, 3, 4, 5]), { label: 'Fuel most used' }),
  v('G5', 'nominal', pick([1, 2, 3], [80, 15, 5]), { label: 'Who fetches wood' }),
  v('G6', ['continuous', 'count'], whole(38, 9, 0, 84), { label: 'Hours worked last week' }),
  v('G7', ['continuous', 'count'], (c) => c.whole(0, 50) * 2, {
    label: 'Share of income spent on heating, percent',
  }),
  v('ZIP', ['nominal', 'identifier'], (c) => padded(c.whole(100, 940), 5), { label: 'Postal district' }),
  v(
    'OPEN',
    'text',
    (c) =>
      c.odds(0.8)
        ? ''
        : `${c.pick(['It', 'She', 'He'])} ${c.pick(['wanted', 'asked for', 'spoke of'])} ${c.pick(['a new', 'the old', 'another'])} ${c.pick(['well', 'gate', 'stove'])} ${c.whole(1, 700)}`,
    { label: 'Remarks of the interviewer' },
  ),
];
