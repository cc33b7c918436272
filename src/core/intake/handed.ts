import * as z from 'zod';
import { allBytes, firstBytes, type ByteSource } from '../read/source';

const DATA = [/\.csv$/, /\.parquet$/, /\.xlsx$/, /\.ndjson$/];
const BOOKS = [/^datapackage\.json$/, /\.xml$/, /\.csv-metadata\.json$/];

/** A document of a handoff's own forms. */
export type OwnDocument =
  | { what: 'log'; content: unknown }
  | { what: 'damaged'; says: string }
  /** What is planted in the demo. */
  | { what: 'truth' }
  | { what: 'manifest'; files: { name: string; bytes: number }[]; variables: string[] };

const manifestSchema = z.object({
  files: z.array(z.object({ name: z.string(), bytes: z.number() })),
  variables: z.array(z.string()),
});

/** The dig log or manifest that a file is, told by its first words. */
export async function ownDocument(source: ByteSource): Promise<OwnDocument | null> {
  const { bytes } = await firstBytes(source.open(), 200);
  const form = /^\uFEFF?\s*\{\s*"format"\s*:\s*"dig-first-(log|manifest|demo-truth)"/.exec(
    new TextDecoder().decode(bytes),
  )?.[1];
  if (form === undefined) return null;
  if (form === 'demo-truth') return { what: 'truth' };
  let content: unknown;
  try {
    content = JSON.parse(new TextDecoder().decode(await allBytes(source.open())));
  } catch (cause) {
    return { what: 'damaged', says: `this ${form} is damaged (${(cause as Error).message}); save it again` };
  }
  if (form === 'log') return { what: 'log', content };
  const manifest = manifestSchema.safeParse(content);
  return manifest.success
    ? { what: 'manifest', ...manifest.data }
    : { what: 'damaged', says: 'this manifest does not list what was handed off; save it again' };
}

interface Member {
  key: string;
  name: string;
  bytes: number;
  archive: string | null;
  own: OwnDocument | null;
}

/**
 * Of what was brought the files of handoffs: with each manifest those that say all once, the data in one form and the
 * codebook that says most; the rest is passed over.
 */
export function handedOf(members: readonly Member[]): {
  /** Why, by key. */
  passed: Map<string, string>;
  /** Names of the variables that were handed off with a log, by the log's key. */
  variables: Map<string, string[]>;
  /** What is not as it was handed off. */
  changed: string[];
} {
  const passed = new Map<string, string>();
  const variables = new Map<string, string[]>();
  const changed: string[] = [];
  for (const { key, archive, own: manifest } of members) {
    if (manifest?.what !== 'manifest') continue;
    passed.set(key, 'it lists what was handed off');
    const listed = new Map(manifest.files.map(({ name, bytes }) => [name, bytes]));
    const group = members.filter((one) => one.archive === archive && listed.has(one.name));
    const first = (forms: readonly RegExp[]): string | undefined =>
      forms.flatMap((form) => group.find(({ name }) => form.test(name)) ?? []).at(0)?.name;
    const data = first(DATA);
    if (data === undefined) continue;
    // A workbook and a Parquet file carry their codebook.
    const book = /\.(csv|ndjson)$/.test(data) ? first(BOOKS) : undefined;
    for (const one of group) {
      if (one.own?.what === 'log') variables.set(one.key, manifest.variables);
      else if (one.own?.what !== 'damaged' && one.name !== data && one.name !== book)
        passed.set(one.key, `the same handoff in another form; ${data} is read`);
      if (listed.get(one.name) !== one.bytes)
        changed.push(`${one.name} has another size than its manifest says: it was changed after the handoff`);
    }
  }
  return { passed, variables, changed };
}
