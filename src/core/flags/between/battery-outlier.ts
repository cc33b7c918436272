import { largest, smallest } from '../../tally/extent';
import type { Column } from '../../extract/column';
import { spellingsOf, validOf } from '../../infer/levels';
import { alikeItems, batteriesOf, isOneScale } from './batteries';
import { remembered } from '../remembered';
import { round2, type ExtractRule, type Flag, type Subject, type Whole } from '../rule';

/**
 * One item of a battery with other codes than its siblings, or answered the other way round: agreeing with it goes with
 * disagreeing with the rest.
 */
export const batteryOutlier: ExtractRule = {
  rule: 'battery-outlier',
  needs: 'tally',
  answers: 'whole',
  look,
};

const SAMPLE = 4000;
/** Correlation with the mean of the others below which an item goes the other way, and above which the others go together. */
const AGAINST = -0.15;
const TOGETHER = 0.2;
/** A code that so many rows of the others hold is missing for a reason. */
const EXPECTED = 15;
/** So many steps that the others use and an item does not. */
const SHORTER = 3;

function look({ extract, subjects, studied = subjects }: Whole): Flag[] {
  const ordered = batteriesOf(studied);
  // A battery of which an item has another list need not be of ordered items alone.
  const listed = [...ordered, ...alikeItems(studied)];
  const told = new Set<string>();
  return [
    ...listed
      .flatMap((items) => codesSeen(extract, studied, items, () => otherCodes(items, studied)))
      .filter(({ variables: [name] }) => !told.has(name) && told.add(name)),
    ...ordered.flatMap((items) =>
      waysSeen(extract, studied, items, () =>
        otherWay(
          items,
          studied,
          extract.variables.map(({ column }) => column),
          extract.rows,
        ),
      ),
    ),
  ];
}

const codesSeen = remembered<Flag[]>();
const waysSeen = remembered<Flag[]>();

function otherCodes(items: readonly number[], subjects: readonly Subject[]): Flag[] {
  const codesOf = (i: number): Map<string, number> =>
    new Map(validOf(subjects[i].levels).levels.map(({ value, count }) => [String(value), count]));
  const all = items.map((i) => ({ i, codes: codesOf(i), rows: validOf(subjects[i].levels).rows }));
  // Of each code the items that hold it, and its shares in them added up.
  const held = new Map<string, { items: number; shares: number }>();
  for (const { codes, rows } of all)
    for (const [code, count] of codes) {
      const known = held.get(code) ?? { items: 0, shares: 0 };
      held.set(code, { items: known.items + 1, shares: known.shares + count / Math.max(1, rows) });
    }
  return all.flatMap(({ i, codes, rows }): Flag[] => {
    const extra = [...codes].filter(([code, count]) => count >= EXPECTED && held.get(code)?.items === 1);
    const others = all.filter((other) => other.i !== i);
    const lacks = [...held]
      .filter(
        ([code, { items: holding, shares }]) =>
          !codes.has(code) && (shares / others.length) * rows >= EXPECTED && holding >= others.length * 0.8,
      )
      .map(([code]) => code);
    // A scale that lacks many of the others' steps is another one, though it adds none.
    if (extra.length === 0 && lacks.length < SHORTER) return [];
    // One code beyond the scale is another rule's business; another scale is this one's.
    if (
      lacks.length === 0 &&
      extra.length < 2 &&
      !(
        beyond(
          extra.map(([code]) => Number(code)),
          others,
        ) && isOneScale(others.map((other) => subjects[other.i]))
      )
    )
      return [];
    return [
      {
        rule: 'battery-outlier',
        variables: [subjects[i].name],
        codes: extra.map(([code]) => code),
        rows: extra.reduce((sum, [, count]) => sum + count, 0),
        severity: 'low',
        certainty: 0.8,
        says: `${[
          ...(extra.length ? [`only here ${extra.map(([code]) => code).join(', ')}`] : []),
          ...(lacks.length ? [`nobody gave ${lacks.join(', ')} here`] : []),
        ].join(', and ')}, in a battery of ${others.length + 1} items`,
      },
    ];
  });
}

