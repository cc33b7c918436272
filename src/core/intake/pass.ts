import type { CellsInBytes } from '../extract/cells-in-bytes';
import { ColumnBuilder, type Column } from '../extract/column';
import { Dictionary } from '../extract/dictionary';
import type { ColumnPass } from '../extract/extract';
import { TextBytes } from '../extract/text-bytes';
import { textAt, type TextList } from '../extract/text-list';
import { isBlank } from '../read/looks';
import { plainNumberIn } from '../read/plain-number';
import { looksOf, numberIn } from '../read/text-looks';
import { DistinctSketch, SKETCH_ERROR } from '../tally/distinct-sketch';
import { RunningMoments } from '../tally/running';

/** Texts of a column that are counted each for itself; those met after them are counted together. */
const TEXTS = { most: 100_000, least: 2_000, together: 8_000_000 };
/** Of so many columns: what is told apart has its room, too. */
export const textsOf = (columns: number): number =>
  Math.round(Math.max(TEXTS.least, Math.min(TEXTS.most, TEXTS.together / Math.max(1, columns))));
/** Rows and cells that are held, about, of columns however many. */
const SAMPLE = { most: 100_000, least: 5_000, cells: 4_000_000 };
/** Rows to be held of so many columns. */
export const sampleOf = (columns: number): number =>
  Math.round(Math.max(SAMPLE.least, Math.min(SAMPLE.most, SAMPLE.cells / Math.max(1, columns))));

/** Takes the cells of a column batch by batch, and is a column in the end. */
export interface CellTaker {
  readonly rows: number;
  pushFrom(rows: readonly (readonly string[])[], index: number): void;
  pushSpans(cells: CellsInBytes): void;
  pushBlank(times: number): void;
  finish(): Column;
}

/**
 * Which rows are held of those that pass, the same for all columns: each as likely as any other, told by a hash of its place, so
 * that the same file gives the same sample. Where far more come than were expected, every other is let go.
 */
export class Sampler {
  private share: number;
  private passed = 0;
  /** Zero-based rows that are held. */
  places: number[] = [];
  /** Of the batch at hand the zero-based places of those that are held. */
  picks: number[] = [];

  /** @param expected rows in all @param sample rows to be held */
  constructor(
    expected: number,
    private readonly sample: number,
  ) {
    this.share = Math.min(1, sample / Math.max(1, expected));
  }

  /** A batch of rows comes. @returns of those held so far the zero-based places that stay, where some have to go */
  next(rows: number): Uint32Array | null {
    this.picks = [];
    const first = this.passed;
    for (let i = 0; i < rows; i++) if (chance(first + i) < this.share) this.picks.push(i);
    this.passed += rows;
    let stay: Uint32Array | null = null;
    if (this.places.length + this.picks.length > this.sample * 2) {
      this.share /= 2;
      const held = this.places;
      stay = Uint32Array.from(held.keys()).filter((at) => chance(held[at]) < this.share);
      this.places = Array.from(stay, (at) => held[at]);
      this.picks = this.picks.filter((i) => chance(first + i) < this.share);
    }
    for (const i of this.picks) this.places.push(first + i);
    return stay;
  }
}

/** A number from 0 up to 1 that a row's place gives, spread like chance (the finisher of MurmurHash3). */
function chance(row: number): number {
  let hash = (row + 0x9e3779b9) | 0;
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return ((hash ^ (hash >>> 16)) >>> 0) / 2 ** 32;
}

/** Counts all cells of a column that passes, and holds those of the rows that are sampled. */
export class PassBuilder implements CellTaker {
  private readonly dictionary: Dictionary;
  /** Rows that hold each text; in 32 bits, of which more stay near the processor, as long as they have room there. */
  private counts: Uint32Array | Float64Array = new Uint32Array(64);
  private held = new ColumnBuilder();
  private passed = 0;
  private others: Others | null = null;

  /** @param most texts that are counted each for itself */
  constructor(
    private readonly sampler: Sampler,
    most: number,
  ) {
    this.dictionary = new Dictionary(most);
  }

  get rows(): number {
    return this.passed;
  }

  /** Of the rows held only some stay. @param at their zero-based places among those held */
  thin(at: Uint32Array): void {
    // What the file at hand lacks has not got its blanks yet.
    const { rows } = this.held;
    const left = this.held.finish().gather(at.filter((place) => place < rows));
    this.held = new ColumnBuilder();
    this.held.pushColumn(left);
  }

