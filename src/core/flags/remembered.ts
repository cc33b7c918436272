import type { Extract } from '../extract/extract';
import type { Subject } from './rule';

/**
 * Remembers what was worked out of some variables of an extract, as long as they are the same objects in the same places: a
 * ruling makes anew only what it touched. What is remembered goes with the first of them.
 */
export function remembered<T>(): (
  extract: Extract,
  subjects: readonly Subject[],
  places: readonly number[],
  work: () => T,
) => T {
  const known = new WeakMap<
    Subject,
    { extract: Extract; subjects: Subject[]; places: readonly number[]; value: T }
  >();
  return (extract, subjects, places, work) => {
    const first = subjects[places[0]];
    const before = known.get(first);
    if (
      before?.extract === extract &&
      before.places.length === places.length &&
      before.places.every((place, i) => place === places[i] && before.subjects[i] === subjects[place])
    )
      return before.value;
    const value = work();
    known.set(first, {
      extract,
      subjects: places.map((place) => subjects[place]),
      places: [...places],
      value,
    });
    return value;
  };
}
