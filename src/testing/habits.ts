import { bareEntry, type CodebookEntry } from '../core/extract/extract';
import type { Decision } from '../core/log/entries';

const N = 40;
const column = (of: (i: number) => string): string[] => Array.from({ length: N }, (_, i) => of(i));
const group = (digits: string, by: string): string => digits.replace(/\B(?=(\d{3})+(?!\d))/g, by);
const two = (n: number): string => String(n).padStart(2, '0');

/** Columns as people write them, each with the values that its cells stand for. */
export const HABITS: Record<string, { cells: string[]; values: (number | boolean | string | null)[] }> = {
  zeros: made((i) => (1 + i * 0.25).toFixed(2), Number),
  commas: made(
    (i) => `${i % 3 ? '-' : ''}${i},${two((i * 7) % 100)}`,
    (t) => Number(t.replace(',', '.')),
  ),
  euros: made(
    (i) => `€ ${i * 3}.5`,
    (t) => Number(t.slice(2)),
  ),
  narrow: made(
    (i) => group(String(1000 + i * 987), '\u202f'),
    (t) => Number(t.replace(/\D/g, '')),
  ),
  percents: made(
    (i) => `${i}%`,
    (t) => Number(t.slice(0, -1)),
  ),
  brackets: made(
    (i) => (i % 4 ? `${i * 2}.75` : `(${i + 1}.25)`),
    (t) => (t.startsWith('(') ? -Number(t.slice(1, -1)) : Number(t)),
  ),
  minus: made(
    (i) => `${i % 2 ? '\u2212' : ''}${i + 1}`,
    (t) => Number(t.replace('\u2212', '-')),
  ),
  digits16: made((i) => `0.${1234567890123450 + i}`, Number),
  digits17: made((i) => String(1 / (i + 3)), Number),
  long20: made((i) => `123456789012345678${two(i)}`, String),
  big: made((i) => `90071992547409${90 + i}`, String),
  blanked: made(
    (i) => (i === 5 ? ' ' : String(i * 11)),
    (t) => (t === ' ' ? null : Number(t)),
  ),
  halves: made(
    (i) => (i === 7 ? ' ' : `${i * 11}.5`),
    (t) => (t === ' ' ? null : Number(t)),
  ),
  truth: made(
    (i) => (i % 3 ? 'TRUE' : 'FALSE'),
    (t) => t === 'TRUE',
  ),
  day: made((i) => `2021-${two(1 + (i % 12))}-${two(1 + (i % 28))}`, String),
  dmy: made(
    (i) => `${two(1 + (i % 28))}/${two(1 + (i % 12))}/2021`,
    (t) => t.split('/').reverse().join('-'),
  ),
  moment: made(
    (i) => `2021-03-${two(1 + (i % 28))} ${two(i % 24)}:15:0${i % 10}`,
    (t) => t.replace(' ', 'T'),
  ),
  zoned: made(
    (i) => `2021-03-${two(1 + (i % 28))}T${two(i % 24)}:15:00Z`,
    (t) => t.slice(0, -1),
  ),
  lasted: made((i) => `${24 + i}:0${i % 10}`, String),
  stray: made(
    (i) => (i === 9 ? 'n/k yet' : String(100 + i)),
    (t) => (t === 'n/k yet' ? t : Number(t)),
  ),
  coded: made(
    (i) => ['1,5', '2,0', '-9,0'][i % 3],
    (t) => (t === '-9,0' ? null : Number(t.replace(',', '.'))),
  ),
  satisfied: made(
    (i) => String([1, 2, 3, 9, 5][i % 5]),
    (t) => (t === '9' ? null : Number(t)),
  ),
  '#odd, name': made((i) => ['=1+1', '-', '@x', 'plain', '# a remark'][i % 5], String),
};
function made<T>(cell: (i: number) => string, value: (text: string) => T): { cells: string[]; values: T[] } {
  const cells = column(cell);
  return { cells, values: cells.map(value) };
}

export const HABITS_CELLS = Object.fromEntries(
  Object.entries(HABITS).map(([name, { cells }]) => [name, cells]),
);

export const HABITS_ENTRIES: CodebookEntry[] = [
  {
    ...bareEntry('satisfied'),
    label: 'How satisfied',
    categories: [
      { code: '1', label: 'Very', missing: false, reason: null, frequency: null },
      { code: '2', label: 'So so', missing: false, reason: null, frequency: null },
      { code: '3', label: 'So so', missing: false, reason: null, frequency: null },
      { code: '9', label: 'Would not say', missing: true, reason: 'refused', frequency: null },
    ],
  },
  {
    ...bareEntry('coded'),
    label: 'Grade',
    categories: [
      { code: '1,5', label: 'Good', missing: false, reason: null, frequency: null },
      { code: '-9,0', label: 'None given', missing: true, reason: 'no-answer', frequency: null },
    ],
  },
];

export const HABITS_DECISIONS: Decision[] = [
  { type: 'confirm-kind', kinds: [{ variable: 'satisfied', kind: 'ordinal' }] },
];
