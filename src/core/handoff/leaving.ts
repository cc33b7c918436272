import { has } from '../extract/bits';
import type { Bits } from '../extract/bits';
import type { CodebookEntry, CodebookGroup } from '../extract/extract';
import { InputError } from '../extract/problem';
import type { Storage } from '../extract/words';
import { isCategorical, isMeasure, isNumericStorage } from '../extract/words';
import type { Level } from '../infer/level-list';
import { spellingsOf } from '../infer/levels';
import type { Inspected } from '../inspect/inspected';
import type { Inspector } from '../inspect/inspect';
import { membersOf } from '../sets/view';
import { harmless } from './harmless';

/** What goes out, and how its cells are written. */
export interface LeavingAsk {
  /** Names as the archive gave them; all where it is `null`. */
  variables: readonly string[] | null;
  cells: 'codes' | 'labels';
  missing: 'keep' | 'blank';
  harmless: boolean;
  /** Whether identifier, wave, weight and design variables stay behind unless they are named. */
  alone: boolean;
}

/** A variable as it goes out. */
export interface LeavingVariable {
  name: string;
  storage: Storage;
  /** Text of a zero-based row of the extract, as delimited text holds it: of what a spreadsheet would run, harmless where that is asked for. */
  spreadsheetText(row: number): string;
  /** What is made of the text of a row; of each distinct text once, where there are not too many. */
  lift<T>(of: (text: string) => T): (row: number) => T;
  entry: CodebookEntry;
  inspected: Inspected;
}

export interface Leaving {
  name: string;
  title: string;
  variables: LeavingVariable[];
  groups: CodebookGroup[];
  /** Rows that go out, zero-based, in the order of the extract. */
  rows: { count: number; each(): Generator<number> };
  /** Names under which variables go out that were not asked for, and the archive's names of those that stay. */
  wentAlong: string[];
  leftOut: string[];
}

const ALONG = new Set(['identifier', 'wave', 'weight', 'design']);

/** @throws InputError where nothing would go out, or two would go out under one name */
export function leavingOf(inspector: Inspector, ask: LeavingAsk): Leaving {
  const { extract, within, rowCounts } = inspector;
  const wanted = ask.variables === null ? null : new Set(ask.variables);
  const chosen: Inspected[] = [];
  const wentAlong: string[] = [];
  const leftOut: string[] = [];
  for (const inspected of inspector.variables) {
    const { name, role } = inspected;
    const along = wanted !== null && !wanted.has(name) && !ask.alone && ALONG.has(role);
    if (wanted === null || wanted.has(name) || along) chosen.push(inspected);
    else leftOut.push(name);
    if (along) wentAlong.push(calledIn(inspector, name));
  }
  if (chosen.length === 0)
    throw new InputError({ file: extract.name, says: 'no variable would go out; choose some' });
  const names = chosen.map(({ name }) => calledIn(inspector, name));
  const twice = names.find((name, i) => names.indexOf(name) !== i);
  if (twice !== undefined)
    throw new InputError({
      file: extract.name,
      says: `two variables would go out under the name ${twice}; call one of them otherwise`,
    });
  const going = new Set(chosen.map(({ name }) => name));
  return {
    name: fileName(extract.name),
    title: extract.codebooks.find(({ title }) => title)?.title ?? extract.name,
    variables: chosen.map((inspected) => ({
      name: calledIn(inspector, inspected.name),
      storage: inspected.written.storage,
      ...cellsOf(inspector, inspected, ask),
      entry: entryLeaving(inspector, inspected, going, ask),
      inspected,
    })),
    groups: groupsOf(inspector, going),
    rows: { count: rowCounts.kept, each: () => rowsOf(extract.rows, within) },
    wentAlong,
    leftOut,
  };
}

/** A name that every file system takes: a person may call an extract anything. */
const fileName = (name: string): string =>
  [...name]
    .map((sign) => (sign < ' ' || '\\/:*?"<>|'.includes(sign) ? '_' : sign))
    .join('')
    .replace(/^\.+|[. ]+$/g, '') || 'extract';

export const calledIn = ({ decided }: Inspector, name: string): string =>
  decided.called.get(name)?.name ?? name;

