import { readsAsNoAnswer } from '../codebook/missing-words';
import { isCategorical, isNumericStorage } from '../extract/words';
import { NEAREST, digitForm, edgesOf, missedIn, stepAt } from '../infer/edges';
import { rankOf, spellingsOf, validOf, type Level } from '../infer/levels';
import { endsAsPrice } from './quantities';
import { LEAST_CERTAINTY, anyOf, probability, round2, rowsHold, type Flag, type Subject, type VariableRule } from './rule';

/**
 * Numbers standing for "no answer" among real ones: 9, 99, 998, -1, -8, 9999.9, 0 before years. No single test decides:
 * each piece of evidence adds log odds, starting from the prior that a given code at the edge of a variable is real.
 *
 * Example: rooms 1–12 and forty times 99 → 99 stands 87 above the next value, is all nines, and is a spike.
 */
export const sentinelCode: VariableRule = { rule: 'sentinel-code', look };

/** Log odds that an edge code of sentinel form is one, before anything else is known. */
const PRIOR = -3;
/** Log odds below which siblings are not asked. */
const LEAST_SUSPICION = -2;
/** Rows below which nothing can be told. */
const LEAST_ROWS = 8;
/** A quantity lives far from zero if its smallest value is so many of its ranges above it. */
const FAR_FROM_ZERO = 0.6;
/** So does a narrow one whose mean is so many standard deviations above zero, with a gap of that share of its range, where few hold zero. */
const NARROW = 4.5;
const GAP_TO_ZERO = 0.25;
const FEW_ZEROS = 0.05;
const MANY_ZEROS = 0.1;
const OUT_OF_REACH = 2;
/** Quantities that are rightly below zero. */
const SIGNED = /\b(degrees|temperature|celsius|balance|change|difference|net|latitude|longitude|profit|loss|score|index|z-score|deviation)\b/i;

/** In the midst of real values only a spike this many times as high as its neighbours is told. */
const LEAST_SPIKE = 8;

/** Quantities that are never below zero. */
const NEVER_NEGATIVE = /\b(age|years|number of|how many|hours|minutes|days|kilomet\w+|km|cost|price|spent|size|rooms|people|persons)\b/i;

interface Suspect {
  level: Level;
  logOdds: number;
  evidence: string[];
}

function look(subject: Subject, siblings: readonly Subject[]): Flag[] {
  if (!isNumericStorage(subject.written.storage) || subject.kind === 'identifier') return [];
  const { levels: valid, rows: all, values } = validOf(subject.levels);
  if (all < LEAST_ROWS || valid.length < 2) return [];
  const { top, bottom, rest } = edgesOf(valid);
  if (all - rows(top) - rows(bottom) < LEAST_ROWS) return [];
  const suspects = [
    ...together(top.map((level) => weigh(level, rest, 'top', subject, siblings)), rest),
    ...together(bottom.map((level) => weigh(level, rest, 'bottom', subject, siblings)), rest),
  ];
  suspects.push(...interior(valid, values, suspects.map(({ level }) => level), subject));
  const flagged = suspects.filter(({ logOdds }) => probability(logOdds) >= LEAST_CERTAINTY);
  if (flagged.length === 0) return [];
  flagged.sort((a, b) => b.logOdds - a.logOdds);
  const certainty = round2(Math.min(0.99, probability(flagged[0].logOdds)));
  const codes = flagged.map(({ level }) => level).sort((a, b) => number(a) - number(b)).map(({ code }) => code);
  const touched = rows(flagged.map(({ level }) => level));
  return [{
    rule: 'sentinel-code',
    variables: [subject.name],
    codes,
    rows: touched,
    severity: certainty >= 0.8 && subject.kind !== 'nominal' ? 'high' : 'medium',
    certainty,
    says: `${rowsHold(touched)} ${anyOf(codes)}: ${flagged[0].level.code} ${flagged[0].evidence.slice(0, 3).join(', ')}`,
  }];
}

