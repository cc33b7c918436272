import { numberOf, validOf } from '../../infer/levels';
import type { Subject } from '../rule';

/** What siblings are asked about a variable, worked out once. */
interface Facts {
  /** Values declared missing or not asked. */
  declared: ReadonlySet<number>;
  /** The highest and the lowest values, where they stand apart from the others as sentinels do. */
  apart: ReadonlySet<number>;
}
const MOST_BELOW = 3;
const facts = new WeakMap<Subject, Facts>();

function factsOf(subject: Subject): Facts {
  const known = facts.get(subject);
  if (known) return known;
  const { levels, others } = validOf(subject.levels);
  const valid = levels.filter(({ value }) => value !== null);
  const apart = new Set<number>();
  if (valid.length >= 3) {
    const highest = numberOf(valid[valid.length - 1]);
    if (highest - numberOf(valid[valid.length - 2]) > 1.5) apart.add(highest);
    // The lowest, and a few more that are below zero as well.
    const below = valid.slice(0, MOST_BELOW + 1).filter((level) => numberOf(level) < 0);
    for (const level of below.length > MOST_BELOW ? below.slice(0, 1) : below) apart.add(numberOf(level));
  }
  const made = {
    declared: new Set(
      others
        .filter(
          ({ value, standing }) => value !== null && (standing === 'missing' || standing === 'not-asked'),
        )
        .map(numberOf),
    ),
    apart,
  };
  facts.set(subject, made);
  return made;
}

/** How many siblings declare a value missing, and in how many it stands apart. */
export const inSiblings = (
  value: number,
  siblings: readonly Subject[],
): { declared: number; apart: number } => ({
  declared: siblings.filter((sibling) => factsOf(sibling).declared.has(value)).length,
  apart: siblings.filter((sibling) => factsOf(sibling).apart.has(value)).length,
});
