import { validOf } from '../../infer/levels';
import { LOOK } from '../../read/text-looks';
import { rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/**
 * Codes with leading zeros. Written the same way throughout they are a remark: read as numbers they lose their meaning.
 * Where some have lost their zeros already, the same code is written in two ways.
 *
 * Example: parish 0042 beside 42, and 108 where all others have four digits.
 */
export const leadingZeros: VariableRule = {
  rule: 'leading-zeros',
  needs: 'tally',
  answers: 'whole',
  look,
};

const LEAST_CODES = 3;
/** Stripped forms are the exception. */
const MOST_STRIPPED = 0.4;

function look({ name, written, levels }: Subject): Flag[] {
  if (written.storage !== 'text') {
    // Numbers that are written in both ways hold one value, so nothing is lost by reading them.
    const mixed = levels.levels.respelt.filter(
      ({ spellings }) =>
        spellings.length > 1 &&
        spellings.some((text) => /^0\d+$/.test(text.trim())) &&
        spellings.some((text) => /^[1-9]\d*$/.test(text.trim())),
    );
    const rows = mixed.reduce((sum, { count }) => sum + count, 0);
    return mixed.length >= LEAST_CODES
      ? [
          {
            rule: 'leading-zeros',
            variables: [name],
            codes: mixed.slice(0, 50).map(({ code }) => code),
            rows,
            severity: 'low',
            certainty: 0.8,
            says: `${mixed.length} numbers such as ${mixed[0].spellings.slice(0, 2).join(' and ')} are written with and without leading zeros`,
          },
        ]
      : [];
  }
  const valid = validOf(levels);
  const digits = valid.levels.whereCode((code) => /^\d+$/.test(code.trim()), { some: LOOK.number });
  const padded = digits.whereCode((code) => /^0\d+$/.test(code.trim()));
  if (padded.length < LEAST_CODES || digits.length < valid.levels.length * 0.9) return [];
  const width = mostFrequent(digits.codes.map((code) => code.trim().length));
  const stripped = [...digits.whereCode((code) => code.trim().length < width && !/^0/.test(code.trim()))];
  const rows = stripped.reduce((sum, { count }) => sum + count, 0);
  if (stripped.length > 0 && rows <= valid.rows * MOST_STRIPPED) {
    return [
      {
        rule: 'leading-zeros',
        variables: [name],
        codes: [],
        rows,
        severity: 'medium',
        certainty: 0.93,
        says: `${rowsHold(rows)} ${stripped
          .slice(0, 3)
          .map(({ code }) => code)
          .join(
            ', ',
          )}${stripped.length > 3 ? ' and the like' : ''} without the leading zeros that the others have (${padded.code(0)}): the same code written in two ways`,
      },
    ];
  }
  return [
    {
      rule: 'leading-zeros',
      variables: [name],
      codes: [],
      rows: padded.reduce((sum, { count }) => sum + count, 0),
      severity: 'note',
      certainty: 0.95,
      says: `${padded.length} codes such as ${padded.code(0)} begin with a zero; read as numbers they would lose it`,
    },
  ];
}

function mostFrequent(numbers: readonly number[]): number {
  const times = new Map<number, number>();
  for (const n of numbers) times.set(n, (times.get(n) ?? 0) + 1);
  return [...times].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 0;
}
