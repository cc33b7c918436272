import { isoText } from '../../infer/dates';
import { validOf } from '../../infer/levels';
import { DAY, PLACEHOLDERS } from './days';
import { rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/** Days after today, where the others lie before: the extract cannot have seen them. */
export const futureDate: VariableRule = {
  rule: 'future-date',
  needs: 'tally',
  answers: 'codes',
  precedence: 30,
  look: future,
};
/** Where more lie ahead, they are plans. */
const MOST_AHEAD = 0.1;

function future({ name, label, written, levels }: Subject): Flag[] {
  if (written.storage !== 'date' && written.storage !== 'datetime') return [];
  const valid = validOf(levels);
  const scale = written.storage === 'datetime' ? 86400 : 1;
  const today = Date.now() / DAY;
  const found = valid.levels.filter(
    ({ value }) =>
      value !== null && value / scale > today + 1 && !PLACEHOLDERS.has(Math.floor(value / scale)),
  );
  const rows = found.reduce((sum, { count }) => sum + count, 0);
  if (
    rows === 0 ||
    rows > valid.rows * MOST_AHEAD ||
    /\b(plan|expir|due|valid until|next|deadline|scheduled|maturity|end of contract)/i.test(label ?? name)
  )
    return [];
  return [
    {
      rule: 'future-date',
      variables: [name],
      codes: found.slice(0, 50).map(({ code }) => code),
      rows,
      severity: 'medium',
      certainty: 0.9,
      says: `${rowsHold(rows)} ${found
        .slice(0, 4)
        .map(({ code }) => code)
        .join(', ')}, after today, ${isoText(Math.floor(today), 'date')}`,
    },
  ];
}
