import type { CodebookEntry } from '../extract/extract';
import { KINDS, isDateStorage, type Kind } from '../extract/words';
import { readsAsNoAnswer } from '../codebook/missing-words';
import { isMarker, type Written } from './storage';
import { bodyOf } from './edges';
import { letterGrades, monotone, orderOfWords } from './ladders';
import { rowsOf, validOf, type Level, type Levels } from './levels';
import { answersInMinutes, falling, fullEnds, isEven, roundedTo, shapeOf, shareOfFives } from './shape';
import { kindsByName, namesIdentifier } from './vocabulary';

/** What is known of a variable when its kind is inferred. */
export interface Known {
  name: string;
  label: string | null;
  written: Written;
  levels: Levels;
  entry: CodebookEntry | null;
  /** Whether no value repeats within a file, where there are several files and values do repeat between them. */
  uniqueInFiles?: boolean;
  /** Variables of the same stem that answer on the same short scale, this one among them; 0 without a battery. */
  itemsAlike?: number;
}

export interface InferredKind {
  kind: Kind;
  /** Probability, 0 to 1, that a person who knows the data would agree. */
  confidence: number;
  /** The two or three reasons that told most. */
  because: string[];
}

/** One piece of evidence: how much it speaks for a kind, in units of log odds, and why. */
interface Cue {
  kind: Kind;
  weight: number;
  why: string;
}

const COUNT_WORDS =
  /\b(number of|how many|no\.? of|count of|times|visits|children|persons|people|members|household size|rooms|adults|anzahl|nombre de|número de)\b/i;
const MEASURE_WORDS =
  /\b(age\b(?! group| band| class)|years?|income|earnings|wage|salary|hours?|minutes|days|cost|price|spen[dt]\w*|amount|distance|kilomet\w+|km|met(er|re)s|degrees|temperature|height|width|length|area|percent\w*|share of|rate|litres?|crowns|euros?|dollars|kg|grams|weight)\b/i;
const NOMINAL_WORDS =
  /\b(type|kind|main|reason|which|whether|region|mode|status|sex|gender|has an?|owns?|have an?|did|was|were|is|country|parish|district|tenure)\b/i;
/** Numbers that are names of people, places or lots, and never quantities. */
const CODE_WORDS =
  /\b(codes?|interviewer|cluster|strat(um|a)|psu|sampling unit|zone|postcode|zip|occupation|industry|batch|station|team)\b/i;
const ORDINAL_WORDS =
  /\b(how (often|satisfied|likely|important|worried|much|well|good)|agree\w*|satisf\w*|scale|rating|rank|importance|likelihood|level of|frequency|band|group|class|grade)\b/i;
const ID_NAME =
  /(^|_)(id|key|serial|case(no|id)?|nr|no|num|pid|hid|uuid|ident\w*|number)$|id$|[a-z]{2}nr$|^(id|case|serial|seq|rec)/i;
const ID_LABEL =
  /\b(identif\w+|serial number|case number|record number|unique|running number|reference number)\b/i;

/** Months by number; a slip may make a thirteenth. */
const MONTH_WORDS = /\b(\w*month|mon|monat|mois|mes)\b/i;
/** Money is counted in hundreds; from 1 to 12 it is in bands. */
const MONEY_WORDS = /inc\b|income|earnings|\b(wage|salary|turnover|revenue|einkommen|revenu|ingreso)/i;
const MOST_BANDS = 25;
const LEAST_MONTHS = 6;
const MOST_MONTHS = 13;

const name = (kind: Kind, weight: number, why: string): Cue => ({ kind, weight, why });
const both = (weight: number, why: string): Cue[] => [
  name('nominal', weight, why),
  name('ordinal', weight, why),
];
const measures = (weight: number, why: string): Cue[] => [
  name('continuous', weight, why),
  name('count', weight, why),
];

