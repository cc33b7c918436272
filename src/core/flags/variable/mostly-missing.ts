import { validOf } from '../../infer/levels';
import { percentOf, type Flag, type Subject, type VariableRule } from '../rule';

const LEAST_ROWS = 20;

/** More than half of the rows that were asked have no valid value, or none has. */
export const mostlyMissing: VariableRule = {
  rule: 'mostly-missing',
  needs: 'tally',
  answers: 'whole',
  look,
};

function look({ name, entry, levels }: Subject): Flag[] {
  const valid = validOf(levels);
  const notAsked = valid.others.reduce(
    (sum, { standing, count }) => (standing === 'not-asked' ? sum + count : sum),
    0,
  );
  const asked = levels.rows - notAsked;
  if (asked < LEAST_ROWS || valid.rows >= asked / 2) return [];
  // Where a universe is documented and blanks are those who were not asked, nothing is missing.
  if (entry?.universe && valid.rows > 0) return [];
  // A tick box leaves blank what is not ticked.
  if (valid.levels.length === 1 && valid.rows > 0) return [];
  return [
    {
      rule: 'mostly-missing',
      variables: [name],
      codes: [],
      rows: asked - valid.rows,
      severity: 'low',
      certainty: valid.rows === 0 ? 0.98 : 0.85,
      says:
        valid.rows === 0
          ? `none of ${asked} rows has a valid value`
          : `${asked - valid.rows} of ${asked} rows, ${percentOf(asked - valid.rows, asked)} of 100, have no valid value`,
    },
  ];
}
