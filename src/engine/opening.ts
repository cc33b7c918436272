import { openKept } from '../storage/extracts';
import { InputError } from '../core/extract/problem';
import { fileStarts } from '../core/extract/files';
import type { Extract } from '../core/extract/extract';
import type { Inspector } from '../core/inspect/inspect';
import { toldFlag } from '../core/flags/rule';
import type { Entry } from '../core/log/entries';
import type { Opened, OpenedFile, Standing, Tell } from './protocol';

/** Milliseconds between two reports of long work. */
const BETWEEN_REPORTS = 100;

/**
 * Gets to know all variables and looks for flags, with progress.
 * @param breathe throws where it is to stop @param flagsNow else they are looked for when they are asked for
 */
export async function prepared(
  inspector: Inspector,
  tell: Tell,
  breathe: () => Promise<void>,
  flagsNow = true,
): Promise<void> {
  await known(inspector, 'Getting to know the variables', tell, breathe);
  if (!flagsNow) return;
  await stepping(inspector, 'Looking for suspicious codes', inspector.raise(), tell, breathe);
}

/** Gets to know all variables, with progress. @param breathe throws where it is to stop */
export const known = (
  inspector: Inspector,
  says: string,
  tell: Tell,
  breathe: () => Promise<void>,
): Promise<void> => stepping(inspector, says, inspector.prepare(), tell, breathe);

/** Long work variable by variable. @param steps how many are done */
async function stepping(
  { extract: { rows, variables } }: Inspector,
  says: string,
  steps: Generator<number>,
  tell: Tell,
  breathe: () => Promise<void>,
): Promise<void> {
  let told = performance.now();
  // Said before the first step is taken, which may be a long one.
  tell({ says, done: 0, whole: variables.length, rows });
  await breathe();
  for (const done of steps) {
    if (performance.now() - told < BETWEEN_REPORTS) continue;
    told = performance.now();
    tell({ says, done, whole: variables.length, rows });
    await breathe();
  }
}

/** What the interface shows of an open extract without asking further. @param flagsNow else they are asked for afterwards */
export function openedOf(
  inspector: Inspector,
  log: Entry[],
  serial: number,
  proposals: Opened['proposals'] = null,
  flagsNow = true,
): Opened {
  const { extract } = inspector;
  const { calledBy } = inspector;
  const tells = calledBy ?? extract.variables[0]?.name ?? null;
  return {
    ...standingOf(inspector, log, flagsNow),
    serial,
    log,
    name: extract.name,
    rows: extract.pass?.rows ?? extract.rows,
    pass: extract.pass ? { rows: extract.pass.rows, held: extract.rows } : null,
    files: filesOf(extract, tells),
    database: extract.database
      ? {
          at: extract.database.at,
          ...(extract.database.table === undefined ? {} : { table: extract.database.table }),
          ...(extract.database.query === undefined ? {} : { query: extract.database.query }),
        }
      : null,
    codebooks: extract.codebooks.map(({ name, form, title, entries }) => ({
      name,
      form,
      title,
      variables: entries.length,
    })),
    part: extract.part ?? null,
    marks: extract.marks ?? null,
    wave: extract.wave ?? null,
    calledBy,
    tells,
    summaries: inspector.summaries(),
    proposals,
    stands: [],
    earlier: null,
  };
}

function filesOf(extract: Extract, tells: string | null): OpenedFile[] {
  const column = extract.variables.find(({ name }) => name === tells)?.column;
  const starts = fileStarts(extract.files);
  return extract.files.map((file, i) => ({
    ...file,
    rows: file.read ?? file.rows,
    names: [],
    lines: undefined,
    first: file.rows ? (column?.text(starts[i]) ?? '') : '',
    last: file.rows ? (column?.text(starts[i + 1] - 1) ?? '') : '',
  }));
}

/** What the log that is laid comes to as a whole. */
export const standingOf = (inspector: Inspector, log: readonly Entry[], flagsNow = true): Standing => ({
  version: log.length,
  flags: flagsNow ? inspector.flags.map(toldFlag) : null,
  aside: [...inspector.setAside],
  notices: inspector.notices,
  counts: inspector.rowCounts,
  sieve: inspector.account,
  countedAll: inspector.isCountedAll,
});

/** A log whose rows that an earlier version knew by place alone are named, by the extract in which they have that place. */
export function withNamedRows(inspector: Inspector, log: readonly Entry[]): Entry[] {
  const { received: extract } = inspector;
  return log.map((entry): Entry => {
    if (entry.type !== 'set-aside' || entry.rows.every(({ file }) => file !== null)) return entry;
    const rows = entry.rows.flatMap((name) =>
      name.file !== null || name.added !== undefined || name.row >= extract.rows
        ? [name]
        : inspector.nameRows([name.row]),
    );
    return { ...entry, rows };
  });
}

/** An extract that the browser keeps. @throws InputError in words */
export const keptExtract = (id: string): Promise<Extract> =>
  openKept(id).catch((cause: unknown) => {
    const { message } = cause as Error;
    const says = message.startsWith('its rows stay')
      ? `is not opened: ${message}, and its rulings are laid`
      : `cannot be opened: ${message}; remove it at the intake and read its files again`;
    throw new InputError({ file: 'the kept extract', says });
  });

/** @throws InputError where only a sample of an extract's rows is held @param says what that prevents, and what now */
export function mustHoldAll({ name, rows, pass }: Extract, says: string): void {
  if (pass)
    throw new InputError({
      file: name,
      says: `only a sample of ${rows} of its ${pass.rows} rows is held, so ${says}, or read it with all rows held`,
    });
}