/** Kind of a variable by weighing all evidence together: cardinality, gaps, widths, repetition, words, the codebook. */
export function inferKind(known: Known): InferredKind {
  const { storage } = known.written;
  if (storage === 'empty') return { kind: 'empty', confidence: 0.99, because: known.written.because };
  const { levels: valid, rows } = validOf(known.levels);
  if (valid.length === 0) return { kind: 'empty', confidence: 0.9, because: ['no cell holds a valid value'] };
  if (isDateStorage(storage)) return { kind: 'date', confidence: 0.96, because: known.written.because };
  const cues = [...codebookCues(known, valid), ...wordCues(known), ...identifierCues(known, valid, rows)];
  cues.push(...(storage === 'text' ? textCues(known.name, valid, rows) : numberCues(known, bodyOf(valid))));
  return weigh(cues);
}

/** Softmax over the summed evidence for each kind. */
function weigh(cues: readonly Cue[]): InferredKind {
  const sums = new Map<Kind, number>();
  for (const { kind, weight } of cues) sums.set(kind, (sums.get(kind) ?? 0) + weight);
  const ranked = KINDS.map((kind) => [kind, sums.get(kind) ?? -1] as const).sort((a, b) => b[1] - a[1]);
  const [kind, most] = ranked[0];
  const odds = ranked.reduce((sum, [, weight]) => sum + Math.exp(weight - most), 0);
  const because = cues
    .filter((cue) => cue.kind === kind && cue.weight > 0)
    .sort((a, b) => b.weight - a.weight)
    .map(({ why }) => why);
  return {
    kind,
    confidence: Math.min(0.99, Math.round(100 / odds) / 100),
    because: [...new Set(because)].slice(0, 3),
  };
}

/** Units hold so few rows each that their number is that share of all rows. */
const UNITS = 0.2;

function codebookCues({ entry }: Known, valid: readonly Level[]): Cue[] {
  if (!entry) return [];
  const cues: Cue[] = [];
  const listed = entry.categories.filter(({ missing, label }) => !missing && label !== null);
  const labelled = listed.length ? valid.filter(({ label }) => label !== null) : [];
  const covered = rowsOf(labelled) / Math.max(1, rowsOf(valid));
  // Labels of no-answer codes alone, on an otherwise bare quantity, make no categories.
  const answers = listed.filter(({ label }) => !readsAsNoAnswer(label as string));
  if (answers.length >= 2 && covered >= 0.8) {
    cues.push(
      ...both(
        4,
        `the codebook labels ${answers.length} codes, which cover ${Math.floor(covered * 100)} of 100 valid rows`,
      ),
    );
    const order = orderOfWords(answers.map(({ label }) => label as string));
    if (order && monotone(order.ranks))
      cues.push(name('ordinal', 3, `the labels rise in order (${order.ladder})`));
    else cues.push(name('nominal', 2, 'the labels give no order'));
  } else if (
    answers.length >= 2 &&
    answers.length <= 4 &&
    scaleLength(valid) <= 12 &&
    entry.interval !== 'continuous'
  ) {
    cues.push(
      name('ordinal', 3.5, `only ends of the scale are labelled (${answers[0].code} ${answers[0].label})`),
    );
  }
  if (entry.interval === 'continuous' && covered < 0.8)
    cues.push(...measures(2.5, 'the codebook calls it continuous'));
  if (entry.interval === 'discrete' && answers.length === 0 && valid.length > 12)
    cues.push(name('count', 0.5, 'the codebook calls it discrete'));
  if (entry.units) cues.push(...measures(1.5, `measured in ${entry.units}`));
  return cues;
}

/** Values without codes for no answer. */
const scaleLength = (valid: readonly Level[]): number =>
  valid.every(({ value }) => value !== null) ? bodyOf(valid).length : valid.length;

