import { v, type Judged } from './judged';
import {
  int,
  labels,
  normal,
  pick,
  poisson,
  runsOf,
  skewed,
  sometimes,
  spread,
  steps,
  whole,
} from './makers';

/** An opinion poll as an old tape has it: short names, no codebook, scales of every length. */
export const poll: Judged[] = [
  v('respno', 'identifier', (_, row) => row + 1),
  v('townsize', ['continuous', 'count'], (c) => Math.round(Number(skewed(40, 1.6)(c))), {
    label: 'Population of town, thousands',
  }),
  v('newsdays', ['count', 'ordinal'], pick([0, 1, 2, 3, 4, 5, 6, 7], [18, 10, 9, 11, 7, 8, 4, 33])),
  v('leftright', 'ordinal', steps(1, 7, 4.2, 1.4)),
  v('mayorLR', 'ordinal', steps(1, 7, 3, 1.3)),
  v('rivalLR', 'ordinal', steps(1, 7, 5.3, 1.2)),
  v('counLR', 'ordinal', pick([1, 2, 3, 4, 5, 6, 7], [9, 24, 29, 27, 6, 4, 1])),
  v('closeness', 'ordinal', pick([0, 1, 2, 3, 4, 5, 6], [21, 19, 12, 4, 10, 16, 18]), {
    label: 'Party leaning, strong Greens to strong Blues',
  }),
  v('incbr', 'ordinal', whole(14, 6, 1, 24), { label: 'Family income, 24 brackets' }),
  v('hhinc', 'ordinal', whole(8, 3.5, 1, 16)),
  v('voted', 'nominal', pick([0, 1], [4, 6])),
  v(
    'warmth',
    ['continuous', 'ordinal'],
    pick([0, 15, 30, 40, 50, 60, 70, 85, 100], [5, 9, 10, 12, 25, 14, 11, 9, 5]),
    { label: 'Feeling thermometer, 0 to 100' },
  ),
  v('church', 'ordinal', pick([1, 2, 3, 4, 5], [12, 10, 16, 24, 38])),
  v('trustgov', 'ordinal', pick([1, 2, 3, 4], [4, 24, 60, 12])),
  v('race', 'nominal', pick([1, 2, 3, 4, 5], [78, 11, 5, 4, 2])),
  v('faith', 'nominal', pick([1, 2, 3, 4, 5, 6], [48, 26, 3, 6, 2, 15])),
  v('urbanity', ['ordinal', 'nominal'], pick([1, 2, 3], [30, 42, 28])),
  v('union', 'nominal', pick([0, 1], [84, 16])),
  v('age', ['continuous', 'count'], int(18, 92)),
  v('yrsres', ['continuous', 'count'], (c) => Math.floor(40 * c.next() * c.next()), {
    label: 'Years in this place',
  }),
  v('intv', 'nominal', (c) => c.pick([103, 107, 112, 118, 121, 126, 133, 140, 152, 155, 161, 178])),
  v('minutes', ['continuous', 'count'], whole(58, 17, 21, 160)),
  v('kidsathome', 'count', poisson(0.7)),
  v('rdd', 'nominal', pick([1, 2]), { judgedBy: 'words' }),
  v('wtsamp', 'continuous', (c) => (0.2 + 1.7 * c.next()).toFixed(3), { role: 'weight' }),
  v('ladder', 'ordinal', steps(1, 10, 6.3, 2.1), { label: 'Where would you put yourself from 1 to 10?' }),
  v('satlife', 'ordinal', steps(0, 10, 7.2, 1.9)),
  v('taxcut', 'ordinal', pick([1, 2, 3, 4, 5], [22, 25, 27, 16, 10])),
];