/** A step just outside the scale of the others, as where a scale begins at 0 instead of 1. */
function beyond(
  extra: readonly number[],
  others: readonly { codes: ReadonlyMap<string, number> }[],
): boolean {
  const values = others.flatMap(({ codes }) => [...codes.keys()].map(Number));
  const [low, high] = [smallest(values), largest(values)];
  return extra.every((value) => (value === low - 1 && value >= 0) || (value === high + 1 && high < 7));
}

function otherWay(
  items: readonly number[],
  subjects: readonly Subject[],
  columns: readonly Column[],
  rows: number,
): Flag[] {
  const step = Math.max(1, Math.floor(rows / SAMPLE));
  const data = items.map((i) => {
    const place = new Map(
      validOf(subjects[i].levels).levels.flatMap((level) =>
        spellingsOf(level).map((text) => [text, level.value as number] as const),
      ),
    );
    const value = columns[i].lift((text) => place.get(text) ?? NaN);
    const values = new Float64Array(Math.floor((rows - 1) / step) + 1);
    for (let n = 0; n < values.length; n++) values[n] = value(n * step);
    return values;
  });
  const all = sumOf(data);
  const against = data.map((one) => correlation(one, meanBeside(all, [one])));
  const low = against.flatMap((r, n) => (r !== null && r <= AGAINST ? [n] : []));
  if (low.length === 0 || low.length > items.length / 3) return [];
  // The others have to go together, or there is no way to go against.
  const rest = items.map((_, n) => n).filter((n) => !low.includes(n));
  const together = rest.map((n) =>
    correlation(data[n], meanBeside(all, [data[n], ...low.map((other) => data[other])])),
  );
  if (rest.length < 3 || together.filter((r) => r !== null && r >= TOGETHER).length < rest.length * 0.7)
    return [];
  return low.map((n) => ({
    rule: 'battery-outlier',
    variables: [subjects[items[n]].name],
    codes: [],
    rows: validOf(subjects[items[n]].levels).rows,
    severity: 'low' as const,
    certainty: round2(Math.min(0.95, 0.75 + Math.abs(against[n] ?? 0) / 2)),
    says: `high answers here go with low answers to its ${items.length - 1} siblings (correlation ${(against[n] ?? 0).toFixed(2)}${step > 1 ? `, over every ${ordinal(step)} row` : ''}): it is worded or coded the other way round`,
  }));
}

/** "2nd", "3rd", "11th". */
function ordinal(n: number): string {
  const ending = n % 100 > 10 && n % 100 < 14 ? 'th' : (['th', 'st', 'nd', 'rd'][n % 10] ?? 'th');
  return `${n}${ending}`;
}

/** Of each row the sum of what the items hold, and how many hold anything. */
function sumOf(all: readonly Float64Array[]): { sums: Float64Array; held: Float64Array } {
  const sums = new Float64Array(all[0]?.length ?? 0);
  const held = new Float64Array(sums.length);
  for (const one of all)
    for (let row = 0; row < sums.length; row++)
      if (!Number.isNaN(one[row])) {
        sums[row] += one[row];
        held[row]++;
      }
  return { sums, held };
}

/** Of each row the mean of all items but some. */
function meanBeside(
  { sums, held }: { sums: Float64Array; held: Float64Array },
  but: readonly Float64Array[],
): Float64Array {
  return sums.map((sum, row) => {
    let [rest, n] = [sum, held[row]];
    for (const one of but)
      if (!Number.isNaN(one[row])) {
        rest -= one[row];
        n--;
      }
    return n > 0 ? rest / n : NaN;
  });
}

/** Pearson's correlation over rows in which both have a value; `null` without spread or with under 30 rows. */
export function correlation(x: Float64Array, y: Float64Array): number | null {
  let [n, sx, sy] = [0, 0, 0];
  for (let i = 0; i < x.length; i++)
    if (!Number.isNaN(x[i]) && !Number.isNaN(y[i])) {
      n++;
      sx += x[i];
      sy += y[i];
    }
  if (n < 30) return null;
  let [xx, yy, xy] = [0, 0, 0];
  for (let i = 0; i < x.length; i++)
    if (!Number.isNaN(x[i]) && !Number.isNaN(y[i])) {
      const [dx, dy] = [x[i] - sx / n, y[i] - sy / n];
      xx += dx * dx;
      yy += dy * dy;
      xy += dx * dy;
    }
  return xx > 0 && yy > 0 ? xy / Math.sqrt(xx * yy) : null;
}
