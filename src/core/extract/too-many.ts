/** More different texts than this take more memory to be told apart than a browser gives; each costs a few hundred bytes. */
export const MOST_TEXTS = 4_000_000;
/** Numbers that are written alike cost some sixty. */
const MOST_NUMBERS = 16_000_000;

/** Thrown where a column holds more different cells than can be told apart. */
export class TooManyDistinct extends Error {
  constructor(most: number) {
    super(
      `it holds more than ${most / 1_000_000} million different values, more than can be told apart in memory; read the files without it, or only their first rows`,
    );
    this.name = 'TooManyDistinct';
  }
}

/** @param of what they are @throws TooManyDistinct */
export function mustBeFew(distinct: number, of: 'texts' | 'numbers'): void {
  const most = of === 'texts' ? MOST_TEXTS : MOST_NUMBERS;
  if (distinct > most) throw new TooManyDistinct(most);
}
