import { isMeasure, isNumericStorage } from '../../extract/words';
import { validOf } from '../../infer/levels';
import { boundsOf, type Bounds } from '../values/bounds';
import { percentOf, type ExtractRule, type Flag, type Subject, type Whole } from '../rule';

/**
 * Two numeric variables of which each breaks what its own title allows, often, and keeps within what the other's does: their
 * titles, or their columns, have changed places.
 *
 * Example: `age` holds 31 to 280 and `share_pct` 17 to 94, nothing over 100; `age` (to 120) is broken by a third of the rows and
 * `share_pct` fits an age: no exchange, as it breaks nothing of its own. `year` holding 17 to 94 beside `age` holding 1931 to
 * 2004 is one.
 */
export const exchangedTitles: ExtractRule = {
  rule: 'exchanged-titles',
  needs: 'tally',
  answers: 'whole',
  look,
};

/** One that slips now and then is `out-of-range`. */
const LEAST_OUTSIDE = 0.2;
const MOST_OUTSIDE_OTHERS = 0.005;
const LEAST_ROWS = 20;
/** No year of a study lies before it, though no year is too small to be one. */
const FIRST_YEAR = 1500;

interface Titled {
  subject: Subject;
  bounds: Bounds;
}

/** Share of the valid rows outside. */
function outside({ levels }: Subject, { min, max }: Bounds): number {
  const { values, counts, rows } = validOf(levels);
  let beyond = 0;
  for (let i = 0; i < values.length; i++)
    if ((min !== null && values[i] < min) || (max !== null && values[i] > max)) beyond += counts[i];
  return rows === 0 ? 0 : beyond / rows;
}

function look({ studied, subjects }: Whole): Flag[] {
  const broken = (studied ?? subjects).flatMap((subject): Titled[] => {
    if (subject.role !== 'analysis' || !isNumericStorage(subject.written.storage) || !isMeasure(subject.kind))
      return [];
    const said = boundsOf(subject);
    if (!said || validOf(subject.levels).rows < LEAST_ROWS) return [];
    const bounds = said.min === null && !said.given ? { ...said, min: FIRST_YEAR } : said;
    return outside(subject, bounds) >= LEAST_OUTSIDE ? [{ subject, bounds }] : [];
  });
  return broken.flatMap((one, i) =>
    broken.slice(i + 1).flatMap((other): Flag[] => {
      if (
        outside(one.subject, other.bounds) > MOST_OUTSIDE_OTHERS ||
        outside(other.subject, one.bounds) > MOST_OUTSIDE_OTHERS
      )
        return [];
      const breaks = ({ subject, bounds }: Titled): string =>
        `${percentOf(outside(subject, bounds), 1)} of 100 values of ${subject.name} are none that its title allows`;
      return [
        {
          rule: 'exchanged-titles',
          variables: [one.subject.name, other.subject.name],
          codes: [],
          rows: Math.max(validOf(one.subject.levels).rows, validOf(other.subject.levels).rows),
          severity: 'high',
          certainty: 0.85,
          says: `${breaks(one)}, ${breaks(other)}, and each would suit the other: the two may have changed places`,
        },
      ];
    }),
  );
}
