import { BETWEEN_PULSES, pulse } from '../extract/pulse';
import { textAt } from '../extract/text-list';
import { largest } from '../tally/extent';
import type { Storage } from '../extract/words';
import { guessNumberForm, PLAIN, readNumber, type NumberForm } from '../read/number';
import { LOOK, looksOf } from '../read/text-looks';
import type { Tally } from '../tally/tally';
import {
  DATE_ORDERS,
  dateOrdersOf,
  isCompactMonth,
  isDuration,
  readDate,
  writtenLikeDate,
  zoneOf,
  type DateForm,
} from './dates';
import { isMarker } from './nothing';
import { paddedCodes } from './padded';

/** How the cells of a variable are written, and so how they are to be read. */
export interface Written {
  storage: Storage;
  /** For dates: the order of their parts. */
  dateForm: DateForm;
  /** For times: whether their zones differ, so that they are compared as UTC. */
  utc: boolean;
  /** For numbers: what their marks mean. */
  numberForm: NumberForm;
  /** What the cells themselves leave open, so that something else had to decide. */
  open: 'decimal-mark' | 'date-order' | null;
  because: string[];
}

/** What is known from elsewhere of how cells are written: a person's choice, the file, the codebook, other columns. */
export interface Hints {
  /** Tells texts that are declared missing and so do not count. */
  skip?: (text: string) => boolean;
  /** What the file itself declares. */
  declared?: Storage;
  /** Digits after a decimal point left out, as fixed-width files do. */
  implied?: number;
  /** Numbers may be padded with zeros without being codes. */
  padded?: boolean;
  /** The decimal mark of the extract, for cells that leave it open. */
  mark?: '.' | ',' | null;
  /** A person says that it is this, however few cells can be read so. */
  force?: 'number' | 'date' | null;
  /** Day before month or month before day, for cells that leave it open. */
  order?: 'dmy' | 'mdy' | null;
}

/** A variable is what nearly all its cells are; what then cannot be read is counted as unreadable. */
const NEARLY_ALL = 0.9;
/** Most cells are enough where all others say one of a few things, beside so many different numbers or dates: "s" for suppressed, "<5". */
const MOST = 0.5;
const FEW_FORMS = 3;
const LEAST_DISTINCT = 12;
const DISTINCT_TO_FORMS = 5;
/** So many different lengths of time beyond a day are no slips among times of day. */
const LEAST_DURATIONS = 2;
const SOME_DURATIONS = 0.02;

/** Storage of the cells of a tally. */
export function inferStorage(tally: Tally, hints: Hints = {}): Written {
  const { skip, declared, force = null } = hints;
  const enough = (cells: number, all: number, forced: boolean, distinct: number, forms: number): boolean =>
    cells > 0 &&
    (forced ||
      (force === null &&
        (cells >= all * NEARLY_ALL ||
          (cells >= all * MOST &&
            forms <= FEW_FORMS &&
            distinct >= Math.max(LEAST_DISTINCT, forms * DISTINCT_TO_FORMS)))));
  const found = sort(tally, skip);
  // Hours that no day has are a length of time, which is no time of day.
  const lasting = force === null ? found.dated.filter(isDuration).length : 0;
  if (lasting >= Math.max(LEAST_DURATIONS, found.dated.length * SOME_DURATIONS)) {
    found.dates = 0;
    found.words += found.dated.length;
    found.dated = [];
  }
  const written = (storage: Storage, ...because: string[]): Written => ({
    storage,
    dateForm: 'ymd',
    utc: false,
    numberForm: PLAIN,
    open: null,
    because,
  });
  if (found.cells + found.stray === 0) return written(declared ?? 'empty', 'no cell holds anything');
  if (declared === 'text' && force === null) return written('text', 'the file declares text');
  if (
    enough(
      found.dates,
      found.cells,
      force === 'date',
      found.dated.length,
      found.bare.length + found.adorned.length + found.lettered.length + found.words,
    )
  ) {
    return dateWritten(
      found.dated,
      [`${found.dates} of ${found.cells} cells are written as dates or times`],
      hints,
    );
  }
  const numbers = numbersOf(tally, found, hints);
  if (declared && numbers.cells === found.cells && (declared === 'integer' || declared === 'decimal'))
    return { ...written(declared, `the file declares ${declared} numbers`), numberForm: numbers.form };
  if (
    enough(
      numbers.cells,
      found.cells,
      force === 'number',
      numbers.distinct,
      found.bare.length +
        found.adorned.length +
        found.lettered.length -
        numbers.distinct +
        found.dated.length +
        found.words,
    )
  ) {
    const { numeric } = found;
    const trimmed = (i: number): string => textAt(tally.texts, i).trim();
    const mayBeDates =
      force !== 'number' && found.adorned.length + found.lettered.length === 0 && !hints.implied;
    if (mayBeDates && areCompactDates(numeric, trimmed))
      return dateWritten(
        Array.from(numeric, trimmed),
        ['eight digits that are days of the calendar'],
        hints,
        'compact',
      );
    if (mayBeDates && areCompactMonths(numeric, trimmed))
      return dateWritten(
        Array.from(numeric, trimmed),
        ['six digits that are years and months'],
        hints,
        'month',
      );
    const padded =
      hints.implied || hints.padded || force === 'number' || !(looksOf(tally.texts).any & LOOK.zero)
        ? null
        : paddedCodes([...Array.from(numeric, trimmed), ...found.lettered.map(trimmed)]);
    if (padded) return written('text', padded);
    const apart = found.cells - numbers.cells + found.stray;
    const whole = numbers.whole === numbers.cells && !hints.implied;
    const says = hints.implied
      ? `numbers with ${hints.implied} decimals that the file leaves out`
      : !whole
        ? 'numbers with decimals'
        : numbers.pointed
          ? 'whole numbers, some written with a decimal point'
          : 'whole numbers';
    return {
      ...written(
        whole ? 'integer' : 'decimal',
        says,
        ...(numbers.because ? [numbers.because] : []),
        ...(apart ? [`${apart} cells are no numbers`] : []),
      ),
      numberForm: numbers.form,
      open: numbers.open ? 'decimal-mark' : null,
    };
  }
  if (found.cells === 0) return written('text', 'it holds only marks for nothing');
  return written(
    'text',
    numbers.cells > 0 ? `${found.cells - numbers.cells} of ${found.cells} cells are no numbers` : 'words',
  );
}

