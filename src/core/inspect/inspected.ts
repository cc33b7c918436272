import { heldByFile } from '../rows/by-file';
import { categoryAt } from '../extract/coding';
import { codingOfTexts } from '../extract/column';
import { pulse } from '../extract/pulse';
import {
  bareEntry,
  type CodebookEntry,
  type ColumnPass,
  type Extract,
  type Variable,
} from '../extract/extract';
import type { Kind } from '../extract/words';
import type { Subject } from '../flags/rule';
import { headerCells } from '../flags/rows/repeated-header';
import { inferKind } from '../infer/kind';
import type { Known, Sequence } from '../infer/known';
import type { Marking } from '../infer/marker';
import type { Battery } from '../infer/scale';
import { Declarations } from '../infer/declared';
import { countsOf, validOf, type Counts, type Levels } from '../infer/levels';
import { levelsOf } from '../infer/read-levels';
import { has, others, rowsIn, type Bits } from '../extract/bits';
import { placesOf, type Places } from '../infer/level-coding';
import { mergeLevels, withoutCells } from '../infer/relevel';
import { inferRole } from '../infer/role';
import type { Written } from '../infer/storage';
import { fileStarts } from '../extract/files';
import type { State } from '../log/fold';
import { isBlank } from '../read/looks';
import type { Tally } from '../tally/tally';
import { passedFigures, statisticsPassed, type PassedFigures } from './passed';
import { recounted } from './recounted';
import { frequenciesOf, missingCodesOf, statisticsOf, unreadableOf } from './figures';
import type { InspectedVariable } from './schema';
import { LevelArrays, type Level } from '../infer/level-list';

/** A variable with all that is inferred of it, under the rulings in force. */
export interface Inspected extends Subject {
  position: number;
  counts: Counts;
  /** Its levels over all rows that were received, as rulings leave them, and which of them each row holds. */
  base: Levels;
  places: Places;
  /** Which rows were not asked, by a universe that a person accepted; zero-based. */
  notAsked: ((row: number) => boolean) | null;
  /** The variable that it is a trial recode of, where it is one. */
  trial?: string;
  /** What the program thinks, whatever a person said. */
  presumed: Kind;
  /** Rows of the sample that its levels are of, where only a sample is held and they are not of all rows. */
  sampled?: number;
  /** What is known of all rows beside them. */
  passed?: PassedFigures;
  confirmed: boolean;
  confidence: number;
  because: string[];
}

/** The texts that a variable holds in some rows, with the number of those rows. */
export function cellsOf({ column }: Variable, rows: Iterable<number>): Map<string, number> {
  const cells = new Map<string, number>();
  for (const row of rows) cells.set(column.text(row), (cells.get(column.text(row)) ?? 0) + 1);
  return cells;
}

/** How many rows hold one of some texts. */
function rowsHolding(column: Variable['column'], texts: readonly string[]): number {
  const wanted = new Set(texts);
  const holds = column.lift((text) => wanted.has(text));
  let rows = 0;
  for (let row = 0; row < column.rows; row++) if (holds(row)) rows++;
  return rows;
}

const NO_ROWS = new Uint32Array(0);
const NO_CELLS: ReadonlyMap<string, number> = new Map();

/** The same of all rows that passed. */
function rowsPassed({ texts, counts }: ColumnPass, wanted: readonly string[]): number {
  const sought = new Set(wanted);
  return texts.reduce((sum, text, i) => (sought.has(text) ? sum + counts[i] : sum), 0);
}

/** Values of a panel's units stand once in each file, and in several files. A few may stand twice by mistake. */
const MOST_TWICE = 0.005;
function isUniqueInFiles(
  { column }: Variable,
  { files }: Extract,
  levels: Levels,
  there: Bits | null,
): boolean {
  if (files.length < 2 || column.distinct === null) return false;
  const { levels: valid } = validOf(levels);
  const most = valid.reduce((max, { count }) => Math.max(max, count), 0);
  if (
    valid.length < 10 ||
    most < 2 ||
    most > files.length + 2 ||
    valid.some(({ spellings }) => spellings.length > 1)
  )
    return false;
  const starts = fileStarts(files);
  const coding = codingOfTexts(column);
  const isBlankAt = column.lift(isBlank, false);
  const lastSeen = new Int32Array(coding.size).fill(-1);
  let twice = 0;
  files.forEach((_, file) => {
    for (let row = starts[file]; row < starts[file + 1]; row++) {
      const text = categoryAt(coding, row);
      if (there !== null && !has(there, row)) continue;
      if (lastSeen[text] === file && !isBlankAt(row)) twice++;
      lastSeen[text] = file;
    }
  });
  return twice <= levels.rows * MOST_TWICE;
}

