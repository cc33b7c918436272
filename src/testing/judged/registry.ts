import type { Judged } from './judged';
import { pick, int, normal, whole, skewed, poisson, day, words, NAMES } from './makers';

/** Places and trade: what registries and shops hand out. */
export const registry: Judged[] = [
  { name: 'id', kind: 'identifier', role: 'identifier', cell: (_, row) => 500000 + row * 3 },
  {
    name: 'uuid',
    kind: 'identifier',
    cell: (c) =>
      `${c.whole(10000000, 99999999).toString(16)}-${c.whole(1000, 9999)}-${c.whole(1000, 9999)}-${c.whole(100000, 999999).toString(16)}`,
  },
  {
    name: 'postcode',
    kind: 'nominal',
    storage: 'text',
    cell: (c) => String(c.whole(1000, 1120)).padStart(5, '0'),
  },
  {
    name: 'zip',
    kind: 'nominal',
    cell: (c) => c.pick([10115, 10117, 10119, 20095, 20097, 50667, 50668, 80331, 80333, 99084]),
  },
  { name: 'lat', kind: 'continuous', cell: normal(52.5, 0.6, 5) },
  { name: 'lon', kind: 'continuous', cell: normal(13.4, 0.9, 5) },
  {
    name: 'city',
    kind: 'nominal',
    cell: pick(['Fenwater', 'Hawmoor', 'Pellsey', 'Quillmere', 'Saltreach', 'Marlhope']),
  },
  { name: 'country', kind: 'nominal', cell: pick(['DE', 'FR', 'ES', 'PL', 'SE']) },
  { name: 'price', kind: 'continuous', cell: skewed(240000, 0.5) },
  { name: 'area_sqm', kind: 'continuous', cell: whole(95, 30, 18, 320) },
  { name: 'bedrooms', kind: 'count', cell: whole(2.8, 1, 0, 7) },
  { name: 'floor', kind: ['count', 'ordinal', 'continuous'], cell: int(0, 9) },
  { name: 'year_built', kind: 'continuous', cell: int(1880, 2020) },
  { name: 'condition', kind: 'ordinal', cell: pick(['poor', 'fair', 'good', 'very good']) },
  { name: 'energy_class', kind: 'ordinal', cell: pick(['A', 'B', 'C', 'D', 'E', 'F', 'G']) },
  {
    name: 'sold_on',
    kind: 'date',
    cell: day(
      18000,
      900,
      (date) => `${date.getUTCDate()}.${date.getUTCMonth() + 1}.${date.getUTCFullYear()}`,
    ),
  },
  {
    name: 'period',
    kind: 'date',
    storage: 'date',
    cell: (c) => `${c.whole(2015, 2022)}-${String(c.whole(1, 12)).padStart(2, '0')}`,
  },
  { name: 'quarter', kind: 'ordinal', cell: (c) => `Q${c.whole(1, 4)}` },
  {
    name: 'month',
    kind: 'ordinal',
    cell: pick(['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']),
  },
  { name: 'agent', kind: 'nominal', cell: (c) => `${c.pick(NAMES)} ${c.pick(['Berg', 'Holm', 'Lind'])}` },
  {
    name: 'address',
    kind: 'text',
    cell: (c, row) =>
      `${c.whole(1, 180)} ${c.pick(words)} ${c.pick(['Street', 'Lane', 'Road'])} ${row % 7 ? '' : c.pick(words)}`.trim(),
  },
  { name: 'rating', kind: ['ordinal', 'continuous'], cell: pick([1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5]) },
  { name: 'stars', kind: 'ordinal', cell: pick([1, 2, 3, 4, 5], [4, 7, 18, 36, 35]) },
  { name: 'quantity', kind: 'count', cell: (c) => 1 + poisson(2.5)(c) },
  {
    name: 'discount',
    kind: 'continuous',
    cell: pick(['0%', '5%', '10%', '15%', '20%', '12.5%', '7%', '3%', '30%', '25%']),
  },
  { name: 'currency', kind: 'nominal', cell: pick(['EUR', 'SEK', 'PLN']) },
  { name: 'active', kind: 'nominal', cell: pick(['TRUE', 'FALSE']) },
  { name: 'share_green', kind: 'continuous', cell: (c) => c.next().toFixed(3) },
  { name: 'temperature', kind: 'continuous', cell: whole(9, 8) },
  { name: 'rain_mm', kind: 'continuous', cell: (c) => (c.odds(0.5) ? 0 : skewed(3, 1, 1)(c)) },
  { name: 'wind_dir', kind: 'nominal', cell: pick(['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW']) },
  { name: 'station', kind: 'nominal', cell: pick([101, 104, 117, 122, 130]) },
  { name: 'version', kind: 'nominal', role: 'admin', cell: () => '1.2' },
  { name: 'nothing', kind: 'empty', role: 'admin', cell: () => '' },
  {
    name: 'url',
    kind: ['text', 'identifier'],
    cell: (c, row) => `https://example.org/${c.pick(words)}/${row}`,
  },
  {
    name: 'time',
    kind: 'date',
    storage: 'time',
    cell: (c) => `${String(c.whole(0, 23)).padStart(2, '0')}:${String(c.whole(0, 59)).padStart(2, '0')}`,
  },
  { name: 'size', kind: 'ordinal', cell: pick(['S', 'M', 'L', 'XL']) },
  { name: 'balance', kind: 'continuous', cell: normal(120, 900, 2) },
  { name: 'passengers', kind: 'count', cell: poisson(38) },
  { name: 'population', kind: ['count', 'continuous'], cell: skewed(4200, 1.2) },
];
