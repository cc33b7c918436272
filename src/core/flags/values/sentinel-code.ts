import { readsAsNoAnswer } from '../../codebook/no-answer';
import { isCategorical, isNumericStorage } from '../../extract/words';
import { NEAREST, digitForm, edgesOf, missedIn, stepAt } from '../../infer/edges';
import { levelAt, type Level, type LevelList } from '../../infer/level-list';
import { numberAt, numberOf, rowsOf, spellingsOf, validOf } from '../../infer/levels';
import { placeIn } from '../../extract/sorted';
import { commonStep } from '../../infer/shape';
import { endsAsOthers, endsAsPrice } from './quantities';
import {
  LEAST_CERTAINTY,
  anyOf,
  probability,
  round2,
  rowsHold,
  type Flag,
  type Subject,
  type VariableRule,
} from '../rule';
import { inSiblings } from './siblings';
import { beginsAfterZero, breaksOff, goesOn, isBalanced, livesFarFromZero, runsOut } from './zero';

/**
 * Numbers standing for "no answer" among real ones: 9, 99, 998, -1, -8, 9999.9, 0 before years. No single test decides:
 * each piece of evidence adds log odds, starting from the prior that a given code at the edge of a variable is real.
 *
 * Example: rooms 1–12 and forty times 99 → 99 stands 87 above the next value, is all nines, and is a spike.
 */
export const sentinelCode: VariableRule = {
  rule: 'sentinel-code',
  needs: 'tally',
  answers: 'codes',
  precedence: 50,
  unsure: { below: 0.8, precedence: 95 },
  pattern: 'some codes',
  look,
};

/** Log odds that an edge code of sentinel form is one, before anything else is known. */
const PRIOR = -3;
/** Log odds below which siblings are not asked. */
const LEAST_SUSPICION = -2;
/** Rows below which nothing can be told. */
const LEAST_ROWS = 8;
/** Quantities that are rightly below zero. */
const SIGNED =
  /\b(degrees|temperature|celsius|balance|change|difference|net|latitude|longitude|profit|loss|score|index|z-score|deviation)\b/i;

/** In the midst of real values only a spike this many times as high as its neighbours is told. */
const LEAST_SPIKE = 8;

/** Quantities that are never below zero. */
const NEVER_NEGATIVE =
  /\b(age|years|number of|how many|hours|minutes|days|kilomet\w+|km|cost|price|spent|size|rooms|people|persons)\b/i;

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
  if (all - rowsOf(top) - rowsOf(bottom) < LEAST_ROWS) return [];
  const suspects = [
    ...together(
      top.map((level) => weigh(level, rest, 'top', subject, siblings)),
      rest,
    ),
    ...together(
      bottom.map((level) => weigh(level, rest, 'bottom', subject, siblings)),
      rest,
    ),
  ];
  suspects.push(
    ...interior(
      valid,
      values,
      suspects.map(({ level }) => level),
      subject,
    ),
  );
  const flagged = suspects.filter(({ logOdds }) => probability(logOdds) >= LEAST_CERTAINTY);
  if (flagged.length === 0) return [];
  flagged.sort((a, b) => b.logOdds - a.logOdds);
  const certainty = round2(Math.min(0.99, probability(flagged[0].logOdds)));
  const codes = flagged
    .map(({ level }) => level)
    .sort((a, b) => numberOf(a) - numberOf(b))
    .map(({ code }) => code);
  const touched = rowsOf(flagged.map(({ level }) => level));
  return [
    {
      rule: 'sentinel-code',
      variables: [subject.name],
      codes,
      rows: touched,
      severity: certainty >= 0.8 && subject.kind !== 'nominal' ? 'high' : 'medium',
      certainty,
      says: `${rowsHold(touched)} ${anyOf(codes)}: ${flagged[0].level.code} ${flagged[0].evidence.slice(0, 3).join(', ')}`,
    },
  ];
}

/** Log odds from which a code carries along those that stand beside it beyond the same gap, and how much it does. */
const CARRIES = 0.4;
const CARRIED = 1.8;
/** Two and more codes of several digits, and nothing else, far beyond the rest. */
const COMPANY = 0.8;

/** Codes beyond one gap speak for each other: 77 and 88 beside 99, 8 beside 9. */
function together(suspects: readonly Suspect[], rest: LevelList): Suspect[] {
  const [low, high] = [numberOf(levelAt(rest, 0)), numberOf(levelAt(rest, rest.length - 1))];
  const long = suspects.filter(
    ({ level }) =>
      Math.abs(numberOf(level)) >= 10 &&
      Math.max(numberOf(level) - high, low - numberOf(level)) > (high - low) / 2,
  );
  const weighed = suspects.map((suspect) =>
    long.length > 1 && long.includes(suspect) ? { ...suspect, logOdds: suspect.logOdds + COMPANY } : suspect,
  );
  if (weighed.length < 2) return weighed;
  const best = weighed.reduce((most, { logOdds }) => Math.max(most, logOdds), -Infinity);
  if (best < CARRIES) return weighed;
  return weighed.map((suspect) =>
    suspect.logOdds > LEAST_SUSPICION && suspect.logOdds < best
      ? { ...suspect, logOdds: Math.min(best, suspect.logOdds + CARRIED) }
      : suspect,
  );
}

