import { validOf } from '../../infer/levels';
import { LEAST_CODES, LEAST_ITEMS, MOST_CODES } from '../../infer/scale';
import { stemOf } from '../../infer/stem';
import type { Subject } from '../rule';
import { putUnder } from '../../extract/put-under';

/** Places of the items of each battery: ordered variables of one stem, each with a short scale of numbers. */
export function batteriesOf(subjects: readonly Subject[]): number[][] {
  const families = new Map<string, number[]>();
  subjects.forEach((subject, i) => {
    const stem = stemOf(subject.name);
    if (stem === null || subject.kind !== 'ordinal' || subject.role !== 'analysis') return;
    const { levels, values } = validOf(subject.levels);
    if (values.length === levels.length && levels.length >= LEAST_CODES && levels.length <= MOST_CODES)
      putUnder(families, stem, i);
  });
  return [...families.values()].filter((items) => items.length >= LEAST_ITEMS);
}

const MOST_ITEMS = 30;
/** So many of the items share one range of codes, or they are no battery. */
const SHARE_ALIKE = 0.6;
const YES_NO = 2;

/**
 * Items that stand together under one stem and most of which have one range of codes, whatever their kind: among them an
 * item with another list stands out. Of names that number a whole questionnaire, the stretches that answer alike.
 */
export function alikeItems(subjects: readonly Subject[]): number[][] {
  const families = new Map<string, number[]>();
  subjects.forEach((subject, i) => {
    const stem = stemOf(subject.name);
    if (stem !== null && subject.role === 'analysis' && rangeOf(subject) !== null)
      putUnder(families, stem, i);
  });
  return [...families.values()].flatMap((items) => {
    const range = items.map((i) => rangeOf(subjects[i]) ?? '');
    return items.length <= MOST_ITEMS && isAlike(range) ? [items] : stretches(items, range);
  });
}

const rangeOf = ({ levels: of }: Subject): string | null => {
  const { levels, values } = validOf(of);
  return values.length === levels.length &&
    levels.length >= YES_NO &&
    levels.length <= MOST_CODES &&
    values.every((value) => Number.isInteger(value) && value >= 0)
    ? `${values[0]} ${values[values.length - 1]}`
    : null;
};

const isAlike = (ranges: readonly string[]): boolean => {
  const counts = new Map<string, number>();
  for (const range of ranges) counts.set(range, (counts.get(range) ?? 0) + 1);
  return (
    ranges.length >= LEAST_ITEMS && Math.max(...counts.values()) >= Math.max(3, ranges.length * SHARE_ALIKE)
  );
};

/** Whether most of some items answer on one range of codes. */
export function isOneScale(items: readonly Subject[]): boolean {
  const counts = new Map<string | null, number>();
  for (const item of items) counts.set(rangeOf(item), (counts.get(rangeOf(item)) ?? 0) + 1);
  return Math.max(...counts.values()) >= items.length * SHARE_ALIKE;
}

/** Neighbours with one range, one of another range among them: two alike before it and at least one after. */
function stretches(items: readonly number[], ranges: readonly string[]): number[][] {
  const found: number[][] = [];
  for (let at = 2; at + 1 < items.length; at++) {
    const around = ranges[at - 1];
    if (ranges[at] === around || ranges[at - 2] !== around || ranges[at + 1] !== around) continue;
    let [from, to] = [at - 2, at + 1];
    while (from > 0 && ranges[from - 1] === around) from--;
    while (to + 1 < items.length && ranges[to + 1] === around) to++;
    const stretch = items.slice(from, to + 1);
    if (stretch[stretch.length - 1] - stretch[0] <= stretch.length + 1 && stretch.length >= LEAST_ITEMS)
      found.push(stretch);
  }
  return found;
}
