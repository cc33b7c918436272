/**
 * Words in lower case that are looked for where they lie in a text, in any case. Letters without accents and digits begin them;
 * their first letter and their length tell most other words from all of them at once.
 */
export class WordSet {
  private readonly words: ReadonlySet<string>;
  /** For each first letter the lengths of its words, one bit each; the last for all that are as long or longer. */
  private readonly lengths = new Int32Array(0x80);

  constructor(words: Iterable<string>) {
    this.words = new Set(words);
    for (const word of this.words) this.lengths[word.charCodeAt(0) & 0x7f] |= 1 << Math.min(word.length, 31);
  }

  /** Whether a text's part from `from` up to `to` is one of them. */
  has(text: string, from: number, to: number): boolean {
    const first = text.charCodeAt(from) | 0x20;
    if (first > 0x7f || !((this.lengths[first] >>> Math.min(to - from, 31)) & 1)) return false;
    return this.words.has(text.slice(from, to).toLowerCase());
  }
}
