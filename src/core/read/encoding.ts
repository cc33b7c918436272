import { analyse } from 'chardet';
import { looksUtf16 } from './signature';
import { join } from './source';

/** Encodings that are read, by the names of the Encoding Standard (https://encoding.spec.whatwg.org/#names-and-labels). */
export const ENCODINGS = [
  'utf-8',
  'utf-16le',
  'utf-16be',
  'windows-1252',
  'windows-1250',
  'windows-1251',
  'windows-1253',
  'windows-1254',
  'windows-1255',
  'windows-1256',
  'windows-1257',
  'iso-8859-2',
  'iso-8859-5',
  'iso-8859-7',
  'iso-8859-13',
  'iso-8859-15',
  'koi8-r',
  'koi8-u',
  'macintosh',
  'shift_jis',
  'euc-jp',
  'iso-2022-jp',
  'euc-kr',
  'gb18030',
  'big5',
] as const;
export type Encoding = (typeof ENCODINGS)[number];

const utf8 = new TextDecoder('utf-8', { fatal: true, ignoreBOM: true });
const loose = new TextDecoder('utf-8', { ignoreBOM: true });
const encoder = new TextEncoder();

/** The encoding of a sample, with the reason in words. UTF-16 by mark or zero bytes, UTF-8 if the bytes are valid. */
export function guessEncoding(sample: Uint8Array): { encoding: Encoding; because: string } {
  const wide = looksUtf16(sample);
  if (wide) return { encoding: wide, because: 'byte order mark or zero bytes of UTF-16' };
  if (sample[0] === 0xef && sample[1] === 0xbb && sample[2] === 0xbf)
    return { encoding: 'utf-8', because: 'byte order mark of UTF-8' };
  const whole = sample.subarray(0, wholeCharacters(sample));
  if (hasEscapes(whole)) return { encoding: 'iso-2022-jp', because: 'it changes sets as Japanese text does' };
  if (whole.every((byte) => byte < 0x80)) return { encoding: 'utf-8', because: 'plain ASCII so far' };
  try {
    utf8.decode(whole);
    return { encoding: 'utf-8', because: 'the bytes are valid UTF-8' };
  } catch {
    return damagedUtf8(whole)
      ? otherThanUtf8(whole)
      : { encoding: 'utf-8', because: 'nearly all bytes are valid UTF-8' };
  }
}

/** So few bytes beyond ASCII tell no encoding from another. */
const LEAST_TELLING = 12;
/** Certainties of the detector, in percent, from which it is believed: an encoding of several bytes must fit, one of single bytes always does. */
const SURE_MULTI = 40;
const SURE_SINGLE = 30;
const MULTI: readonly Encoding[] = ['shift_jis', 'euc-jp', 'euc-kr', 'gb18030', 'big5'];
/** Single-byte encodings of other alphabets, in which most letters lie beyond ASCII. */
const OTHER_ALPHABETS: readonly Encoding[] = [
  'koi8-r',
  'windows-1251',
  'iso-8859-5',
  'iso-8859-7',
  'windows-1253',
  'windows-1255',
  'windows-1256',
];
const MOSTLY_BEYOND = 0.25;

/** The encoding of bytes that are not UTF-8, by their statistics: Windows-1252 where nothing else is likely. */
function otherThanUtf8(bytes: Uint8Array): { encoding: Encoding; because: string } {
  const plain = { encoding: 'windows-1252' as const, because: 'the bytes are not valid UTF-8' };
  const beyond = bytes.reduce((count, byte) => (byte >= 0x80 ? count + 1 : count), 0);
  if (beyond < LEAST_TELLING) return plain;
  const letters = bytes.reduce(
    (count, byte) => ((byte >= 0x41 && byte <= 0x5a) || (byte >= 0x61 && byte <= 0x7a) ? count + 1 : count),
    0,
  );
  const alphabet = beyond / (beyond + letters) >= MOSTLY_BEYOND;
  for (const { name, confidence } of analyse(bytes)) {
    const encoding = ENCODINGS.find(
      (one) => one === name.toLowerCase().replace('iso-8859-1', 'windows-1252'),
    );
    if (!encoding) continue;
    const believed = MULTI.includes(encoding)
      ? confidence >= SURE_MULTI && fits(bytes, encoding)
      : OTHER_ALPHABETS.includes(encoding)
        ? alphabet && confidence >= SURE_SINGLE
        : confidence >= SURE_SINGLE && !alphabet;
    if (believed && encoding !== 'windows-1252')
      return {
        encoding,
        because: `the bytes are not valid UTF-8, and distributed as in ${encoding.toUpperCase()}`,
      };
    if (believed) return plain;
  }
  return alphabet
    ? {
        ...plain,
        because:
          'the bytes are not valid UTF-8, nor like any encoding known here: check whether this one is right',
      }
    : plain;
}