function weigh(
  level: Level,
  rest: LevelList,
  side: 'top' | 'bottom',
  subject: Subject,
  siblings: readonly Subject[],
): Suspect {
  const value = numberOf(level);
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
  if (value === 0 && isGrownUp(subject, level, rest))
    add(2, `is an age, and nobody else is under ${levelAt(rest, 0).code}`);
  else if (value === 0 && !livesFarFromZero(level, rest)) {
    if (beginsAfterZero(subject, level, rest)) add(5.5, 'stands in few rows before a scale that starts at 1');
    else add(-8);
  }
  // What as many hold as hold any answer may well be one, the more so if it is of one digit.
  if (
    value > 0 &&
    rest.length <= MOST_IN_LIST &&
    (value < 10 || subject.kind === 'nominal') &&
    level.count > usualCount(rest) * (value < 10 ? 0.5 : 0.9)
  )
    add(-1);
  // Prices that end in nine: 999 beside 49 and 199.
  if (
    rest.length >= LEAST_PRICES &&
    rest.length <= MOST_IN_LIST &&
    value > 0 &&
    rest.filter((other) => numberOf(other) % 10 === 9).length >= rest.length * MOST_NINES
  )
    add(-4);
  // A price among prices: 99.99 beside 19.99.
  if (
    (endsAsPrice(value) &&
      rest.some((other) => endsAsPrice(numberOf(other)) && other.count >= level.count * 0.4)) ||
    endsAsOthers(value, validOf(subject.levels))
  )
    add(-6);
  const step = rest.length >= LEAST_STEPS && rest.length <= MOST_IN_LIST ? commonStep(rest) : 0;
  if (step > 0 && value % step !== 0) add(2, `is no multiple of ${step}, as all answers are`);
  if (value < 0) negativeEvidence(subject, rest, add);
  codebookEvidence(level, rest, subject, siblings.length > 1, add);
  // What siblings hold can add certainty to a suspicion, not make one.
  if (logOdds > LEAST_SUSPICION) {
    siblingEvidence(value, siblings, add);
    waveEvidence(level, subject, add);
  }
  return { level, logOdds, evidence };
}

const LEAST_STEPS = 8;
const LEAST_PRICES = 4;
/** A list of codes or prices has no more than so many. */
const MOST_IN_LIST = 100;
const MOST_NINES = 0.6;
const usualCount = (levels: LevelList): number =>
  levels.map(({ count }) => count).sort((a, b) => a - b)[levels.length >> 1];

/** Ages of people who are all grown up: nobody among them was just born. */
const AGE = /\b(age|alter|âge|edad)\b/i;
const GROWN_UP = 14;
const FEW_NEWBORN = 0.05;
const isGrownUp = ({ name, label }: Subject, zero: Level, rest: LevelList): boolean =>
  AGE.test(`${label ?? ''} ${name.replace(/_/g, ' ')}`) &&
  numberOf(levelAt(rest, 0)) >= GROWN_UP &&
  zero.count <= rowsOf(rest) * FEW_NEWBORN;

type Add = (weight: number, why?: string) => void;

/** Below zero in a variable that otherwise is not, the more so beside others of its form or where the words forbid it. */
function negativeEvidence({ label, name, levels }: Subject, rest: LevelList, add: Add): void {
  const words = `${label ?? ''} ${name}`;
  const below = levels.levels.filter(
    ({ value, standing }) => value !== null && value < 0 && standing !== 'unreadable',
  );
  add(rest.some((other) => numberOf(other) < 0) ? -4 : 2, 'is negative where the answers are not');
  if (isBalanced(levels.levels)) {
    add(-8);
    return;
  }
  if (below.length > 1) add(1.5);
  if (below.length && numberOf(levelAt(rest, 0)) === 0 && breaksOff(below, rest)) add(1);
  if (below.length > 1 && runsOut(below, rest)) add(-3);
  else if (goesOn(below, rest)) add(-6);
  if (SIGNED.test(words)) add(-2.5);
  else if (NEVER_NEGATIVE.test(words)) add(1.5, 'cannot be below zero');
}

