import type { Column } from '../../extract/column';
import type { Extract } from '../../extract/extract';
import { spellingsOf, validOf } from '../../infer/levels';
import { isBlank } from '../../read/looks';
import { bitsOf, common, sizeOf, type Bits } from '../../extract/bits';
import { classify, decided, gaterOf, partAt, splitBy, without, type Gater, type Split } from './gaters';
import { repeatedHeaders } from '../rows/repeated-header';
import type { Subject, Whole } from '../rule';
import { askedSaid, type Named, type Universe } from './universe';

/** A variable that settles some rows: asked, or not, at its codes; the others go on to the next. */
export interface Step {
  by: number;
  codes: Named[];
  rest: Named[];
  asked: boolean;
}

/** Who was asked, as the blanks of a variable tell: blank exactly where another, or several, have certain codes. */
export interface Gate {
  /** Place of the gated variable and of the one that gates it, after the steps before. */
  variable: number;
  by: number;
  /** What is settled first, where several variables gate together. */
  steps: Step[];
  /** Codes at which it was asked, and at which not. */
  open: Named[];
  shut: Named[];
  /** Rows in which it was not asked, and rows that contradict: filled though shut. */
  notAsked: number;
  breaches: number[];
}

const LEAST_BLANK = 0.02;
/** Below so many rows nothing can be told. */
export const LEAST_ROWS = 40;
/** Rows that are looked at before all are. */
const SAMPLE = 1200;
/** Gates stand near, mostly before: so many variables are tried on each side, and every short one at the front. */
const BEFORE = 80;
const AFTER = 3;
const FRONT = 120;
const MOST_BREACHES = 0.02;
/** So many variables may gate together, and so many beginnings are followed. */
const MOST_STEPS = 2;
const FOLLOWED = 3;
/** The rest has to become that much blanker, and so blank at least, for a code to be what lets others be asked. */
const BLANKER = 1.25;
const BLANK_REST = 0.3;
/** Blanks left among those asked, from where on a second gate is looked for behind the first. */
const LEFT_OVER = 0.04;
/** Rows that hold the same code in another variable, as a share of those that hold it here, from which it is the same cause. */
const LIKEWISE = 0.2;

const found = new WeakMap<readonly Subject[], Gate[]>();

/** The gates of an extract, worked out once for the same subjects. */
export function gatesOf(whole: Whole): Gate[] {
  const known = found.get(whole.subjects);
  if (known) return known;
  const made = findGates(whole);
  found.set(whole.subjects, made);
  return made;
}

const knownGaters = new WeakMap<Subject, Gater | { none: true }>();
/** A variable that no ruling touched gates as before. */
function knownGater(subject: Subject, column: Column, sample: readonly number[]): Gater | null {
  const known = knownGaters.get(subject);
  if (known) return 'none' in known ? null : known;
  const made = gaterOf(subject, column, sample);
  knownGaters.set(subject, made ?? { none: true });
  return made;
}

/** How the rows of a sample are settled: by places of variables and of their levels. */
interface Plan {
  steps: { by: number; levels: number[]; asked: boolean }[];
  by: number;
  split: Split;
  kept: number;
}

/** The rows that are looked at first, those that are none, and what may gate. */
interface Field {
  sample: number[];
  no: ReadonlySet<number>;
  gaterAt: (place: number) => Gater | null;
  /** What may gate a variable. */
  near: (v: number) => { place: number; gater: Gater }[];
}

function fieldOf({ extract, subjects, studied = subjects }: Whole): Field {
  const { rows, variables } = extract;
  const step = Math.max(1, Math.floor(rows / SAMPLE));
  const sample = Array.from({ length: Math.floor((rows - 1) / step) + 1 }, (_, n) => n * step);
  const gaterAt = (place: number): Gater | null =>
    knownGater(studied[place], variables[place].column, sample);
  const near = (v: number): { place: number; gater: Gater }[] => {
    const list: { place: number; gater: Gater }[] = [];
    for (let place = 0; place < Math.min(studied.length, v + AFTER + 1); place++) {
      if (place > FRONT && place < v - BEFORE) place = v - BEFORE;
      const gater = place === v ? null : gaterAt(place);
      if (gater) list.push({ place, gater });
    }
    return list;
  };
  return { sample, no: new Set(repeatedHeaders(extract)), gaterAt, near };
}

/**
 * The gate of the rows that hold certain texts, as a code does that stands for "not asked".
 *
 * @param v place of the variable @returns `null` where these rows are not just those that another variable shuts
 */
export function gateOfTexts(whole: Whole, v: number, texts: ReadonlySet<string>): Gate | null {
  const {
    extract: { rows, variables },
    subjects,
  } = whole;
  if (rows < LEAST_ROWS) return null;
  const { sample, no, gaterAt, near } = fieldOf(whole);
  const held = subjects[v].levels.levels.reduce(
    (sum, { code, count }) => (texts.has(code) ? sum + count : sum),
    0,
  );
  // Who refuses one question refuses the next: what holds the same code explains nothing.
  const likewise = ({ levels }: Subject): boolean =>
    levels.levels.some(({ code, count }) => texts.has(code) && count >= held * LIKEWISE);
  const others = near(v).filter(({ place }) => !likewise(subjects[place]));
  const holds = variables[v].column.lift((text) => texts.has(text));
  const plan = planFor(
    others,
    bitsOf(sample.length, (n) => holds(sample[n])),
    v,
  );
  return plan && wholeGate(v, plan, gaterAt, holds, no, rows);
}

