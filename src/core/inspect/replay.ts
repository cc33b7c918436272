import type { Entry } from '../log/entries';
import { entryText } from '../log/entry-text';
import { foldLog, inForce, namesIn } from '../log/fold';
import { sizeOf } from '../extract/bits';
import { rowText, type RowName } from '../extract/row-names';
import { variablesOf } from '../sieve/condition';
import { misfitOf, siftAll, unheld } from '../sieve/sift';
import type { Inspector } from './inspect';

/** A ruling of a log as it stands over another extract. */
export interface Replayed {
  /** Id of the entry. */
  entry: string;
  says: string;
  /** Why it does not fit, or what is another here; `null` where it fits as it is. */
  why: string | null;
  /** Rows that it bears on here; `null` where it is about no rows. */
  rows: number | null;
}

/** What an earlier log comes to over an extract. */
export interface Replay {
  fits: Replayed[];
  /** What fits, and stands over something that is another here: a kind, a label, a code. */
  changed: Replayed[];
  misfits: Replayed[];
}

/** Holds each entry in force against the extract, over which they must be laid. Undone entries are none. */
export function replayOf(log: readonly Entry[], inspector: Inspector): Replay {
  const names = namesIn(foldLog(log));
  const replay: Replay = { fits: [], changed: [], misfits: [] };
  for (const entry of inForce(log)) {
    const line = (why: string | null): Replayed => ({
      entry: entry.id,
      says: entryText(entry, names),
      why,
      rows: rowsOn(entry, inspector),
    });
    const { gone, all } = goneIn(entry, inspector);
    const unruled = unheldIn(entry, inspector);
    const rows = rowsIn(entry, inspector);
    const lacks = [
      ...(gone.length ? [`there is no ${gone.join(', ')} here`] : []),
      ...(unruled.codes.length ? [`no row holds ${unruled.codes.join(', ')}`] : []),
      ...rows.says,
      ...(gone.length ? [] : unfit(entry, inspector)),
    ];
    const nothingLeft =
      (all > 0 && gone.length === all) ||
      unruled.all ||
      rows.all ||
      gateGone(entry, gone) ||
      (gone.length === 0 && unfit(entry, inspector).length > 0);
    if (lacks.length && nothingLeft) replay.misfits.push(line(lacks.join('; ')));
    else {
      const others = [...lacks, ...othersIn(entry, inspector)];
      if (others.length) replay.changed.push(line(others.join('; ')));
      else replay.fits.push(line(null));
    }
  }
  return replay;
}

/** Variables that an entry is about. */
function aboutIn(entry: Entry): string[] {
  if (entry.type === 'make-sets') return entry.sets.flatMap(({ variables }) => variables);
  if (entry.type === 'confirm-kind') return entry.kinds.map(({ variable }) => variable);
  if (entry.type === 'confirm-role') return entry.roles.map(({ variable }) => variable);
  if (entry.type === 'make-recode') return [entry.recode.of];
  if (entry.type === 'make-sieve' || entry.type === 'change-sieve')
    return entry.parts.flatMap(({ condition }) => variablesOf(condition));
  if (entry.type === 'correct-cells') return entry.cells.map(({ variable }) => variable);
  if (entry.type === 'keep-table')
    return [entry.asked.down, entry.asked.across, entry.asked.within, entry.asked.measure].filter(
      (one) => one !== null,
    );
  if (entry.type === 'weigh') return entry.by === null ? [] : [entry.by];
  if ('variables' in entry) return entry.variables;
  return 'variable' in entry ? [entry.variable] : [];
}

const gatesIn = (entry: Entry): string[] =>
  entry.type === 'accept-universe' ? [entry.by, ...(entry.steps ?? []).map(({ by }) => by)] : [];

/** Without its gate a universe says nothing, and a table or a sieve is another without one of its variables. */
const gateGone = (entry: Entry, gone: readonly string[]): boolean =>
  gatesIn(entry).some((name) => gone.includes(name)) ||
  (['keep-table', 'make-sieve', 'change-sieve'].includes(entry.type) && gone.length > 0);

/** Why a recode cannot be made, or a condition not be held against the rows. */
function unfit(entry: Entry, inspector: Inspector): string[] {
  if (entry.type === 'make-recode') {
    const { name } = entry.recode;
    return inspector.trialMisfits
      .filter((says) => says.startsWith(`trial recode ${name} `))
      .map((says) => says.slice(says.indexOf(': ') + 2));
  }
  if (entry.type !== 'make-sieve' && entry.type !== 'change-sieve') return [];
  return entry.parts.flatMap(({ condition }) => misfitOf(condition, inspector.lookup) ?? []);
}

