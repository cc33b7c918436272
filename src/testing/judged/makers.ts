/** How cells of made-up variables are made. */
import type { Chance } from '../../demo/random';
import type { CodebookEntry } from '../../core/extract/extract';

export const pick =
  <T>(items: readonly T[], weights?: readonly number[]) =>
  (c: Chance): T =>
    c.pick(items, weights);
export const int =
  (low: number, high: number) =>
  (c: Chance): number =>
    c.whole(low, high);
export const normal =
  (mean: number, sd: number, digits = 0) =>
  (c: Chance): string =>
    (mean + sd * c.normal()).toFixed(digits);
export const whole =
  (mean: number, sd: number, least = -Infinity, most = Infinity) =>
  (c: Chance): number =>
    Math.min(most, Math.max(least, Math.round(mean + sd * c.normal())));
export const skewed =
  (scale: number, spread: number, digits = 0) =>
  (c: Chance): string =>
    Math.exp(Math.log(scale) + spread * c.normal()).toFixed(digits);
export const poisson =
  (mean: number) =>
  (c: Chance): number => {
    let n = 0;
    for (let p = c.next(); p > Math.exp(-mean); p *= c.next()) n++;
    return n;
  };
export const day =
  (from: number, days: number, form: (date: Date) => string = (date) => date.toISOString().slice(0, 10)) =>
  (c: Chance): string =>
    form(new Date((from + c.whole(0, days)) * 86400000));
export const sometimes =
  (p: number, other: string | number, cell: (c: Chance, row: number) => string | number) =>
  (c: Chance, row: number) => (c.odds(p) ? other : cell(c, row));
export const labels = (list: Record<string, string>): Partial<CodebookEntry> => ({
  categories: Object.entries(list).map(([code, label]) => ({
    code,
    label,
    missing: false,
    reason: null,
    frequency: null,
  })),
});
export const words = [
  'river',
  'stone',
  'old',
  'mill',
  'bridge',
  'warm',
  'north',
  'quiet',
  'barn',
  'field',
  'lane',
  'green',
  'small',
  'tower',
  'well',
  'path',
];
export const prose =
  (least: number, most: number) =>
  (c: Chance): string =>
    Array.from({ length: c.whole(least, most) }, () => c.pick(words)).join(' ');
export const NAMES = [
  'Anna',
  'Ben',
  'Clara',
  'David',
  'Eva',
  'Finn',
  'Greta',
  'Hugo',
  'Ida',
  'Jon',
  'Karla',
  'Leo',
  'Mona',
  'Nils',
  'Olga',
  'Paul',
];

/** Counts that fall off more slowly than chance alone makes them: many with none, a few with very many. */
export const spread =
  (mean: number) =>
  (c: Chance): number =>
    Math.floor(-Math.log(1 - c.next()) * mean);
/** Whole amounts: zero mostly, else of some size, often round. */
export const amounts =
  (none: number, typical: number, size = 1) =>
  (c: Chance): number => {
    if (c.odds(none)) return 0;
    const amount = typical * Math.exp(1.2 * c.normal());
    const unit = c.odds(0.5) ? 100 : c.odds(0.5) ? 25 : 1;
    return Math.max(1, Math.round((amount * size) / unit)) * unit;
  };
/** Steps of a scale from `low` to `high`, about a middle. */
export const steps = (low: number, high: number, mean = (low + high) / 2, sd = (high - low) / 3.5) =>
  whole(mean, sd, low, high);
/** Values in runs of so many rows each, by their number from zero. */
export const runsOf =
  (each: number, value: (at: number) => string | number) =>
  (_: Chance, row: number): string | number =>
    value(Math.floor(row / each));
/** Values that come round again: the parts of a design. */
export const cycle =
  (values: readonly (string | number)[]) =>
  (_: Chance, row: number): string | number =>
    values[row % values.length];
/** Zero-padded. */
export const padded = (value: number, width: number): string => String(value).padStart(width, '0');
