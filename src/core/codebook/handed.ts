import * as z from 'zod';
import { bareEntry, type Codebook, type CodebookEntry, type CodebookGroup } from '../extract/extract';
import { spellingSchema } from '../extract/spelling';
import { KINDS, REASONS, ROLES, STORAGES } from '../extract/words';

const text = z.string().nullable();
const range = z.object({ min: z.number().nullable(), max: z.number().nullable() });

const figure = z.number().optional();
const bareSchema = z.object({
  name: z.string(),
  label: text.default(null),
  question: text.default(null),
  universe: text.default(null),
  units: text.default(null),
  notes: z.array(z.string()).default([]),
  categories: z
    .array(
      z.object({
        code: z.string(),
        label: text,
        missing: z.boolean(),
        reason: z.enum(REASONS).nullable(),
        frequency: z.number().nullable(),
      }),
    )
    .default([]),
  validRanges: z.array(range).default([]),
  missingRanges: z.array(range).default([]),
  interval: z.enum(['discrete', 'continuous']).nullable().default(null),
  isWeight: z.boolean().default(false),
  missingTexts: z.array(z.string()).default([]),
  storage: z.enum(STORAGES).nullable().default(null),
  nature: z.enum(['nominal', 'ordinal', 'interval', 'ratio']).nullable().default(null),
});
const decidedSchema = z.object({
  kind: z.enum(KINDS).optional(),
  role: z.enum(ROLES).optional(),
  order: z.array(z.string()).optional(),
  spelling: spellingSchema.optional(),
  gate: z
    .object({
      steps: z.array(z.object({ by: z.string(), codes: z.array(z.string()), asked: z.boolean() })).optional(),
      by: z.string(),
      shut: z.array(z.string()),
    })
    .optional(),
});
/** What the archive said, with what an earlier handoff had decided by then. */
const archiveSchema = bareSchema
  .extend({
    published: z
      .object({ valid: figure, invalid: figure, min: figure, max: figure, mean: figure, sd: figure })
      .default({}),
    handed: decidedSchema.optional(),
  })
  .transform((said): CodebookEntry => ({ ...bareEntry(said.name), ...said }));

/** All that is known of a variable, as a handoff writes it beside what a standard has room for. */
const entrySchema = bareSchema.extend({
  handed: decidedSchema.extend({ archive: archiveSchema.nullable().optional() }).optional(),
});

const codebookSchema = z.object({
  title: text.default(null),
  entries: z.array(entrySchema),
  groups: z
    .array(z.object({ name: z.string(), variables: z.array(z.string()), within: text.optional() }))
    .default([]),
});

/** An entry without what it does not say. */
export const entryCarried = (entry: CodebookEntry): object =>
  saying(
    {
      ...entry,
      ...(entry.handed?.archive
        ? { handed: { ...entry.handed, archive: saying(entry.handed.archive, ['location', 'decimals']) } }
        : {}),
    },
    ['location', 'decimals', 'published'],
  );

function saying(entry: object & { name: string }, without: readonly string[]): object {
  const bare: object = bareEntry(entry.name);
  return Object.fromEntries(
    Object.entries(entry).filter(
      ([key, value]) =>
        key === 'name' ||
        (!without.includes(key) && JSON.stringify(value) !== JSON.stringify(bare[key as keyof object])),
    ),
  );
}

/** The entry that a document carries beside its standard; `null` where it carries none, or one that is damaged. */
export function carriedEntry(found: unknown): CodebookEntry | null {
  const read = entrySchema.safeParse(typeof found === 'string' ? parsed(found) : found);
  return read.success ? { ...bareEntry(read.data.name), ...read.data } : null;
}

export const codebookCarried = ({
  title,
  entries,
  groups,
}: Pick<Codebook, 'title' | 'entries' | 'groups'>): object => ({
  title,
  entries: entries.map(entryCarried),
  groups,
});

const groupsSchema = z.object({
  groups: z.array(z.object({ name: z.string(), variables: z.array(z.string()), within: text.optional() })),
});
/** The groups that a document carries beside its standard; none where it carries none. */
export function carriedGroups(found: unknown): CodebookGroup[] {
  const read = groupsSchema.safeParse(typeof found === 'string' ? parsed(found) : found);
  return read.success ? read.data.groups.map((group) => ({ ...group, within: group.within ?? null })) : [];
}

/** The whole codebook that a file carries; `null` where it carries none. @param name of the file */
export function carriedCodebook(name: string, found: string): Codebook | null {
  const read = codebookSchema.safeParse(parsed(found));
  if (!read.success) return null;
  const { title, entries, groups } = read.data;
  return {
    name,
    form: 'code-table',
    title,
    cases: null,
    entries: entries.map((entry) => ({ ...bareEntry(entry.name), ...entry })),
    groups: groups.map((group) => ({ ...group, within: group.within ?? null })),
    notices: [],
  };
}

function parsed(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}
