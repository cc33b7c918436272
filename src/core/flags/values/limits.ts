import { isDateStorage, isMeasure, isNumericStorage } from '../../extract/words';
import { bodyOf } from '../../infer/edges';
import { numberOf, validOf, type Valid } from '../../infer/levels';
import { endsAsPrice, stepAround } from './quantities';
import { round2, type Flag, type Subject } from '../rule';
import { levelAt } from '../../infer/level-list';

const LEAST_DISTINCT = 20;
const LEAST_SHARE = 0.005;
const LEAST_DATED = 0.02;
const DATED_RATIO = 6;
/** As many times the mean of the four values next to it. */
const LEAST_RATIO = 3;
/** Further than so many steps from its neighbour it is a code of its own. */
const MOST_STEPS = 4;

/** All of a hundred, of one, of a day: no limit that somebody set. */
function isNaturalEnd(value: number, { levels, values }: Valid, words: string): boolean {
  if (value === 1) return values[0] >= 0;
  if (value === 24) return /hour/i.test(words);
  return (
    value === 100 &&
    (/percent|pct|share|proportion|%|score|points/i.test(words) ||
      (numberOf(levelAt(bodyOf(levels), 0)) >= 0 && values[values.length >> 1] > 1))
  );
}

/** Whether rows are piled up at one end of a quantity, without a gap. */
export function atEdge(
  { name, label, entry, kind, role, written, levels }: Subject,
  side: 'top' | 'bottom',
): Flag[] {
  // Closing dates pile up on the day on which a register was closed.
  const dated = kind === 'date' && isDateStorage(written.storage) && side === 'top';
  if ((!dated && (!isMeasure(kind) || !isNumericStorage(written.storage))) || role !== 'analysis') return [];
  const valid = validOf(levels);
  const { values, counts } = valid;
  const n = values.length;
  if (n < LEAST_DISTINCT || n !== valid.levels.length) return [];
  const edge = side === 'top' ? n - 1 : 0;
  const near = side === 'top' ? counts.subarray(n - 5, n - 1) : counts.subarray(1, 5);
  const usual = near.reduce((sum, count) => sum + count, 0) / near.length;
  const value = values[edge];
  const gap = Math.abs(value - values[side === 'top' ? n - 2 : 1]);
  if (
    counts[edge] < Math.max(5, valid.rows * (dated ? LEAST_DATED : LEAST_SHARE)) ||
    counts[edge] < usual * (dated ? DATED_RATIO : LEAST_RATIO) ||
    gap > MOST_STEPS * Math.max(stepAround(values, edge), (values[n - 1] - values[0]) / 200)
  )
    return [];
  // A price among prices is no limit.
  if (
    endsAsPrice(value) &&
    counts.some((count, i) => i !== edge && count >= counts[edge] * 0.4 && endsAsPrice(values[i]))
  )
    return [];
  const words = `${label ?? ''} ${entry?.units ?? ''} ${name.replace(/[_.\d]+/g, ' ')}`;
  if (side === 'bottom' && (value === 0 || value === 1)) return [];
  if (side === 'top' && isNaturalEnd(value, valid, words)) return [];
  const ratio = counts[edge] / Math.max(1, usual);
  return [
    {
      rule: side === 'top' ? 'top-code' : 'bottom-code',
      variables: [name],
      codes: [valid.levels.code(edge)],
      rows: counts[edge],
      severity: 'low',
      certainty: round2(Math.min(0.9, 0.62 + 0.05 * Math.log2(ratio))),
      says: `${counts[edge]} rows hold ${valid.levels.code(edge)}, the ${side === 'top' ? 'largest' : 'smallest'} value, ${Math.round(ratio)} times as many as the values before it: ${side === 'top' ? 'larger' : 'smaller'} ones may have been cut to it`,
    },
  ];
}
