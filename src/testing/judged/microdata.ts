import type { Judged } from './judged';
import { pick, int, normal, skewed, poisson, sometimes } from './makers';

/** Microdata of persons within households, registers and repeated items, in bare numbers. */
export const microdata: Judged[] = [
  {
    name: 'SERIAL',
    kind: 'identifier',
    role: 'identifier',
    cell: (_, row) => 100 * (1 + Math.floor(row / 2.4)),
  },
  {
    name: 'STATEFIP',
    kind: 'nominal',
    cell: pick([1, 2, 4, 5, 6, 8, 9, 10, 11, 12, 13, 15, 16, 17, 18, 19, 20, 21, 36, 48, 55, 56]),
  },
  { name: 'phq1', kind: 'ordinal', cell: pick([0, 1, 2, 3], [48, 30, 15, 7]) },
  { name: 'phq2', kind: 'ordinal', cell: pick([0, 1, 2, 3, 9], [50, 29, 14, 7, 2]) },
  { name: 'phq3', kind: 'ordinal', cell: pick([0, 1, 2, 3], [52, 28, 14, 6]) },
  { name: 'phq4', kind: 'ordinal', cell: pick([0, 1, 2, 3], [45, 32, 15, 8]) },
  { name: 'phq5', kind: 'ordinal', cell: pick([0, 1, 2, 3], [60, 25, 10, 5]) },
  { name: 'HHWT', kind: 'continuous', role: 'weight', cell: skewed(90, 0.6, 2) },
  { name: 'birthwt', kind: 'continuous', role: 'analysis', cell: normal(3.4, 0.5, 2) },
  {
    name: 'serv_mon',
    kind: 'ordinal',
    label: 'Month of the last boiler service',
    cell: sometimes(0.005, 13, int(1, 12)),
  },
  { name: 'bmonth', kind: ['ordinal', 'nominal'], cell: int(1, 12) },
  {
    name: 'nace',
    kind: 'nominal',
    cell: pick(['01.11', '01.13', '10.51', '25.62', '41.20', '47.11', '56.10', '62.01']),
  },
  { name: 'village', kind: 'nominal', cell: (_, row) => 1 + Math.floor(row / 40) },
  {
    name: 'TRANTIME',
    kind: 'continuous',
    cell: pick(
      [5, 10, 15, 20, 25, 30, 35, 40, 45, 60, 90, 12, 18],
      [6, 14, 18, 17, 8, 20, 4, 6, 9, 8, 3, 1, 1],
    ),
  },
  { name: 'weight', kind: 'continuous', role: 'analysis', cell: normal(76, 13, 1) },
  { name: 'kids_1', kind: 'count', label: 'Number of children under 5', cell: poisson(0.4) },
];
