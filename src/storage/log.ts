import * as z from 'zod';
import { entrySchema, type Entry } from '../core/log/entries';
import { migrateEntry } from '../core/log/migrate';
import { mustBeKept } from './records';
import { alone } from './locks';
import { keysOf, stores } from './stores';

/**
 * The log of an extract as batches of entries, each in a place of its own. A place is written once and never again, by
 * whichever window comes first, so that all windows have the entries in one order: that of the places.
 */
const batchSchema = z.object({ version: z.literal(2), entries: z.array(z.unknown()) });

const keyOf = (id: string, place: number): string => `${id}:${String(place).padStart(8, '0')}`;
const placeOf = (id: string, key: string): number => Number.parseInt(key.slice(id.length + 1), 10);

/** What a place holds. @param entries those that can be read @param apart those that cannot */
interface Batch {
  entries: Entry[];
  apart: unknown[];
}

function readBatch(value: unknown): Batch {
  const batch = batchSchema.safeParse(value);
  // Before there were batches each place held one entry.
  const all = batch.success ? batch.data.entries : [value];
  const entries: Entry[] = [];
  const apart: unknown[] = [];
  for (const one of all) {
    const entry = entrySchema.safeParse(migrateEntry(one));
    if (entry.success) entries.push(entry.data);
    else apart.push(one);
  }
  return { entries, apart };
}

/**
 * Keeps entries behind all others, in one write.
 * @param next the first place that this window knows nothing of
 * @returns what other windows wrote from there on, and the first place behind what was written now
 * @throws GoneError where the extract is not kept any more
 */
export function appendEntries(
  id: string,
  entries: readonly Entry[],
  next: number,
): Promise<{ others: Entry[]; next: number }> {
  return alone(`log:${id}`, async () => {
    const others: Entry[] = [];
    let place = next;
    // Both at once: each answer waits for its turn among all else that the page does.
    let [taken] = await Promise.all([stores.log.getItem<unknown>(keyOf(id, place)), mustBeKept(id)]);
    while (taken !== null) {
      others.push(...readBatch(taken).entries);
      taken = await stores.log.getItem<unknown>(keyOf(id, ++place));
    }
    if (entries.length === 0) return { others, next: place };
    await stores.log.setItem(keyOf(id, place), { version: 2, entries: [...entries] });
    return { others, next: place + 1 };
  });
}

/** The log of an extract in order. What cannot be read stays where it is and is given apart. */
export async function openLog(id: string): Promise<{ entries: Entry[]; next: number; apart: unknown[] }> {
  const keys = (await keysOf(stores.log, id)).sort();
  const seen = new Set<string>();
  const entries: Entry[] = [];
  const apart: unknown[] = [];
  for (const key of keys) {
    const batch = readBatch(await stores.log.getItem(key));
    apart.push(...batch.apart);
    // An entry whose writing was tried again may be there twice.
    for (const entry of batch.entries) if (!seen.has(entry.id)) entries.push(entry);
    for (const entry of batch.entries) seen.add(entry.id);
  }
  return { entries, apart, next: keys.reduce((most, key) => Math.max(most, placeOf(id, key) + 1), 0) };
}
