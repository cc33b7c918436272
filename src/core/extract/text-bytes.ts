const encoder = new TextEncoder();

/** The UTF-8 bytes of one text at a time, in a buffer that is used again and again. */
export class TextBytes {
  /** Of the last text, from 0 up to `length`. */
  bytes = new Uint8Array(1024);
  length = 0;

  put(text: string): this {
    if (text.length * 3 > this.bytes.length) this.bytes = new Uint8Array(text.length * 6);
    const { bytes } = this;
    // Most cells are short ASCII, which a plain loop copies faster than a call per cell.
    for (let i = 0; i < text.length; i++) {
      const unit = text.charCodeAt(i);
      if (unit > 0x7f) {
        this.length = encoder.encodeInto(text, bytes).written;
        return this;
      }
      bytes[i] = unit;
    }
    this.length = text.length;
    return this;
  }
}