function wordCues({ name: variable, label, entry, written }: Known): Cue[] {
  const words = `${label ?? ''} ${entry?.question ?? ''} ${variable.replace(/[_.\d]+/g, ' ')}`;
  const cues: Cue[] = [];
  const say = (pattern: RegExp, kind: Kind, weight: number): void => {
    const found = pattern.exec(words);
    if (found) cues.push(name(kind, weight, `its words say “${found[0].trim()}”`));
  };
  if (written.storage !== 'text') {
    say(COUNT_WORDS, 'count', 2);
    say(MEASURE_WORDS, 'continuous', 1.8);
  }
  // Without a label the name is all there is; with one it says less.
  const weight = label === null ? 1 : 0.4;
  for (const { kind, word, last } of kindsByName(variable)) {
    if (written.storage === 'text' && (kind === 'count' || kind === 'continuous')) continue;
    cues.push(name(kind, (last ? 1.9 : 1.3) * weight, `its name says “${word}”`));
  }
  say(NOMINAL_WORDS, 'nominal', 0.7);
  say(CODE_WORDS, 'nominal', 2.8);
  say(ORDINAL_WORDS, 'ordinal', 1.2);
  if (
    written.storage === 'text' &&
    /\b(remarks?|comments?|other.*(text|specify)|verbatim|description|notes?|free text|in (their|your) own words)\b/i.test(
      words,
    )
  ) {
    cues.push(name('text', 2, 'its words say free text'));
  }
  return cues;
}

function identifierCues(
  { name: variable, label, written, uniqueInFiles = false }: Known,
  valid: readonly Level[],
  rows: number,
): Cue[] {
  const share = valid.length / rows;
  // Units that hold several rows each, such as the household of a person.
  if (
    written.storage !== 'decimal' &&
    rows >= 100 &&
    share >= UNITS &&
    share < 0.9 &&
    !uniqueInFiles &&
    namesIdentifier(variable)
  ) {
    return [
      name(
        'identifier',
        3.5,
        `its name says identifier, and its ${valid.length} values stand in ${(rows / valid.length).toFixed(1)} rows each: units that hold several rows`,
      ),
    ];
  }
  if (
    written.storage !== 'decimal' &&
    rows >= 30 &&
    share < 0.5 &&
    valid.length > 2 &&
    !uniqueInFiles &&
    namesIdentifier(variable)
  ) {
    return [
      name(
        'nominal',
        3,
        'its name says identifier, and its values repeat: it names something else than the row',
      ),
    ];
  }
  if (written.storage === 'decimal' || rows < 10 || (share < 0.9 && !uniqueInFiles)) return [];
  const cues: Cue[] = [];
  const named = ID_NAME.test(variable) || ID_LABEL.test(label ?? '');
  if (named) cues.push(name('identifier', 2.5, 'name or label says identifier'));
  if (share < 1 && !uniqueInFiles) {
    if (named) cues.push(name('identifier', 1, `${valid.length} of ${rows} values differ`));
    return cues;
  }
  cues.push(
    name(
      'identifier',
      share < 1 ? 1.5 : 1,
      share < 1
        ? 'no value repeats within a file, as the units of a panel do not'
        : 'every row has a value of its own',
    ),
  );
  if (written.storage === 'integer') {
    const span = (valid[valid.length - 1].value as number) - (valid[0].value as number) + 1;
    const step = (valid[1]?.value as number) - (valid[0].value as number);
    if (
      step > 1 &&
      valid.length >= LEAST_STEPS &&
      valid.every(({ value }, i) => i === 0 || (value as number) - (valid[i - 1].value as number) === step)
    )
      cues.push(name('identifier', 3.5, `the values are counted off in steps of ${step}`));
    if (span <= valid.length * 1.2)
      cues.push(
        name(
          'identifier',
          3.5,
          `the values run through from ${valid[0].code} to ${valid[valid.length - 1].code}`,
        ),
      );
  }
  const shapes = new Set(
    valid.slice(0, 2000).map(({ code }) => code.replace(/\d/g, '9').replace(/\p{L}/gu, 'a')),
  );
  const width = valid[0].code.length;
  if (shapes.size === 1 && width >= 4)
    cues.push(name('identifier', 2.5, `all have the same form, such as ${valid[0].code}`));
  else if (shapes.size <= 4 && written.storage === 'text' && !valid[0].code.includes(' '))
    cues.push(name('identifier', 1.5, `few forms, such as ${valid[0].code}`));
  return cues;
}

