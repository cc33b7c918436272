import localforage from 'localforage';
import { z } from 'zod';
import { DictionaryColumn, PackedColumn, type Codes, type Column } from '../core/extract/column';
import { bareEntry, type Extract } from '../core/extract/extract';
import { standingRuleSchema, type StandingRule } from '../core/flags/standing-rules';
import { entrySchema, type Entry } from '../core/log/entries';

/**
 * What the browser keeps: per extract its description, its columns as binary in blocks, its log entry by entry, and
 * how the person left the screen. All keys of one extract begin with its id.
 */
const stores = {
  extracts: localforage.createInstance({ name: 'dig-first-extracts' }),
  columns: localforage.createInstance({ name: 'dig-first-columns' }),
  log: localforage.createInstance({ name: 'dig-first-log' }),
  view: localforage.createInstance({ name: 'dig-first-view' }),
  standing: localforage.createInstance({ name: 'dig-first-standing-rules' }),
};

/** Version of what is kept; extracts kept under another one are not opened. */
const VERSION = 1;

const keptSchema = z.object({
  version: z.literal(VERSION),
  id: z.string(),
  name: z.string(),
  keptAt: z.string(),
  rows: z.number(),
  variables: z.number(),
  /** Bytes that its columns take. */
  bytes: z.number(),
  blocks: z.number(),
});
export type Kept = z.infer<typeof keptSchema>;

/** An extract without its columns, as it is kept. */
type Description = Omit<Extract, 'variables'> & { variables: Omit<Extract['variables'][number], 'column'>[] };

const bytesSchema = z.custom<Uint8Array>((value) => value instanceof Uint8Array);
const endsSchema = z.custom<Uint32Array>((value) => value instanceof Uint32Array);
const codesSchema = z.custom<Codes>(
  (value) => value instanceof Uint8Array || value instanceof Uint16Array || value instanceof Uint32Array,
);
const columnSchema = z.discriminatedUnion('form', [
  z.object({ form: z.literal('dictionary'), bytes: bytesSchema, ends: endsSchema, codes: codesSchema }),
  z.object({ form: z.literal('packed'), bytes: bytesSchema, ends: endsSchema }),
]);
type BinaryColumn = z.infer<typeof columnSchema>;

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8', { ignoreBOM: true });
const BLOCK_BYTES = 4 << 20;

/** A column as binary: a dictionary's texts are packed like cells. */
export function toBinary(column: Column): BinaryColumn {
  if (column.form === 'packed') return { form: 'packed', bytes: column.bytes, ends: column.ends };
  const whole = column.texts.join('');
  const bytes = encoder.encode(whole);
  // Where every character is one byte, which is nearly always, lengths are those of the texts.
  const plain = bytes.length === whole.length;
  const ends = new Uint32Array(column.texts.length);
  let at = 0;
  column.texts.forEach((text, i) => {
    ends[i] = at += plain ? text.length : encoder.encode(text).length;
  });
  return { form: 'dictionary', bytes, ends, codes: column.codes };
}

export function fromBinary(binary: BinaryColumn): Column {
  const { bytes, ends } = binary;
  if (binary.form === 'packed') return new PackedColumn(bytes, ends);
  const whole = decoder.decode(bytes);
  const plain = bytes.length === whole.length;
  const texts = Array.from(ends, (end, i) => {
    const begin = i === 0 ? 0 : ends[i - 1];
    return plain ? whole.slice(begin, end) : decoder.decode(bytes.subarray(begin, end));
  });
  return new DictionaryColumn(texts, binary.codes);
}

const sizeOf = (binary: BinaryColumn): number =>
  binary.bytes.byteLength +
  binary.ends.byteLength +
  (binary.form === 'dictionary' ? binary.codes.byteLength : 0);

/** Keeps an extract: first its columns, block by block, then the record that makes it findable. */
export async function keepExtract(id: string, extract: Extract): Promise<Kept> {
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
  try {
    for (const { column } of extract.variables) {
      const binary = toBinary(column);
      block.push(binary);
      inBlock += sizeOf(binary);
      bytes += sizeOf(binary);
      if (inBlock >= BLOCK_BYTES) await flush();
    }
    await flush();
    const description: Description = {
      ...extract,
      variables: extract.variables.map(({ column: _, ...variable }) => variable),
    };
    await stores.columns.setItem(`${id}:description`, description);
    const kept: Kept = {
      version: VERSION,
      id,
      name: extract.name,
      keptAt: new Date().toISOString(),
      rows: extract.rows,
      variables: extract.variables.length,
      bytes,
      blocks,
    };
    await stores.extracts.setItem(id, kept);
    return kept;
  } catch (cause) {
    await removeKept(id).catch(() => undefined);
    throw cause;
  }
}