function findGates(whole: Whole): Gate[] {
  const { extract, subjects, studied = subjects } = whole;
  const { rows, variables } = extract;
  if (rows < LEAST_ROWS) return [];
  const { sample, no, gaterAt, near } = fieldOf(whole);
  const bySame = new Map<string, Plan>();
  return studied.flatMap((subject, v): Gate[] => {
    const empty = emptyTexts(subject);
    const blanks = rowsHolding(subject, empty);
    const share = blanks / Math.max(1, subject.levels.rows);
    if (share < LEAST_BLANK || share > 0.995 || blanks >= subject.levels.rows) return [];
    const isEmpty = emptiness(variables[v].column, empty);
    const blank = bitsOf(sample.length, (n) => isEmpty(sample[n]));
    // Variables that are blank in the same rows have the same gate.
    const pattern = blank.join();
    const before = bySame.get(pattern);
    const likewise = before && ![before.by, ...before.steps.map(({ by }) => by)].includes(v) ? before : null;
    const { plan, gate } = foundBefore(extract, subject, near(v), likewise, (around) => {
      const made = likewise ?? planFor(around, blank, v);
      return { plan: made, gate: made && wholeGate(v, made, gaterAt, isEmpty, no, rows) };
    });
    if (plan) bySame.set(pattern, plan);
    return gate ? [gate] : [];
  });
}

interface Planned {
  plan: Plan | null;
  gate: Gate | null;
}
const planned = new WeakMap<Subject, Planned & { extract: Extract; around: Near; likewise: Plan | null }>();

/** What was found of a variable, as long as it, those that may gate it, and the plan that it shares are the same objects. */
function foundBefore(
  extract: Extract,
  subject: Subject,
  around: Near,
  likewise: Plan | null,
  work: (around: Near) => Planned,
): Planned {
  const known = planned.get(subject);
  if (
    known?.extract === extract &&
    known.likewise === likewise &&
    known.around.length === around.length &&
    known.around.every(({ place, gater }, i) => place === around[i].place && gater === around[i].gater)
  )
    return known;
  const made = { ...work(around), extract, around, likewise };
  planned.set(subject, made);
  return made;
}

type Near = readonly { place: number; gater: Gater }[];

function planFor(near: Near, blank: Bits, v: number): Plan | null {
  const one = bestSplit(near, blank, null, v);
  if (!one) return together(near, blank, null, v, MOST_STEPS);
  // Blanks that are left where it was asked may have a gate of their own.
  const first = near.find(({ place }) => place === one.by)?.gater;
  if (!first) return one;
  const inPlay = without(first, one.split.shut, null);
  const [asked, left] = countedIn(inPlay, blank);
  if (left < asked * LEFT_OVER) return one;
  const second = bestSplit(
    near.filter(({ place }) => place !== one.by),
    blank,
    inPlay,
    v,
  );
  return second ? { ...second, steps: [{ by: one.by, levels: one.split.shut, asked: false }] } : one;
}

/** The one that explains most; of equals the one with fewest codes, and then the nearest before. */
function bestSplit(near: Near, blank: Bits, inPlay: Bits | null, v: number): Plan | null {
  let best: (Plan & { codes: number }) | null = null;
  for (const { place, gater } of near) {
    const split = splitBy(gater, blank, inPlay);
    if (!split) continue;
    const codes = gater.levels.length;
    const better =
      !best ||
      split.kept > best.kept + 1e-9 ||
      (split.kept > best.kept - 1e-9 &&
        (codes < best.codes || (codes === best.codes && place < v && place > best.by)));
    if (better) best = { steps: [], by: place, split, kept: split.kept, codes };
  }
  return best;
}

/** Several variables that gate together: some codes of one settle rows, another settles the rest. */
function together(near: Near, blank: Bits, inPlay: Bits | null, v: number, steps: number): Plan | null {
  if (steps === 0) return null;
  const [rows, blanks] = inPlay
    ? countedIn(inPlay, blank)
    : [near[0]?.gater.sampled.length ?? 0, sizeOf(blank)];
  const begun = near
    .flatMap(({ place, gater }) => {
      const overall = blanks / Math.max(1, rows);
      return decided(gater, blank, inPlay)
        .filter(({ asked, rest }) => !asked || rest >= Math.max(BLANK_REST, overall * BLANKER))
        .map((one) => ({ ...one, place, gater, gain: Math.abs(one.rest - overall) }));
    })
    .sort((a, b) => b.gain - a.gain)
    .slice(0, FOLLOWED);
  let best: Plan | null = null;
  for (const { place, gater, levels, asked } of begun) {
    const rest = without(gater, levels, inPlay);
    const others = near.filter((one) => one.place !== place);
    const after = bestSplit(others, blank, rest, v) ?? together(others, blank, rest, v, steps - 1);
    if (after && (!best || after.steps.length < best.steps.length - 1))
      best = { ...after, steps: [{ by: place, levels, asked }, ...after.steps] };
  }
  return best;
}