function textCues(variable: string, valid: readonly Level[], rows: number): Cue[] {
  const distinct = valid.length;
  const perValue = rows / distinct;
  const sample = valid.slice(0, 2000);
  const length = sample.reduce((sum, { code }) => sum + code.length, 0) / sample.length;
  const cues: Cue[] = [];
  const order =
    distinct <= 40
      ? orderOfWords(valid.filter(({ code }) => !isMarker(code)).map(({ label, code }) => label ?? code))
      : null;
  if (order) cues.push(name('ordinal', 6, `the words have an order (${order.ladder})`));
  const grades = letterGrades(valid.map(({ code }) => code));
  if (grades)
    cues.push(name('ordinal', kindsByName(variable).some(({ kind }) => kind === 'ordinal') ? 5 : 1, grades));
  if (distinct <= 2 && rows >= 5) cues.push(name('nominal', 3, `${distinct} distinct words in ${rows} rows`));
  else if (perValue >= 3)
    cues.push(
      name(
        'nominal',
        distinct <= 60 ? 3 : 1.8,
        `${distinct} distinct words in ${rows} rows: each stands ${Math.round(perValue)} times on average`,
      ),
    );
  else if (distinct <= 20 && length < 20 && perValue > 1.3)
    cues.push(name('nominal', 1.2, `${distinct} distinct short words`));
  if (perValue < 3) cues.push(name('text', 1.5, `${distinct} distinct texts in ${rows} rows`));
  if (length > 30) cues.push(name('text', 2, `long texts, ${Math.round(length)} characters on average`));
  const codes = sample.filter(({ code }) => /^[A-Z0-9._/-]{1,12}$/.test(code)).length;
  if (codes > sample.length * 0.9 && perValue >= 1.5)
    cues.push(name('nominal', 1.5, `written like codes, such as ${sample[0].code}`));
  return cues;
}

