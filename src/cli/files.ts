import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import type { ZodType } from 'zod';
import { InputError } from '../core/extract/problem';

/** A saved document of ours. @param what its name, in words @throws InputError where it is none, with what to do */
export function readJson<T>(path: string, schema: ZodType<T>, what: string, now: string): T {
  let text: string;
  try {
    text = readFileSync(path, 'utf8');
  } catch (cause) {
    throw new InputError({
      file: path,
      says: `cannot be read (${(cause as NodeJS.ErrnoException).code}); ${now}`,
    });
  }
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch (cause) {
    throw new InputError({ file: path, says: `this is no valid JSON (${(cause as Error).message}); ${now}` });
  }
  const read = schema.safeParse(found);
  if (read.success) return read.data;
  const [{ path: at, message }] = read.error.issues;
  throw new InputError({
    file: path,
    element: at.join('.') || undefined,
    says: `this is no ${what} that is known here (${message})`,
  });
}

/** Writes a file whole or not at all: beside its place first, then into it. @throws InputError where that cannot be */
export function write(path: string, text: string | Uint8Array): void {
  const beside = `${path}.${process.pid}.part`;
  try {
    // What is no file, such as a pipe, is written as it is.
    if (existsSync(path) && !statSync(path).isFile()) return writeFileSync(path, text);
    writeFileSync(beside, text);
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
