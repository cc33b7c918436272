import { isMeasure, isNumericStorage } from '../../extract/words';
import { validOf } from '../../infer/levels';
import { round2, type Flag, type Subject, type VariableRule } from '../rule';

/** Answers rounded to fives, tens, dozens, hundreds: more rows at the multiples than chance puts there. A remark. */
export const heaping: VariableRule = {
  rule: 'heaping',
  needs: 'tally',
  answers: 'whole',
  look,
};

const BASES = [1000, 500, 100, 50, 12, 10, 5];
const LEAST_ROWS = 100;
/** Share at the multiples beyond what is expected, and the most at which it is rounding and not the unit itself. */
const LEAST_EXCESS = 0.15;
const MOST_SHARE = 0.97;

function look({ name, kind, role, written, levels }: Subject): Flag[] {
  if (!isMeasure(kind) || !isNumericStorage(written.storage) || role !== 'analysis') return [];
  const { values, counts, rows } = validOf(levels);
  if (rows < LEAST_ROWS || values.length < 15) return [];
  // Zero is rounded to everything.
  const zeros = values.indexOf(0) >= 0 ? counts[values.indexOf(0)] : 0;
  const all = rows - zeros;
  const range = values[values.length - 1] - values[0];
  const heldBy = BASES.map(() => 0);
  for (let i = 0; i < values.length; i++) {
    // All the bases are multiples of five, or twelve.
    if (values[i] === 0 || (values[i] % 5 !== 0 && values[i] % 12 !== 0)) continue;
    for (let b = 0; b < BASES.length; b++) if (values[i] % BASES[b] === 0) heldBy[b] += counts[i];
  }
  const found = BASES.flatMap((base, b) => {
    if (range < base * 5 || all < LEAST_ROWS) return [];
    const held = heldBy[b];
    const share = held / all;
    const expected = 1 / base;
    return share - expected >= LEAST_EXCESS && share >= 2.5 * expected && share <= MOST_SHARE
      ? [{ base, share, held, excess: (share - expected) * Math.log(base) }]
      : [];
  });
  if (found.length === 0) return [];
  const best = found.reduce((a, b) => (b.excess > a.excess ? b : a));
  return [
    {
      rule: 'heaping',
      variables: [name],
      codes: [],
      rows: best.held,
      severity: 'note',
      certainty: round2(0.85),
      says: `${Math.round(best.share * 100)} of 100 values are multiples of ${best.base}, where chance gives ${best.base >= 100 ? 'hardly one' : Math.round(100 / best.base)}: answers are rounded`,
    },
  ];
}