function numberCues(known: Known, valid: readonly Level[]): Cue[] {
  const rows = rowsOf(valid);
  const distinct = valid.length;
  const low = valid[0].value as number;
  const high = valid[distinct - 1].value as number;
  const cues: Cue[] = [];
  if (distinct === 1) return [name('nominal', 5, `one value only, ${valid[0].code}`)];
  if (known.written.storage === 'decimal') return [name('continuous', 4, 'numbers with decimals')];
  const seen = `${distinct} distinct whole numbers from ${valid[0].code} to ${valid[distinct - 1].code}`;
  const contiguous = high - low + 1 === distinct;
  const shape = shapeOf(valid, rows);
  const words = `${known.label ?? ''} ${known.name.replace(/[_.\d]+/g, ' ')}`;
  if (MONTH_WORDS.test(words) && low >= 1 && high <= MOST_MONTHS && distinct >= LEAST_MONTHS)
    cues.push(name('ordinal', 3.2, `months, from ${valid[0].code} to ${valid[distinct - 1].code}`));
  if (
    MONEY_WORDS.test(words) &&
    contiguous &&
    low >= 0 &&
    low <= 1 &&
    distinct >= 4 &&
    distinct <= MOST_BANDS
  )
    cues.push(
      name(
        'ordinal',
        3.2,
        `money in ${distinct} steps from ${valid[0].code} to ${valid[distinct - 1].code}, as bands are numbered`,
      ),
    );
  const { itemsAlike = 0 } = known;
  if (itemsAlike && distinct > 2)
    cues.push(
      name(
        'ordinal',
        2.2,
        `${itemsAlike} variables of its name answer from ${valid[0].code} to ${valid[distinct - 1].code}, as the items of a battery do`,
      ),
    );
  // Of a quantity hardly each value stands in as many rows as the next.
  if (distinct >= LEAST_EVEN && rows / distinct >= 5 && isEven(valid))
    cues.push(
      name(
        'nominal',
        2.2,
        `each of ${distinct} values stands in as many rows as the others, as lots or groups do`,
      ),
    );
  if (distinct === 2) {
    const beside = validOf(known.levels).levels.filter((level) => !valid.includes(level));
    const apart = beside.length
      ? `, beside ${beside
          .slice(0, 3)
          .map(({ code }) => code)
          .join(', ')}`
      : '';
    cues.push(name('nominal', 3, `two values, ${valid[0].code} and ${valid[1].code}${apart}`));
  } else if (distinct >= LEAST_ROUNDED && roundedTo(valid))
    cues.push(
      ...measures(
        2.4,
        `each value from ${valid[0].code} to ${valid[distinct - 1].code} in steps of ${roundedTo(valid)}, as rounded quantities have`,
      ),
    );
  else if (distinct <= 60 && answersInMinutes(valid))
    cues.push(...measures(2, 'round numbers that lie further apart the larger they are, as people answer'));
  else if (distinct <= 12 && rows >= distinct * 3) {
    const scale = low === 0 && high === 10 ? 1.8 : low === 1 && [4, 5, 7, 10].includes(high) ? 1 : 0.4;
    cues.push(...both(distinct <= 7 ? 1.5 : 0.8, seen));
    if (contiguous && low < 0 && low === -high && distinct >= 5)
      cues.push(name('ordinal', 1.6, `as far below zero as above, from ${low} to ${high}, as scales are`));
    else if (contiguous && low <= 1)
      cues.push(name('ordinal', scale, 'few values without a gap, as scales have'));
    if (shape.gaps) cues.push(name('nominal', 1, 'few values with gaps between, as codes have'));
    if (shape.turns >= 2)
      cues.push(name('nominal', 0.9, 'their frequencies go up and down, as those of categories do'));
    if (distinct >= LEAST_BELL && low > 1 && shape.bell)
      cues.push(...measures(1.8, 'one peak, and ever fewer on both sides, as quantities have'));
    if (low >= 0 && low <= 1 && shape.runsOut)
      cues.push(name('count', 2.6, 'many small and ever fewer large values, as counts have'));
    else if (low >= 0 && falling(valid))
      cues.push(name('count', 1.2, 'many small and few large values, as counts have'));
  } else if (rows / distinct >= 20 && distinct <= 60 && !contiguous && (high - low + 1) / distinct > 3) {
    cues.push(
      name(
        'nominal',
        1.2,
        `${distinct} values with wide gaps, each ${Math.round(rows / distinct)} times on average`,
      ),
      name('continuous', 0.5, seen),
    );
  } else {
    // Heaped answers leave gaps too, but at round numbers.
    if (shape.gaps && distinct <= 60 && rows / distinct >= 15 && shareOfFives(valid) < 0.5)
      cues.push(name('nominal', 2.8, 'values are missing between frequent ones, as between codes'));
    cues.push(name('continuous', distinct > 25 ? 2.2 : 1.2, seen));
    if (low >= 0 && distinct <= 60)
      cues.push(
        name(
          'count',
          shape.runsOut && low <= 1 ? 2.2 : falling(valid) ? 1.8 : 0.8,
          shape.runsOut || falling(valid) ? 'many small and few large values, as counts have' : seen,
        ),
      );
    if (
      distinct <= 60 &&
      contiguous &&
      low === 1 &&
      rows / distinct >= 15 &&
      shareOfFives(valid) < HEAPED &&
      fullEnds(valid)
    )
      cues.push(name('nominal', 1.7, `numbered from 1 to ${high}, the last as frequent as others`));
    if (distinct <= 60 && shape.turns >= distinct / 4 && contiguous && low === 1)
      cues.push(name('nominal', 0.8, 'numbered from 1 without a gap, their frequencies going up and down'));
  }
  if (distinct > 12 && low >= 1800 && high <= 2100) cues.push(name('continuous', 1, 'the values are years'));
  return cues;
}

/** Of a numbering a fifth are multiples of five; of answers that people round, more. */
const HEAPED = 0.35;
const LEAST_STEPS = 30;
const LEAST_ROUNDED = 8;
const LEAST_BELL = 7;
const LEAST_EVEN = 13;