/** A poll with a codebook of every sort: labels in order and in none, scales with labels at the ends alone. */
export const documented: Judged[] = [
  v('id', 'identifier', (_, row) => 30000 + row * 7, { label: 'Case number' }),
  v('q1', 'ordinal', steps(1, 5), {
    label: 'How worried are you about floods?',
    entry: labels({ 1: 'Not worried at all', 5: 'Very worried' }),
  }),
  v('q2', 'nominal', int(1, 6), {
    label: 'Which of these would you repair first?',
    entry: labels({ 1: 'Roof', 2: 'Windows', 3: 'Heating', 4: 'Stairs', 5: 'Kitchen', 6: 'Bath' }),
  }),
  v('q3', 'ordinal', steps(1, 4), {
    label: 'Would you say your health is…',
    entry: labels({ 1: 'Very good', 2: 'Good', 3: 'Fair', 4: 'Bad' }),
  }),
  v('q4', 'nominal', pick([1, 2]), {
    label: 'Do you own the dwelling?',
    entry: labels({ 1: 'Yes', 2: 'No' }),
  }),
  v('q5', 'nominal', pick([1, 2, 3, 9], [50, 40, 5, 5]), {
    label: 'Is the roof tight?',
    entry: labels({ 1: 'Yes', 2: 'No', 3: 'In part', 9: 'No answer' }),
  }),
  v('q6', 'ordinal', pick([1, 2, 3, 4, 5, 6]), {
    label: 'Household income',
    entry: labels({
      1: 'Under 500',
      2: '500 to 999',
      3: '1000 to 1499',
      4: '1500 to 1999',
      5: '2000 to 2999',
      6: '3000 or more',
    }),
  }),
  v('q7', 'count', poisson(2.2), { label: 'Number of rooms that are heated' }),
  v('q8', 'continuous', (c) => c.whole(10, 900), {
    label: 'Heating costs last winter, in crowns',
    entry: { units: 'crowns' },
  }),
  v('q9', 'ordinal', pick([1, 2, 3, 4, 5]), {
    label: 'How often do you sweep the chimney?',
    entry: labels({ 1: 'Every week', 2: 'Every month', 3: 'Every year', 4: 'Less often', 5: 'Never' }),
  }),
  v(
    'q10',
    'continuous',
    sometimes(0.06, 999, (c) => c.whole(0, 60) * 5),
    { label: 'Minutes to the nearest shop', entry: labels({ 999: 'No answer' }) },
  ),
  v('q11', 'nominal', pick([1, 2, 3, 4]), {
    label: 'Who sweeps it?',
    entry: labels({ 1: 'Myself', 2: 'A neighbour', 3: 'The sweep', 4: 'Somebody else' }),
  }),
  v('q12', 'ordinal', pick([1, 2, 3]), {
    label: 'Prices compared with last year',
    entry: labels({ 1: 'Higher', 2: 'The same', 3: 'Lower' }),
  }),
  v('q13', 'ordinal', steps(0, 10), {
    label: 'Satisfaction with the parish (0-10)',
    entry: labels({ 0: 'Completely dissatisfied', 10: 'Completely satisfied' }),
  }),
  v('q14', 'nominal', pick([1, 2, 3, 4, 5, 6, 7]), {
    label: 'Marital status',
    entry: labels({
      1: 'Single',
      2: 'Married',
      3: 'Living together',
      4: 'Separated',
      5: 'Divorced',
      6: 'Widowed',
      7: 'Other',
    }),
  }),
  v('q15', ['ordinal', 'nominal'], pick([1, 2, 3, 4, 5]), {
    label: 'Highest schooling',
    entry: labels({ 1: 'None', 2: 'Primary', 3: 'Lower secondary', 4: 'Upper secondary', 5: 'University' }),
  }),
  v('q16', 'continuous', int(1921, 2003), { label: 'Year of birth' }),
  v('q17', ['continuous', 'count'], int(18, 95), { label: 'Age', entry: { interval: 'continuous' } }),
  v('q18', 'continuous', () => 7, { label: 'Days of the field period', entry: { interval: 'continuous' } }),
  v(
    'q19',
    'text',
    (c) =>
      c.odds(0.7)
        ? ''
        : `${c.pick(['the', 'our', 'that'])} ${c.pick(['roof', 'yard', 'stair'])} is ${c.pick(['leaking', 'cold', 'old'])} and ${c.pick(['nobody', 'no one', 'not one'])} comes ${c.whole(1, 99)}`,
    { label: 'Anything else?' },
  ),
  v('q20', 'nominal', () => 1, { label: 'Consent given', entry: labels({ 1: 'Yes', 2: 'No' }) }),
  v(
    'q21',
    ['nominal', 'identifier'],
    runsOf(12, (at) => 200 + at),
    { label: 'Interviewer number' },
  ),
  v('q22', 'count', spread(3), { label: 'How many times in the last year?' }),
  v('q23', 'continuous', normal(21.5, 2, 1), { label: 'Room temperature in degrees' }),
];
