import { isCategorical } from '../../extract/words';
import { validOf } from '../../infer/levels';
import { round2, rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/**
 * Codes that stand in the data and not in the codebook, where it lists what codes there are.
 *
 * Example: tenure is documented with 1 to 5 and 9, and 22 rows hold 7.
 */
export const undocumentedCode: VariableRule = {
  rule: 'undocumented-code',
  needs: 'tally',
  answers: 'codes',
  precedence: 60,
  pattern: 'some codes',
  look,
};

/** The list counts as one of all codes if it covers so much of the rows. */
const LEAST_COVERED = 0.8;
const LEAST_ROWS = 10;

function look({ name, kind, entry, levels }: Subject): Flag[] {
  const answers = entry?.categories.filter(({ missing }) => !missing) ?? [];
  const labelled = answers.filter(({ label }) => label !== null);
  // A list without any label is a list all the same, unless it only tells what was counted.
  const listed =
    labelled.length > 0 || answers.some(({ frequency }) => frequency !== null) ? labelled : answers;
  if (!entry || listed.length < 2 || !isCategorical(kind)) return [];
  const valid = validOf(levels);
  if (valid.rows < LEAST_ROWS) return [];
  const inRange = (value: number | null): boolean =>
    value !== null &&
    entry.validRanges.some(
      ({ min, max }) =>
        (min !== null || max !== null) && (min === null || value >= min) && (max === null || value <= max),
    );
  const known = new Set(entry.categories.map(({ code }) => code.trim()));
  const unknown = valid.levels.filter(
    ({ label, code, value, spellings }) =>
      label === null &&
      !known.has(code.trim()) &&
      !spellings.some((text) => known.has(text.trim())) &&
      !inRange(value),
  );
  const rows = unknown.reduce((sum, { count }) => sum + count, 0);
  if (unknown.length === 0 || valid.rows - rows < valid.rows * LEAST_COVERED) return [];
  return [
    {
      rule: 'undocumented-code',
      variables: [name],
      codes: unknown.map(({ code }) => code),
      rows,
      severity: 'medium',
      certainty: round2(unknown.length <= 5 ? 0.95 : 0.85),
      says: `${rowsHold(rows)} ${unknown
        .slice(0, 5)
        .map(({ code }) => code)
        .join(
          ', ',
        )}${unknown.length > 5 ? ` or ${unknown.length - 5} more codes` : ''}, which the codebook does not list among its ${listed.length}`,
    },
  ];
}