/** @throws Error where parts are gone or damaged */
export async function openKept(id: string): Promise<Extract> {
  const kept = keptSchema.parse(await stores.extracts.getItem(id));
  const description = await stores.columns.getItem<Description>(`${id}:description`);
  if (!description) throw new Error('its description is gone');
  const columns: Column[] = [];
  for (let block = 0; block < kept.blocks; block++) {
    const binaries = z.array(columnSchema).parse(await stores.columns.getItem(`${id}:${block}`));
    columns.push(...binaries.map(fromBinary));
  }
  if (columns.length !== description.variables.length) throw new Error('some of its columns are gone');
  return completed({
    ...description,
    name: kept.name,
    variables: description.variables.map((variable, i) => ({ ...variable, column: columns[i] })),
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
      entries: codebook.entries.map((entry) => ({ ...bareEntry(entry.name), ...entry })),
    })),
    variables: extract.variables.map((variable) => ({
      ...variable,
      entry: variable.entry && { ...bareEntry(variable.name), ...variable.entry },
    })),
  };
}

/** All kept extracts, the last kept first. */
export async function listKept(): Promise<Kept[]> {
  const found: Kept[] = [];
  await stores.extracts.iterate((value) => {
    const kept = keptSchema.safeParse(value);
    if (kept.success) found.push(kept.data);
  });
  return found.sort((a, b) => b.keptAt.localeCompare(a.keptAt));
}

export async function renameKept(id: string, name: string): Promise<void> {
  const kept = keptSchema.parse(await stores.extracts.getItem(id));
  await stores.extracts.setItem(id, { ...kept, name });
}

export async function removeKept(id: string): Promise<void> {
  await stores.extracts.removeItem(id);
  for (const store of [stores.columns, stores.log, stores.view]) {
    for (const key of await store.keys())
      if (key === id || key.startsWith(`${id}:`)) await store.removeItem(key);
  }
}

/**
 * Keeps one entry of an extract's log. Its own id is part of the key, so that two windows on one extract never write
 * over each other's entries. @param place its zero-based place in the log
 */
export async function keepEntry(id: string, place: number, entry: Entry): Promise<void> {
  await stores.log.setItem(`${id}:${String(place).padStart(8, '0')}:${entry.id}`, entry);
}

/** The log of an extract in order; entries that no longer fit the schema are told by number. */
export async function openLog(id: string): Promise<{ entries: Entry[]; unreadable: number }> {
  const keys = (await stores.log.keys()).filter((key) => key.startsWith(`${id}:`)).sort();
  const entries: Entry[] = [];
  let unreadable = 0;
  for (const key of keys) {
    const entry = entrySchema.safeParse(await stores.log.getItem(key));
    if (entry.success) entries.push(entry.data);
    else unreadable++;
  }
  return { entries, unreadable };
}

const viewSchema = z.object({
  current: z.string().nullable(),
  chosen: z.array(z.string()),
  search: z.string(),
  sort: z.object({ by: z.string(), down: z.boolean() }),
  station: z.string(),
  seen: z.array(z.string()).default([]),
  narrow: z.record(z.string(), z.string()).default({}),
});
/** How the person left the screen. */
export type View = z.infer<typeof viewSchema>;

export async function keepView(id: string, view: View): Promise<void> {
  await stores.view.setItem(id, view);
}

export async function openView(id: string): Promise<View | null> {
  const view = viewSchema.safeParse(await stores.view.getItem(id));
  return view.success ? view.data : null;
}

/** The extract that was open last, to be opened again. */
export async function lastOpen(): Promise<string | null> {
  const id = await stores.view.getItem('last-open');
  return typeof id === 'string' ? id : null;
}

export async function setLastOpen(id: string | null): Promise<void> {
  if (id === null) await stores.view.removeItem('last-open');
  else await stores.view.setItem('last-open', id);
}

/** Standing rules belong to no extract. */
export async function keepStanding(rules: readonly StandingRule[]): Promise<void> {
  await stores.standing.setItem('rules', rules);
}

export async function openStanding(): Promise<StandingRule[]> {
  const rules = z.array(standingRuleSchema).safeParse(await stores.standing.getItem('rules'));
  return rules.success ? rules.data : [];
}

/** Why nothing can be kept, in words for the person. */
export function refusal(cause: unknown): string {
  const { name = '', message = '' } = cause instanceof Error || cause instanceof DOMException ? cause : {};
  if (/quota/i.test(`${name} ${message}`))
    return 'The browser’s storage is full, so this extract is not kept. Work goes on in memory; remove kept extracts at the intake to make room.';
  return `The browser refuses to store (${message || name || 'no reason given'}), so nothing is kept. Work goes on in memory; hand off before closing the tab.`;
}
