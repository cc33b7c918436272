import { Unzip, UnzipInflate } from 'fflate';
import { InputError } from '../extract/problem';
import { bounded } from './bounds';
import type { ByteSource } from './source';

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

/** One piece of one member as it is unpacked. */
interface Piece {
  path: string;
  bytes: Uint8Array;
  final: boolean;
}

/**
 * The members of a zip archive. Nothing is ever written under the paths it names, so they can do no harm; odd ones are
 * noticed. Each member is unpacked when it is opened, piece by piece and within bounds.
 * @throws InputError for damage, a password, or an archive that unpacks beyond bounds
 */
export async function openZip(source: ByteSource): Promise<Archive> {
  const file = source.name;
  const sizes = new Map<string, number>();
  const notices: string[] = [];
  for await (const { path, bytes } of pieces(source, () => true)) {
    sizes.set(path, (sizes.get(path) ?? 0) + bytes.length);
    if (sizes.size > MOST_MEMBERS)
      throw new InputError({
        file,
        says: `the archive has more than ${MOST_MEMBERS} members; unpack it and choose the files that belong together`,
      });
  }
  const members: ByteSource[] = [];
  const taken = new Set<string>();
  for (const [path, bytes] of sizes) {
    if (isLitter(path)) continue;
    const name = baseName(path);
    if (/(^|[\\/])\.\.([\\/]|$)|^[\\/]|^[A-Za-z]:/.test(path))
      notices.push(`the archive names a path outside itself, ${path}; only the name ${name} is used`);
    if (bytes === 0) {
      notices.push(`${name} in the archive is empty and was passed over`);
      continue;
    }
    const shown = taken.has(name) ? path : name;
    taken.add(shown);
    members.push({
      name: shown,
      bytes,
      open: async function* () {
        for await (const piece of pieces(source, (candidate) => candidate === path))
          if (piece.bytes.length) yield piece.bytes;
      },
    });
  }
  if (members.length === 0)
    throw new InputError({ file, says: 'the archive holds no file; fetch it again or choose another' });
  return { members, notices };
}

const baseName = (path: string): string => path.split(/[\\/]/).filter(Boolean).pop() ?? path;
/** Folders, and what operating systems leave in archives. */
const isLitter = (path: string): boolean =>
  /[\\/]$/.test(path) || /(^|\/)(__MACOSX\/|\.DS_Store$|Thumbs\.db$|desktop\.ini$|\._)/i.test(path);

async function* pieces(source: ByteSource, wanted: (path: string) => boolean): AsyncGenerator<Piece> {
  const file = source.name;
  const count = bounded(file, source.bytes);
  let waiting: Piece[] = [];
  let damage: Error | null = null;
  let open = 0;
  let unpackedBytes = 0;
  let swelling = true;
  let first = true;
  const unzip = new Unzip((member) => {
    if (!wanted(member.name)) return;
    open++;
    member.ondata = (error, bytes, final) => {
      if (error) {
        damage = error;
        return;
      }
      count(bytes.length);
      unpackedBytes += bytes.length;
      // The bytes are a view that the next piece writes over.
      waiting.push({ path: member.name, bytes: bytes.slice(), final });
      if (final) open--;
    };
    member.start();
  });
  unzip.register(UnzipInflate);
  try {
    for await (const part of source.open()) {
      if (first) {
        first = false;
        if (part.length > 7 && part[6] & 1)
          throw new InputError({
            file,
            says: 'the archive is protected by a password; unpack it yourself and bring the files',
          });
      }
      // In small steps, so that a member which swells is caught before it fills the memory; smaller ones while it swells.
      let step = STEP;
      for (let at = 0; at < part.length; at += step) {
        const before = unpackedBytes;
        step = swelling ? SMALL_STEP : STEP;
        unzip.push(part.subarray(at, at + step), false);
        swelling = unpackedBytes - before > step * SWELLS;
        if (damage) throw damage;
        yield* waiting;
        waiting = [];
      }
    }
    unzip.push(new Uint8Array(0), true);
    if (damage) throw damage;
    yield* waiting;
  } catch (cause) {
    if (cause instanceof InputError) throw cause;
    throw new InputError({
      file,
      says: `the archive is damaged or ends too early (${(cause as Error).message}); fetch it again`,
    });
  }
  if (open > 0)
    throw new InputError({ file, says: 'the archive ends in the middle of a file; fetch it again' });
}

const STEP = 1 << 16;
const SMALL_STEP = 1 << 11;
/** Output beyond so many times the input is unusual for text. */
const SWELLS = 30;