/** Rows of the extract that an entry bears on. */
function rowsOn(entry: Entry, inspector: Inspector): number | null {
  const { extract } = inspector;
  switch (entry.type) {
    case 'declare-missing':
      return holding(
        entry.variables,
        entry.codes.map(({ code }) => code),
        inspector,
      );
    case 'label-codes':
      return holding(
        entry.variables,
        entry.labels.map(({ code }) => code),
        inspector,
      );
    case 'merge-codes':
      return holding(entry.variables, [...entry.codes, entry.into], inspector);
    case 'set-aside':
    case 'count-again':
      return entry.rows.length - lostOf(entry.rows, inspector).length;
    case 'correct-cells':
      return (
        entry.cells.length -
        lostOf(
          entry.cells.map(({ row }) => row),
          inspector,
        ).length
      );
    case 'make-sieve':
    case 'change-sieve': {
      const conditions = entry.parts.filter(({ on }) => on).map(({ condition }) => condition);
      if (conditions.some((one) => misfitOf(one, inspector.lookup) !== null)) return null;
      return sizeOf(siftAll(conditions, inspector.lookup, extract.rows, null).within);
    }
    case 'make-recode': {
      const made = inspector.wholly(entry.recode.name);
      return made?.trial === undefined ? null : made.counts.valid;
    }
    case 'accept-universe':
      return inspector.wholly(entry.variable)?.counts.notAsked ?? null;
    default:
      return null;
  }
}

/** Cells that hold one of some codes, in one variable rows. */
function holding(variables: readonly string[], codes: readonly string[], inspector: Inspector): number {
  let cells = 0;
  for (const name of variables)
    for (const { code, count, spellings } of inspector.wholly(name)?.levels.levels ?? [])
      if (codes.includes(code) || spellings.some((one) => codes.includes(one))) cells += count;
  return cells;
}

function goneIn(entry: Entry, inspector: Inspector): { gone: string[]; all: number } {
  const about = [...new Set([...aboutIn(entry), ...gatesIn(entry)])];
  return { gone: about.filter((name) => !inspector.wholly(name)), all: about.length };
}

/** Codes that an entry rules on and no row holds; `all` where it rules on no other. */
function unheldIn(entry: Entry, inspector: Inspector): { codes: string[]; all: boolean } {
  const ruled =
    entry.type === 'declare-missing'
      ? entry.codes.map(({ code }) => code)
      : entry.type === 'merge-codes'
        ? entry.codes
        : [];
  const there = aboutIn(entry).flatMap((name) => inspector.wholly(name) ?? []);
  if (there.length === 0) return { codes: [], all: false };
  const codes = ruled.filter((code) =>
    there.every(
      ({ base }) => !base.levels.some((level) => level.code === code || level.spellings.includes(code)),
    ),
  );
  return { codes, all: ruled.length > 0 && codes.length === ruled.length };
}

/** Rows that an entry names and that are not there. */
function rowsIn(entry: Entry, inspector: Inspector): { says: string[]; all: boolean } {
  if (entry.type !== 'set-aside' && entry.type !== 'correct-cells') return { says: [], all: false };
  const rows = entry.type === 'set-aside' ? entry.rows : entry.cells.map(({ row }) => row);
  const named = new Set(rows.map((row) => JSON.stringify(row)));
  const lost = lostOf(rows, inspector);
  const more = lost.length > 1 ? `, nor ${lost.length - 1} more` : '';
  return {
    says: lost.length ? [`${rowText(lost[0].name)} is not found${more}`] : [],
    all: lost.length > 0 && lost.length === named.size,
  };
}

/** Of rows that are named those that are not found. */
function lostOf(rows: readonly RowName[], inspector: Inspector): { name: RowName }[] {
  const named = new Set(rows.map((row) => JSON.stringify(row)));
  return inspector.misfits.filter(({ name, row }) => row === null && named.has(JSON.stringify(name)));
}

/** What is another in this extract than the entry has it. */
function othersIn(entry: Entry, inspector: Inspector): string[] {
  switch (entry.type) {
    case 'confirm-kind':
      return entry.kinds.flatMap(({ variable, kind }) => {
        const found = inspector.wholly(variable);
        return found && found.presumed !== kind ? [`${variable} would be presumed ${found.presumed}`] : [];
      });
    case 'label-codes':
      return entry.variables.flatMap((name) => {
        const categories = inspector.wholly(name)?.entry?.categories ?? [];
        const own =
          inspector.extract.variables.find((one) => one.name === name)?.entry?.categories ?? categories;
        const unlabelled = (inspector.wholly(name)?.levels.levels ?? []).filter(
          ({ standing, label, value }) => standing === 'valid' && label === null && value !== null,
        );
        const fresh =
          unlabelled.length > 0 && unlabelled.length < entry.labels.length
            ? [`${name} holds ${listed(unlabelled.map(({ code }) => code))} besides, without a label`]
            : [];
        return fresh.concat(
          entry.labels.flatMap(({ code, label }) => {
            const archive = own.find((one) => one.code === code)?.label ?? null;
            return archive !== null && archive !== label
              ? [`${name}: the codebook calls ${code} “${archive}”`]
              : [];
          }),
        );
      });
    case 'order-codes':
      return entry.variables.flatMap((name) => {
        const more = (inspector.wholly(name)?.levels.levels ?? []).filter(
          ({ code, standing }) => standing === 'valid' && !entry.codes.includes(code),
        );
        return more.length ? [`${name} holds ${listed(more.map(({ code }) => code))} besides`] : [];
      });
    case 'make-sieve':
    case 'change-sieve':
      return entry.parts.flatMap(({ condition }) =>
        unheld(condition, inspector.lookup).map(
          ({ variable, code }) => `no row holds ${code} in ${variable}`,
        ),
      );
    default:
      return [];
  }
}

const listed = (codes: readonly string[]): string =>
  `${codes.slice(0, 6).join(', ')}${codes.length > 6 ? ` and ${codes.length - 6} more` : ''}`;