/** Distance from the rest, in units of its range and of the steps between the values nearest to it. */
function gapEvidence(level: Level, rest: LevelList, side: 'top' | 'bottom', add: Add): void {
  const value = numberOf(level);
  const nearest = side === 'top' ? [...rest.slice(-NEAREST)] : [...rest.slice(0, NEAREST)].reverse();
  const gap = Math.abs(value - numberOf(nearest[nearest.length - 1]));
  const step = stepAt(nearest);
  const range = Math.max(Math.abs(numberAt(rest, rest.length - 1) - numberAt(rest, 0)), step);
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
  add(
    (0.9 * inRanges + 0.7 * inSteps * Math.max(LEAST_WIDE, wide)) * (missed / (missed + FEW_MISSED)),
    `stands ${Number(gap.toPrecision(6))} ${side === 'top' ? 'above' : 'below'} the next value`,
  );
}

/** So many rows missing in a gap make it half as telling as it could be. */
const FEW_MISSED = 4;
const WIDE = 0.25;
const LEAST_WIDE = 0.4;

/** More frequent than its nearest neighbours, as a code is that many rows share for one reason. */
function spikeEvidence(level: Level, rest: LevelList, side: 'top' | 'bottom', add: Add): void {
  // Zero beside a negative code is many rows' answer, and no measure of what the values around have.
  const usual = usualCount(side === 'top' ? rest.slice(-5) : rest.slice(0, 5));
  const ratio = level.count / usual;
  if (ratio >= 20) add(3.5, `is ${Math.round(ratio)} times as frequent as its neighbours`);
  else if (ratio >= 5) add(2, `is ${Math.round(ratio)} times as frequent as its neighbours`);
  else if (ratio >= 2) add(1, 'is more frequent than its neighbours');
  // A single far value may as well be a true extreme.
  else if (level.count === 1 && rest.length > 12) add(-1.5);
}

function codebookEvidence(
  level: Level,
  rest: LevelList,
  { entry }: Subject,
  hasSiblings: boolean,
  add: Add,
): void {
  if (level.label !== null) {
    add(readsAsNoAnswer(level.label) ? 4 : -8, `is labelled “${level.label}” and not declared missing`);
    return;
  }
  if (!entry) return;
  const answers = entry.categories.filter(
    ({ missing, label }) => !missing && label !== null && !readsAsNoAnswer(label),
  );
  const known = rest.filter(({ label }) => label !== null);
  if (answers.length >= 2 && rowsOf(known) >= rowsOf(rest) * 0.95)
    // A lone digit beside a list is first of all not in the list, unless a battery has it.
    add(
      numberOf(level) === 0 ? 10 : numberOf(level) > 0 && numberOf(level) < 10 && !hasSiblings ? 0 : 1.5,
      'has no label where all other codes have one',
    );
  const value = numberOf(level);
  const bounded = entry.validRanges.filter(({ min, max }) => min !== null || max !== null);
  if (bounded.length) {
    const within = bounded.some(
      ({ min, max }) => (min === null || value >= min) && (max === null || value <= max),
    );
    add(within ? -2 : 1.5, 'lies outside the range that the codebook gives');
  }
}

/** What the same code is in variables of the same stem: declared missing there, or as suspicious as here. */
function siblingEvidence(value: number, siblings: readonly Subject[], add: Add): void {
  const { declared, apart: like } = inSiblings(value, siblings);
  if (declared >= 1)
    add(2, `is declared missing in ${declared} sibling ${declared === 1 ? 'variable' : 'variables'}`);
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

/** Long runs of nines in the midst of real values, where only a sharp spike can tell. */
function interior(
  valid: LevelList,
  values: Float64Array,
  known: readonly Level[],
  subject: Subject,
): Suspect[] {
  if (isCategorical(subject.kind) || valid.length < 30 || values.length !== valid.length) return [];
  return NINES.flatMap((value): Suspect[] => {
    const i = placeIn(values, value);
    const level = levelAt(valid, i);
    if (
      level?.value !== value ||
      level.count < LEAST_SPIKE ||
      known.includes(level) ||
      level.label !== null ||
      i < 3 ||
      i > valid.length - 2
    )
      return [];
    const near = [...valid.slice(i - 3, i), ...valid.slice(i + 1, i + 4)];
    const ratio = level.count / (rowsOf(near) / near.length);
    return ratio >= LEAST_SPIKE
      ? [
          {
            level,
            logOdds: PRIOR + 1.8 + Math.log2(ratio) * 0.8,
            evidence: [
              `is ${Math.round(ratio)} times as frequent as the values around it`,
              'is written as such codes are',
            ],
          },
        ]
      : [];
  });
}

/** 997, 998, 999, 9997 … up to ten digits. */
const NINES = Array.from({ length: 8 }, (_, i) =>
  [7, 8, 9].map((last) => Number(`${'9'.repeat(i + 2)}${last}`)),
).flat();
