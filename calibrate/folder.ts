/** Labelled extracts in a folder: a `truth.json` that tells the accepted kinds of each variable, beside the data. */
import { existsSync, readdirSync, readFileSync, statSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { z } from 'zod';
import { fileSource } from '../src/cli/source';
import { linkCodebooks } from '../src/core/codebook/link';
import { KINDS } from '../src/core/extract/words';
import { bring } from '../src/core/intake/bring';
import { readExtract } from '../src/core/intake/receive';
import { samplesOf, type Sample } from './samples';

const variables = z.record(z.string(), z.object({ kind: z.array(z.enum(KINDS)).nullish() }));
/** Either one extract of several files and its codebook, or many files of one extract each. */
const one = z.object({ codebook: z.string().nullish(), variables });
const truthSchema = z.union([
  one.extend({ files: z.array(z.string()) }),
  z.object({ files: z.record(z.string(), one) }),
]);

/** @throws where a folder holds no labelled extract, or one cannot be read */
export async function folderSamples(folder: string): Promise<Sample[]> {
  const found: Sample[] = [];
  for (const path of truthFiles(folder)) {
    const truth = truthSchema.parse(JSON.parse(readFileSync(path, 'utf8')));
    const at = dirname(path);
    const inside = (name: string): string => {
      const place = [join(at, name), join(at, 'data', name), join(at, 'codebooks', name)].find(existsSync);
      if (!place) throw new Error(`${path} names ${name}, which is not there.`);
      return place;
    };
    const extracts =
      'variables' in truth
        ? [{ name: basename(at), ...truth }]
        : Object.entries(truth.files).map(([name, inside]) => ({ name, files: [name], ...inside }));
    for (const { name, files, codebook, variables: known } of extracts)
      found.push(...(await samplesIn(name, files.map(inside), codebook ? inside(codebook) : null, known)));
  }
  if (found.length === 0) throw new Error(`${folder} holds no truth.json that tells the kinds of variables.`);
  return found;
}

async function samplesIn(
  name: string,
  files: readonly string[],
  codebook: string | null,
  known: z.infer<typeof variables>,
): Promise<Sample[]> {
  const { brought } = await bring(
    [...files, ...(codebook ? [codebook] : [])].map((path, i) => ({
      key: String(i),
      source: fileSource(path),
    })),
  );
  const data = brought.filter((one) => one.what === 'data');
  const received = await readExtract(data.map(({ source, look, layout }) => ({ source, look, layout })));
  const extract = linkCodebooks(
    received,
    brought.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : [])),
  );
  const byName = new Map(Object.entries(known).map(([variable, { kind }]) => [plain(variable), kind ?? []]));
  return samplesOf(
    name,
    'labelled by hand',
    extract,
    new Map(extract.variables.map((variable) => [variable.name, byName.get(plain(variable.name)) ?? []])),
  );
}

/** A name without what readers may or may not keep. */
const plain = (name: string): string =>
  name
    .replace(/\uFEFF/g, '')
    .trim()
    .replace(/^(['"])(.*)\1$/, '$2')
    .trim()
    .toLowerCase();

function truthFiles(folder: string): string[] {
  const own = join(folder, 'truth.json');
  return [
    ...(existsSync(own) ? [own] : []),
    ...readdirSync(folder)
      .map((name) => join(folder, name))
      .filter((path) => statSync(path).isDirectory() && existsSync(join(path, 'truth.json')))
      .map((path) => join(path, 'truth.json')),
  ];
}