/** Rows in play, and blanks among them. */
const countedIn = (inPlay: Bits, blank: Bits): [number, number] => [sizeOf(inPlay), common(inPlay, blank)];

/** Texts by which a variable says that there is nothing, or that it was not asked. */
export const emptyTexts = ({ levels }: Subject): ReadonlySet<string> =>
  new Set(
    validOf(levels)
      .others.filter(({ standing }) => standing === 'not-asked')
      .flatMap((level) => [...spellingsOf(level)]),
  );
const rowsHolding = ({ levels }: Subject, empty: ReadonlySet<string>): number =>
  levels.blank +
  (levels.notAskedBlank ?? 0) +
  validOf(levels).others.reduce((sum, { code, count }) => (empty.has(code) ? sum + count : sum), 0);

/** Whether a row holds nothing, or says that it was not asked. */
export const emptiness = (column: Column, empty: ReadonlySet<string>): ((row: number) => boolean) =>
  column.lift((text) => isBlank(text) || empty.has(text));

/** A plan that a sample suggested, held against all rows. @param no rows that are no observations @returns `null` where it does not hold */
function wholeGate(
  v: number,
  { steps, by, split }: Plan,
  gaterAt: (place: number) => Gater | null,
  isEmpty: (row: number) => boolean,
  no: ReadonlySet<number>,
  rows: number,
): Gate | null {
  const last = gaterAt(by);
  if (!last) return null;
  const before = steps.flatMap(({ by: place, levels, asked }) => {
    const gater = gaterAt(place);
    return gater ? [{ place, gater, levels: new Set(levels), asked }] : [];
  });
  const all = new Float64Array(last.levels.length);
  const empty = new Float64Array(last.levels.length);
  const breaches: number[] = [];
  // Of each step its rows, and those of them that go as it says.
  const held = before.map(() => ({ rows: 0, kept: 0 }));
  let [notAsked, inPlay] = [0, 0];
  const rest: number[] = [];
  for (let row = 0; row < rows; row++) {
    if (no.has(row)) continue;
    const settled = before.findIndex(({ gater, levels }) => levels.has(gater.indexOf(row)));
    const nothing = isEmpty(row);
    if (settled >= 0) {
      const { asked } = before[settled];
      held[settled].rows++;
      if (asked !== nothing) held[settled].kept++;
      if (!asked && nothing) notAsked++;
      if (!asked && !nothing) breaches.push(row);
      continue;
    }
    const level = last.indexOf(row);
    if (level < 0) continue;
    all[level]++;
    inPlay++;
    if (nothing) empty[level]++;
    if (!nothing) rest.push(row);
  }
  if (held.some((one) => one.kept < one.rows * 0.95)) return null;
  // Where it was asked, hardly any may be blank: else the blanks have another reason.
  const now = last.parted ? partAt(all, empty) : classify(all, empty, inPlay);
  if (!now || (last.parted && Math.abs(now.shut.length - split.shut.length) > last.levels.length / 4))
    return null;
  const shut = new Set(now.shut);
  for (const row of rest) if (shut.has(last.indexOf(row))) breaches.push(row);
  for (const level of now.shut) notAsked += empty[level];
  if (breaches.length > Math.max(notAsked * MOST_BREACHES, 1)) return null;
  const named = ({ levels }: Gater, places: readonly number[]): Named[] =>
    places.map((place) => levels[place]).filter(({ code }) => code !== '');
  return {
    variable: v,
    by,
    open: named(last, now.open),
    shut: named(last, now.shut),
    notAsked,
    breaches: breaches.sort((a, b) => a - b),
    steps: before.map(({ place, gater, levels, asked }) => ({
      by: place,
      codes: named(gater, [...levels]),
      rest: named(
        gater,
        gater.levels.map((_, i) => i).filter((i) => !levels.has(i)),
      ),
      asked,
    })),
  };
}

/** The universe that a gate tells, by names. */
export const universeOf = ({ steps, by, shut }: Gate, subjects: readonly Subject[]): Universe => ({
  by: subjects[by].name,
  shut: shut.map(({ code }) => code),
  ...(steps.length
    ? {
        steps: steps.map(({ by: place, codes, asked }) => ({
          by: subjects[place].name,
          codes: codes.map(({ code }) => code),
          asked,
        })),
      }
    : {}),
});

/** "asked where boiler is 1 and tenure is 2". */
export const saidOf = ({ steps, by, open }: Gate, subjects: readonly Subject[]): string =>
  `asked where ${askedSaid(
    steps.map(({ by: place, codes, rest, asked }) => ({ by: subjects[place].name, codes, rest, asked })),
    subjects[by].name,
    open,
  )}`;