interface Sorted {
  /** Rows that hold something other than a marker. */
  cells: number;
  stray: number;
  dates: number;
  dated: string[];
  /** Places in the tally of texts that are numbers, or may be. */
  numeric: Uint32Array;
  /** Of those that are numbers as programs write them, the first of them. */
  bare: Uint32Array;
  /** Of those that are no bare numbers and no dates, in which numbers may still be. */
  adorned: Uint32Array;
  /** Of texts that begin with a letter, and so are no numbers, those that hold a digit. */
  lettered: number[];
  /** Whether a point or a comma is in any of those. */
  marksBeside: boolean;
  /** Distinct texts that are none of these. */
  words: number;
}

/** Longer texts are no numbers. */
const LONGEST = 40;

function sort(tally: Tally, skip: Hints['skip']): Sorted {
  const found = { cells: 0, stray: 0, dates: 0, words: 0, marksBeside: false };
  const dated: string[] = [];
  const lettered: number[] = [];
  // Bare numbers from the beginning on, adorned ones from the end backwards.
  const places = new Uint32Array(tally.texts.length);
  let [bare, rest] = [0, places.length];
  const { bits } = looksOf(tally.texts);
  for (let i = 0; i < tally.texts.length; i++) {
    if ((i & (BETWEEN_PULSES - 1)) === 0) pulse();
    const count = tally.counts[i];
    if (bits[i] & LOOK.blank || skip?.(textAt(tally.texts, i))) continue;
    if (bits[i] & LOOK.number) {
      found.cells += count;
      places[bare++] = i;
      continue;
    }
    const text = textAt(tally.texts, i);
    if (isMarker(text)) found.stray += count;
    else {
      found.cells += count;
      if (!(bits[i] & LOOK.digit)) found.words++;
      else if (writtenLikeDate(text)) {
        found.dates += count;
        dated.push(text);
      } else if (text.length > LONGEST) found.words++;
      else if (bits[i] & LOOK.lettered) {
        lettered.push(i);
        found.marksBeside ||= (bits[i] & LOOK.marked) > 0;
      } else places[--rest] = i;
    }
  }
  const after = places.subarray(rest).reverse();
  places.copyWithin(bare, rest);
  const numeric = places.subarray(0, bare + after.length);
  return {
    ...found,
    dated,
    lettered,
    numeric,
    bare: numeric.subarray(0, bare),
    adorned: numeric.subarray(bare),
  };
}

interface Numbers {
  form: NumberForm;
  cells: number;
  /** Distinct texts that are numbers. */
  distinct: number;
  whole: number;
  pointed: boolean;
  because: string | null;
  open: boolean;
}

