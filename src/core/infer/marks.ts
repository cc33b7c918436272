import type { Marks } from '../extract/extract';
import type { Written } from './storage';

/** The decimal mark and the order of dates that most of those variables show which leave it not open. */
export function commonMarks(all: readonly Written[]): Marks {
  const decided = all.filter(({ open }) => open === null);
  const comma = decided.filter(
    ({ storage, numberForm }) => storage === 'decimal' && numberForm.decimal === ',',
  ).length;
  const point = decided.filter(
    ({ storage, numberForm }) => storage === 'decimal' && numberForm.decimal === '.',
  ).length;
  const dates = decided.filter(({ storage }) => storage === 'date' || storage === 'datetime');
  const dmy = dates.filter(({ dateForm }) => dateForm === 'dmy').length;
  const mdy = dates.filter(({ dateForm }) => dateForm === 'mdy').length;
  return {
    ...(comma !== point ? { decimal: comma > point ? ',' : '.' } : {}),
    ...(dmy !== mdy ? { order: dmy > mdy ? 'dmy' : 'mdy' } : {}),
  };
}