/** What a variable is inspected on. */
export interface Grounds {
  /** Its levels over all rows, as `levelsUnder` the same state has them. */
  counted: Levels;
  written: Written;
  extract: Extract;
  /** The rows that are there; all where it is `null`. */
  there: Bits | null;
  /** Those of them that repeat the names of the columns; zero-based. */
  headers: readonly number[];
  /** Which rows were not asked, by a universe that a person accepted. */
  notAsked: ((row: number) => boolean) | null;
  battery: Battery | null;
  sequence: Sequence;
  marking: Marking | null;
}

/** What the codebook and a person declare of a variable's codes. */
const declaredUnder = (variable: Variable, { labels, missing }: State, written: Written): Declarations =>
  new Declarations(
    labelledEntry(variable, labels.get(variable.name)),
    missing.get(variable.name),
    written.numberForm,
  );

/** The levels of a variable over all rows, those that were set aside among them, before any level counts for another. */
export function levelsUnder(variable: Variable, state: State, tally: Tally, written: Written): Levels {
  const levels = levelsOf(tally, written, declaredUnder(variable, state, written));
  // What could not be read before it was recoded can be read no better now.
  const { unreadable } = variable.trial ?? {};
  return unreadable?.size
    ? { ...levels, levels: levels.levels.unreadableWhere((code) => unreadable.has(code)) }
    : levels;
}

/** A variable with all that is inferred of it, under a state of decisions. */
export function inspectVariable(
  variable: Variable,
  state: State,
  { counted, written, extract, there, headers, notAsked, battery, sequence, marking }: Grounds,
): Inspected {
  const { name, position } = variable;
  const entry = labelledEntry(variable, state.labels.get(name));
  const label = state.called.get(name)?.label ?? entry?.label ?? null;
  const declarations = declaredUnder(variable, state, written);
  const base = inOrder(
    mergeLevels(counted, state.merges.get(name) ?? new Map(), written, declarations),
    state.orders.get(name) ?? variable.trial?.order,
  );
  const places = placesOf(variable.column, base.levels, notAsked);
  // Of what all rows were counted in, those that are not there are taken off; else the rows held are counted.
  const complete = variable.pass !== undefined && variable.pass.others === null && !notAsked;
  const gone = extract.pass
    ? cellsOf(variable, there === null ? NO_ROWS : rowsIn(others(there, extract.rows)))
    : NO_CELLS;
  const levels =
    there === null && !notAsked
      ? base
      : complete
        ? withoutCells(base, gone)
        : recounted(base, places, there, extract.rows);
  const passed = passedFigures(variable, written, declarations, state.merges.get(name) ?? new Map(), gone);
  const repeated = complete
    ? headerCells(variable, extract)
    : headers.length
      ? cellsOf(variable, headers)
      : NO_CELLS;
  const studied = repeated.size > 0 ? withoutCells(levels, repeated) : levels;
  const known: Known = {
    name,
    label,
    written,
    levels: studied,
    entry,
    uniqueInFiles: isUniqueInFiles(variable, extract, studied, there),
    battery,
    sequence,
    marking,
  };
  pulse();
  const inferred = inferKind(known);
  pulse();
  const said = state.kinds.get(name);
  const { trial } = variable;
  const kind = said ?? trial?.kind ?? inferred.kind;
  const role = state.roles.get(name) ?? (trial ? 'analysis' : inferRole(known, { ...inferred, kind }).role);
  return {
    ...known,
    levels,
    base,
    places,
    notAsked,
    position,
    kind,
    role,
    counts: passed?.counts ?? countsOf(levels),
    ...(extract.pass && !complete ? { sampled: levels.rows } : {}),
    ...(passed ? { passed } : {}),
    presumed: trial?.kind ?? inferred.kind,
    confirmed: said !== undefined,
    confidence: trial ? 1 : inferred.confidence,
    because: trial ? [`a trial recode of ${trial.of}`] : inferred.because,
    ...(trial ? { trial: trial.of } : {}),
  };
}

