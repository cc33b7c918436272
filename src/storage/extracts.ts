import * as z from 'zod';
import type { Column } from '../core/extract/column';
import { bareEntry, type Extract } from '../core/extract/extract';
import { textArray } from '../core/extract/text-list';
import { fromBinary, sizeOf, toBinary, type BinaryColumn } from '../core/extract/binary-column';
import { digLog, type DigLog } from '../core/log/entries';
import { columnSchema } from './column-schema';
import { alone, isHeld } from './locks';
import { appendEntries, openLog } from './log';
import { mustBeKept, RECORD_VERSION, recordOf, type ExtractRecord, type Kept } from './records';
import { keysOf, stores } from './stores';

/** An extract without its columns, as it is kept. */
type Description = Omit<Extract, 'variables'> & { variables: Omit<Extract['variables'][number], 'column'>[] };
/** What must hold of a description before the rest of it is trusted, which only this program wrote. */
const descriptionSchema = z.looseObject({
  name: z.string(),
  rows: z.number(),
  files: z.array(z.looseObject({ name: z.string(), rows: z.number(), notices: z.array(z.unknown()) })),
  codebooks: z.array(
    z.looseObject({ name: z.string(), entries: z.array(z.looseObject({ name: z.string() })) }),
  ),
  notices: z.array(z.unknown()),
  variables: z.array(z.looseObject({ name: z.string(), position: z.number() })),
});

const BLOCK_BYTES = 4 << 20;

/** The first step of keeping: from here on its log can be kept. @param instead the extract whose place it takes */
export async function announce(id: string, extract: Extract, instead: string | null): Promise<void> {
  const keptAt = new Date().toISOString();
  const record: ExtractRecord = {
    version: RECORD_VERSION,
    state: 'arriving',
    instead,
    id,
    name: extract.name,
    rows: extract.pass?.rows ?? extract.rows,
    variables: extract.variables.length,
    keptAt,
    bytes: 0,
    blocks: 0,
  };
  await stores.extracts.setItem(id, record);
}

/** The second step: its columns, block by block, then the record that makes it findable. */
export async function keepColumns(id: string, extract: Extract): Promise<void> {
  let blocks = 0;
  let bytes = 0;
  let block: BinaryColumn[] = [];
  let inBlock = 0;
  const flush = async (): Promise<void> => {
    if (block.length === 0) return;
    await stores.columns.setItem(`${id}:${blocks++}`, block);
    block = [];
    inBlock = 0;
  };
  // Rows that stay in a database are not kept here, nor what they hold.
  const { database } = extract;
  for (const { column } of database ? [] : extract.variables) {
    const binary = toBinary(column);
    block.push(binary);
    inBlock += sizeOf(binary);
    bytes += sizeOf(binary);
    if (inBlock >= BLOCK_BYTES) await flush();
  }
  await flush();
  const description: Description = {
    ...extract,
    ...(database ? { database: { ...database } } : {}),
    variables: extract.variables.map(({ column: _, pass, ...variable }) => ({
      ...variable,
      ...(pass && !database ? { pass: { ...pass, texts: textArray(pass.texts) } } : {}),
    })),
  };
  await stores.columns.setItem(`${id}:description`, description);
  const record: Kept = {
    version: RECORD_VERSION,
    state: 'kept',
    id,
    name: extract.name,
    keptAt: new Date().toISOString(),
    rows: extract.pass?.rows ?? extract.rows,
    variables: extract.variables.length,
    bytes,
    blocks,
    ...(database ? { database: whereOf(database) } : {}),
  };
  await mustBeKept(id);
  await stores.extracts.setItem(id, record);
}

const whereOf = ({ at, table, query }: NonNullable<Extract['database']>): Kept['database'] => ({
  at,
  ...(table === undefined ? {} : { table }),
  ...(query === undefined ? {} : { query }),
});

/** The last step where one took the place of another: whoever has the other open is told where it went. */
export async function takePlace(old: string, by: string): Promise<void> {
  const tombstone: ExtractRecord = {
    version: RECORD_VERSION,
    state: 'replaced',
    id: old,
    by,
    at: new Date().toISOString(),
  };
  await alone(`log:${old}`, () => stores.extracts.setItem(old, tombstone));
  await rescueEntries(old, by);
  await removeParts(old);
}

/** What was decided over one extract and is not in the log of another yet, is added to it. */
async function rescueEntries(from: string, to: string): Promise<void> {
  const [lost, there] = [await openLog(from), await openLog(to)];
  const known = new Set(there.entries.map(({ id }) => id));
  const fresh = lost.entries.filter(({ id }) => !known.has(id));
  if (fresh.length) await appendEntries(to, fresh, there.next);
}