/** Log odds from which a code carries along those that stand beside it beyond the same gap, and how much it does. */
const CARRIES = 0.4;
const CARRIED = 1.8;
/** Two and more codes of several digits, and nothing else, far beyond the rest. */
const COMPANY = 0.8;

/** Codes beyond one gap speak for each other: 77 and 88 beside 99, 8 beside 9. */
function together(suspects: readonly Suspect[], rest: readonly Level[]): Suspect[] {
  const [low, high] = [number(rest[0]), number(rest[rest.length - 1])];
  const long = suspects.filter(({ level }) => Math.abs(number(level)) >= 10 && Math.max(number(level) - high, low - number(level)) > (high - low) / 2);
  const weighed = suspects.map((suspect) => (long.length > 1 && long.includes(suspect) ? { ...suspect, logOdds: suspect.logOdds + COMPANY } : suspect));
  if (weighed.length < 2) return weighed;
  const best = weighed.reduce((most, { logOdds }) => Math.max(most, logOdds), -Infinity);
  if (best < CARRIES) return weighed;
  return weighed.map((suspect) => (suspect.logOdds > LEAST_SUSPICION && suspect.logOdds < best ? { ...suspect, logOdds: Math.min(best, suspect.logOdds + CARRIED) } : suspect));
}

const rows = (levels: readonly Level[]): number => levels.reduce((sum, { count }) => sum + count, 0);
const number = (level: Level): number => level.value as number;

function weigh(level: Level, rest: readonly Level[], side: 'top' | 'bottom', subject: Subject, siblings: readonly Subject[]): Suspect {
  const value = number(level);
  const evidence: string[] = [];
  let logOdds = PRIOR;
  const add = (weight: number, why?: string): void => {
    logOdds += weight;
    if (weight > 0 && why) evidence.push(why);
  };
  gapEvidence(level, rest, side, add);
  const form = digitForm(value);
  add(form, form >= 1.5 ? 'is written as such codes are' : undefined);
  spikeEvidence(level, rest, side, add);
  // Zero is a real answer wherever nothing, none or never can be one: only a variable that lives far from it speaks.
  if (value === 0 && !livesFarFromZero(level, rest)) {
    if (beginsAfterZero(subject, level, rest)) add(5.5, 'stands in few rows before a scale that starts at 1');
    else add(-8);
  }
  // What as many hold as hold any answer may well be one, the more so if it is of one digit.
  if (value > 0 && rest.length <= MOST_IN_LIST && (value < 10 || subject.kind === 'nominal') && level.count > usualCount(rest) * (value < 10 ? 0.5 : 0.9)) add(-1);
  // Prices that end in nine: 999 beside 49 and 199.
  if (rest.length >= LEAST_PRICES && rest.length <= MOST_IN_LIST && value > 0 && rest.filter((other) => number(other) % 10 === 9).length >= rest.length * MOST_NINES) add(-4);
  // A price among prices: 99.99 beside 19.99.
  if (endsAsPrice(value) && rest.some((other) => endsAsPrice(number(other)) && other.count >= level.count * 0.4)) add(-6);
  const step = roundedTo(rest);
  if (step > 0 && value % step !== 0) add(2, `is no multiple of ${step}, as all answers are`);
  if (value < 0) negativeEvidence(subject, rest, add);
  codebookEvidence(level, rest, subject, add);
  // What siblings hold can add certainty to a suspicion, not make one.
  if (logOdds > LEAST_SUSPICION) {
    siblingEvidence(value, siblings, add);
    waveEvidence(level, subject, add);
  }
  return { level, logOdds, evidence };
}

