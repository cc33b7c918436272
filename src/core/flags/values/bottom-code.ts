import { atEdge } from './limits';
import type { VariableRule } from '../rule';

/** Rows piled up at the smallest value of a quantity, without a gap: everything below was cut to it. Nothing and one are ends of their own. */
export const bottomCode: VariableRule = {
  rule: 'bottom-code',
  needs: 'tally',
  answers: 'whole',
  precedence: 120,
  look: (subject) => atEdge(subject, 'bottom'),
};
