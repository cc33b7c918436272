import * as z from 'zod';
import { bareEntry, type Codebook, type CodebookEntry } from '../extract/extract';
import { InputError } from '../extract/problem';
import type { Storage } from '../extract/words';
import { HANDED, HANDED_ALL } from '../extract/carried';
import { codesDescribed } from './described';
import { carriedEntry, carriedGroups } from './handed';

/** A natural-language property (CSV on the Web, "Metadata Vocabulary for Tabular Data"): a text, texts, or texts by language. */
const words = z.union([
  z.string(),
  z.array(z.string()),
  z.record(z.string(), z.union([z.string(), z.array(z.string())])),
]);
const nulls = z.union([z.string(), z.array(z.string())]);
const number = z.union([z.number(), z.string()]);
const datatype = z.union([
  z.string(),
  z.looseObject({
    base: z.string().optional(),
    minimum: number.optional(),
    maximum: number.optional(),
    minInclusive: number.optional(),
    maxInclusive: number.optional(),
  }),
]);
const column = z.looseObject({
  name: z.string().optional(),
  titles: words.optional(),
  'dc:description': words.optional(),
  'dc:title': words.optional(),
  description: words.optional(),
  datatype: datatype.optional(),
  null: nulls.optional(),
  required: z.boolean().optional(),
  virtual: z.boolean().optional(),
});
const tableSchema = z.looseObject({ columns: z.array(column).min(1), null: nulls.optional() });
const table = z.looseObject({
  url: z.string().optional(),
  null: nulls.optional(),
  'dc:title': words.optional(),
  tableSchema: tableSchema.optional(),
});
const metadata = z.looseObject({
  tables: z.array(table).optional(),
  tableSchema: tableSchema.optional(),
  null: nulls.optional(),
  'dc:title': words.optional(),
});

/** Whether a JSON document is CSV on the Web metadata. */
export function looksLikeCsvw(document: unknown): boolean {
  if (typeof document !== 'object' || document === null || Array.isArray(document)) return false;
  const { '@context': context, tableSchema: own, tables } = document as Record<string, unknown>;
  return (
    JSON.stringify(context ?? '').includes('ns/csvw') ||
    typeof own === 'object' ||
    (Array.isArray(tables) &&
      tables.some((one: unknown) => typeof one === 'object' && one !== null && 'tableSchema' in one))
  );
}

/** @throws InputError naming the element that does not fit the standard */
export function readCsvw(file: string, document: unknown): Codebook {
  const parsed = metadata.safeParse(document);
  if (!parsed.success) {
    const [issue] = parsed.error.issues;
    throw new InputError({
      file,
      element: issue.path.join('.') || 'document',
      says: `does not fit CSV on the Web (${issue.message})`,
    });
  }
  const { tables, ...whole } = parsed.data;
  const entries: CodebookEntry[] = [];
  const described = (tables ?? [whole]).filter(({ tableSchema: own }) => own);
  for (const one of described) {
    const inherited = one.null ?? whole.null;
    const known = new Set<string>();
    const files = described.length > 1 && typeof one.url === 'string' ? [nameInAddress(one.url)] : undefined;
    for (const found of one.tableSchema?.columns ?? []) {
      const entry = found.virtual ? null : entryOf(found, one.tableSchema?.null ?? inherited);
      if (entry && !known.has(entry.name)) entries.push({ ...entry, ...(files ? { files } : {}) });
      if (entry) known.add(entry.name);
    }
  }
  if (entries.length === 0)
    throw new InputError({
      file,
      element: 'tableSchema',
      says: 'the metadata describe no column; choose the document that goes with the data',
    });
  return {
    name: file,
    form: 'csvw',
    title: first(whole['dc:title']),
    cases: null,
    entries,
    groups: carriedGroups(whole[HANDED_ALL as keyof typeof whole]),
    notices: [],
  };
}

/** The name of the file that an address leads to. */
function nameInAddress(url: string): string {
  const last = url.split('/').at(-1) ?? url;
  try {
    return decodeURIComponent(last);
  } catch {
    return last;
  }
}

/** All texts of a natural-language property. */
function textsIn(text: z.infer<typeof words> | undefined): string[] {
  if (text === undefined) return [];
  if (typeof text === 'string') return [text];
  return Array.isArray(text) ? text : Object.values(text).flat();
}

function first(text: z.infer<typeof words> | undefined): string | null {
  if (text === undefined) return null;
  if (typeof text === 'string') return text;
  if (Array.isArray(text)) return text[0] ?? null;
  const [one] = Object.values(text);
  return (Array.isArray(one) ? one[0] : one) ?? null;
}

const WHOLE = new Set([
  'integer',
  'int',
  'long',
  'short',
  'byte',
  'nonNegativeInteger',
  'positiveInteger',
  'nonPositiveInteger',
  'negativeInteger',
  'unsignedInt',
  'unsignedLong',
  'unsignedShort',
  'unsignedByte',
  'gYear',
]);
const BROKEN = new Set(['decimal', 'double', 'float', 'number']);

function storageOf(base: string): Storage | null {
  if (WHOLE.has(base)) return 'integer';
  if (BROKEN.has(base)) return 'decimal';
  if (base === 'string' || base === 'normalizedString' || base === 'token') return 'text';
  if (base === 'date' || base === 'time') return base;
  return base === 'dateTime' || base === 'datetime' ? 'datetime' : null;
}

/** The column's name is its `name`; without one, its first title, as in the standard. */
function entryOf(
  found: z.infer<typeof column>,
  inherited: z.infer<typeof nulls> | undefined,
): CodebookEntry | null {
  const title = first(found.titles);
  const name = found.name ?? title;
  if (!name) return null;
  const carried = carriedEntry(found[HANDED]);
  if (carried) return { ...carried, name: title ?? name };
  const entry = bareEntry(name);
  // A file's column may stand under any of its titles.
  const titles = textsIn(found.titles).filter((one) => one !== name);
  if (titles.length) entry.titles = titles;
  const told = first(found['dc:description'] ?? found.description);
  // A title that only repeats the name says nothing.
  entry.label =
    first(found['dc:title']) ?? (title !== name ? title : null) ?? (told && told.length <= 120 ? told : null);
  if (told && told !== entry.label) entry.notes.push(told);
  entry.categories = codesDescribed(told);
  const type = typeof found.datatype === 'string' ? { base: found.datatype } : found.datatype;
  entry.storage = type?.base ? storageOf(type.base) : null;
  const bound = (value: string | number | undefined): number | null =>
    value === undefined || !Number.isFinite(Number(value)) ? null : Number(value);
  const range =
    typeof found.datatype === 'object'
      ? {
          min: bound(found.datatype.minimum ?? found.datatype.minInclusive),
          max: bound(found.datatype.maximum ?? found.datatype.maxInclusive),
        }
      : null;
  if (range && (range.min !== null || range.max !== null)) entry.validRanges = [range];
  entry.missingTexts = [found.null ?? inherited ?? []].flat().filter((text) => text !== '');
  return entry;
}