const LEAST_ROUNDED = 8;
const LEAST_STEP = 5;
/** What all of several values are multiples of, if it is five or more; else 0. */
function roundedTo(rest: readonly Level[]): number {
  if (rest.length < LEAST_ROUNDED || rest.length > MOST_IN_LIST || !rest.every((level) => Number.isInteger(level.value))) return 0;
  const divisor = (a: number, b: number): number => (b === 0 ? a : divisor(b, a % b));
  const common = rest.reduce((found, level) => (found === 1 ? 1 : divisor(Math.abs(number(level)), found)), 0);
  return common >= LEAST_STEP ? common : 0;
}

const LEAST_PRICES = 4;
/** A list of codes or prices has no more than so many. */
const MOST_IN_LIST = 100;
const MOST_NINES = 0.6;
const usualCount = (levels: readonly Level[]): number => levels.map(({ count }) => count).sort((a, b) => a - b)[levels.length >> 1];

/** Whether zero lies outside what a quantity can be: below all of a wide gap, or of a narrow body far above it. */
function livesFarFromZero(zero: Level, rest: readonly Level[]): boolean {
  const ends = [number(rest[0]), number(rest[rest.length - 1])];
  // Below zero as above it.
  const [low, high] = ends[1] < 0 ? [-ends[1], -ends[0]] : ends;
  // Of two codes of which one is zero, zero is the other answer.
  if (rest.length < 2 || low <= 0 || low <= (high - low) * GAP_TO_ZERO) return false;
  const all = rows(rest);
  // Where many hold it, zero is those who have none, unless it is out of all reach.
  if (low >= (high - low) * FAR_FROM_ZERO) return zero.count < all * MANY_ZEROS || low >= (high - low) * OUT_OF_REACH;
  const mean = Math.abs(rest.reduce((sum, level) => sum + number(level) * level.count, 0)) / all;
  const sd = Math.sqrt(rest.reduce((sum, level) => sum + (Math.abs(number(level)) - mean) ** 2 * level.count, 0) / all);
  return mean >= NARROW * sd && zero.count < all * FEW_ZEROS;
}

/** Rows at zero, as a share of all, and beside those at one, where a scale starts after it. */
const RARE_ZERO = 0.025;
const LONGEST_SCALE = 10;
/** Zero before a scale of codes from one on, far rarer than any of them. */
function beginsAfterZero({ kind }: Subject, zero: Level, rest: readonly Level[]): boolean {
  if (!isCategorical(kind) || rest.length < 3 || rest.length > LONGEST_SCALE || number(rest[0]) !== 1 || number(rest[rest.length - 1]) !== rest.length) return false;
  return zero.count <= rows(rest) * RARE_ZERO && rest.every(({ count }) => zero.count * 2 < count) && zero.count * CLIFF < rest[0].count;
}

type Add = (weight: number, why?: string) => void;

/** Below zero in a variable that otherwise is not, the more so beside others of its form or where the words forbid it. */
function negativeEvidence({ label, name, levels }: Subject, rest: readonly Level[], add: Add): void {
  const words = `${label ?? ''} ${name}`;
  const below = levels.levels.filter(({ value, standing }) => value !== null && value < 0 && standing !== 'unreadable');
  add(rest.some((other) => number(other) < 0) ? -4 : 2, 'is negative where the answers are not');
  if (isBalanced(levels.levels)) {
    add(-8);
    return;
  }
  if (below.length > 1) add(1.5);
  if (below.length && number(rest[0]) === 0 && breaksOff(below, rest)) add(1);
  // A distribution that runs out step by step below zero is a quantity that may be negative.
  const down = [...below, rest[0]];
  const runsOut = down.every((level, i) => i === 0 || (number(level) - number(down[i - 1]) === 1 && level.count >= down[i - 1].count)) && !breaksOff(below, rest);
  if (runsOut && below.length > 1) add(-3);
  if (SIGNED.test(words)) add(-2.5);
  else if (NEVER_NEGATIVE.test(words)) add(1.5, 'cannot be below zero');
}

/** Whether the first answers are so many, beside the codes below them, that a quantity ends there. */
const CLIFF = 6;
function breaksOff(below: readonly Level[], rest: readonly Level[]): boolean {
  const [first, second = first] = rest;
  const slope = Math.max(1, second.count / first.count);
  return first.count >= below[below.length - 1].count * CLIFF * slope;
}

