import { smallest } from '../../tally/extent';
import { isMeasure, isNumericStorage } from '../../extract/words';
import { validOf } from '../../infer/levels';
import { isSkewed, robust } from './quantities';
import { round2, rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/**
 * Single values far from the body of a quantity: beyond Tukey's outer fences and more than six robust standard
 * deviations off (Iglewicz & Hoaglin 1993), on the logarithm where the quantity is skewed, and with nothing between.
 * Never more than a handful: what many share is no slip.
 */
export const farOutValue: VariableRule = {
  rule: 'far-out-value',
  needs: 'tally',
  answers: 'codes',
  precedence: 100,
  look,
};

const MOST_ROWS = 5;
const LEAST_ROWS = 30;
const FAR = 6;
/** Rows of the tail that tell how it thins out, and how many times as wide as usual the stretch has to be. */
const TAIL = 15;
const LEAST_ODD = 8;
/** The empty stretch before it, in robust standard deviations. */
const APART = 2;

/**
 * How much wider the empty stretch is than the tail before it lets expect. The logarithms of the largest values, or of the
 * distances from the middle, thin out at a steady rate whether a tail is heavy or light (Rényi 1953, Hill 1975): the stretch
 * beyond the last is then a draw of an exponential with the mean of theirs.
 * @param i the innermost value that is far out @param far rows from there outwards
 */
function oddness(
  { values, counts }: { values: Float64Array; counts: Float64Array },
  i: number,
  inwards: 1 | -1,
  far: number,
  middle: number,
  skewed: boolean,
): number {
  const u = (x: number): number =>
    skewed ? Math.log(x) : Math.log(Math.max(Math.abs(x - middle), Number.MIN_VALUE));
  let [rows, sum] = [0, 0];
  let j = i + inwards;
  for (; values[j] !== undefined && rows < TAIL; j += inwards) {
    const taken = Math.min(counts[j], TAIL - rows);
    rows += taken;
    sum += taken * u(values[j]);
  }
  const end = values[j];
  if (end === undefined || rows < TAIL) return 0;
  const usual = sum / rows - u(end);
  return usual > 0 ? (far * (u(values[i]) - u(values[i + inwards]))) / usual : 0;
}

function look({ name, kind, role, written, levels }: Subject): Flag[] {
  if (!isMeasure(kind) || !isNumericStorage(written.storage) || role === 'identifier') return [];
  const valid = validOf(levels);
  if (valid.rows < LEAST_ROWS || valid.levels.length < 8 || valid.levels.length !== valid.values.length)
    return [];
  const skewed = isSkewed(valid);
  // Of skewed quantities with many zeros, only what is above zero has a body.
  const from = skewed ? valid.values.findIndex((value) => value > 0) : 0;
  const [values, counts] = [valid.values.subarray(from), valid.counts.subarray(from)];
  const transform = skewed ? Math.log : (x: number): number => x;
  const body = robust({ values, counts }, transform);
  if (!body || body.scale <= 0 || values.length < 8) return [];
  // Where many lie so far out, that is how the quantity is, and no slip.
  let beyond = 0;
  for (let i = values.length - 1; i >= 0 && (transform(values[i]) - body.median) / body.scale >= FAR; i--)
    beyond += counts[i];
  for (let i = 0; i < values.length && (body.median - transform(values[i])) / body.scale >= FAR; i++)
    beyond += counts[i];
  if (beyond > MOST_ROWS * 2) return [];
  const found: number[] = [];
  let oddest = 0;
  const middle = skewed ? Math.exp(body.median) : body.median;
  const side = (first: number, inwards: 1 | -1): void => {
    const passed: number[] = [];
    let rows = 0;
    for (let i = first; values[i + inwards] !== undefined; i += inwards) {
      rows += counts[i];
      if (rows > MOST_ROWS || Math.abs(transform(values[i]) - body.median) / body.scale < FAR) return;
      passed.push(i);
      if (Math.abs(transform(values[i]) - transform(values[i + inwards])) / body.scale <= APART) continue;
      const odd = oddness({ values, counts }, i, inwards, rows, middle, skewed);
      if (odd < LEAST_ODD) continue;
      for (const one of passed) found.push(one);
      oddest = Math.max(oddest, odd);
      return;
    }
  };
  side(values.length - 1, -1);
  if (!skewed) side(0, 1);
  if (found.length === 0) return [];
  const rows = found.reduce((sum, i) => sum + counts[i], 0);
  const codes = found.map((i) => valid.levels.code(from + i));
  const z = smallest(found.map((i) => Math.abs(transform(values[i]) - body.median) / body.scale));
  return [
    {
      rule: 'far-out-value',
      variables: [name],
      codes,
      rows,
      severity: 'medium',
      certainty: round2(Math.min(0.95, 0.78 + 0.01 * (oddest - LEAST_ODD))),
      says: `${rowsHold(rows)} ${codes.slice(0, 5).join(', ')}, ${Math.round(z)} robust standard deviations from the middle${skewed ? ' on the logarithmic scale' : ''} with nothing between`,
    },
  ];
}
