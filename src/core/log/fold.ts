import type { KeptTable } from '../cross/kept-table';
import type { RowName } from '../extract/row-names';
import type { Kind, Reason, Role } from '../extract/words';
import type { ThematicSet } from '../sets/view';
import { layOnSets, type Grouping } from './sets';
import type { Universe } from '../flags/between/universe';
import type { Entry } from './entries';
import type { NamesById } from './entry-text';
import type { Recode } from '../recode/recode';
import type { Sieve } from '../sieve/condition';
import { isRowEntry, layOnRows, type Changes, type Correction, type AddedRow } from './changes';

/** The present state of all decisions: a pure fold of the log, to be laid over the received extract. */
export interface State {
  /** Kinds that a person confirmed. */
  kinds: ReadonlyMap<string, Kind>;
  /** Codes declared missing, by variable. */
  missing: ReadonlyMap<string, readonly { code: string; reason: Reason }[]>;
  /** Labels that a person gave to codes, by variable and code. */
  labels: ReadonlyMap<string, ReadonlyMap<string, string>>;
  /** Codes kept as valid, by variable and rule; what is about no variable stands under the empty name. */
  kept: ReadonlyMap<string, ReadonlyMap<string, ReadonlySet<string>>>;
  /** Codes that count for another, by variable: from the one to the other. */
  merges: ReadonlyMap<string, ReadonlyMap<string, string>>;
  /** Rows that count nowhere, as they were named; an extract knows where they stand. */
  aside: readonly RowName[];
  /** Cells that count for what a person wrote. */
  corrections: readonly Correction[];
  /** Rows that a person added, behind all that were received. */
  added: readonly AddedRow[];
  /** Trial recodes by their names, in the order in which they were made. */
  recodes: ReadonlyMap<string, Recode>;
  /** Cross-checks that are kept for the report, by their ids. */
  tables: ReadonlyMap<string, KeptTable>;
  sieves: ReadonlyMap<string, Sieve>;
  /** The sieve in force. */
  sieve: string | null;
  roles: ReadonlyMap<string, Role>;
  /** Who was not asked, by variable. */
  universes: ReadonlyMap<string, Universe>;
  signedOff: ReadonlySet<string>;
  notes: ReadonlyMap<string, string>;
  /** Names and labels that a person gave to variables. */
  called: ReadonlyMap<string, { name: string | null; label: string | null }>;
  /** Codes in the order that a person gave them, lowest first. */
  orders: ReadonlyMap<string, readonly string[]>;
  /** The variable by which rows are weighted. */
  weight: string | null;
  sets: ReadonlyMap<string, ThematicSet>;
  shown: ReadonlySet<string>;
  /** Whether what identifies, weighs and places rows is in view whatever sets are. */
  always: boolean;
  /** Variables of each proposal that was sent away. */
  sentAway: readonly (readonly string[])[];
}

/** How the log calls its sets and sieves. */
export const namesIn = ({ sets, sieves }: Pick<State, 'sets' | 'sieves'>): NamesById => ({
  set: (id) => sets.get(id)?.name ?? 'a set',
  sieve: (id) => sieves.get(id)?.name ?? '',
});

/** The entries that are in force: neither undone nor an undo. */
export function inForce(log: readonly Entry[]): Entry[] {
  const undone = new Set<string>();
  const kept: Entry[] = [];
  // From the end: an undo counts unless a later undo took it back.
  for (const entry of [...log].reverse()) {
    if (undone.has(entry.id)) continue;
    if (entry.type === 'undo') undone.add(entry.entry);
    else kept.push(entry);
  }
  return kept.reverse();
}

