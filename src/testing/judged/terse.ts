import type { Judged } from './judged';
import { pick, int, normal, whole, skewed, poisson, day, sometimes, labels, words, prose } from './makers';

/** Names that say nothing, or say it in another language: the cells have to tell. */
export const terse: Judged[] = [
  { name: 'V1', kind: 'identifier', cell: (_, row) => row + 1 },
  { name: 'V2', kind: 'continuous', cell: normal(3.1, 1.2, 2) },
  { name: 'V3', kind: 'nominal', cell: pick([0, 1]) },
  { name: 'V4', kind: ['ordinal', 'nominal'], cell: whole(3, 1, 1, 5) },
  { name: 'V5', kind: 'nominal', cell: pick([1, 2, 3, 4, 8, 9], [30, 12, 31, 8, 14, 5]) },
  { name: 'V6', kind: ['count'], cell: poisson(1) },
  { name: 'V7', kind: 'continuous', cell: whole(480, 110) },
  { name: 'V8', kind: 'text', cell: prose(8, 20) },
  { name: 'V9', kind: 'nominal', cell: pick(words) },
  {
    name: 'V10',
    kind: 'date',
    cell: day(
      17000,
      2000,
      (date) =>
        `${String(date.getUTCMonth() + 1).padStart(2, '0')}/${String(date.getUTCDate()).padStart(2, '0')}/${date.getUTCFullYear()}`,
    ),
  },
  { name: 'V11', kind: ['count', 'continuous'], cell: poisson(9) },
  { name: 'V12', kind: 'ordinal', cell: whole(5.5, 2.2, 0, 10) },
  { name: 'a_12', kind: 'nominal', cell: pick(['a', 'b', 'c', 'x']) },
  { name: 'x4', kind: 'continuous', cell: skewed(900, 1.4, 2) },
  { name: 'geschlecht', kind: 'nominal', cell: pick(['männlich', 'weiblich']) },
  {
    name: 'einkommen',
    kind: 'continuous',
    cell: (c) => skewed(2400, 0.5)(c).replace(/\B(?=(\d{3})+$)/g, '.'),
  },
  { name: 'bildung', kind: 'nominal', cell: pick(['Hauptschule', 'Realschule', 'Abitur', 'Studium']) },
  {
    name: 'monat',
    kind: 'ordinal',
    cell: pick([
      'Januar',
      'Februar',
      'März',
      'April',
      'Mai',
      'Juni',
      'Juli',
      'August',
      'September',
      'Oktober',
      'November',
      'Dezember',
    ]),
  },
  {
    name: 'date_naissance',
    kind: 'date',
    cell: day(
      -9000,
      15000,
      (date) =>
        `${String(date.getUTCDate()).padStart(2, '0')}-${String(date.getUTCMonth() + 1).padStart(2, '0')}-${date.getUTCFullYear()}`,
    ),
  },
  { name: 'sexe', kind: 'nominal', cell: pick(['H', 'F']) },
  { name: 'dept_code', kind: 'nominal', cell: (c) => String(c.whole(1, 95)).padStart(2, '0') },
  { name: 'nb_enfants', kind: 'count', cell: poisson(1.2) },
  {
    name: 'k201',
    kind: 'ordinal',
    label: 'Wie zufrieden sind Sie mit Ihrer Wohnung?',
    entry: labels({
      1: 'sehr unzufrieden',
      2: 'unzufrieden',
      3: 'teils, teils',
      4: 'zufrieden',
      5: 'sehr zufrieden',
    }),
    cell: whole(4, 1, 1, 5),
  },
  {
    name: 'k202',
    kind: 'nominal',
    label: 'Heizung',
    entry: labels({ 1: 'Gas', 2: 'Öl', 3: 'Holz', 4: 'Strom' }),
    cell: int(1, 4),
  },
  {
    name: 'D_POL',
    kind: ['ordinal', 'continuous'],
    label: 'Political left-right placement',
    cell: whole(5, 2, 0, 10),
  },
  { name: 'SERNO', kind: 'identifier', cell: (_, row) => 4000 + row },
  { name: 'MARKER', kind: 'nominal', cell: sometimes(0.8, '', () => 'x') },
  {
    name: 'DT_CREATED',
    kind: 'date',
    storage: 'datetime',
    cell: (c) =>
      `${day(18500, 400)(c)}T${String(c.whole(0, 23)).padStart(2, '0')}:12:${String(c.whole(0, 59)).padStart(2, '0')}Z`,
  },
  {
    name: 'ym',
    kind: 'date',
    cell: (c) => `${c.whole(2012, 2020)}${String(c.whole(1, 12)).padStart(2, '0')}`,
  },
  { name: 'TIMEDIARY_MIN', kind: 'continuous', cell: (c) => c.whole(0, 96) * 5 },
  { name: 'PCT_URBAN', kind: 'continuous', cell: (c) => (100 * c.next()).toFixed(1) },
  { name: 'EMPSTAT', kind: 'nominal', cell: pick([1, 2, 3, 4, 5, 6]) },
  {
    name: 'EDUCD',
    kind: ['ordinal', 'nominal'],
    cell: pick([
      2, 11, 12, 14, 15, 16, 17, 22, 23, 25, 26, 30, 40, 50, 60, 61, 63, 64, 65, 71, 81, 101, 114, 115, 116,
    ]),
  },
  {
    name: 'BPL',
    kind: 'nominal',
    label: 'Birthplace',
    cell: (c) =>
      c.pick([
        1, 2, 4, 5, 6, 8, 9, 10, 11, 12, 13, 15, 16, 17, 18, 200, 210, 260, 300, 400, 410, 453, 500, 515,
      ]),
  },
  {
    name: 'INCTOT',
    kind: 'continuous',
    cell: (c) => (c.odds(0.2) ? 0 : Math.round(Number(skewed(28000, 0.8)(c)) / 100) * 100),
  },
  { name: 'PERWT', kind: 'continuous', role: 'weight', label: 'Person weight', cell: int(20, 420) },
  { name: 'LINE', kind: ['nominal', 'ordinal', 'count'], cell: int(1, 6) },
  { name: 'hhid', kind: ['identifier', 'nominal'], cell: (_, row) => 10000 + Math.floor(row / 3) },
  { name: 'flag', kind: 'nominal', cell: pick(['', '', '', '*', '**']) },
  {
    name: 'gps',
    kind: ['text', 'identifier'],
    cell: (c) => `${normal(52, 1, 4)(c)}, ${normal(13, 1, 4)(c)}`,
  },
];
