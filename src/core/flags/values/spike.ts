import { isMeasure, isNumericStorage } from '../../extract/words';
import { spellingsOf, validOf } from '../../infer/levels';
import { endsAsOthers, endsAsPrice, isSkewed, usualAround } from './quantities';
import { round2, type Flag, type Subject, type VariableRule } from '../rule';
import { levelAt } from '../../infer/level-list';

/**
 * One value of a quantity much more frequent than those around it: a mean that was filled in, a default. Round numbers
 * are what people answer, and zero is what many have: neither is a spike.
 */
export const spike: VariableRule = {
  rule: 'spike',
  needs: 'tally',
  answers: 'codes',
  precedence: 130,
  look,
};

const LEAST_DISTINCT = 25;
/** Rows at the spike, as a share of all, and as many times the usual around it. */
const LEAST_SHARE = 0.01;
const LEAST_RATIO = 3;
/** Excess in standard deviations of a count. */
const LEAST_EXCESS = 10;
const LEAST_BESIDE = 2.5;
/** More are what many pay or earn, such as a tariff; unless each stands mostly in one wave, as what each filled in. */
const MOST_SPIKES = 2;
const MOST_OF_WAVES = 6;
const MOSTLY = 0.6;
/** A round number that outdoes every other number of its size so far is no mere rounding. */
const OUTDOES = 3.5;
const LEAST_ROUNDS = 4;
/** So many times as many rows as the most frequent round number, where several are frequent. */
const FURTHER = 1.5;
/** As near to the mean, of all or of the others, as a mean is written. */
const NEAR_MEAN = 0.005;

function look({ name, label, kind, role, written, levels, byFile }: Subject): Flag[] {
  if (!isMeasure(kind) || !isNumericStorage(written.storage) || role !== 'analysis') return [];
  const valid = validOf(levels);
  const { values, counts } = valid;
  if (valid.levels.length < LEAST_DISTINCT || values.length !== valid.levels.length) return [];
  const least = Math.max(8, valid.rows * LEAST_SHARE);
  const high: { value: number; i: number; count: number; usual: number }[] = [];
  for (let i = 0; i < values.length; i++) {
    const count = counts[i];
    if (count < least) continue;
    const usual = Math.max(0.5, usualAround(counts, i), usualAmongRounder(values, counts, i));
    // Beside values as frequent it is a peak of the distribution, however thin that runs out.
    const beside = Math.max(counts[i - 1] ?? 0, counts[i + 1] ?? 0);
    if (
      count >= beside * LEAST_BESIDE &&
      count >= usual * LEAST_RATIO &&
      (count - usual) / Math.sqrt(usual) >= LEAST_EXCESS
    )
      high.push({ value: values[i], i, count, usual });
  }
  // At the edges it is a limit, not a filled-in value.
  const inside = high.filter(({ value, i }) => value !== 0 && i >= 3 && i < values.length - 3);
  // A week of forty hours is what many have.
  const usual = /hour|hrs|stunden|heures/i.test(`${label ?? ''} ${name}`) ? 40 : null;
  const odd = inside
    .filter(({ value }) => value !== usual)
    .filter(({ value, i }) => !isRound(value, values) || outdoesRounds(i, values, counts));
  const rounds = high.filter(
    ({ value, i }) => value !== 0 && isRound(value, values) && !outdoesRounds(i, values, counts),
  );
  // Where several round numbers stand out too, an odd one is a favourite like them, unless it stands out further or is what fills gaps.
  const most = Math.max(0, ...rounds.map(({ count }) => count));
  const sum = values.reduce((total, value, i) => total + value * counts[i], 0);
  const isMean = (value: number, count: number): boolean =>
    [sum / valid.rows, (sum - value * count) / (valid.rows - count)].some(
      (mean) => Math.abs(value - mean) <= Math.abs(mean) * NEAR_MEAN,
    );
  const found = odd.filter(
    ({ value, count }) =>
      count > most * (rounds.length > 1 ? FURTHER : 0.6) || (count > most * 0.4 && isMean(value, count)),
  );
  if (found.length === 0 || found.length > MOST_OF_WAVES) return [];
  // 9.90 among 4.90 and 7.90 is a price.
  if (found.every(({ value }) => endsAsOthers(value, valid))) return [];
  if (
    found.length > MOST_SPIKES &&
    !found.every(({ i, count }) =>
      byFile?.(spellingsOf(levelAt(valid.levels, i))).some(({ holding }) => holding >= count * MOSTLY),
    )
  )
    return [];
  const rows = found.reduce((sum, { count }) => sum + count, 0);
  const first = [...found].sort((a, b) => b.count / b.usual - a.count / a.usual)[0];
  return [
    {
      rule: 'spike',
      variables: [name],
      codes: found.map(({ i }) => valid.levels.code(i)),
      rows,
      severity: 'medium',
      certainty: round2(Math.min(0.95, 0.7 + 0.03 * Math.log2(first.count / first.usual))),
      says: `${first.count} rows hold ${valid.levels.code(first.i)}, where values around it have about ${Math.round(first.usual)} each${found.length > 1 ? `; ${found.length - 1} more such` : ''}${isSkewed(valid) ? '' : ': a value filled in for others, or a default'}`,
    },
  ];
}

function outdoesRounds(i: number, values: Float64Array, counts: Float64Array): boolean {
  let [rounds, most] = [0, 0];
  for (let j = 0; j < values.length; j++) {
    // Of its size, on its side of zero.
    const ratio = values[j] / values[i];
    if (j === i || !(ratio >= 1 / 5 && ratio <= 5)) continue;
    if (isRound(values[j], values)) rounds++;
    most = Math.max(most, counts[j]);
  }
  return rounds >= LEAST_ROUNDS && counts[i] >= most * OUTDOES;
}

/** Numbers that people round to: tens and fives of the size at hand, dozens, halves. */
/** The median count of the nearest values that are written with as few decimals: whole numbers among halves are more frequent. */
function usualAmongRounder(values: Float64Array, counts: Float64Array, i: number): number {
  const digits = decimalsOf(values[i]);
  if (
    digits > 1 ||
    values.filter((value) => decimalsOf(value) <= digits).length < values.length * SOME_ROUNDER
  )
    return 0;
  const near: number[] = [];
  for (const step of [-1, 1])
    for (let j = i + step, found = 0; j >= 0 && j < values.length && found < ROUNDER; j += step)
      if (decimalsOf(values[j]) <= digits) {
        near.push(counts[j]);
        found++;
      }
  near.sort((a, b) => a - b);
  return near[near.length >> 1] ?? 0;
}
const ROUNDER = 6;
const SOME_ROUNDER = 0.15;
const decimalsOf = (value: number): number => {
  const text = String(value);
  const point = text.indexOf('.');
  return point < 0 ? 0 : text.length - point - 1;
};

export function isRound(value: number, values: Float64Array): boolean {
  if (endsAsPrice(value)) return true;
  if (!Number.isInteger(value))
    return (
      Number.isInteger(value * 2) &&
      Math.abs(value) >= 1 &&
      values.some((other) => !Number.isInteger(other * 2))
    );
  const size = Math.abs(value);
  if (size < 10) return size === 5;
  const magnitude = 10 ** Math.floor(Math.log10(size));
  return value % 5 === 0 || value % 12 === 0 || value % (magnitude / 2) === 0;
}