function* rowsOf(rows: number, within: Bits | null): Generator<number> {
  for (let row = 0; row < rows; row++) if (within === null || has(within, row)) yield row;
}

/** How cells of a variable are written: each distinct text once. */
function cellsOf(
  inspector: Inspector,
  inspected: Inspected,
  ask: LeavingAsk,
): Pick<LeavingVariable, 'spreadsheetText' | 'lift'> {
  const { name, places } = inspected;
  const variable = inspector.extract.variables.find((one) => one.name === name);
  if (!variable) throw new Error(`no column ${name}`);
  const merges = inspector.decided.merges.get(name);
  const byText = new Map<string, Level>();
  for (const level of places.levels) for (const text of spellingsOf(level)) byText.set(text, level);
  const out = (text: string): string => {
    const level = byText.get(text);
    if (!level) return text;
    const isMissing = level.standing === 'missing' || level.standing === 'not-asked';
    if (ask.missing === 'blank' && isMissing) return '';
    // What counts for another code goes out as that, and a point that a file implies is written; everything else to the letter.
    const whole = variable.implied && level.value !== null ? String(level.value) : text;
    const made = merges && isMerged(text, merges) ? level.code : whole;
    return ask.cells === 'labels' && level.label !== null ? level.label : made;
  };
  // A number runs nowhere, however it is written: nor does what counts as one here.
  const isNumber = (text: string): boolean => {
    const level = byText.get(text);
    return isNumericStorage(inspected.written.storage) && level !== undefined && level.value !== null;
  };
  const { column } = variable;
  return {
    lift: (of) => column.lift((text) => of(out(text))),
    spreadsheetText: column.lift((text) => {
      const shown = out(text);
      return ask.harmless && !(isNumber(text) && shown !== byText.get(text)?.label) ? harmless(shown) : shown;
    }),
  };
}

/** Whether a text, or what it is by number, counts for another. */
function isMerged(text: string, merges: ReadonlyMap<string, string>): boolean {
  const trimmed = text.trim();
  if (merges.has(text) || merges.has(trimmed)) return true;
  const value = trimmed === '' ? NaN : Number(trimmed);
  return (
    Number.isFinite(value) && [...merges.keys()].some((from) => from.trim() !== '' && Number(from) === value)
  );
}

/** What is known of a variable, as rulings leave it, under the names that go out. */
function entryLeaving(
  inspector: Inspector,
  inspected: Inspected,
  going: ReadonlySet<string>,
  ask: LeavingAsk,
): CodebookEntry {
  const { name, kind, role, entry, label, levels } = inspected;
  const { decided } = inspector;
  const blanked = ask.missing === 'blank';
  const listed = new Map<string, CodebookEntry['categories'][number]>();
  for (const level of levels.levels) {
    const isMissing = level.standing === 'missing' || level.standing === 'not-asked';
    if (level.standing === 'unreadable' || (level.label === null && !isMissing)) continue;
    if (blanked && isMissing) continue;
    listed.set(level.code, {
      code: level.code,
      label: level.label,
      missing: isMissing,
      reason: isMissing ? (level.standing === 'not-asked' ? 'not-asked' : (level.reason ?? 'other')) : null,
      frequency: isCategorical(kind) || level.label !== null ? level.count : null,
    });
  }
  const merges = decided.merges.get(name);
  // Codes that no row holds are told too, unless they count for others.
  for (const category of entry?.categories ?? [])
    if (!listed.has(category.code) && !merges?.has(category.code) && !(blanked && category.missing)) {
      const known = decided.labels.get(name)?.get(category.code);
      listed.set(category.code, { ...category, label: known ?? category.label, frequency: 0 });
    }
  const order = decided.orders.get(name);
  const gate = decided.universes.get(name);
  const gated = gate && [gate.by, ...(gate.steps ?? []).map(({ by }) => by)].every((by) => going.has(by));
  // Where labels are written, what the archive says of codes is of other cells.
  const archive = ask.cells === 'codes' ? archiveOf(inspector, name) : undefined;
  const handed = {
    ...(archive === undefined ? {} : { archive }),
    ...(inspected.confirmed ? { kind } : {}),
    ...(decided.roles.has(name) ? { role } : {}),
    ...(order && ask.cells === 'codes' ? { order: [...order] } : {}),
    ...(gate && gated
      ? {
          gate: {
            ...(gate.steps
              ? { steps: gate.steps.map((step) => ({ ...step, by: calledIn(inspector, step.by) })) }
              : {}),
            by: calledIn(inspector, gate.by),
            shut: gate.shut,
          },
        }
      : {}),
  };
  const note = decided.notes.get(name);
  return {
    name: calledIn(inspector, name),
    label,
    question: entry?.question ?? null,
    universe: entry?.universe ?? null,
    units: entry?.units ?? null,
    notes: [...(entry?.notes ?? []), ...(note ? [note] : [])],
    categories: asWritten(inOrder([...listed.values()], inspected, order), ask),
    validRanges: entry?.validRanges ?? [],
    missingRanges: blanked ? [] : (entry?.missingRanges ?? []),
    missingTexts: blanked ? [] : (entry?.missingTexts ?? []),
    interval: entry?.interval ?? (inspected.confirmed ? intervalOf(kind) : null),
    isWeight: entry?.isWeight ?? role === 'weight',
    storage: entry?.storage ?? null,
    nature: entry?.nature ?? null,
    location: null,
    decimals: null,
    published: {},
    ...(Object.keys(handed).length ? { handed } : {}),
  };
}

