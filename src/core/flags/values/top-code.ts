import { atEdge } from './limits';
import type { VariableRule } from '../rule';

/**
 * Rows piled up at the largest value of a quantity, without a gap: everything beyond was cut to it. The natural ends of a
 * scale are no such limits: all of a hundred, a whole day.
 */
export const topCode: VariableRule = {
  rule: 'top-code',
  needs: 'tally',
  answers: 'whole',
  precedence: 110,
  look: (subject) => atEdge(subject, 'top'),
};
