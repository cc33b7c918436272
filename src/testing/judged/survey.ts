import type { Judged } from './judged';
import { pick, int, whole, skewed, poisson, day, sometimes, labels, prose } from './makers';

/** A household survey in codes, nothing documented. */
export const survey: Judged[] = [
  { name: 'caseid', kind: 'identifier', role: 'identifier', cell: (_, row) => row + 1 },
  {
    name: 'respondent_id',
    kind: 'identifier',
    role: 'identifier',
    cell: (_, row) => `R${String(100000 + row * 37)}`,
  },
  { name: 'sex', kind: 'nominal', cell: pick([1, 2]) },
  { name: 'age', kind: 'continuous', storage: 'integer', cell: int(18, 94) },
  { name: 'yob', kind: 'continuous', cell: int(1925, 2002) },
  { name: 'marital', kind: 'nominal', cell: pick([1, 2, 3, 4, 5], [30, 45, 12, 9, 4]) },
  { name: 'nchild', kind: 'count', cell: poisson(1.3) },
  { name: 'hhsize', kind: 'count', cell: (c) => 1 + poisson(1.6)(c) },
  { name: 'region', kind: 'nominal', cell: pick([1, 2, 3, 4, 5, 6, 7, 8, 9]) },
  { name: 'educ', kind: ['ordinal', 'nominal'], cell: pick([1, 2, 3, 4, 5, 6]) },
  {
    name: 'occ',
    kind: 'nominal',
    label: 'Occupation code',
    cell: pick([1110, 1221, 2341, 3412, 4115, 5122, 5223, 6111, 7241, 8322, 9132]),
  },
  {
    name: 'isco',
    kind: 'nominal',
    label: 'Occupation (ISCO-08)',
    cell: (c) =>
      c.pick([1, 2, 3, 4, 5, 7, 8, 9]) * 1000 + c.whole(1, 4) * 100 + c.whole(1, 4) * 10 + c.whole(1, 4),
  },
  { name: 'income', kind: 'continuous', cell: skewed(32000, 0.7) },
  { name: 'hours_worked', kind: 'continuous', cell: whole(37, 9, 0, 80) },
  { name: 'wt', kind: 'continuous', role: 'weight', cell: (c) => (0.3 + c.next() * 2).toFixed(4) },
  {
    name: 'pweight',
    kind: 'continuous',
    role: 'weight',
    label: 'Person weight',
    cell: (c) => (300 + c.next() * 2000).toFixed(2),
  },
  { name: 'stratum', kind: 'nominal', role: 'design', cell: int(1, 24) },
  { name: 'psu', kind: 'nominal', role: 'design', cell: int(1001, 1160) },
  { name: 'q1a', kind: 'ordinal', label: 'Trust in parliament (0-10)', cell: whole(5, 2.4, 0, 10) },
  {
    name: 'q7_1',
    kind: 'ordinal',
    label: 'I often feel tired',
    entry: labels({ 1: 'Strongly disagree', 2: 'Disagree', 3: 'Neither', 4: 'Agree', 5: 'Strongly agree' }),
    cell: whole(3, 1, 1, 5),
  },
  { name: 'lifesat', kind: 'ordinal', label: 'How satisfied with life', cell: whole(4, 1, 1, 7) },
  { name: 'health', kind: 'ordinal', cell: pick(['excellent', 'very good', 'good', 'fair', 'poor']) },
  { name: 'own_car', kind: 'nominal', cell: pick([0, 1]) },
  { name: 'smokes', kind: 'nominal', cell: pick(['yes', 'no']) },
  {
    name: 'cigs',
    kind: 'count',
    label: 'Cigarettes smoked per day',
    cell: (c) => (c.odds(0.7) ? 0 : c.pick([5, 10, 15, 20, 20, 30, 8, 12])),
  },
  { name: 'intdate', kind: 'date', storage: 'date', cell: day(18600, 200) },
  { name: 'int_month', kind: ['ordinal', 'nominal'], cell: int(1, 12) },
  { name: 'year', kind: 'continuous', cell: pick([2018, 2019, 2020, 2021]) },
  { name: 'rooms', kind: 'count', cell: whole(4.2, 1.5, 1, 12) },
  { name: 'comment', kind: 'text', cell: sometimes(0.4, '', prose(5, 14)) },
];
