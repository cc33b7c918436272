import type { Entry } from '../log/entries';
import { entryText } from '../log/entry-text';
import { foldLog, inForce, namesIn } from '../log/fold';
import { rowText } from '../extract/row-names';
import type { Inspector } from './inspect';

/** A ruling of a log as it stands over another extract. */
export interface Replayed {
  /** Id of the entry. */
  entry: string;
  says: string;
  /** Why it does not fit, or what is another here; `null` where it fits as it is. */
  why: string | null;
}

/** What an earlier log comes to over an extract. */
export interface Replay {
  fits: Replayed[];
  /** What fits, and stands over something that is another here: a kind, a label, a code. */
  changed: Replayed[];
  misfits: Replayed[];
}

/** Holds each entry in force against the extract that it is laid over. Undone entries are none. */
export function replayOf(log: readonly Entry[], inspector: Inspector): Replay {
  const names = namesIn(foldLog(log));
  const replay: Replay = { fits: [], changed: [], misfits: [] };
  for (const entry of inForce(log)) {
    const line = (why: string | null): Replayed => ({ entry: entry.id, says: entryText(entry, names), why });
    const { gone, all } = goneIn(entry, inspector);
    const unheld = unheldIn(entry, inspector);
    const rows = rowsIn(entry, inspector);
    const lacks = [
      ...(gone.length ? [`there is no ${gone.join(', ')} here`] : []),
      ...(unheld.codes.length ? [`no row holds ${unheld.codes.join(', ')}`] : []),
      ...rows.says,
    ];
    const nothingLeft = (all > 0 && gone.length === all) || unheld.all || rows.all || gateGone(entry, gone);
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

/** Without its gate a universe says nothing. */
const gateGone = (entry: Entry, gone: readonly string[]): boolean =>
  gatesIn(entry).some((name) => gone.includes(name)) || (entry.type === 'keep-table' && gone.length > 0);

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
  const named = new Set(
    (entry.type === 'set-aside' ? entry.rows : entry.cells.map(({ row }) => row)).map((row) =>
      JSON.stringify(row),
    ),
  );
  const lost = inspector.misfits.filter(({ name, row }) => row === null && named.has(JSON.stringify(name)));
  const more = lost.length > 1 ? `, nor ${lost.length - 1} more` : '';
  return {
    says: lost.length ? [`${rowText(lost[0].name)} is not found${more}`] : [],
    all: lost.length > 0 && lost.length === named.size,
  };
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
        return entry.labels.flatMap(({ code, label }) => {
          const archive = own.find((one) => one.code === code)?.label ?? null;
          return archive !== null && archive !== label
            ? [`${name}: the codebook calls ${code} “${archive}”`]
            : [];
        });
      });
    case 'order-codes':
      return entry.variables.flatMap((name) => {
        const more = (inspector.wholly(name)?.levels.levels ?? []).filter(
          ({ code, standing }) => standing === 'valid' && !entry.codes.includes(code),
        );
        return more.length
          ? [
              `${name} holds ${more
                .slice(0, 6)
                .map(({ code }) => code)
                .join(', ')} besides`,
            ]
          : [];
      });
    default:
      return [];
  }
}
