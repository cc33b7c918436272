import * as z from 'zod';
import { GoneError } from './refusal';
import { stores } from './stores';

/** Version of the records of extracts. */
export const RECORD_VERSION = 2;

const facts = {
  id: z.string(),
  name: z.string(),
  keptAt: z.string(),
  rows: z.number(),
  variables: z.number(),
  /** Bytes that its columns take. */
  bytes: z.number(),
  blocks: z.number(),
  /** Where its rows stay, of a table of a database: nothing of them is kept here. */
  database: z
    .object({ at: z.string(), table: z.string().optional(), query: z.string().optional() })
    .optional(),
};
const recordSchema = z.discriminatedUnion('state', [
  /** Its log is kept, its columns not yet all. `instead`: the extract whose place it takes. */
  z.object({
    version: z.literal(RECORD_VERSION),
    ...facts,
    state: z.literal('arriving'),
    instead: z.string().nullable(),
  }),
  z.object({ version: z.literal(RECORD_VERSION), ...facts, state: z.literal('kept') }),
  /** Another took its place. */
  z.object({
    version: z.literal(RECORD_VERSION),
    id: z.string(),
    state: z.literal('replaced'),
    by: z.string(),
    at: z.string(),
  }),
]);
export type ExtractRecord = z.infer<typeof recordSchema>;
export type Kept = ExtractRecord & { state: 'kept' };

/** A record that is there and cannot be used: it can be removed, and nothing else. */
export interface Unusable {
  id: string;
  says: string;
}

const migrateRecord = (value: unknown): unknown =>
  typeof value === 'object' && value !== null && (value as { version?: unknown }).version === 1
    ? { ...value, version: RECORD_VERSION, state: 'kept' }
    : value;

function readRecord(id: string, value: unknown): ExtractRecord | Unusable {
  const read = recordSchema.safeParse(migrateRecord(value));
  if (read.success) return read.data;
  const { version, name } = (typeof value === 'object' && value !== null ? value : {}) as {
    version?: unknown;
    name?: unknown;
  };
  const called = typeof name === 'string' ? `“${name}”` : 'An extract';
  return {
    id,
    says:
      typeof version === 'number' && version > RECORD_VERSION
        ? `${called} was kept by a later version of this program`
        : `${called} is kept here, but its record is damaged`,
  };
}

export async function recordOf(id: string): Promise<ExtractRecord | Unusable | null> {
  const value: unknown = await stores.extracts.getItem(id);
  return value === null ? null : readRecord(id, value);
}

/** @throws GoneError where an extract is not kept any more, or another took its place */
export async function mustBeKept(id: string): Promise<void> {
  const record = await recordOf(id);
  if (record === null) throw new GoneError(null);
  if ('state' in record && record.state === 'replaced') throw new GoneError(record.by);
}

/** All kept extracts, the last kept first, and what is there but cannot be opened. */
export async function listKept(): Promise<{ kept: Kept[]; unusable: Unusable[] }> {
  const kept: Kept[] = [];
  const unusable: Unusable[] = [];
  await stores.extracts.iterate((value: unknown, id) => {
    const record = readRecord(id, value);
    if ('says' in record) unusable.push(record);
    else if (record.state === 'kept') kept.push(record);
  });
  return { kept: kept.sort((a, b) => b.keptAt.localeCompare(a.keptAt)), unusable };
}
