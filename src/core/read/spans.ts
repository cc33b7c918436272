/** Where the cells of a piece of UTF-8 lie: cell c of row r from `starts[r * width + c]` up to `ends[r * width + c]`. */
export interface Spans {
  bytes: Uint8Array;
  starts: Uint32Array;
  ends: Uint32Array;
  rows: number;
}

const FEED = 10;
const RETURN = 13;
const encoder = new TextEncoder();

/** Buffers of the piece at hand, used again for the next. */
let bytes = new Uint8Array(0);
let starts = new Uint32Array(1 << 12);
let ends = new Uint32Array(1 << 12);

/**
 * The quick lane beside the parser, for the plain part of a file: text without any quotation mark, whose rows all have
 * `width` cells and end with LF or CRLF. Such text has one reading only, so its cells are found by position and never
 * become strings. Anything else gives `null`, and the parser reads the piece. The spans hold until the next call.
 * @param text whole rows only, but for the last, which counts even without a line end
 */
export function spansOf(text: string, delimiter: string, quote: string, width: number): Spans | null {
  const cut = delimiter.charCodeAt(0);
  if (width < 2 || cut > 0x7f || (quote !== '' && text.includes(quote))) return null;
  if (bytes.length < text.length * 3) bytes = new Uint8Array(text.length * 3);
  const length = encoder.encodeInto(text, bytes).written;
  let cells = 0;
  let rows = 0;
  let start = 0;
  for (let i = 0; i < length; i++) {
    const byte = bytes[i];
    if (byte > cut && byte > RETURN) continue;
    if (byte === cut) {
      if (cells + 1 >= starts.length) grow();
      starts[cells] = start;
      ends[cells++] = i;
      start = i + 1;
    } else if (byte === FEED) {
      if (cells + 1 >= starts.length) grow();
      starts[cells] = start;
      ends[cells++] = i > start && bytes[i - 1] === RETURN ? i - 1 : i;
      start = i + 1;
      if (cells !== ++rows * width) return null;
    } else if (byte === RETURN && bytes[i + 1] !== FEED && i + 1 < length) return null;
  }
  if (length > 0 && bytes[length - 1] !== FEED) {
    starts[cells] = start;
    ends[cells++] = length;
    if (cells !== ++rows * width) return null;
  }
  return { bytes, starts, ends, rows };
}

function grow(): void {
  const [before, after] = [starts, ends];
  starts = new Uint32Array(before.length * 2);
  ends = new Uint32Array(after.length * 2);
  starts.set(before);
  ends.set(after);
}
