import { InputError } from '../extract/problem';
import { bounded } from './bounds';
import type { ByteSource } from './source';

const isGzip = (bytes: Uint8Array): boolean => bytes.length > 2 && bytes[0] === 0x1f && bytes[1] === 0x8b;

/**
 * The same source, unpacked if its bytes are gzip (RFC 1952), by content and not by name. `consumed` tells how many
 * delivered bytes have gone in, for progress. Damage and a missing end become an `InputError`.
 */
export async function unpacked(
  source: ByteSource,
): Promise<ByteSource & { packed: boolean; consumed(): number }> {
  let packed = false;
  for await (const part of source.open()) {
    packed = isGzip(part);
    if (part.length > 0) break;
  }
  let taken = 0;
  const counted = async function* () {
    taken = 0;
    for await (const part of source.open()) {
      taken += part.length;
      yield part;
    }
  };
  return {
    name: source.name,
    bytes: source.bytes,
    packed,
    consumed: () => taken,
    open: packed ? () => inflate(source, counted()) : counted,
  };
}

/** Bytes that are given to the unpacking at once; deflate makes at most about a thousand times as many of them. */
const PIECE = 1 << 14;

async function* inflate(
  { name: file, bytes: delivered }: ByteSource,
  parts: AsyncIterable<Uint8Array>,
): AsyncGenerator<Uint8Array> {
  const count = bounded(file, delivered);
  const unzip = new DecompressionStream('gzip');
  const writer = unzip.writable.getWriter() as WritableStreamDefaultWriter<Uint8Array>;
  const feeding = (async () => {
    // In small pieces: all that a piece swells to stands in memory before any of it can be counted.
    for await (const part of parts)
      for (let at = 0; at < part.length; at += PIECE) await writer.write(part.subarray(at, at + PIECE));
    await writer.close();
  })();
  // A failure also reaches the reading side below; this keeps it from being reported twice.
  feeding.catch(() => undefined);
  const reader = (unzip.readable as ReadableStream<Uint8Array>).getReader();
  let done = false;
  let got = 0;
  try {
    for (;;) {
      const next = await reader.read();
      if (next.done) break;
      count(next.value.length);
      got += next.value.length;
      yield next.value;
    }
    await feeding;
    done = true;
  } catch (cause) {
    done = true;
    if (cause instanceof InputError) {
      await reader.cancel().catch(() => undefined);
      throw cause;
    }
    throw new InputError({
      file,
      says: `the gzip data are damaged or end too early, after ${got} bytes that could be unpacked; fetch the file again`,
    });
  } finally {
    if (!done) await reader.cancel().catch(() => undefined);
  }
}
