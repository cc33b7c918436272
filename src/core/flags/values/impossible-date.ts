import { isDateStorage } from '../../extract/words';
import { dateOrdersOf, readDate, writtenLikeDate } from '../../infer/dates';
import { rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/** Written as a day, and no calendar has it: the 31st of June. */
export const impossibleDate: VariableRule = {
  rule: 'impossible-date',
  needs: 'tally',
  answers: 'codes',
  precedence: 40,
  look: impossible,
};

function impossible({ name, written, levels }: Subject): Flag[] {
  if (!isDateStorage(written.storage)) return [];
  const found = levels.levels.filter(
    ({ standing, code }) =>
      standing === 'unreadable' &&
      writtenLikeDate(code) &&
      // Written in another order it is a day all the same, and mixed.
      (written.storage !== 'date' || (dateOrdersOf(code).length === 0 && readDate(code, 'ymd') === null)),
  );
  if (found.length === 0) return [];
  const rows = found.reduce((sum, { count }) => sum + count, 0);
  return [
    {
      rule: 'impossible-date',
      variables: [name],
      codes: found.slice(0, 50).map(({ code }) => code),
      rows,
      severity: 'medium',
      certainty: 0.97,
      says: `${rowsHold(rows)} ${found
        .slice(0, 4)
        .map(({ code }) => `“${code}”`)
        .join(', ')}, which no calendar has`,
    },
  ];
}