export function foldLog(log: readonly Entry[]): State {
  const kinds = new Map<string, Kind>();
  const missing = new Map<string, { code: string; reason: Reason }[]>();
  const labels = new Map<string, Map<string, string>>();
  const kept = new Map<string, Map<string, Set<string>>>();
  const merges = new Map<string, Map<string, string>>();
  const roles = new Map<string, Role>();
  const universes = new Map<string, Universe>();
  const signedOff = new Set<string>();
  const notes = new Map<string, string>();
  const called = new Map<string, { name: string | null; label: string | null }>();
  const orders = new Map<string, string[]>();
  const grouping: Grouping = { sets: new Map(), shown: [], always: false, sentAway: [] };
  const changes: Changes = {
    aside: [],
    corrections: new Map(),
    added: [],
    recodes: new Map(),
    tables: new Map(),
    sieves: new Map(),
    sieve: null,
  };
  let weight: string | null = null;
  for (const entry of inForce(log)) {
    switch (entry.type) {
      case 'confirm-kind':
        for (const { variable, kind } of entry.kinds) kinds.set(variable, kind);
        break;
      case 'declare-missing':
        for (const variable of entry.variables) {
          const codes = new Set(entry.codes.map(({ code }) => code));
          missing.set(variable, [
            ...(missing.get(variable) ?? []).filter(({ code }) => !codes.has(code)),
            ...entry.codes,
          ]);
        }
        break;
      case 'label-codes':
        for (const variable of entry.variables) {
          labels.set(
            variable,
            new Map([
              ...(labels.get(variable) ?? []),
              ...entry.labels.map(({ code, label }) => [code, label] as const),
            ]),
          );
        }
        break;
      case 'keep-valid':
        keepCodes(kept, entry);
        break;
      case 'merge-codes':
        for (const variable of entry.variables) merges.set(variable, mergedBy(merges.get(variable), entry));
        break;
      case 'confirm-role':
        for (const { variable, role } of entry.roles) roles.set(variable, role);
        break;
      case 'accept-universe':
        universes.set(entry.variable, { by: entry.by, shut: entry.shut, steps: entry.steps });
        break;
      case 'ask-archive':
        keepCodes(kept, entry);
        break;
      case 'sign-off':
        for (const variable of entry.variables) {
          if (entry.done) signedOff.add(variable);
          else signedOff.delete(variable);
        }
        break;
      case 'note':
        if (entry.text) notes.set(entry.variable, entry.text);
        else notes.delete(entry.variable);
        break;
      case 'rename':
        if (entry.name === null && entry.label === null) called.delete(entry.variable);
        else called.set(entry.variable, { name: entry.name, label: entry.label });
        break;
      case 'order-codes':
        for (const variable of entry.variables) orders.set(variable, entry.codes);
        break;
      case 'weigh':
        weight = entry.by;
        break;
      case 'undo':
        break;
      default:
        if (isRowEntry(entry)) layOnRows(changes, entry);
        else layOnSets(grouping, entry);
    }
  }
  const { sets, shown, always, sentAway } = grouping;
  // A set that was taken back after it was put in view is in view no more.
  return {
    kinds,
    missing,
    labels,
    kept,
    merges,
    aside: changes.aside,
    corrections: [...changes.corrections.values()],
    added: changes.added,
    recodes: changes.recodes,
    tables: changes.tables,
    sieves: changes.sieves,
    // A sieve that was taken back after it was put in force is in force no more.
    sieve: changes.sieve !== null && changes.sieves.has(changes.sieve) ? changes.sieve : null,
    roles,
    universes,
    signedOff,
    notes,
    called,
    orders,
    weight,
    sets,
    shown: new Set(shown.filter((id) => sets.has(id))),
    always,
    sentAway,
  };
}

/** Codes kept as valid under a rule join those that were. */
function keepCodes(
  kept: Map<string, Map<string, Set<string>>>,
  { variables, rule, codes }: { variables: readonly string[]; rule: string; codes: readonly string[] },
): void {
  for (const variable of variables.length ? variables : ['']) {
    const rules = kept.get(variable) ?? new Map<string, Set<string>>();
    rules.set(rule, new Set([...(rules.get(rule) ?? []), ...codes]));
    kept.set(variable, rules);
  }
}

/** What counts for what in a variable, once an entry is laid over what did before. */
function mergedBy(
  before: ReadonlyMap<string, string> | undefined,
  entry: { codes: readonly string[]; into: string },
): Map<string, string> {
  const into = new Map(before ?? []);
  for (const code of entry.codes)
    if (code !== entry.into) {
      // The later word counts: what led back to the code that goes leads there no more.
      if (leadsTo(into, entry.into, code)) into.delete(entry.into);
      into.set(code, entry.into);
    }
  return into;
}

/** Whether codes that count for others lead from one to another. They never go in a circle. */
function leadsTo(merges: ReadonlyMap<string, string>, from: string, to: string): boolean {
  let at: string | undefined = from;
  while (at !== undefined && at !== to) at = merges.get(at);
  return at === to;
}

/** The last entry that can be taken back: in force, and no undo. */
export function lastInForce(log: readonly Entry[]): Entry | null {
  return inForce(log).at(-1) ?? null;
}

/** Variables whose counts, kind, labels or order differ between two states. */
export function touched(before: State, after: State): Set<string> {
  const parts = [before, after].map(
    ({ kinds, missing, labels, called, orders, merges, roles, universes }) =>
      [kinds, missing, labels, called, orders, merges, roles, universes] as const,
  );
  const names = new Set(parts.flatMap((maps) => maps.flatMap((map) => [...map.keys()])));
  const same = (name: string): boolean =>
    parts[0].every((map, i) => written(map.get(name)) === written(parts[1][i].get(name)));
  return new Set([...names].filter((name) => !same(name)));
}

const written = (value: unknown): string =>
  JSON.stringify(value instanceof Map ? [...(value as Map<string, string>)] : (value ?? null));