/** Whether all bytes are characters of an encoding; the last may be cut off. */
function fits(bytes: Uint8Array, encoding: Encoding): boolean {
  try {
    new TextDecoder(encoding, { fatal: true }).decode(bytes, { stream: true });
    return true;
  } catch {
    return false;
  }
}

/** Escapes by which Japanese text of seven bits changes between its sets. */
const ESCAPES = [
  [0x1b, 0x24, 0x42],
  [0x1b, 0x24, 0x40],
];
const hasEscapes = (bytes: Uint8Array): boolean =>
  bytes.some(
    (byte, at) => byte === 0x1b && ESCAPES.some((escape) => escape.every((one, i) => bytes[at + i] === one)),
  );

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

/** What is said of a text that turned out not to be UTF-8. */
export const turnedNotice = (to: Encoding | 'damaged'): string =>
  to === 'damaged'
    ? 'some bytes are not valid UTF-8; they stand as \uFFFD'
    : `the bytes are not valid UTF-8; read as ${to === 'windows-1252' ? 'Windows-1252' : to.toUpperCase()}`;

/** Whether all bytes are ASCII. */
function isAscii(bytes: Uint8Array): boolean {
  let any = 0;
  let at = 0;
  // Four at a time where memory can be read so.
  if ((bytes.byteOffset & 3) === 0) {
    const words = new Int32Array(bytes.buffer, bytes.byteOffset, bytes.length >> 2);
    for (let i = 0; i < words.length; i++) any |= words[i];
    if ((any & 0x80808080) !== 0) return false;
    any = 0;
    at = words.length << 2;
  }
  for (; at < bytes.length; at++) any |= bytes[at];
  return any < 0x80;
}

/**
 * A byte stream as UTF-8, piece by piece, each of whole characters, without its byte order mark. What is UTF-8 is passed on as
 * it is. UTF-8 that turns out not to be: where all before was ASCII the rest is read in the encoding that its bytes are like
 * (those so far mean the same in all); where characters beyond ASCII were valid, single bad bytes become U+FFFD. Either is told
 * to `turned`.
 */
export async function* asUtf8(
  parts: AsyncIterable<Uint8Array>,
  encoding: Encoding,
  turned: (to: Encoding | 'damaged') => void,
): AsyncGenerator<Uint8Array> {
  let rest: Uint8Array = new Uint8Array(0);
  let stream: TextDecoder | null =
    encoding === 'utf-8' ? null : new TextDecoder(encoding, { ignoreBOM: true });
  let beyondAscii = false;
  let first = true;
  const clean = (bytes: Uint8Array): Uint8Array => {
    const marked = first && bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf;
    if (bytes.length) first = false;
    return marked ? bytes.subarray(3) : bytes;
  };
  for await (const part of parts) {
    if (stream) {
      yield clean(encoder.encode(stream.decode(part, { stream: true })));
      continue;
    }
    const bytes = rest.length ? join([rest, part]) : part;
    const whole = bytes.subarray(0, wholeCharacters(bytes));
    try {
      if (!isAscii(whole)) {
        utf8.decode(whole);
        beyondAscii = true;
      }
      rest = bytes.slice(whole.length);
      yield clean(whole);
    } catch {
      const elsewhere = !beyondAscii && damagedUtf8(whole);
      const to = elsewhere ? otherThanUtf8(whole).encoding : 'utf-8';
      turned(elsewhere ? to : 'damaged');
      stream = new TextDecoder(to, { ignoreBOM: true });
      yield clean(encoder.encode(stream.decode(bytes, { stream: true })));
    }
  }
  if (stream) yield clean(encoder.encode(stream.decode()));
  else if (rest.length) {
    turned('damaged');
    yield clean(encoder.encode(loose.decode(rest)));
  }
}

/** The same as text. */
export async function* decoded(
  parts: AsyncIterable<Uint8Array>,
  encoding: Encoding,
  turned: (to: Encoding | 'damaged') => void,
): AsyncGenerator<string> {
  for await (const bytes of asUtf8(parts, encoding, turned)) yield loose.decode(bytes);
}