/** Numbers that could be thousands with points between, if the extract wrote its decimals with a comma. */
const GROUPED_BY_POINTS = /^\s*-?[1-9]\d{0,2}(\.\d{3})*\s*$/;

function numbersOf(
  { texts, counts }: Tally,
  { numeric, bare, adorned, lettered, marksBeside }: Sorted,
  { implied = 0, mark = null }: Hints,
): Numbers {
  // Bare numbers leave nothing to decide, unless the extract writes decimals with a comma and points could part thousands.
  const looks = looksOf(texts);
  const others = adorned.length + lettered.length;
  const pointed =
    others === 0 &&
    bare.some((i) => looks.bits[i] & LOOK.pointed) &&
    bare.every((i) => GROUPED_BY_POINTS.test(textAt(texts, i)));
  const guess =
    (numeric.length > 0 && others > 0) || (pointed && mark === ',')
      ? guessNumberForm(
          Array.from(numeric, (i) => textAt(texts, i)),
          Float64Array.from(numeric, (i) => counts[i]),
          mark,
          marksBeside,
        )
      : null;
  const form = { ...(guess?.form ?? PLAIN), implied };
  const numbers: Numbers = {
    form,
    cells: 0,
    distinct: 0,
    whole: 0,
    pointed: false,
    because: guess?.because ?? null,
    open: guess?.open ?? pointed,
  };
  const add = (i: number): void => {
    const value = guess || implied ? readNumber(textAt(texts, i), form) : looks.values[i];
    if (value === null || !Number.isFinite(value)) return;
    numbers.cells += counts[i];
    numbers.distinct++;
    if (!Number.isInteger(value)) return;
    numbers.whole += counts[i];
    if (guess) numbers.pointed ||= textAt(texts, i).includes(form.decimal) || /e/i.test(textAt(texts, i));
    else numbers.pointed ||= (looks.bits[i] & LOOK.pointed) > 0;
  };
  for (let n = 0; n < numeric.length; n++) {
    if ((n & (BETWEEN_PULSES - 1)) === 0) pulse();
    add(numeric[n]);
  }
  return numbers;
}

function areCompactDates(numeric: Uint32Array, text: (place: number) => string): boolean {
  return numeric.length >= 5 && numeric.every((place) => readDate(text(place), 'compact') !== null);
}

/** Six digits may be a code; a year's worth of different ones, all of them months, are none. */
const LEAST_MONTHS = 12;
function areCompactMonths(numeric: Uint32Array, text: (place: number) => string): boolean {
  return numeric.length >= LEAST_MONTHS && numeric.every((place) => isCompactMonth(text(place)));
}

function dateWritten(
  texts: readonly string[],
  because: string[],
  { order }: Hints,
  only?: DateForm,
): Written {
  const forms: readonly DateForm[] = only ? [only] : ['ymd', 'dmy', 'mdy', 'named', 'month'];
  const read = forms.map((form) => ({
    form,
    found: texts.map((text) => readDate(text, form)).filter((date) => date !== null),
  }));
  const most = largest(read.map(({ found }) => found.length));
  const best = read.filter(({ found }) => found.length === most);
  const open =
    best.length > 1 &&
    best.every(({ form }) => DATE_ORDERS.includes(form as 'dmy')) &&
    texts.some((text) => dateOrdersOf(text).length > 1);
  // Day before month where nothing else decides.
  const chosen = (open && order ? best.find(({ form }) => form === order) : undefined) ?? best[0];
  const times = chosen.found.filter(({ storage }) => storage === 'time').length;
  const both = chosen.found.filter(({ storage }) => storage === 'datetime').length;
  const storage =
    times > chosen.found.length / 2 ? 'time' : both > chosen.found.length / 2 ? 'datetime' : 'date';
  const why = [...because];
  if (open)
    why.push(
      `${chosen.form === 'dmy' ? 'day before month' : 'month before day'}, which ${order ? 'the rest of the extract says' : 'no cell here decides'}`,
    );
  else if (chosen.form === 'month') why.push('months, each standing for its first day');
  else if (chosen.form === 'dmy' || chosen.form === 'mdy')
    why.push(
      `${chosen.form === 'dmy' ? 'day before month' : 'month before day'}: read the other way some would be no days`,
    );
  const zones = new Set(texts.map(zoneOf).filter((zone) => zone !== null));
  if (zones.size > 1) why.push('times of several zones, compared as UTC');
  return {
    storage,
    dateForm: chosen.form,
    utc: zones.size > 1,
    numberForm: PLAIN,
    open: open ? 'date-order' : null,
    because: why,
  };
}