  pushFrom(rows: readonly (readonly string[])[], index: number): void {
    for (const row of rows) {
      const { bytes, length } = scratch.put(row[index] ?? '');
      this.push(bytes, 0, length);
    }
    this.held.pushFrom(
      this.sampler.picks.map((at) => rows[at]),
      index,
    );
  }

  pushSpans(cells: CellsInBytes): void {
    const { bytes, starts, ends, first, step, rows } = cells;
    if (found.length < rows) found = new Int32Array(rows * 2);
    this.dictionary.codes(cells, found);
    this.countRoom(rows);
    const { counts } = this;
    for (let row = 0, i = first; row < rows; row++, i += step)
      if (found[row] >= 0) counts[found[row]]++;
      else this.other.add(bytes, starts[i], ends[i], 1);
    this.passed += rows;
    this.held.pushSome(cells, this.sampler.picks);
  }

  /** Rows that passed without the column: those of them that are held hold nothing of it either. */
  pushBlank(times: number): void {
    if (times === 0) return;
    this.push(NOTHING, 0, 0, times);
    this.held.pushBlank(this.sampler.places.length - this.held.rows);
  }

  finish(): Column {
    return this.held.finish();
  }

  /** What all rows told. */
  get told(): ColumnPass {
    const { dictionary, others } = this;
    return {
      texts: dictionary.texts(),
      counts: Float64Array.from(this.counts.subarray(0, dictionary.size)),
      others: others?.told ?? null,
    };
  }

  private push(source: Uint8Array, from: number, to: number, times = 1): void {
    const code = this.dictionary.code(source, from, to);
    this.countRoom(times);
    this.passed += times;
    if (code < 0) this.other.add(source, from, to, times);
    else this.counts[code] += times;
  }

  private get other(): Others {
    return (this.others ??= new Others(this.dictionary.texts(), this.counts));
  }

  /** Room for the counts of all texts that are known, and for so many more rows in each. */
  private countRoom(rows: number): void {
    if (this.passed + rows > MOST_COUNTED && this.counts instanceof Uint32Array)
      this.counts = Float64Array.from(this.counts);
    if (this.dictionary.size <= this.counts.length) return;
    const more = this.counts instanceof Uint32Array ? Uint32Array : Float64Array;
    const counts = new more(this.dictionary.size * 2);
    counts.set(this.counts);
    this.counts = counts;
  }
}

/** Rows up to which 32 bits hold any count of them. */
const MOST_COUNTED = 2 ** 32 - 1;

/** Codes of the cells at hand, for the next that come. */
let found = new Int32Array(1 << 12);

const scratch = new TextBytes();
const decoder = new TextDecoder('utf-8', { ignoreBOM: true });
const NOTHING = new Uint8Array(0);

/** Rows whose texts were met too late to be counted each for itself. */
class Others {
  private rows = 0;
  private blank = 0;
  private readonly numbers: RunningMoments;
  private readonly sketch = new DistinctSketch();

  /** @param texts that are counted each for itself, and their rows so far */
  constructor(texts: TextList, counts: ArrayLike<number>) {
    let [sum, rows] = [0, 0];
    const { values } = looksOf(texts);
    // The text that brings them here may still lie in the other.
    const own = new TextBytes();
    for (let i = 0; i < texts.length; i++) {
      const { bytes, length } = own.put(textAt(texts, i));
      this.sketch.add(bytes, 0, length);
      if (!Number.isFinite(values[i])) continue;
      sum += values[i] * counts[i];
      rows += counts[i];
    }
    this.numbers = new RunningMoments(rows > 0 && Number.isFinite(sum) ? sum / rows : 0);
  }

  add(source: Uint8Array, from: number, to: number, times: number): void {
    this.rows += times;
    this.sketch.add(source, from, to);
    // What begins with a letter is no number, and not blank.
    const letter = from < to ? source[from] | 0x20 : 0;
    if (letter >= 0x61 && letter <= 0x7a) return;
    const quick = plainNumberIn(source, from, to);
    if (quick === quick) this.numbers.add(quick, times);
    else {
      const text = decoder.decode(source.subarray(from, to));
      if (isBlank(text)) this.blank += times;
      else {
        const value = numberIn(text);
        if (Number.isFinite(value)) this.numbers.add(value, times);
      }
    }
  }

  get told(): NonNullable<ColumnPass['others']> {
    const { rows, blank, numbers, sketch } = this;
    return { rows, blank, numbers: numbers.passed, distinct: sketch.estimate, error: SKETCH_ERROR };
  }
}
