import { heldByFile } from '../rows/by-file';
import { categoryAt } from '../extract/coding';
import { codingOfTexts } from '../extract/column';
import { pulse } from '../extract/pulse';
import { bareEntry, type CodebookEntry, type Extract, type Variable } from '../extract/extract';
import type { Kind } from '../extract/words';
import type { Subject } from '../flags/rule';
import { inferKind } from '../infer/kind';
import type { Known, Sequence } from '../infer/known';
import type { Marking } from '../infer/marker';
import type { Battery } from '../infer/scale';
import { countsOf, Declarations, levelsOf, validOf, type Counts, type Levels } from '../infer/levels';
import { mergeLevels, withoutCells } from '../infer/relevel';
import { inferRole } from '../infer/role';
import type { Written } from '../infer/storage';
import { fileStarts } from '../extract/files';
import type { State } from '../log/fold';
import { isBlank } from '../read/looks';
import type { Tally } from '../tally/tally';
import { frequenciesOf, missingCodesOf, statisticsOf, unreadableOf } from './figures';
import type { InspectedVariable } from './schema';

/** A variable with all that is inferred of it, under the rulings in force. */
export interface Inspected extends Subject {
  position: number;
  counts: Counts;
  /** What the program thinks, whatever a person said. */
  presumed: Kind;
  confirmed: boolean;
  confidence: number;
  because: string[];
}

/** The texts that a variable holds in some rows, with the number of those rows. */
export function cellsOf({ column }: Variable, rows: readonly number[]): Map<string, number> {
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

/** Values of a panel's units stand once in each file, and in several files. A few may stand twice by mistake. */
const MOST_TWICE = 0.005;
function isUniqueInFiles({ column }: Variable, { files }: Extract, levels: Levels): boolean {
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
  const isBlankAt = column.lift(isBlank);
  const lastSeen = new Int32Array(coding.size).fill(-1);
  let twice = 0;
  files.forEach((_, file) => {
    for (let row = starts[file]; row < starts[file + 1]; row++) {
      const text = categoryAt(coding, row);
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
  /** Rows that repeat the names of the columns, and rows that a person set aside; zero-based. */
  headers: readonly number[];
  aside: readonly number[];
  /** Blank cells of rows that were not asked, by a universe that a person accepted. */
  notAskedBlank: number;
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
export const levelsUnder = (variable: Variable, state: State, tally: Tally, written: Written): Levels =>
  levelsOf(tally, written, declaredUnder(variable, state, written));

/** A variable with all that is inferred of it, under a state of decisions. */
export function inspectVariable(
  variable: Variable,
  state: State,
  { counted, written, extract, headers, aside, notAskedBlank, battery, sequence, marking }: Grounds,
): Inspected {
  const { name, position } = variable;
  const entry = labelledEntry(variable, state.labels.get(name));
  const label = state.called.get(name)?.label ?? entry?.label ?? null;
  const declarations = declaredUnder(variable, state, written);
  const held = aside.length ? withoutCells(counted, cellsOf(variable, aside)) : counted;
  const asked = notAskedBlank ? { ...held, blank: held.blank - notAskedBlank, notAskedBlank } : held;
  const levels = inOrder(
    mergeLevels(asked, state.merges.get(name) ?? new Map(), written, declarations),
    state.orders.get(name),
  );
  const studied = headers.length ? withoutCells(levels, cellsOf(variable, headers)) : levels;
  const known: Known = {
    name,
    label,
    written,
    levels: studied,
    entry,
    uniqueInFiles: isUniqueInFiles(variable, extract, studied),
    battery,
    sequence,
    marking,
  };
  pulse();
  const inferred = inferKind(known);
  pulse();
  const said = state.kinds.get(name);
  const kind = said ?? inferred.kind;
  const role = state.roles.get(name) ?? inferRole(known, { ...inferred, kind }).role;
  return {
    ...known,
    levels,
    position,
    kind,
    role,
    counts: countsOf(levels),
    presumed: inferred.kind,
    confirmed: said !== undefined,
    confidence: inferred.confidence,
    because: inferred.because,
    rowsWith: (texts) => rowsHolding(variable.column, texts),
    ...(extract.files.length > 1
      ? { byFile: (texts: readonly string[]) => heldByFile(variable.column, extract.files, texts) }
      : {}),
  };
}

/** Levels with the codes that a person ordered in that order, what they left out after them. */
function inOrder(levels: Levels, order: readonly string[] | undefined): Levels {
  if (!order) return levels;
  const place = new Map(order.map((code, i) => [code, i]));
  const rank = ({ code }: Levels['levels'][number]): number => place.get(code) ?? order.length;
  return { ...levels, levels: [...levels.levels].sort((a, b) => rank(a) - rank(b)) };
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
const NOTHING_SAID: Said = { called: null, note: null, signedOff: false };

/** A variable as the inspection document tells it. */
export function documented(variable: Inspected, said: Said = NOTHING_SAID): InspectedVariable {
  const { name, position, label, written, kind, role, confirmed, confidence, because, counts, levels } =
    variable;
  const { frequencies, complete } = frequenciesOf(levels.levels, counts);
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
    missingCodes: counts.missing + counts.notAsked > 0 ? missingCodesOf(levels.levels) : [],
    statistics: statisticsOf(kind, written, validOf(levels)),
    frequencies,
    frequenciesComplete: complete,
    unreadable: counts.unreadable > 0 ? unreadableOf(levels.levels) : [],
  };
}
