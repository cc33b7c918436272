import type { Flag, Subject, VariableRule } from '../rule';

/** What marks another variable's values as filled in by the producer is proposed as such. */
export const imputationMarker: VariableRule = {
  rule: 'imputation-marker',
  needs: 'tally',
  answers: 'whole',
  look: ({ name, label, role, levels }: Subject): Flag[] => {
    if (role !== 'imputation') return [];
    const filled = levels.levels.reduce(
      (sum, { value, code, count, standing }) =>
        standing === 'valid' && (value !== null ? value !== 0 : code.trim() !== '') ? sum + count : sum,
      0,
    );
    return [
      {
        rule: 'imputation-marker',
        variables: [name],
        codes: [],
        rows: filled,
        severity: 'note',
        certainty: 0.88,
        says: `it marks ${filled} rows whose value the producer filled in${label ? ` (${label})` : ''}`,
      },
    ];
  },
};
