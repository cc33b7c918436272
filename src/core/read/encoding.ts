import { looksUtf16 } from './signature';
import { join } from './source';

export const ENCODINGS = ['utf-8', 'utf-16le', 'utf-16be', 'windows-1252'] as const;
export type Encoding = (typeof ENCODINGS)[number];

const utf8 = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true });
const loose = new TextDecoder('utf-8', { ignoreBOM: true });

/** The encoding of a sample, with the reason in words. UTF-16 by mark or zero bytes, UTF-8 if the bytes are valid. */
export function guessEncoding(sample: Uint8Array): { encoding: Encoding; because: string } {
  const wide = looksUtf16(sample);
  if (wide) return { encoding: wide, because: 'byte order mark or zero bytes of UTF-16' };
  if (sample[0] === 0xef && sample[1] === 0xbb && sample[2] === 0xbf)
    return { encoding: 'utf-8', because: 'byte order mark of UTF-8' };
  const whole = sample.subarray(0, wholeCharacters(sample));
  if (whole.every((byte) => byte < 0x80)) return { encoding: 'utf-8', because: 'plain ASCII so far' };
  try {
    utf8.decode(whole);
    return { encoding: 'utf-8', because: 'the bytes are valid UTF-8' };
  } catch {
    return damagedUtf8(whole)
      ? { encoding: 'windows-1252', because: 'the bytes are not valid UTF-8' }
      : { encoding: 'utf-8', because: 'nearly all bytes are valid UTF-8' };
  }
}

/** True where invalid bytes outnumber the valid characters beyond ASCII: the text is in another encoding. */
function damagedUtf8(bytes: Uint8Array): boolean {
  let valid = 0;
  let invalid = 0;
  for (const character of loose.decode(bytes)) {
    if (character === '\uFFFD') invalid++;
    else if (character > '\x7f') valid++;
  }
  return invalid > valid;
}

/** Number of leading bytes that end between characters; at most three bytes are left over. */
function wholeCharacters(bytes: Uint8Array): number {
  for (let back = 1; back <= Math.min(4, bytes.length); back++) {
    const byte = bytes[bytes.length - back];
    if (byte < 0x80) break;
    if (byte >= 0xc0) {
      const needs = byte >= 0xf0 ? 4 : byte >= 0xe0 ? 3 : 2;
      return needs > back ? bytes.length - back : bytes.length;
    }
  }
  return bytes.length;
}

/**
 * Text of a byte stream, piece by piece, without its byte order mark. UTF-8 that turns out not to be: where all before
 * was ASCII the rest is read as Windows-1252 (the bytes so far mean the same in both); where characters beyond ASCII
 * were valid, single bad bytes become U+FFFD. Either is told to `turned`.
 */
export async function* decoded(
  parts: AsyncIterable<Uint8Array>,
  encoding: Encoding,
  turned: (to: Encoding | 'damaged') => void,
): AsyncGenerator<string> {
  let rest: Uint8Array = new Uint8Array(0);
  let stream: TextDecoder | null =
    encoding === 'utf-8' ? null : new TextDecoder(encoding, { ignoreBOM: true });
  let beyondAscii = false;
  let first = true;
  const clean = (text: string): string => {
    const bare = first && text.startsWith('\uFEFF') ? text.slice(1) : text;
    if (text) first = false;
    return bare;
  };
  for await (const part of parts) {
    if (stream) {
      yield clean(stream.decode(part, { stream: true }));
      continue;
    }
    const bytes = rest.length ? join([rest, part]) : part;
    const whole = wholeCharacters(bytes);
    try {
      const text = utf8.decode(bytes.subarray(0, whole));
      beyondAscii ||= text.length < whole;
      rest = bytes.slice(whole);
      yield clean(text);
    } catch {
      const elsewhere = !beyondAscii && damagedUtf8(bytes.subarray(0, whole));
      turned(elsewhere ? 'windows-1252' : 'damaged');
      stream = new TextDecoder(elsewhere ? 'windows-1252' : 'utf-8', { ignoreBOM: true });
      yield clean(stream.decode(bytes, { stream: true }));
    }
  }
  if (stream) yield clean(stream.decode());
  else if (rest.length) {
    turned('damaged');
    yield clean(loose.decode(rest));
  }
}
