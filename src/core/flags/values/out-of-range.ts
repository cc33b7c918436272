import { isCategorical, isMeasure, isNumericStorage } from '../../extract/words';
import type { Level } from '../../infer/level-list';
import { validOf } from '../../infer/levels';
import { percentOf, round2, rowsHold, type Flag, type Subject, type VariableRule } from '../rule';
import { boundsOf } from './bounds';

/**
 * Values outside what the codebook allows; else outside what the words of label, name and units allow: a percentage
 * above a hundred, an age above 120, a thirteenth month, a year that has not come.
 */
export const outOfRange: VariableRule = {
  rule: 'out-of-range',
  needs: 'tally',
  answers: 'codes',
  precedence: 90,
  look,
};

/** Where more of the values lie outside, the words mean something else. */
const MOST_OUTSIDE = 0.05;

function look(subject: Subject): Flag[] {
  const { name, kind, written, levels } = subject;
  if (
    !isNumericStorage(written.storage) ||
    (!isMeasure(kind) && !isCategorical(kind)) ||
    subject.role === 'identifier' ||
    subject.role === 'weight'
  )
    return [];
  const bounds = boundsOf(subject);
  if (!bounds) return [];
  const valid = validOf(levels);
  const outside = valid.levels.filter(
    ({ value, label }: Level) =>
      value !== null &&
      label === null &&
      ((bounds.min !== null && value < bounds.min) || (bounds.max !== null && value > bounds.max)),
  );
  const rows = outside.reduce((sum, { count }) => sum + count, 0);
  // What a codebook allows is broken by however many; what words allow, by few, or they mean something else.
  if (rows === 0 || (!bounds.given && rows > valid.rows * MOST_OUTSIDE)) return [];
  return [
    {
      rule: 'out-of-range',
      variables: [name],
      codes: outside.slice(0, 50).map(({ code }) => code),
      rows,
      severity: 'medium',
      certainty: round2(bounds.certainty),
      says: `${rowsHold(rows)} ${outside
        .slice(0, 4)
        .map(({ code }) => code)
        .join(', ')}${outside.length > 4 ? ` and ${outside.length - 4} more values` : ''}: ${bounds.why}${
        rows > valid.rows * MOST_OUTSIDE ? `, and ${percentOf(rows, valid.rows)} of 100 lie outside` : ''
      }`,
    },
  ];
}
