import { isCategorical } from '../../extract/words';
import type { Flag, Subject, VariableRule } from '../rule';

/** Codes that the codebook lists and no row holds. A remark: a small extract may lack rare answers by chance. */
export const documentedUnused: VariableRule = {
  rule: 'documented-unused',
  needs: 'tally',
  answers: 'whole',
  look,
};

const LEAST_ROWS = 30;

function look({ name, kind, entry, levels }: Subject): Flag[] {
  if (!entry || !isCategorical(kind) || levels.rows - levels.blank < LEAST_ROWS) return [];
  const held = new Set(
    levels.levels.flatMap(({ code, spellings }) => [code, ...spellings].map((text) => text.trim())),
  );
  const values = new Set(levels.levels.flatMap(({ value }) => (value === null ? [] : [value])));
  const unused = entry.categories.filter(
    ({ code, label, missing }) =>
      label !== null &&
      !missing &&
      !held.has(code.trim()) &&
      !(code.trim() !== '' && values.has(Number(code))),
  );
  if (unused.length === 0) return [];
  return [
    {
      rule: 'documented-unused',
      variables: [name],
      codes: unused.map(({ code }) => code),
      rows: 0,
      severity: 'note',
      certainty: 0.97,
      says: `no row holds ${unused
        .slice(0, 5)
        .map(({ code, label }) => `${code} ${label}`)
        .join(', ')}${unused.length > 5 ? ` and ${unused.length - 5} more` : ''}, which the codebook lists`,
    },
  ];
}
