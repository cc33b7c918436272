import { hashIn } from '../extract/packed-texts';

/** Bits of a hash that choose a register. */
const BITS = 14;
const REGISTERS = 1 << BITS;
/** Standard error of the estimate, as a share of it. */
export const SKETCH_ERROR = 1.04 / Math.sqrt(REGISTERS);

/**
 * About how many different texts passed by, in a fixed room of 16 kB, whatever their number.
 * Source: Flajolet, Fusy, Gandouet & Meunier (2007), HyperLogLog: the analysis of a near-optimal cardinality estimation algorithm.
 */
export class DistinctSketch {
  private readonly registers = new Uint8Array(REGISTERS);

  /** @param bytes in which the text lies, from `from` up to `to` */
  add(bytes: Uint8Array, from: number, to: number): void {
    const hash = mixed(bytes, from, to);
    const place = hash >>> (32 - BITS);
    // Zeros before the first one of the remaining bits, and one.
    const rank = Math.min(33 - BITS, Math.clz32(hash << BITS) + 1);
    if (rank > this.registers[place]) this.registers[place] = rank;
  }

  get estimate(): number {
    let [sum, empty] = [0, 0];
    for (const rank of this.registers) {
      sum += 2 ** -rank;
      if (rank === 0) empty++;
    }
    const raw = ((0.7213 / (1 + 1.079 / REGISTERS)) * REGISTERS * REGISTERS) / sum;
    if (raw <= 2.5 * REGISTERS && empty > 0) return Math.round(REGISTERS * Math.log(REGISTERS / empty));
    // Many hashes of 32 bits meet.
    return Math.round(raw <= 2 ** 32 / 30 ? raw : -(2 ** 32) * Math.log(1 - raw / 2 ** 32));
  }
}

/** FNV-1a, then the finisher of MurmurHash3, so that every bit of the text moves every bit of the hash. */
function mixed(bytes: Uint8Array, from: number, to: number): number {
  let hash = hashIn(bytes, from, to);
  hash = Math.imul(hash ^ (hash >>> 16), 0x85ebca6b);
  hash = Math.imul(hash ^ (hash >>> 13), 0xc2b2ae35);
  return (hash ^ (hash >>> 16)) >>> 0;
}
