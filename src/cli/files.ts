import {
  closeSync,
  existsSync,
  mkdirSync,
  openSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs';
import { join } from 'node:path';
import type { ZodType } from 'zod';
import { InputError } from '../core/extract/problem';
import { jsonPieces } from '../core/handoff/json-pieces';

/** To standard error: standard output holds nothing but the document that was asked for. */
export const say = (text: string): void => void process.stderr.write(`${text}\n`);

/** A document as JSON, to a file or to standard output. */
export function give(document: object, out: string | undefined): void {
  if (out) write(out, jsonPieces(document));
  else for (const piece of batched(jsonPieces(document))) process.stdout.write(piece);
}

const BATCH = 1 << 20;
/** Texts in fewer and longer ones. */
function* batched(texts: Iterable<string>): Generator<string> {
  let batch = '';
  for (const text of texts) {
    batch += text;
    if (batch.length < BATCH) continue;
    yield batch;
    batch = '';
  }
  yield batch;
}

/** A JSON document. @param now what to do @throws InputError where it cannot be read as one */
export function parsedJson(path: string, now: string): unknown {
  let text: string;
  try {
    text = readFileSync(path, 'utf8');
  } catch (cause) {
    throw new InputError({
      file: path,
      says: `cannot be read (${(cause as NodeJS.ErrnoException).code}); ${now}`,
    });
  }
  try {
    return JSON.parse(text) as unknown;
  } catch (cause) {
    throw new InputError({ file: path, says: `this is no valid JSON (${(cause as Error).message}); ${now}` });
  }
}

/** A saved document of ours. @param what its name, in words @throws InputError where it is none, with what to do */
export function readJson<T>(path: string, schema: ZodType<T>, what: string, now: string): T {
  const read = schema.safeParse(parsedJson(path, now));
  if (read.success) return read.data;
  const [{ path: at, message }] = read.error.issues;
  throw new InputError({
    file: path,
    element: at.join('.') || undefined,
    says: `this is no ${what} that is known here (${message})`,
  });
}

/** Writes a file whole or not at all: beside its place first, then into it. @throws InputError where that cannot be */
export function write(path: string, content: string | Uint8Array | Iterable<string>): void {
  const beside = `${path}.${process.pid}.part`;
  const put = (place: string): void => {
    if (typeof content === 'string' || content instanceof Uint8Array) return writeFileSync(place, content);
    const file = openSync(place, 'w');
    try {
      for (const piece of batched(content)) writeFileSync(file, piece);
    } finally {
      closeSync(file);
    }
  };
  try {
    // What is no file, such as a pipe, is written as it is.
    if (existsSync(path) && !statSync(path).isFile()) return put(path);
    put(beside);
    renameSync(beside, path);
  } catch (cause) {
    rmSync(beside, { force: true });
    throw new InputError({
      file: path,
      says: `cannot be written (${(cause as NodeJS.ErrnoException).code}); nothing was changed there`,
    });
  }
}

/** Makes a folder with those above it. @throws InputError where that cannot be */
export function makeFolder(path: string): void {
  try {
    mkdirSync(path, { recursive: true });
  } catch (cause) {
    throw new InputError({
      file: path,
      says: `cannot be made a folder (${(cause as NodeJS.ErrnoException).code}); name another`,
    });
  }
}

/** The file itself, or the files of a folder that a handoff was written to, by their names. */
export function filesIn(path: string): string[] {
  if (!existsSync(join(path, 'manifest.json'))) return [path];
  return readdirSync(path, { withFileTypes: true })
    .filter((one) => one.isFile() && !one.name.startsWith('.'))
    .map(({ name }) => join(path, name))
    .sort();
}
