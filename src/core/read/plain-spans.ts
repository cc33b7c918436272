import type { Spans } from '../extract/cells-in-bytes';
import type { Waiting } from './waiting';

const FEED = 10;
const RETURN = 13;
/** What a byte is: the end of a cell, or something that asks for a closer look. */
const END = 1;
const MARK = 0x40;
const RETURNS = 0x80;
/** So many bytes tell whether there are quotation marks. */
const HEAD = 1 << 12;

/** Buffers of the piece at hand, used again for the next. */
let starts = new Uint32Array(1 << 16);
let ends = new Uint32Array(1 << 16);
/** What each byte is, by the marks for which it was made. */
let table = { cut: -1, mark: -1, kinds: new Uint8Array(256) };

/**
 * The rows that a piece without quotation marks begins with, where each has as many cells as there are columns: nearly all
 * pieces are such.
 * @returns `null` where a piece needs a closer look
 */
export function plainSpansOf(
  { bytes, words, length }: Pick<Waiting, 'bytes' | 'words' | 'length'>,
  cut: number,
  mark: number,
  width: number,
): (Spans & { used: number }) | null {
  if (mark >= 0 && bytes.subarray(0, Math.min(length, HEAD)).includes(mark)) return null;
  const kinds = kindsFor(cut, mark);
  // Each byte may be the end of a cell; memory that nothing is written to is not taken.
  if (ends.length <= length + 4) {
    starts = new Uint32Array(length * 2 + 8);
    ends = new Uint32Array(length * 2 + 8);
  }
  const found = endsIn(words, length, kinds);
  let { cells } = found;
  while (cells > 0 && ends[cells - 1] >= length) cells--;
  const rows = Math.floor(cells / width);
  if (rows === 0 || (found.odd & MARK) !== 0) return null;
  const used = ends[rows * width - 1] + 1;
  if (!fillStarts(bytes, starts, ends, rows, width, cut)) return null;
  if ((found.odd & RETURNS) !== 0 && !withoutReturns(bytes, used, rows, width)) return null;
  return { bytes, starts, ends, rows, used };
}

/** Cells that end within a piece, and what other kinds of bytes are among them. */
function endsIn(words: Int32Array, length: number, kinds: Uint8Array): { cells: number; odd: number } {
  const found = { cells: 0, odd: 0 };
  const all = (length + 3) >> 2;
  // By blocks: a function that is called often is made fast as a whole, one that loops for long only in part.
  for (let from = 0; from < all; from += BLOCK)
    findEnds(words, from, Math.min(all, from + BLOCK), kinds, found);
  return found;
}
const BLOCK = 1 << 10;

/**
 * Finds where cells end, in some words. No byte is asked what it is: its kind is added up, and where the cell at hand would end is
 * written each time, which costs less than to guess wrong at every other cell.
 * @param found so far
 */
function findEnds(
  words: Int32Array,
  from: number,
  to: number,
  kinds: Uint8Array,
  found: { cells: number; odd: number },
): void {
  let { cells, odd } = found;
  const into = ends;
  for (let at = from; at < to; at++) {
    const word = words[at];
    const first = at << 2;
    const a = kinds[word & 0xff];
    into[cells] = first;
    cells += a & END;
    const b = kinds[(word >>> 8) & 0xff];
    into[cells] = first + 1;
    cells += b & END;
    const c = kinds[(word >>> 16) & 0xff];
    into[cells] = first + 2;
    cells += c & END;
    const d = kinds[word >>> 24];
    into[cells] = first + 3;
    cells += d & END;
    odd |= a | b | c | d;
  }
  found.cells = cells;
  found.odd = odd;
}

/** Where each cell begins. @returns whether rows end where lines do, and nowhere else */
function fillStarts(
  bytes: Uint8Array,
  starts: Uint32Array,
  ends: Uint32Array,
  rows: number,
  width: number,
  cut: number,
): boolean {
  let start = 0;
  let bad = 0;
  let cell = 0;
  for (let row = 0; row < rows; row++) {
    for (const last = cell + width - 1; cell < last; cell++) {
      const end = ends[cell];
      starts[cell] = start;
      bad |= bytes[end] ^ cut;
      start = end + 1;
    }
    const end = ends[cell];
    starts[cell++] = start;
    bad |= bytes[end] ^ FEED;
    start = end + 1;
  }
  return bad === 0;
}

/** Leaves the carriage returns before line ends out of the cells. @returns whether there are no others */
function withoutReturns(bytes: Uint8Array, used: number, rows: number, width: number): boolean {
  let all = 0;
  for (let at = 0; at < used; at++) all += bytes[at] === RETURN ? 1 : 0;
  for (let row = 0, cell = width - 1; row < rows; row++, cell += width) {
    const end = ends[cell];
    if (end === starts[cell] || bytes[end - 1] !== RETURN) continue;
    ends[cell] = end - 1;
    all--;
  }
  return all === 0;
}

function kindsFor(cut: number, mark: number): Uint8Array {
  if (table.cut !== cut || table.mark !== mark) {
    const kinds = new Uint8Array(256);
    kinds[RETURN] = RETURNS;
    if (mark >= 0) kinds[mark] = MARK;
    kinds[cut] = kinds[FEED] = END;
    table = { cut, mark, kinds };
  }
  return table.kinds;
}
