import { MOST_TEXTS, mustBeFew } from './too-many';

const decoder = new TextDecoder('utf-8', { ignoreBOM: true });

/** Bytes of texts that are read together. */
const AT_ONCE = 1 << 26;

/**
 * Texts whose UTF-8 bytes lie one after the other.
 * @param ends for each the offset just past it @param size how many there are
 * @param atOnce bytes that are read together: a text of all may be longer than texts can be
 */
export function textsIn(bytes: Uint8Array, ends: Uint32Array, size: number, atOnce = AT_ONCE): string[] {
  const texts = new Array<string>(size);
  for (let first = 0; first < size;) {
    const from = first === 0 ? 0 : ends[first - 1];
    let last = first + 1;
    while (last < size && ends[last] - from <= atOnce) last++;
    const piece = bytes.subarray(from, ends[last - 1]);
    const all = decoder.decode(piece);
    // Where every character is one byte the texts can be cut from the whole.
    const plain = all.length === piece.length;
    let begin = from;
    for (let i = first; i < last; i++) {
      const end = ends[i];
      texts[i] = plain ? all.slice(begin - from, end - from) : decoder.decode(bytes.subarray(begin, end));
      begin = end;
    }
    first = last;
  }
  return texts;
}

/** The same of some of them. @param rows their places */
export function textsOfRows(bytes: Uint8Array, ends: Uint32Array, rows: Uint32Array): string[] {
  if (rows.length === ends.length) return textsIn(bytes, ends, rows.length);
  let size = 0;
  const theirs = new Uint32Array(rows.length);
  for (let i = 0; i < rows.length; i++) {
    size += ends[rows[i]] - (rows[i] === 0 ? 0 : ends[rows[i] - 1]);
    theirs[i] = size;
  }
  const copied = new Uint8Array(size);
  let used = 0;
  for (let i = 0; i < rows.length; i++)
    for (let at = ends[rows[i]] - (theirs[i] - used); at < ends[rows[i]]; at++) copied[used++] = bytes[at];
  return textsIn(copied, theirs, rows.length);
}

/** FNV-1a of bytes. */
export function hashIn(bytes: Uint8Array, from: number, to: number): number {
  let hash = 0x811c9dc5;
  for (let at = from; at < to; at++) hash = Math.imul(hash ^ bytes[at], 0x01000193);
  return hash;
}

/** Different texts among packed ones, each told by the first row that holds it: none of them is copied. */
export class FirstRows {
  size = 0;
  private readonly firsts: Uint32Array;
  /** Codes plus one, by hash, at open addresses; 0 where there is none. */
  private readonly table: Int32Array;
  private readonly hashes: Int32Array;

  constructor(
    private readonly bytes: Uint8Array,
    private readonly ends: Uint32Array,
  ) {
    const room = Math.min(ends.length, MOST_TEXTS);
    this.firsts = new Uint32Array(room);
    this.hashes = new Int32Array(room);
    this.table = new Int32Array(2 ** Math.ceil(Math.log2(Math.max(1, room) * 1.5)));
  }

  /** Rows that were the first to hold their text, by code. */
  get rows(): Uint32Array {
    return this.firsts.slice(0, this.size);
  }

  /** Code of a row's text; codes are given in the order in which texts are met. @throws TooManyDistinct */
  code(row: number): number {
    const { bytes, ends, table, hashes } = this;
    const from = row === 0 ? 0 : ends[row - 1];
    const mixed = hashIn(bytes, from, ends[row]);
    const hash = mixed ^ (mixed >>> 15);
    const mask = table.length - 1;
    let place = hash & mask;
    for (let code = table[place]; code !== 0; code = table[place]) {
      if (hashes[code - 1] === hash && this.isSame(this.firsts[code - 1], row)) return code - 1;
      place = (place + 1) & mask;
    }
    mustBeFew(this.size + 1, 'texts');
    this.firsts[this.size] = row;
    hashes[this.size] = hash;
    table[place] = ++this.size;
    return this.size - 1;
  }

  private isSame(row: number, other: number): boolean {
    return isSameIn(this.bytes, this.ends, row, other);
  }
}

/** Whether two of packed texts are the same. */
export function isSameIn(bytes: Uint8Array, ends: Uint32Array, row: number, other: number): boolean {
  const [a, b] = [ends[row], ends[other]];
  const length = a - (row === 0 ? 0 : ends[row - 1]);
  if (b - (other === 0 ? 0 : ends[other - 1]) !== length) return false;
  for (let back = 1; back <= length; back++) if (bytes[a - back] !== bytes[b - back]) return false;
  return true;
}
