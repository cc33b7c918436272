import { Reader, ZipReader, type FileEntry } from '@zip.js/zip.js';
import { InputError } from '../extract/problem';
import { bounded } from './bounds';
import { allBytes, type ByteSource } from './source';

/** More members than this make no extract. */
const MOST_MEMBERS = 1000;

export interface Archive {
  /** The members that hold something, by the names that they have without their folders. */
  members: ByteSource[];
  /** What was passed over or looks odd, in words. */
  notices: string[];
}

export const isZip = (bytes: Uint8Array): boolean =>
  bytes[0] === 0x50 && bytes[1] === 0x4b && (bytes[2] === 3 || bytes[2] === 5) && bytes[3] === bytes[2] + 1;

/** The bytes of a source where they are asked for: those of the directory, and of the members that are opened. */
class SourceReader extends Reader<ByteSource> {
  private whole: Promise<Uint8Array> | null = null;
  constructor(private readonly source: ByteSource) {
    super(source);
    this.size = source.bytes;
  }
  override async readUint8Array(from: number, length: number): Promise<Uint8Array> {
    const to = Math.min(from + length, this.source.bytes);
    if (this.source.slice) return this.source.slice(from, to);
    this.whole ??= allBytes(this.source.open());
    return (await this.whole).subarray(from, to);
  }
}

/**
 * The members of a zip archive, by its directory (APPNOTE 4.3.12): nothing is unpacked until a member is opened, and then
 * that member alone, piece by piece and within bounds. Nothing is ever written under the paths it names, so they can do no
 * harm; odd ones are noticed.
 * @throws InputError for damage, a password, or too many members
 */
export async function openZip(source: ByteSource): Promise<Archive> {
  const file = source.name;
  const entries = await directoryOf(source);
  const members: ByteSource[] = [];
  const notices: string[] = [];
  const taken = new Set<string>();
  for (const entry of entries) {
    const path = entry.filename;
    if (isLitter(path)) continue;
    const name = baseName(path);
    if (/(^|[\\/])\.\.([\\/]|$)|^[\\/]|^[A-Za-z]:/.test(path))
      notices.push(`the archive names a path outside itself, ${path}; only the name ${name} is used`);
    if (entry.uncompressedSize === 0) {
      notices.push(`${name} in the archive is empty and was passed over`);
      continue;
    }
    const shown = taken.has(name) ? path : name;
    taken.add(shown);
    members.push({ name: shown, bytes: entry.uncompressedSize, open: () => pieces(file, entry) });
  }
  if (members.length === 0)
    throw new InputError({ file, says: 'the archive holds no file; fetch it again or choose another' });
  return { members, notices };
}

async function directoryOf(source: ByteSource): Promise<FileEntry[]> {
  const file = source.name;
  const entries: FileEntry[] = [];
  try {
    const zip = new ZipReader(new SourceReader(source), {
      useWebWorkers: false,
      // Odd names are noticed here, not refused.
      strictness: 'tolerant',
      filenameValidation: 'tolerant',
    });
    for await (const entry of zip.getEntriesGenerator()) {
      if (entry.encrypted)
        throw new InputError({
          file,
          says: 'the archive is protected by a password; unpack it yourself and bring the files',
        });
      if (!entry.directory) entries.push(entry);
      if (entries.length > MOST_MEMBERS)
        throw new InputError({
          file,
          says: `the archive has more than ${MOST_MEMBERS} members; unpack it and choose the files that belong together`,
        });
    }
  } catch (cause) {
    throw damaged(file, cause);
  }
  return entries;
}

async function* pieces(file: string, entry: FileEntry): AsyncGenerator<Uint8Array> {
  const count = bounded(file, entry.compressedSize);
  const { readable, writable } = new TransformStream<Uint8Array, Uint8Array>();
  const stop = new AbortController();
  const filling = entry.getData(writable, {
    useWebWorkers: false,
    checkSignature: true,
    signal: stop.signal,
  });
  // What goes wrong before the first byte does not reach the reading side by itself.
  const failed = new Promise<never>((_, reject) => filling.catch(reject));
  failed.catch(() => undefined);
  const reader = readable.getReader();
  const read = (): ReturnType<typeof reader.read> => Promise.race([reader.read(), failed]);
  let done = false;
  try {
    for (let next = await read(); !next.done; next = await read()) {
      count(next.value.length);
      if (next.value.length) yield next.value;
    }
    await filling;
    done = true;
  } catch (cause) {
    throw damaged(file, cause);
  } finally {
    if (!done) {
      stop.abort();
      await reader.cancel().catch(() => undefined);
    }
  }
}

function damaged(file: string, cause: unknown): InputError {
  if (cause instanceof InputError) return cause;
  const message = cause instanceof Error ? cause.message : String(cause);
  return new InputError({
    file,
    says: `the archive is damaged or ends too early (${message}); fetch it again`,
  });
}

const baseName = (path: string): string => path.split(/[\\/]/).filter(Boolean).pop() ?? path;
/** Folders, and what operating systems leave in archives. */
const isLitter = (path: string): boolean =>
  /[\\/]$/.test(path) || /(^|\/)(__MACOSX\/|\.DS_Store$|Thumbs\.db$|desktop\.ini$|\._)/i.test(path);