/** The log of a kept extract as it would be saved, without opening its columns. @throws Error where parts are gone or damaged */
export async function savedLog(id: string): Promise<DigLog> {
  const record = await recordOf(id);
  if (record === null || 'says' in record || record.state !== 'kept')
    throw new Error('it is not kept here any more');
  const description = descriptionSchema.safeParse(await stores.columns.getItem(`${id}:description`));
  if (!description.success) throw new Error('its description is gone or damaged');
  const { entries } = await openLog(id);
  return digLog({ ...(description.data as unknown as Description), name: record.name }, entries);
}

/** @throws Error where parts are gone or damaged */
export async function openKept(id: string): Promise<Extract> {
  const record = await recordOf(id);
  if (record === null) throw new Error('it is not kept here any more');
  if ('says' in record) throw new Error(record.says);
  if (record.state !== 'kept') throw new Error('it was never kept whole');
  if (record.database)
    throw new Error(`its rows stay in the database ${record.database.at}; open the table from there`);
  const description = descriptionSchema.safeParse(await stores.columns.getItem(`${id}:description`));
  if (!description.success) throw new Error('its description is gone or damaged');
  const columns: Column[] = [];
  for (let block = 0; block < record.blocks; block++) {
    const binaries = z.array(columnSchema).safeParse(await stores.columns.getItem(`${id}:${block}`));
    if (!binaries.success) throw new Error('some of its columns are gone or damaged');
    columns.push(...binaries.data.map(fromBinary));
  }
  const { variables, ...rest } = description.data as unknown as Description;
  if (columns.length !== variables.length || columns.some(({ rows }) => rows !== rest.rows))
    throw new Error('some of its columns are gone or damaged');
  return completed({
    ...rest,
    name: record.name,
    variables: variables.map((variable, i) => ({ ...variable, column: columns[i] })),
  });
}

/** An extract that was kept before its description said all that it says now. */
function completed(extract: Extract): Extract {
  const names = extract.variables.map(({ name }) => name);
  return {
    ...extract,
    linkNotices: extract.linkNotices ?? [],
    files: extract.files.map((file) => ({ ...file, names: file.names ?? names })),
    codebooks: extract.codebooks.map((codebook) => ({
      ...codebook,
      cases: codebook.cases ?? null,
      groups: codebook.groups ?? [],
      notices: codebook.notices ?? [],
      entries: codebook.entries.map((entry) => ({ ...bareEntry(entry.name), ...entry })),
    })),
    variables: extract.variables.map((variable) => ({
      ...variable,
      entry: variable.entry ? { ...bareEntry(variable.name), ...variable.entry } : null,
    })),
  };
}

export async function renameKept(id: string, name: string): Promise<void> {
  const record = await recordOf(id);
  if (record && 'state' in record && record.state === 'kept')
    await stores.extracts.setItem(id, { ...record, name });
}

/** Removes an extract with its log, whatever state it is in. */
export async function removeKept(id: string): Promise<void> {
  await alone(`log:${id}`, () => stores.extracts.removeItem(id));
  await removeParts(id);
}

async function removeParts(id: string): Promise<void> {
  for (const store of [stores.columns, stores.log, stores.view, stores.found])
    for (const key of await keysOf(store, id)) await store.removeItem(key);
}

/** How long others may still ask where an extract went, in milliseconds. */
const REMEMBERED = 24 * 60 * 60 * 1000;

/** The lock that a window holds while it keeps an extract. */
export const keepingLock = (id: string): string => `keeping:${id}`;

/**
 * Clears away what a window that was closed or killed left half done. What was decided meanwhile is saved into the log of
 * the extract whose place was to be taken.
 */
export async function sweep(now: number): Promise<void> {
  const known = new Set<string>();
  for (const id of await stores.extracts.keys()) {
    const record = await recordOf(id);
    if (record === null) continue;
    if ('state' in record && record.state === 'arriving' && !(await isHeld(keepingLock(id)))) {
      if (record.instead !== null && (await recordOf(record.instead)) !== null)
        await rescueEntries(id, record.instead);
      await removeKept(id);
    } else if ('state' in record && record.state === 'replaced' && now - Date.parse(record.at) > REMEMBERED)
      await stores.extracts.removeItem(id);
    else known.add(id);
  }
  for (const store of [stores.columns, stores.log, stores.view, stores.found])
    for (const key of await store.keys())
      if (key.includes(':') && !known.has(key.slice(0, key.indexOf(':')))) await store.removeItem(key);
}
