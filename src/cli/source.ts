import { createReadStream, statSync } from 'node:fs';
import { open, stat } from 'node:fs/promises';
import { basename } from 'node:path';
import { InputError } from '../core/extract/problem';
import { steady, type ByteSource } from '../core/read/source';

/** A file on disk as the core's readers see it. @throws InputError if there is no such file or it may not be read */
export function fileSource(path: string): ByteSource {
  const name = basename(path);
  try {
    const found = statSync(path);
    if (!found.isFile()) throw new InputError({ file: path, says: 'this is no file; name the file itself' });
    const source: ByteSource = {
      name,
      bytes: found.size,
      open: () => createReadStream(path, { highWaterMark: 1 << 20 }),
      slice: (from, to) => slice(path, from, to),
    };
    return steady(source, async () => (await stat(path)).mtimeMs === found.mtimeMs);
  } catch (cause) {
    if (cause instanceof InputError) throw cause;
    const { code } = cause as NodeJS.ErrnoException;
    throw new InputError({
      file: path,
      says: code === 'ENOENT' ? 'there is no such file; check the path' : `cannot be read (${code})`,
    });
  }
}

async function slice(path: string, from: number, to: number): Promise<Uint8Array> {
  const file = await open(path);
  try {
    const { buffer, bytesRead } = await file.read(new Uint8Array(to - from), 0, to - from, from);
    return buffer.subarray(0, bytesRead);
  } finally {
    await file.close();
  }
}
