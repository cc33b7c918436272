/** More different texts than this take more memory to be told apart than a browser gives; each costs a few hundred bytes. */
const MOST_DISTINCT = 4_000_000;

/** Thrown where a column holds more different texts than can be told apart. */
export class TooManyDistinct extends Error {
  constructor() {
    super(
      `it holds more than ${MOST_DISTINCT / 1_000_000} million different values, more than can be told apart in memory; read the files without it, or only their first rows`,
    );
    this.name = 'TooManyDistinct';
  }
}

/** @throws TooManyDistinct */
export function mustBeFew(distinct: number): void {
  if (distinct > MOST_DISTINCT) throw new TooManyDistinct();
}
