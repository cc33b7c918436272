import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex } from '@noble/hashes/utils';
import { Zip, ZipDeflate } from 'fflate';
import { InputError } from '../core/extract/problem';
import { handoffOf } from '../core/handoff/handoff';
import type { HandoffForm } from '../core/handoff/handoff-forms';
import type { Manifest } from '../core/handoff/manifest';
import { leavingOf, type LeavingAsk } from '../core/handoff/leaving';
import type { Inspector } from '../core/inspect/inspect';
import type { Entry } from '../core/log/entries';
import type { Tell } from './protocol';

/** What was handed off: the zip, unless it was written to disk as it was made; and its manifest. */
export interface HandedOff {
  blob: Blob | null;
  manifest: Manifest;
}

/** A zip without an extension has no place for files, or a whole, that are longer (APPNOTE.TXT 6.3.10, 4.4.1.4). */
const MOST_IN_ZIP = 2 ** 32 - 2;

/** More than this is not held in the memory of a page. */
const MOST_HELD = 1_500_000_000;

/** Where pieces of a zip go: to disk, or into memory. */
interface Sink {
  put(piece: Uint8Array): Promise<void>;
  end(): Promise<Blob | null>;
  drop(): Promise<void>;
}

async function sinkTo(file: FileSystemFileHandle | null): Promise<Sink> {
  if (file) {
    // What is written shows only once it is closed: what is stopped leaves no half file.
    const stream = await file.createWritable();
    return {
      put: (piece) => stream.write(new Uint8Array(piece)),
      end: async () => (await stream.close(), null),
      drop: () => stream.abort(),
    };
  }
  const parts: BlobPart[] = [];
  let held = 0;
  return {
    put: async (piece) => {
      held += piece.length;
      if (held > MOST_HELD)
        throw new InputError({
          file: 'the handoff',
          says: `it is larger than the ${MOST_HELD / 1e9} GB that a page holds in memory; save it in a browser that writes to disk as it goes, take fewer forms or rows, or use the command line`,
        });
      parts.push(new Uint8Array(piece));
    },
    end: async () => new Blob(parts, { type: 'application/zip' }),
    drop: async () => undefined,
  };
}

/**
 * Writes everything that goes out as one zip, piece by piece.
 * @param file where it goes on disk; into memory where it is `null`
 */
export async function handOff(
  inspector: Inspector,
  log: readonly Entry[],
  { ask, forms, madeAt }: { ask: LeavingAsk; forms: readonly HandoffForm[]; madeAt: Date },
  file: FileSystemFileHandle | null,
  tell: Tell,
  breathe: () => Promise<void>,
): Promise<HandedOff> {
  const made = handoffOf(inspector, log, ask, forms, madeAt);
  const sink = await sinkTo(file);
  const waiting: Uint8Array[] = [];
  let failed: Error | null = null;
  let out = 0;
  const zip = new Zip((error, piece) => {
    if (error) failed = error;
    else waiting.push(piece);
  });
  const pass = async (): Promise<void> => {
    if (failed) throw failed;
    for (const piece of waiting.splice(0)) {
      out += piece.length;
      mustFit('the handoff', out);
      await sink.put(piece);
    }
  };
  const written: Manifest['files'] = [];
  const member = async (
    name: string,
    pieces: AsyncIterable<Uint8Array> | Iterable<Uint8Array>,
  ): Promise<void> => {
    const entry = new ZipDeflate(name, { level: 6 });
    entry.mtime = madeAt;
    zip.add(entry);
    const hash = sha256.create();
    let bytes = 0;
    for await (const piece of pieces) {
      hash.update(piece);
      bytes += piece.length;
      mustFit(name, bytes);
      entry.push(piece);
      await pass();
      tell({ says: `Writing ${name}`, done: written.length, whole: made.files.length + 1, rows: bytes });
      await breathe();
    }
    entry.push(new Uint8Array(), true);
    await pass();
    written.push({ name, bytes, sha256: bytesToHex(hash.digest()) });
  };
  try {
    for (const one of made.files) await member(one.name, one.pieces());
    const manifest = made.manifest([...written]);
    await member('manifest.json', [new TextEncoder().encode(`${JSON.stringify(manifest, null, 1)}\n`)]);
    zip.end();
    await pass();
    return { blob: await sink.end(), manifest };
  } catch (cause) {
    zip.terminate();
    await sink.drop();
    throw cause;
  }
}

/** @throws InputError where so many bytes have no place in a zip */
export function mustFit(file: string, bytes: number): void {
  if (bytes > MOST_IN_ZIP)
    throw new InputError({
      file,
      says: 'it is longer than the 4 GB that a zip has room for; take fewer rows or variables, or use the command line, which writes each file by itself',
    });
}

/** What would go out, as it would be written: the first rows, and who goes along. */
export interface LeavingTold {
  names: string[];
  rows: string[][];
  count: number;
  wentAlong: string[];
  leftOut: number;
}

export function leavingTold(inspector: Inspector, ask: LeavingAsk, most: number): LeavingTold {
  const { variables, rows, wentAlong, leftOut } = leavingOf(inspector, ask);
  const first: string[][] = [];
  for (const row of rows.each()) {
    if (first.length >= most) break;
    first.push(variables.map((one) => one.spreadsheetText(row)));
  }
  return {
    names: variables.map(({ name }) => name),
    rows: first,
    count: rows.count,
    wentAlong,
    leftOut: leftOut.length,
  };
}
