import { bodySpan } from '../infer/edges';
import type { Valid } from '../infer/levels';
import { drawable, type Beyond, type Side } from '../tally/histogram';
import { Weighed } from '../tally/weighed';

/** Of fewer rows all is drawn. */
const LEAST_ROWS = 30;

/** The values of a quantity that are drawn: neither codes of sentinel form beyond a gap, however many rows hold them, nor what lies so far out that it would squash the rest. */
export function drawnOf(valid: Valid): { body: Weighed; beyond: Beyond | null } {
  const { levels, values, counts, ascending } = valid;
  if (!ascending || values.length !== levels.length || valid.rows < LEAST_ROWS) return drawable(valid);
  const [from, to] = bodySpan(levels);
  if (to - from === levels.length) return drawable(valid);
  const drawn = drawable({ values: values.subarray(from, to), counts: counts.subarray(from, to) });
  const sideOf = (first: number, end: number): Side | null =>
    first < end
      ? {
          rows: counts.subarray(first, end).reduce((sum, count) => sum + count, 0),
          from: values[first],
          to: values[end - 1],
        }
      : null;
  return {
    body: drawn.body,
    beyond: {
      below: joined(sideOf(0, from), drawn.beyond?.below),
      above: joined(drawn.beyond?.above, sideOf(to, levels.length)),
    },
  };
}

/** Two stretches of one side, the lower first. */
function joined(low: Side | null | undefined, high: Side | null | undefined): Side | null {
  if (!low || !high) return low ?? high ?? null;
  return { rows: low.rows + high.rows, from: low.from, to: high.to };
}
