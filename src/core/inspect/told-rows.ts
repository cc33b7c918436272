import { has } from '../extract/bits';
import { lineOfRow } from '../extract/extract';
import { standing, type Stood } from '../extract/files';
import { levelAt, type Level, type LevelList } from '../infer/level-list';
import { valueOf } from '../infer/read-levels';
import { isBlank } from '../read/looks';
import type { Places } from '../infer/level-coding';
import { spellingsOf } from '../infer/levels';
import type { Inspected } from './inspected';
import type { Inspector } from './inspect';

/** What a cell is to the analysis, as documents of rows tell it. */
export const CELL_STATES = ['valid', 'missing', 'notAsked', 'blank', 'unreadable'] as const;
export type CellState = (typeof CELL_STATES)[number];

/** A cell with what its variable knows of it. */
export interface ToldCell {
  variable: string;
  /** What the file holds. */
  raw: string;
  /** What it counts as; `null` where it is blank or unreadable. */
  code: string | null;
  label: string | null;
  state: CellState;
  /** Whether a person wrote something else in its place. */
  corrected?: true;
}

/** Where a row stands. */
export interface ToldPlace {
  /** One-based, over the rows that are held, rows set aside counted. */
  row: number;
  /** The same over all rows that were read, where only a sample of them is held. */
  place: number;
  file: string;
  /** One-based line of the file at which the record begins; `null` where rows are not lines. */
  line: number | null;
  /** One-based place in its file. */
  rowInFile: number;
}

/** What rows that a person added are said to stand in. */
export const ADDED = 'added by hand';

/** @param rows zero-based, of the whole extract */
export function placesTold({ received }: Inspector, rows: ArrayLike<number>): ToldPlace[] {
  const stood = standing(received);
  return Array.from(rows, (row): ToldPlace => {
    if (row >= received.rows) {
      const added = row - received.rows + 1;
      const all = received.pass?.rows ?? received.rows;
      return { row: row + 1, place: all + added, file: ADDED, line: null, rowInFile: added };
    }
    return placeTold(stood(row), row, received.name);
  });
}

/** Where one row stands. @param row zero-based, over the rows that are held; −1 for none of them @param whole what the extract is called */
export const placeTold = ({ place, file, inFile }: Stood, row: number, whole: string): ToldPlace => ({
  row: row + 1,
  place: place + 1,
  file: file?.name ?? whole,
  line: file && lineOfRow(file, inFile),
  rowInFile: inFile + 1,
});

/** The cells of some rows, each in the order of the variables. @param rows zero-based, of the whole extract */
export async function cellsTold(
  inspector: Inspector,
  rows: readonly number[],
  variables: readonly Inspected[],
): Promise<ToldCell[][]> {
  const texts = await inspector.records.cells(
    rows,
    variables.map(({ name }) => name),
  );
  const readers = variables.map(cellReader);
  return rows.map((row, r) =>
    variables.map(({ name }, v): ToldCell => {
      const text = texts[r][v];
      const told = readers[v](text, row);
      const received = inspector.corrected.get(name)?.get(row);
      if (row >= inspector.received.rows) return { ...told, raw: '' };
      return received === undefined ? told : { ...told, raw: received, corrected: true };
    }),
  );
}

/** The same of rows that are not held, by their raw texts. */
export function textsTold(
  rows: readonly (readonly string[])[],
  variables: readonly Inspected[],
): ToldCell[][] {
  // Who was not asked is known of rows that are held.
  const readers = variables.map((variable) => cellReader({ ...variable, notAsked: null }));
  return rows.map((texts) => texts.map((text, v) => readers[v](text, 0)));
}

const STATES: Record<Level['standing'], CellState> = {
  valid: 'valid',
  missing: 'missing',
  'not-asked': 'notAsked',
  unreadable: 'unreadable',
};

function cellReader({
  name: variable,
  places,
  written,
  notAsked,
}: Inspected): (text: string, row: number) => ToldCell {
  const find = finderOf(places, (text) => valueOf(text, written));
  return (text, row) => {
    if (isBlank(text)) {
      const state = notAsked?.(row) ? 'notAsked' : 'blank';
      return { variable, raw: text, code: null, label: null, state };
    }
    const level = find(text);
    // A text that no level knows was never counted: it is as it stands.
    if (!level) return { variable, raw: text, code: text, label: null, state: 'valid' };
    const state = STATES[level.standing];
    return {
      variable,
      raw: text,
      code: state === 'unreadable' ? null : level.code,
      label: level.label,
      state,
    };
  };
}

/** Of fewer levels than this each is found by its texts; more are searched, which needs no table of them. */
const FEW = 20_000;
const finders = new WeakMap<Places, (text: string) => Level | undefined>();

/** Finds the level of a text. @param valueIn the number, day or second that a text stands for */
function finderOf(
  places: Places,
  valueIn: (text: string) => number | null,
): (text: string) => Level | undefined {
  const known = finders.get(places);
  if (known) return known;
  let byText: Map<string, Level> | null = null;
  const listed = (text: string): Level | undefined => {
    byText ??= new Map(
      places.levels.flatMap((level) => spellingsOf(level).map((one) => [one, level] as const)),
    );
    return byText.get(text);
  };
  const made =
    places.levels.length < FEW
      ? listed
      : (text: string) => searched(places.levels, text, valueIn) ?? listed(text);
  finders.set(places, made);
  return made;
}

/** By halves, as levels stand in value order and words behind them; `undefined` where it is not found so. */
function searched(
  levels: LevelList,
  text: string,
  valueIn: (text: string) => number | null,
): Level | undefined {
  const value = valueIn(text);
  const before = ({ value: other, code }: Level): boolean =>
    value === null ? other !== null || code < text : other !== null && other < value;
  let [low, high] = [0, levels.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (before(levelAt(levels, middle))) low = middle + 1;
    else high = middle;
  }
  for (let at = low; at < Math.min(levels.length, low + 8); at++)
    if (levelAt(levels, at).code === text || levelAt(levels, at).spellings.includes(text))
      return levelAt(levels, at);
  return undefined;
}

/** Zero-based conditions of the sieve in force that a row fails. */
export const failedBy = ({ sifted }: Inspector, row: number): number[] =>
  sifted ? sifted.failed.flatMap((fails, i) => (has(fails, row) ? [i] : [])) : [];
