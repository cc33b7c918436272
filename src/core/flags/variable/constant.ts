import { validOf } from '../../infer/levels';
import type { Flag, Subject, VariableRule } from '../rule';

const LEAST_ROWS = 20;

/** One value in every row that has one: it tells nothing apart. */
export const constant: VariableRule = {
  rule: 'constant',
  needs: 'tally',
  answers: 'whole',
  look,
};

function look({ name, role, levels }: Subject): Flag[] {
  const valid = validOf(levels);
  if (valid.levels.length !== 1 || valid.rows < LEAST_ROWS) return [];
  // A tick that is blank where it was not made is an answer.
  if (valid.rows < levels.rows * 0.5) return [];
  const [{ code, label }] = valid.levels;
  return [
    {
      rule: 'constant',
      variables: [name],
      codes: [code],
      rows: valid.rows,
      severity: role === 'wave' ? 'note' : 'low',
      certainty: 0.98,
      says: `all ${valid.rows} valid rows hold ${code}${label ? ` ${label}` : ''}`,
    },
  ];
}
