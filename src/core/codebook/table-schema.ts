import * as z from 'zod';
import { bareEntry, type Codebook, type CodebookEntry } from '../extract/extract';
import { InputError } from '../extract/problem';
import type { Storage } from '../extract/words';
import { HANDED, HANDED_ALL } from '../extract/carried';
import { codesDescribed } from './described';
import { carriedEntry, carriedGroups } from './handed';
import { reasonOfLabel } from './missing-words';

/** What is taken of a Table Schema field (Data Package standard, version 2); other properties are passed over. */
const labelled = z.object({ value: z.union([z.string(), z.number()]), label: z.string().optional() });
const code = z.union([z.string(), z.number(), labelled]);
const field = z.looseObject({
  name: z.string(),
  title: z.string().optional(),
  description: z.string().optional(),
  type: z.string().optional(),
  unit: z.string().optional(),
  missingValues: z.array(code).optional(),
  categories: z.array(code).optional(),
  categoriesOrdered: z.boolean().optional(),
  constraints: z
    .looseObject({
      minimum: z.union([z.number(), z.string()]).optional(),
      maximum: z.union([z.number(), z.string()]).optional(),
      enum: z.array(z.union([z.string(), z.number(), z.boolean()])).optional(),
    })
    .optional(),
});
const schema = z.looseObject({ fields: z.array(field).min(1), missingValues: z.array(code).optional() });
const resource = z.looseObject({
  name: z.string().optional(),
  path: z.union([z.string(), z.array(z.string())]).optional(),
  schema: schema.optional(),
});
const packaged = z.looseObject({
  title: z.string().optional(),
  name: z.string().optional(),
  resources: z.array(resource).min(1),
});

/** Whether a JSON document is a Data Package or a Table Schema. */
export const looksLikeTableSchema = (document: unknown): boolean => packagedOr(document) !== null;

function packagedOr(document: unknown): 'package' | 'schema' | null {
  if (typeof document !== 'object' || document === null || Array.isArray(document)) return null;
  if (Array.isArray((document as { resources?: unknown }).resources)) return 'package';
  return Array.isArray((document as { fields?: unknown }).fields) ? 'schema' : null;
}

/** @throws InputError naming the element that does not fit the standard */
export function readTableSchema(file: string, document: unknown): Codebook {
  const kind = packagedOr(document);
  const parsed = kind === 'package' ? packaged.safeParse(document) : schema.safeParse(document);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new InputError({
      file,
      element: issue.path.join('.') || 'document',
      says: `does not fit the Table Schema standard (${issue.message})`,
    });
  }
  const isPackage = 'resources' in parsed.data;
  const { title, name, resources } = isPackage
    ? (parsed.data as z.infer<typeof packaged>)
    : {
        title: undefined,
        name: undefined,
        resources: [{ schema: parsed.data as z.infer<typeof schema> } as z.infer<typeof resource>],
      };
  const entries: CodebookEntry[] = [];
  const notices: Codebook['notices'] = [];
  const described = resources.filter(({ schema: found }) => found);
  for (const { path, name: called, schema: found } of described) {
    const files = [path ?? called ?? []].flat();
    const known = new Set<string>();
    for (const one of found?.fields ?? []) {
      if (known.has(one.name))
        notices.push({ says: `the codebook describes ${one.name} twice; the first counts` });
      else
        entries.push({
          ...entryOf(one, found?.missingValues),
          // Several tables may have columns of one name.
          ...(described.length > 1 && files.length ? { files } : {}),
        });
      known.add(one.name);
    }
  }
  if (entries.length === 0)
    throw new InputError({
      file,
      element: 'resources',
      says: 'no resource has a schema with fields; choose the document that describes the columns',
    });
  return {
    name: file,
    form: 'table-schema',
    title: title ?? name ?? null,
    cases: null,
    entries,
    groups: carriedGroups((parsed.data as Record<string, unknown>)[HANDED_ALL]),
    notices,
  };
}

const STORAGES: ReadonlyMap<string, Storage> = new Map([
  ['string', 'text'],
  ['number', 'decimal'],
  ['integer', 'integer'],
  ['date', 'date'],
  ['time', 'time'],
  ['datetime', 'datetime'],
]);

function entryOf(
  one: z.infer<typeof field>,
  missingOfAll: z.infer<typeof code>[] | undefined,
): CodebookEntry {
  const carried = carriedEntry(one[HANDED]);
  if (carried) return { ...carried, name: one.name };
  const entry = bareEntry(one.name);
  const missing = (one.missingValues ?? missingOfAll ?? []).map(valueOf).filter(({ value }) => value !== '');
  entry.label = one.title ?? (one.description && one.description.length <= 120 ? one.description : null);
  if (one.description && one.description !== entry.label) entry.notes.push(one.description);
  entry.units = one.unit ?? null;
  entry.storage = STORAGES.get(one.type ?? '') ?? null;
  entry.nature = one.categoriesOrdered ? 'ordinal' : null;
  const stated = (one.categories ?? one.constraints?.enum?.map(String) ?? []).map(valueOf);
  entry.categories = [
    ...stated.map(({ value, label }) => ({
      code: value,
      label,
      missing: missing.some((other) => other.value === value),
      reason: null,
      frequency: null,
    })),
    ...missing
      .filter(({ value, label }) => label !== null && !stated.some((other) => other.value === value))
      .map(({ value, label }) => ({ code: value, label, missing: true, reason: null, frequency: null })),
  ].map((category) => ({
    ...category,
    reason: category.missing ? (reasonOfLabel(category.label ?? category.code) ?? 'other') : null,
  }));
  if (entry.categories.length === 0) entry.categories = codesDescribed(one.description ?? null);
  entry.missingTexts = missing.filter(({ label }) => label === null).map(({ value }) => value);
  const { minimum, maximum } = one.constraints ?? {};
  const bound = (value: string | number | undefined): number | null =>
    value === undefined || !Number.isFinite(Number(value)) ? null : Number(value);
  if (bound(minimum) !== null || bound(maximum) !== null)
    entry.validRanges = [{ min: bound(minimum), max: bound(maximum) }];
  return entry;
}

const valueOf = (one: z.infer<typeof code>): { value: string; label: string | null } =>
  typeof one === 'object'
    ? { value: String(one.value), label: one.label ?? null }
    : { value: String(one), label: null };