/** What the archive itself says of a variable, without what an earlier handoff carried of it; none of a trial recode. */
function archiveOf(inspector: Inspector, name: string): CodebookEntry | null | undefined {
  const variable = inspector.received.variables.find((one) => one.name === name);
  if (!variable) return undefined;
  if (!variable.entry?.handed) return variable.entry;
  const { archive: _, ...handed } = variable.entry.handed;
  return { ...variable.entry, handed };
}

/** Where labels are written instead of codes, labels are the codes. */
function asWritten(
  categories: CodebookEntry['categories'],
  { cells }: LeavingAsk,
): CodebookEntry['categories'] {
  if (cells === 'codes') return categories;
  const written = new Map<string, CodebookEntry['categories'][number]>();
  for (const one of categories) {
    const code = one.label ?? one.code;
    const known = written.get(code);
    written.set(
      code,
      known
        ? { ...known, frequency: (known.frequency ?? 0) + (one.frequency ?? 0) }
        : { ...one, code, label: code },
    );
  }
  return [...written.values()];
}

const intervalOf = (kind: Inspected['kind']): CodebookEntry['interval'] =>
  kind === 'continuous' ? 'continuous' : isMeasure(kind) || isCategorical(kind) ? 'discrete' : null;

function inOrder(
  categories: CodebookEntry['categories'],
  { base }: Inspected,
  order: readonly string[] | undefined,
): CodebookEntry['categories'] {
  const place = new Map((order ?? base.levels.map(({ code }) => code)).map((code, i) => [code, i]));
  const rank = ({ code }: { code: string }): number =>
    place.get(code) ?? (Number.isFinite(Number(code)) ? place.size + Number(code) / 1e12 : place.size + 1);
  return [...categories].sort((a, b) => Number(a.missing) - Number(b.missing) || rank(a) - rank(b));
}

/** Sets that a person made, else the archive's own groups. */
function groupsOf(inspector: Inspector, going: ReadonlySet<string>): CodebookGroup[] {
  const { sets } = inspector;
  const named = (names: readonly string[]): string[] =>
    names.filter((name) => going.has(name)).map((name) => calledIn(inspector, name));
  const groups: CodebookGroup[] = sets.size
    ? [...sets.values()].map((set) => ({
        name: set.name,
        variables: named(membersOf(sets, set.id)),
        within: set.within === null || set.within === undefined ? null : (sets.get(set.within)?.name ?? null),
      }))
    : inspector.extract.codebooks.flatMap(({ groups: own }) =>
        own.map((group) => ({ ...group, variables: named(group.variables) })),
      );
  return groups.filter(({ variables }) => variables.length > 0);
}