const LEAST_BALANCED = 5;
const MOST_BALANCED = 21;
/** A scale of whole numbers that reaches as far below zero as above, with answers on both sides. */
function isBalanced(levels: readonly Level[]): boolean {
  const held = levels.filter(({ value, standing }) => value !== null && standing === 'valid');
  if (held.length < LEAST_BALANCED || held.length > MOST_BALANCED) return false;
  // A person may have ordered the codes otherwise.
  const [low, high] = [Math.min(...held.map(number)), Math.max(...held.map(number))];
  const below = rows(held.filter((level) => number(level) < 0));
  return low < -1 && low === -high && held.length === high - low + 1 && below >= rows(held) * 0.1;
}

/** Distance from the rest, in units of its range and of the steps between the values nearest to it. */
function gapEvidence(level: Level, rest: readonly Level[], side: 'top' | 'bottom', add: Add): void {
  const value = number(level);
  const nearest = side === 'top' ? rest.slice(-NEAREST) : rest.slice(0, NEAREST).reverse();
  const gap = Math.abs(value - number(nearest[nearest.length - 1]));
  const step = stepAt(nearest);
  const range = Math.max(Math.abs(number(rest[rest.length - 1]) - number(rest[0])), step);
  if (gap <= step * 1.2) {
    // The step below zero is a step like any other, and says nothing either way.
    if (value >= 0) add(-2);
    return;
  }
  const inRanges = Math.min(3, Math.log2(1 + (4 * gap) / range));
  const inSteps = Math.min(3, Math.log2(gap / step));
  // Where a quantity runs out to single rows, holes are as usual as values.
  const missed = missedIn(level, nearest);
  // Nor does a gap say much that is small beside the range.
  const wide = Math.min(1, gap / (range * WIDE));
  add((0.9 * inRanges + 0.7 * inSteps * Math.max(LEAST_WIDE, wide)) * (missed / (missed + FEW_MISSED)), `stands ${Number(gap.toPrecision(6))} ${side === 'top' ? 'above' : 'below'} the next value`);
}

/** So many rows missing in a gap make it half as telling as it could be. */
const FEW_MISSED = 4;
const WIDE = 0.25;
const LEAST_WIDE = 0.4;

/** More frequent than its nearest neighbours, as a code is that many rows share for one reason. */
function spikeEvidence(level: Level, rest: readonly Level[], side: 'top' | 'bottom', add: Add): void {
  // Zero beside a negative code is many rows' answer, and no measure of what the values around have.
  const usual = usualCount(side === 'top' ? rest.slice(-5) : rest.slice(0, 5));
  const ratio = level.count / usual;
  if (ratio >= 20) add(3.5, `is ${Math.round(ratio)} times as frequent as its neighbours`);
  else if (ratio >= 5) add(2, `is ${Math.round(ratio)} times as frequent as its neighbours`);
  else if (ratio >= 2) add(1, 'is more frequent than its neighbours');
  // A single far value may as well be a true extreme.
  else if (level.count === 1 && rest.length > 12) add(-1.5);
}

function codebookEvidence(level: Level, rest: readonly Level[], { entry }: Subject, add: Add): void {
  if (level.label !== null) {
    add(readsAsNoAnswer(level.label) ? 4 : -8, `is labelled “${level.label}” and not declared missing`);
    return;
  }
  if (!entry) return;
  const answers = entry.categories.filter(({ missing, label }) => !missing && label !== null && !readsAsNoAnswer(label));
  const known = rest.filter(({ label }) => label !== null);
  if (answers.length >= 2 && rows(known) >= rows(rest) * 0.95) add(number(level) === 0 ? 10 : 1.5, 'has no label where all other codes have one');
  const value = number(level);
  const bounded = entry.validRanges.filter(({ min, max }) => min !== null || max !== null);
  if (bounded.length) {
    const within = bounded.some(({ min, max }) => (min === null || value >= min) && (max === null || value <= max));
    add(within ? -2 : 1.5, 'lies outside the range that the codebook gives');
  }
}

