import * as z from 'zod';
import { InputError } from '../extract/problem';
import { atPlace } from '../extract/row-names';
import { LOG_VERSION, logSchema, type DigLog, type Entry } from './entries';
import { entryText } from './entry-text';

type Bag = Record<string, unknown>;
const isBag = (value: unknown): value is Bag =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * An entry of any version as the present one writes it; what is no entry at all is given back as it is.
 *
 * Version 1 named rows by nothing but their zero-based place in the whole extract: `[7]` becomes a row known by place alone.
 * Version 3 says more of sets than 2 did, 4 more of rows, cells and sieves, 5 keeps tables, and 6 counts rows again; what was said before stays as it is.
 */
export function migrateEntry(entry: unknown): unknown {
  if (!isBag(entry) || entry.type !== 'set-aside' || !Array.isArray(entry.rows)) return entry;
  return {
    ...entry,
    rows: entry.rows.map((row: unknown) => (typeof row === 'number' ? atPlace(row) : row)),
  };
}

/** A log of any version as the present one writes it. */
function migrateLog(log: unknown): unknown {
  if (!isBag(log) || ![1, 2, 3, 4, 5].includes(log.version as number) || !Array.isArray(log.entries))
    return log;
  return {
    ...log,
    version: LOG_VERSION,
    entries: log.version === 1 ? log.entries.map(migrateEntry) : log.entries,
  };
}

/** Reads a log of any version that there was. */
export const anyLogSchema: z.ZodType<DigLog> = z.preprocess(migrateLog, logSchema);

/** A log as it was found. @throws InputError with the file and the element where it is none */
export function digLogOf(file: string, found: unknown): DigLog {
  const read = anyLogSchema.safeParse(found);
  if (read.success) return read.data;
  const [{ path, message }] = read.error.issues;
  throw new InputError({
    file,
    element: path.join('.') || undefined,
    says: `this is no dig log that is known here (${message}); give one that a handoff saved`,
  });
}

/**
 * The entries of a log that can be laid over an extract of a certain name. Rows known by their place alone are the same
 * observations only in the extract that the log was made on.
 */
export function fittingPlaces(
  log: DigLog,
  extract: string,
): { entries: Entry[]; misfits: { entry: Entry; says: string }[] } {
  if (log.extract === extract) return { entries: log.entries, misfits: [] };
  const misfits: { entry: Entry; says: string }[] = [];
  const entries = log.entries.flatMap((entry): Entry[] => {
    if (entry.type !== 'set-aside') return [entry];
    const rows = entry.rows.filter(({ file, added }) => file !== null || added !== undefined);
    if (rows.length === entry.rows.length) return [entry];
    misfits.push({
      entry,
      says: `an earlier version named rows by their place alone, in ${log.extract}; set them aside anew`,
    });
    return rows.length ? [{ ...entry, rows }] : [];
  });
  return { entries, misfits };
}

/** What does not fit, in one line. */
export const misfitText = ({ entry, says }: { entry: Entry; says: string }): string =>
  `did not fit: ${entryText(entry)} (${says})`;
