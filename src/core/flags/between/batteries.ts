import { validOf } from '../../infer/levels';
import { LEAST_CODES, LEAST_ITEMS, MOST_CODES } from '../../infer/scale';
import { stemOf } from '../../infer/stem';
import type { Subject } from '../rule';

/** Places of the items of each battery: ordered variables of one stem, each with a short scale of numbers. */
export function batteriesOf(subjects: readonly Subject[]): number[][] {
  const families = new Map<string, number[]>();
  subjects.forEach((subject, i) => {
    const stem = stemOf(subject.name);
    if (stem === null || subject.kind !== 'ordinal' || subject.role !== 'analysis') return;
    const { levels, values } = validOf(subject.levels);
    if (values.length === levels.length && levels.length >= LEAST_CODES && levels.length <= MOST_CODES)
      families.set(stem, [...(families.get(stem) ?? []), i]);
  });
  return [...families.values()].filter((items) => items.length >= LEAST_ITEMS);
}
