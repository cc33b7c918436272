import type { Spans } from '../extract/cells-in-bytes';
import { plainSpansOf } from './plain-spans';
import type { Cut } from './split';
import type { Waiting } from './waiting';

/** The rows that a piece begins with. */
export interface Cells extends Spans {
  /** Bytes that they take up; what is left belongs to the next piece. */
  used: number;
  /** Rows with line breaks within their cells, and how many, ascending. */
  breaks: [row: number, breaks: number][];
}

const FEED = 10;
const RETURN = 13;
/** A byte in each of the four places of a word. */
const EACH = 0x01010101;
const LOW = 0x7f7f7f7f;
const HIGH = 0x80808080 | 0;

/** Buffers of the piece at hand, used again for the next. */
let starts = new Uint32Array(1 << 12);
let ends = new Uint32Array(1 << 12);

/**
 * The highest bit of each byte of a word that is one of three. A byte less what it is held against is zero where they are the
 * same, and only then adding 127 to its lower bits sets none.
 */
function among(word: number, a: number, b: number, c: number): number {
  const x = word ^ a;
  const y = word ^ b;
  const z = word ^ c;
  return ~((((x & LOW) + LOW) | x) & (((y & LOW) + LOW) | y) & (((z & LOW) + LOW) | z)) & HIGH;
}

/**
 * Finds the cells of rows by their position, so that they never become strings: RFC 4180 with LF or CRLF, cells in quotation
 * marks among them. It takes what can be read in one way only: rows of `width` cells, a mark that opens at the beginning of a
 * cell and closes at its end. Anything else gives `null`, and the parser reads the piece. The spans hold until the next call;
 * of cells with doubled marks the bytes are drawn together where they lie.
 * @param last whether nothing follows: then the last row counts even without a line end
 */
export function spansOf(
  { bytes, words, length }: Pick<Waiting, 'bytes' | 'words' | 'length'>,
  { delimiter, quote }: Cut,
  width: number,
  last: boolean,
): Cells | null {
  const cut = delimiter.charCodeAt(0);
  // No byte is −1.
  const mark = quote === '' ? -1 : quote.charCodeAt(0);
  if (width < 2 || cut > 0x7f || mark > 0x7f) return null;
  const plain = plainSpansOf({ bytes, words, length }, cut, mark, width);
  if (plain && !(last && plain.used < length)) return { ...plain, breaks: [] };
  const [cuts, feeds, returns] = [cut * EACH, FEED * EACH, RETURN * EACH];
  const breaks: [number, number][] = [];
  const doubled: number[] = [];
  let cells = 0;
  let rows = 0;
  let start = 0;
  let used = 0;
  let word = 0;
  let found = length > 0 ? among(words[0], cuts, feeds, returns) : 0;
  // Held here while it works: what stands outside is looked up each time.
  let froms = starts;
  let tos = ends;
  let ended = false;
  cutting: while (!ended) {
    if (cells + 5 > froms.length) {
      grow();
      froms = starts;
      tos = ends;
    }
    if (start < length && bytes[start] === mark) {
      // In quotation marks: up to the one that is not doubled.
      let at = start + 1;
      let inside = 0;
      let twice = false;
      for (; at < length; at++) {
        const byte = bytes[at];
        if (byte === mark) {
          if (at + 1 >= length || bytes[at + 1] !== mark) break;
          twice = true;
          at++;
        } else if (byte === FEED) inside++;
        else if (byte === RETURN && bytes[at + 1] !== FEED) return null;
      }
      if (at + 1 >= length && !last) break;
      if (at >= length) return null;
      if (inside > 0) {
        const before = breaks.at(-1);
        if (before?.[0] === rows) before[1] += inside;
        else breaks.push([rows, inside]);
      }
      if (twice) doubled.push(cells);
      froms[cells] = start + 1;
      tos[cells++] = at++;
      if (at === length) {
        rows++;
        used = start = length;
        break;
      }
      if (bytes[at] === RETURN) {
        if (at + 1 >= length && !last) break;
        at++;
        if (bytes[at] !== FEED || at >= length) return null;
      }
      start = at + 1;
      if (bytes[at] === FEED) {
        if (cells !== ++rows * width) return null;
        used = start;
      } else if (bytes[at] !== cut) return null;
      word = at >> 2;
      // What lies before is done with, and so is this byte.
      found = among(words[word], cuts, feeds, returns) & ((-1 << ((at & 3) * 8)) << 8);
      continue;
    }
    for (;;) {
      if (cells + 5 > froms.length) {
        grow();
        froms = starts;
        tos = ends;
      }
      while (found !== 0) {
        const at = (word << 2) + ((31 - Math.clz32(found & -found)) >> 3);
        found &= found - 1;
        if (at >= length) break;
        if (bytes[at] === cut) {
          froms[cells] = start;
          tos[cells++] = at;
        } else if (bytes[at] === FEED) {
          froms[cells] = start;
          tos[cells++] = at > start && bytes[at - 1] === RETURN ? at - 1 : at;
          if (cells !== ++rows * width) return null;
          used = at + 1;
        } else {
          if (at + 1 >= length ? last : bytes[at + 1] !== FEED) return null;
          continue;
        }
        start = at + 1;
        if (bytes[start] === mark && start < length) continue cutting;
      }
      if (++word << 2 >= length) {
        ended = true;
        break;
      }
      found = among(words[word], cuts, feeds, returns);
    }
  }
  if (ended && last) {
    // A row without a line end.
    if (start < length || cells !== rows * width) {
      if (cells + 1 > froms.length) grow();
      starts[cells] = start;
      ends[cells++] = length;
      rows++;
    }
    used = length;
  }
  if (last && cells !== rows * width) return null;
  if (rows === 0 && length > 0) return null;
  for (const cell of doubled) if (cell < rows * width) drawTogether(bytes, cell, mark);
  if (breaks.length && breaks[breaks.length - 1][0] >= rows) breaks.pop();
  return { bytes, starts, ends, rows, used, breaks };
}

/** Leaves one mark of every two. */
function drawTogether(bytes: Uint8Array, cell: number, mark: number): void {
  let end = starts[cell];
  for (let at = end; at < ends[cell]; at++) {
    bytes[end++] = bytes[at];
    if (bytes[at] === mark) at++;
  }
  ends[cell] = end;
}

function grow(): void {
  const [before, after] = [starts, ends];
  starts = new Uint32Array(before.length * 2);
  ends = new Uint32Array(after.length * 2);
  starts.set(before);
  ends.set(after);
}
