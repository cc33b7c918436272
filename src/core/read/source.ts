import { InputError } from '../extract/problem';

/** A file as the readers see it: something whose bytes can be streamed, as often as needed. */
export interface ByteSource {
  name: string;
  /** Size as delivered, before any unpacking. */
  bytes: number;
  open(): AsyncIterable<Uint8Array>;
  /** The bytes from `from` up to `to`, where they can be had without reading those before. */
  slice?(from: number, to: number): Promise<Uint8Array>;
}

/** How far reading is, and whether to go on. Called between chunks. */
export interface Control {
  /** @param bytes delivered bytes consumed so far of the current file; @param rows read so far in all files */
  progress?(file: string, bytes: number, rows: number): void;
  /** Lets other work in; rejects with `Stopped` when the person stopped the reading. */
  breathe?(): Promise<void>;
}

/**
 * The same source, refusing in words what is not the file that was chosen: a stream that ends early or late, or a file
 * that was written to while it was read.
 * @param unchanged whether the file is still the one that was opened; asked once all of it was streamed
 */
export function steady(source: ByteSource, unchanged: () => Promise<boolean>): ByteSource {
  const changed = (says: string): InputError =>
    new InputError({ file: source.name, says: `${says}; choose the file again` });
  return {
    ...source,
    open: async function* () {
      let came = 0;
      try {
        for await (const part of source.open()) {
          came += part.length;
          yield part;
        }
      } catch (cause) {
        if (cause instanceof InputError) throw cause;
        throw changed('it was changed, moved or deleted while it was read');
      }
      if (came !== source.bytes)
        throw changed(`it was changed while it was read: ${came} bytes came of ${source.bytes}`);
      if (!(await unchanged())) throw changed('it was changed while it was read');
    },
  };
}

export function sourceOf(name: string, content: string | Uint8Array): ByteSource {
  const bytes = typeof content === 'string' ? new TextEncoder().encode(content) : content;
  return {
    name,
    bytes: bytes.length,
    open: async function* () {
      yield bytes;
    },
    slice: (from, to) => Promise.resolve(bytes.subarray(from, to)),
  };
}

/** The first bytes of a stream, at most `most`, and whether that was all of it. */
export async function firstBytes(
  stream: AsyncIterable<Uint8Array>,
  most: number,
): Promise<{ bytes: Uint8Array; whole: boolean }> {
  const parts: Uint8Array[] = [];
  let length = 0;
  for await (const part of stream) {
    parts.push(part);
    length += part.length;
    if (length > most) return { bytes: join(parts).subarray(0, most), whole: false };
  }
  return { bytes: join(parts), whole: true };
}

export async function allBytes(stream: AsyncIterable<Uint8Array>): Promise<Uint8Array> {
  return (await firstBytes(stream, Infinity)).bytes;
}

export function join(parts: readonly Uint8Array[]): Uint8Array {
  if (parts.length === 1) return parts[0];
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length, 0));
  let at = 0;
  for (const part of parts) {
    whole.set(part, at);
    at += part.length;
  }
  return whole;
}