/** What the same code is in variables of the same stem: declared missing there, or as suspicious as here. */
function siblingEvidence(value: number, siblings: readonly Subject[], add: Add): void {
  const declared = siblings.filter((sibling) => factsOf(sibling).declared.has(value)).length;
  const like = siblings.filter((sibling) => factsOf(sibling).apart.has(value)).length;
  if (declared >= 1) add(2, `is declared missing in ${declared} sibling ${declared === 1 ? 'variable' : 'variables'}`);
  else if (like >= 2) add(1.2, `stands apart in ${like} sibling variables too`);
}

/** A real value stands in every wave as other values do; a code that came into use in one stands there alone. */
function waveEvidence(level: Level, { byFile }: Subject, add: Add): void {
  if (!byFile || level.count < LEAST_IN_WAVE) return;
  const files = byFile(spellingsOf(level));
  const all = files.reduce((sum, { rows: n }) => sum + n, 0);
  const only = files.find(({ holding }) => holding >= level.count * 0.95);
  if (only && only.rows <= all * MOST_OF_ALL) add(2, `stands in ${only.wave} alone`);
}
const LEAST_IN_WAVE = 6;
const MOST_OF_ALL = 0.65;

/** What siblings are asked about a variable, worked out once. */
interface Facts {
  /** Values declared missing or not asked. */
  declared: ReadonlySet<number>;
  /** The highest and the lowest values, where they stand apart from the others as sentinels do. */
  apart: ReadonlySet<number>;
}
const MOST_BELOW = 3;
const facts = new WeakMap<Subject, Facts>();

function factsOf(subject: Subject): Facts {
  const known = facts.get(subject);
  if (known) return known;
  const { levels, others } = validOf(subject.levels);
  const valid = levels.filter(({ value }) => value !== null);
  const apart = new Set<number>();
  if (valid.length >= 3) {
    const highest = number(valid[valid.length - 1]);
    if (highest - number(valid[valid.length - 2]) > 1.5) apart.add(highest);
    // The lowest, and a few more that are below zero as well.
    const below = valid.slice(0, MOST_BELOW + 1).filter((level) => number(level) < 0);
    for (const level of below.length > MOST_BELOW ? below.slice(0, 1) : below) apart.add(number(level));
  }
  const made = { declared: new Set(others.filter(({ value, standing }) => value !== null && (standing === 'missing' || standing === 'not-asked')).map(number)), apart };
  facts.set(subject, made);
  return made;
}

/** Long runs of nines in the midst of real values, where only a sharp spike can tell. */
function interior(valid: readonly Level[], values: Float64Array, known: readonly Level[], subject: Subject): Suspect[] {
  if (isCategorical(subject.kind) || valid.length < 30 || values.length !== valid.length) return [];
  return NINES.flatMap((value): Suspect[] => {
    const i = rankOf(values, value);
    const level = valid[i];
    if (level?.value !== value || level.count < LEAST_SPIKE || known.includes(level) || level.label !== null || i < 3 || i > valid.length - 2) return [];
    const near = [...valid.slice(i - 3, i), ...valid.slice(i + 1, i + 4)];
    const ratio = level.count / (rows(near) / near.length);
    return ratio >= LEAST_SPIKE ? [{ level, logOdds: PRIOR + 1.8 + Math.log2(ratio) * 0.8, evidence: [`is ${Math.round(ratio)} times as frequent as the values around it`, 'is written as such codes are'] }] : [];
  });
}

/** 997, 998, 999, 9997 … up to ten digits. */
const NINES = Array.from({ length: 8 }, (_, i) => [7, 8, 9].map((last) => Number(`${'9'.repeat(i + 2)}${last}`))).flat();
