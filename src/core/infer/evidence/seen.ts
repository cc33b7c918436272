import { isDateStorage, type Kind } from '../../extract/words';
import { readsAsNoAnswer } from '../../codebook/no-answer';
import { bodyOf } from '../edges';
import type { Known } from '../known';
import { letterGrades, monotone, orderOfWords } from '../ladders';
import { levelAt, type LevelList } from '../level-list';
import { numberOf, rowsOf, validOf } from '../levels';
import { shapeOf, type Shape } from '../shape';
import { isMarker } from '../nothing';
import { kindsByName } from '../vocabulary';

/** What the codebook says of the codes. */
export interface Labelled {
  /** Codes with a label that is an answer. */
  answers: { code: string; label: string }[];
  /** Share of the rows that hold a valid value whose code has a label, 0 to 1. */
  covered: number;
  /** The ladder that the labels rise on; `null` where they give no order. */
  order: string | null;
}

/** Numbers that a variable holds, codes for no answer beyond a gap left out. */
export interface Numbers {
  body: LevelList;
  rows: number;
  distinct: number;
  low: number;
  high: number;
  /** No whole number between the lowest and the highest is left out. */
  contiguous: boolean;
  shape: Shape;
}

/** Words that a variable holds. */
export interface Texts {
  /** Some of its texts, cut where they are very long. */
  sample: readonly string[];
  /** Characters of a level, on average. */
  length: number;
  /** Words of a level, on average. */
  words: number;
  /** Levels by their form: each digit the same, each letter the same. */
  forms: number;
  order: string | null;
  grades: string | null;
}

/** All that cues look at, worked out once for a variable. */
export interface Seen extends Known {
  /** Levels that are valid, in value order. */
  valid: LevelList;
  rows: number;
  distinct: number;
  /** Label, question and the words of the name. */
  words: string;
  byName: ReturnType<typeof kindsByName>;
  labelled: Labelled;
  numbers: Numbers | null;
  texts: Texts | null;
}

/** So many levels tell how a variable's texts are. */
const SAMPLE = 2000;
/** Longer texts, names and labels tell nothing more. */
const CUT = 400;
/** Longer lists are no vocabulary of degrees. */
const MOST_ORDERED = 60;

export function seenOf(known: Known): Seen {
  const { levels: valid, rows } = validOf(known.levels);
  const { label, entry, written } = known;
  const name = known.name.slice(0, CUT);
  return {
    ...known,
    name,
    valid,
    rows,
    distinct: valid.length,
    words: `${label?.slice(0, CUT) ?? ''} ${entry?.question?.slice(0, CUT) ?? ''} ${name.replace(/([a-z])([A-Z])/g, '$1 $2').replace(/[_.\d]+/g, ' ')}`,
    byName: kindsByName(name),
    labelled: labelledOf(known, valid),
    numbers: written.storage === 'text' || isDateStorage(written.storage) ? null : numbersOf(valid),
    texts: written.storage === 'text' ? textsOf(valid) : null,
  };
}

function labelledOf({ entry }: Known, valid: LevelList): Labelled {
  const answers = (entry?.categories ?? []).flatMap(({ code, label, missing }) =>
    !missing && label !== null && !readsAsNoAnswer(label) ? [{ code, label }] : [],
  );
  const covered =
    answers.length === 0
      ? 0
      : rowsOf(valid.filter(({ label }) => label !== null)) / Math.max(1, rowsOf(valid));
  const order = answers.length >= 2 ? orderOfWords(answers.map(({ label }) => label)) : null;
  return { answers, covered, order: order && monotone(order.ranks) ? order.ladder : null };
}

function numbersOf(valid: LevelList): Numbers {
  const body = trimmed(bodyOf(valid));
  const rows = rowsOf(body);
  const [low, high] = [numberOf(levelAt(body, 0)), numberOf(levelAt(body, body.length - 1))];
  return {
    body,
    rows,
    distinct: body.length,
    low,
    high,
    contiguous: high - low + 1 === body.length,
    shape: shapeOf(body, rows),
  };
}

/** So few rows, as a share, may be slips that lie further out than all else is wide. */
const SLIPS = 0.005;
const LEAST_LEVELS = 4;

/** Levels without a few slips far out at either end, which would hide how the others are. */
function trimmed(body: LevelList): LevelList {
  const most = rowsOf(body) * SLIPS;
  let [from, to, gone] = [0, body.length - 1, 0];
  const wide = (a: number, b: number): number => numberOf(levelAt(body, b)) - numberOf(levelAt(body, a));
  const cut = (outer: number, inner: number): boolean => {
    const [low, high] = outer < inner ? [inner, to] : [from, inner];
    return (
      high - low >= LEAST_LEVELS - 1 &&
      gone + levelAt(body, outer).count <= most &&
      Math.abs(numberOf(levelAt(body, outer)) - numberOf(levelAt(body, inner))) > wide(low, high)
    );
  };
  // Slips stand apart from each other too: the last gap that is wide enough counts.
  let above = levelAt(body, to).count;
  for (let i = to; i > from && above <= most; above += levelAt(body, --i).count)
    if (
      Math.abs(numberOf(levelAt(body, i)) - numberOf(levelAt(body, i - 1))) > wide(from, i - 1) &&
      i - from >= LEAST_LEVELS
    )
      to = i - 1;
  gone = rowsOf(body.slice(to + 1));
  while (cut(from, from + 1)) gone += levelAt(body, from++).count;
  return from === 0 && to === body.length - 1 ? body : body.slice(from, to + 1);
}

function textsOf(valid: LevelList): Texts {
  const some = valid.slice(0, SAMPLE);
  const sample = some.map(({ code }) => code.slice(0, CUT));
  const mean = (numbers: readonly number[]): number =>
    numbers.reduce((sum, x) => sum + x, 0) / numbers.length;
  // Of a long list most say something.
  const few = valid.length <= MOST_ORDERED * 2;
  const said = few ? valid.filter(({ code }) => !isMarker(code)) : [];
  const isShort = few && said.length <= MOST_ORDERED && said.every(({ code }) => code.length < CUT);
  return {
    sample,
    length: mean(some.map(({ code }) => code.length)),
    words: mean(sample.map((code) => code.trim().split(/\s+/).length)),
    forms: new Set(sample.map(formOf)).size,
    order: isShort ? (orderOfWords(said.map(({ label, code }) => label ?? code))?.ladder ?? null) : null,
    grades: isShort ? letterGrades(valid.map(({ code }) => code)) : null,
  };
}

/** "K-5138" → "a-9999". */
export const formOf = (code: string): string => code.replace(/\d/g, '9').replace(/\p{L}/gu, 'a');

/** Kinds that a variable of some storage can have. */
export const POSSIBLE: Readonly<Record<'text' | 'integer' | 'decimal', readonly Kind[]>> = {
  text: ['identifier', 'nominal', 'ordinal', 'date', 'text'],
  integer: ['identifier', 'nominal', 'ordinal', 'count', 'continuous', 'date'],
  decimal: ['identifier', 'nominal', 'ordinal', 'count', 'continuous'],
};