/**
 * A variable as some rows have it: what it is stays as all rows tell, counts are of these rows alone.
 * @param within rows that count; all that are held where it is `null` @param rows number of all rows held @param ofSample whether they are a sample
 */
export function keptOf(whole: Inspected, within: Bits | null, rows: number, ofSample = false): Inspected {
  const levels = recounted(whole.base, whole.places, within, rows);
  const { passed: _, ...kept } = whole;
  return { ...kept, levels, counts: countsOf(levels), ...(ofSample ? { sampled: levels.rows } : {}) };
}

/** What rules may ask of the cells of a variable, in an extract of which all rows count. */
export const askable = (
  { column, pass }: Variable,
  { files }: Extract,
): Pick<Subject, 'rowsWith' | 'byFile'> => ({
  rowsWith: pass && !pass.others ? (texts) => rowsPassed(pass, texts) : (texts) => rowsHolding(column, texts),
  ...(files.length > 1 && !pass
    ? { byFile: (texts: readonly string[]) => heldByFile(column, files, texts) }
    : {}),
});

/** Levels with the codes that a person ordered in that order, what they left out after them. */
function inOrder(levels: Levels, order: readonly string[] | undefined): Levels {
  if (!order) return levels;
  const place = new Map(order.map((code, i) => [code, i]));
  const rank = ({ code }: Level): number => place.get(code) ?? order.length;
  return { ...levels, levels: LevelArrays.from([...levels.levels].sort((a, b) => rank(a) - rank(b))) };
}

/** A variable's codebook entry with the labels that a person gave laid over it. */
function labelledEntry(
  { name, entry }: Variable,
  labels: ReadonlyMap<string, string> | undefined,
): CodebookEntry | null {
  if (!labels) return entry;
  const base = entry ?? bareEntry(name);
  const known = new Set(base.categories.map(({ code }) => code));
  return {
    ...base,
    categories: [
      ...base.categories.map((category) => ({
        ...category,
        label: labels.get(category.code) ?? category.label,
      })),
      ...[...labels]
        .filter(([code]) => !known.has(code))
        .map(([code, label]) => ({ code, label, missing: false, reason: null, frequency: null })),
    ],
  };
}

/** What a person gave a variable besides its kind: another name, a note, a sign-off. */
export interface Said {
  called: string | null;
  note: string | null;
  signedOff: boolean;
}

export const saidIn = ({ called, notes, signedOff }: State, name: string): Said => ({
  called: called.get(name)?.name ?? null,
  note: notes.get(name) ?? null,
  signedOff: signedOff.has(name),
});
const NOTHING_SAID: Said = { called: null, note: null, signedOff: false };

/** A variable as the inspection document tells it. */
export function documented(variable: Inspected, said: Said = NOTHING_SAID): InspectedVariable {
  const { name, position, label, written, kind, role, confirmed, confidence, because, counts, levels } =
    variable;
  const { sampled, passed } = variable;
  const told = passed?.levels ?? levels;
  const { frequencies, complete } = frequenciesOf(told.levels, counts, passed === undefined);
  const statistics = statisticsOf(kind, written, validOf(levels));
  return {
    name,
    position,
    label,
    ...said,
    storage: written.storage,
    kind,
    role,
    confirmed,
    confidence: confirmed ? 1 : confidence,
    because: confirmed ? ['a person confirmed it', ...because] : because,
    counts,
    missingCodes: counts.missing + counts.notAsked > 0 ? missingCodesOf(told.levels) : [],
    statistics: passed ? statisticsPassed(kind, written, statistics, passed) : statistics,
    frequencies,
    frequenciesComplete: complete,
    unreadable: counts.unreadable > 0 ? unreadableOf(told.levels) : [],
    ...(sampled === undefined ? {} : { sampled }),
    ...(passed?.error ? { distinctError: passed.error } : {}),
    ...(variable.trial === undefined ? {} : { trial: true as const }),
  };
}
