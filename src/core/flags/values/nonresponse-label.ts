import { isAmbiguous, readsAsNoAnswer } from '../../codebook/missing-words';
import { isCategorical, isMeasure } from '../../extract/words';
import { validOf, type Level } from '../../infer/levels';
import { round2, rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/**
 * Codes that count as valid though their label reads like the absence of an answer. Words count for their label, and
 * the label must be about it: "Refused" is no answer, "Household refuse" is.
 *
 * Example: 8 is labelled "Can't say" and the codebook does not declare it missing.
 */
export const nonresponseLabel: VariableRule = {
  rule: 'nonresponse-label',
  needs: 'tally',
  answers: 'codes',
  precedence: 10,
  pattern: 'some codes',
  look,
};

function look({ name, kind, levels, written, entry }: Subject): Flag[] {
  if (!isCategorical(kind) && !isMeasure(kind)) return [];
  if (written.storage !== 'text' && !entry?.categories.some(({ label }) => label !== null)) return [];
  // Where no codebook gives labels, words are their own.
  const saysSo = ({ code, label }: Level): boolean =>
    label !== null
      ? readsAsNoAnswer(label)
      : written.storage === 'text' && code.length > 2 && readsAsNoAnswer(code) && !isAmbiguous(code);
  const found = validOf(levels).levels.filter(saysSo);
  if (found.length === 0) return [];
  const rows = found.reduce((sum, { count }) => sum + count, 0);
  return [
    {
      rule: 'nonresponse-label',
      variables: [name],
      codes: found.map(({ code }) => code),
      rows,
      severity: kind === 'nominal' ? 'medium' : 'high',
      certainty: round2(0.93),
      says: `${rowsHold(rows)} ${found
        .slice(0, 4)
        .map(({ code, label }) => (label === null ? `“${code}”` : `${code} “${label}”`))
        .join(' or ')}, which reads like no answer and is not declared missing`,
    },
  ];
}
