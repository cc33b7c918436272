import { isDateStorage } from '../../extract/words';
import { dateOrdersOf, readDate, writtenLikeDate } from '../../infer/dates';
import { validOf } from '../../infer/levels';
import { LEAST_CERTAINTY, round2, rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/**
 * Stray text among numbers or dates: "n/a", ".", "12 yrs", decimal commas among decimal points. Software turns it into
 * blanks without a word. Each stray form is named with its count.
 *
 * Example: years lived here, 2,970 whole numbers, 7 × "n/k" and 3 × "2 yrs" → one flag with two codes, ten rows.
 */
export const mixedContent: VariableRule = {
  rule: 'mixed-content',
  needs: 'tally',
  answers: 'codes',
  look,
};

/** More stray forms than this are counted, not named. */
const MOST_FORMS = 50;
const NAMED = 5;
/** Above this share of stray cells, the storage itself may be mistaken. */
const LARGE_SHARE = 0.05;

function look({ name, written, levels }: Subject): Flag[] {
  const { storage } = written;
  if (storage === 'text' || storage === 'empty') return [];
  // A day that no calendar has is written as a date should be: it is wrong, not mixed.
  const valid = validOf(levels);
  const stray = valid.others
    .filter(
      ({ standing, code }) =>
        standing === 'unreadable' &&
        !(
          isDateStorage(storage) &&
          writtenLikeDate(code) &&
          dateOrdersOf(code).length === 0 &&
          readDate(code, 'ymd') === null
        ),
    )
    .sort((a, b) => b.count - a.count || (a.code < b.code ? -1 : 1));
  if (stray.length === 0) return [];
  const rows = stray.reduce((sum, { count }) => sum + count, 0);
  const forms = stray
    .slice(0, NAMED)
    .map(({ code, count }) => `“${code}”${stray.length > 1 ? ` ${count}×` : ''}`)
    .join(', ');
  const certainty = rows / (rows + valid.rows) > LARGE_SHARE ? 0.85 : 0.96;
  return certainty < LEAST_CERTAINTY
    ? []
    : [
        {
          rule: 'mixed-content',
          variables: [name],
          codes: stray.slice(0, MOST_FORMS).map(({ code }) => code),
          rows,
          severity: 'medium',
          certainty: round2(certainty),
          says: `${rowsHold(rows)} ${forms}${stray.length > NAMED ? ` and ${stray.length - NAMED} more forms` : ''}, which cannot be read as ${isDateStorage(storage) ? `a ${storage}` : 'a number'} like the other ${valid.rows}`,
        },
      ];
}
