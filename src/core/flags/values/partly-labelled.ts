import { readsAsNoAnswer } from '../../codebook/no-answer';
import { isNumericStorage } from '../../extract/words';
import { validOf } from '../../infer/levels';
import type { Flag, Subject, VariableRule } from '../rule';
import { levelAt } from '../../infer/level-list';

/**
 * Numbers of which only a few at the edge carry labels: a top code, or codes that are no answer. Where both ends of a
 * scale are labelled and nothing between, it is a scale, and the flag is a remark.
 */
export const partlyLabelled: VariableRule = {
  rule: 'partly-labelled',
  needs: 'tally',
  answers: 'whole',
  precedence: 70,
  look,
};

const MOST_LABELLED = 3;
const LEAST_BARE = 5;

function look({ name, written, levels, entry }: Subject): Flag[] {
  if (!isNumericStorage(written.storage) || !entry?.categories.some(({ label }) => label !== null)) return [];
  const { levels: valid } = validOf(levels);
  const labelled = valid.flatMap(({ label }, i) => (label !== null && !readsAsNoAnswer(label) ? [i] : []));
  const bare = valid.length - labelled.length;
  if (labelled.length === 0 || labelled.length > MOST_LABELLED || bare < LEAST_BARE) return [];
  const edges = labelled.every((i) => i < labelled.length || i >= valid.length - labelled.length);
  if (!edges) return [];
  const scale = labelled.includes(0) && labelled.includes(valid.length - 1);
  const rows = labelled.reduce((sum, i) => sum + levelAt(valid, i).count, 0);
  return [
    {
      rule: 'partly-labelled',
      variables: [name],
      codes: labelled.map((i) => valid.code(i)),
      rows,
      severity: scale ? 'note' : 'low',
      certainty: 0.8,
      says: `only ${labelled.map((i) => `${valid.code(i)} “${valid.label(i)}”`).join(' and ')} of ${valid.length} values ${labelled.length === 1 ? 'has a label' : 'have labels'}${scale ? ', as the ends of a scale do' : ': a limit or a special code among plain numbers'}`,
    },
  ];
}
