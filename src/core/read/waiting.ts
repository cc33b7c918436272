const decoder = new TextDecoder('utf-8', { ignoreBOM: true });
const FEED = 0x0a;

/** UTF-8 that came and waits to be cut into rows. */
export class Waiting {
  bytes = new Uint8Array(1 << 20);
  /** The same memory in words of four bytes, the first the lowest, as every machine has them that runs a browser. */
  words = new Int32Array(this.bytes.buffer);
  length = 0;

  add(piece: Uint8Array): void {
    const length = this.length + piece.length;
    if (length > this.bytes.length) {
      const before = this.bytes.subarray(0, this.length);
      this.bytes = new Uint8Array(Math.max(length + 3, before.length * 2) & ~3);
      this.words = new Int32Array(this.bytes.buffer);
      this.bytes.set(before);
    }
    this.bytes.set(piece, this.length);
    this.length = length;
  }

  /** All of it as text. */
  get text(): string {
    return decoder.decode(this.bytes.subarray(0, this.length));
  }

  /** Whole lines that it begins with as text, of at most so many bytes; empty where it is not longer, or none ends within them. */
  head(most: number): string {
    const end = this.length > most ? this.bytes.lastIndexOf(FEED, most - 1) + 1 : 0;
    return decoder.decode(this.bytes.subarray(0, end));
  }

  /** The first bytes are done with. */
  drop(used: number): void {
    this.bytes.copyWithin(0, used, this.length);
    this.length -= used;
  }
}
