import type { Flag, Subject, VariableRule } from '../rule';

/** What looks like a weight is proposed as one: it belongs into no table of its own. */
export const weightLike: VariableRule = {
  rule: 'weight-like',
  needs: 'tally',
  answers: 'whole',
  look: ({ name, role, levels, entry }: Subject): Flag[] =>
    role === 'weight'
      ? [
          {
            rule: 'weight-like',
            variables: [name],
            codes: [],
            rows: levels.rows - levels.blank,
            severity: 'note',
            certainty: entry?.isWeight ? 0.98 : 0.85,
            says: `${entry?.isWeight ? 'the codebook says that it is a weight' : 'positive numbers whose words say weight'}: take it as a weight, not as a measure`,
          },
        ]
      : [],
};
