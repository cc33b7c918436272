/** Least and most places of the table of numbers, and how many it may have for each cell that is known. */
const LEAST_PLACES = 1 << 12;
const MOST_PLACES = 1 << 18;
const PLACES_EACH = 8;
/** Codes by the digits of numbers: small ones have a place each in a table, others are sought by open addresses. */
export class NumberCodes {
  /** Codes plus one by the digits themselves, in so far as they are small enough; 0 for what is not known. */
  near = new Int32Array(64);
  /** The others: digits, and codes plus one. */
  private far = new Float64Array(0);
  private farCodes = new Int32Array(0);
  private farSize = 0;

  /** The code of a number; −1 where it is not known. */
  of(digits: number): number {
    const isNear = digits >= 0 && digits < this.near.length;
    if (isNear && this.near[digits] !== 0) return this.near[digits] - 1;
    const place = this.placeOf(digits);
    if (place < 0 || this.farCodes[place] === 0) return -1;
    // It was known before there was a place for it.
    if (isNear) this.near[digits] = this.farCodes[place];
    return this.farCodes[place] - 1;
  }

  /** Takes a number that is not known. */
  put(digits: number, code: number): void {
    if (this.hasPlace(digits, code + 1)) this.near[digits] = code + 1;
    else this.putFar(digits, code + 1);
  }

  /** Whether a number has a place in the table, which grows with what is known. */
  private hasPlace(digits: number, known: number): boolean {
    if (digits < 0) return false;
    if (digits < this.near.length) return true;
    if (digits >= Math.min(MOST_PLACES, Math.max(LEAST_PLACES, known * PLACES_EACH))) return false;
    let places = this.near.length;
    while (places <= digits) places *= 2;
    const table = new Int32Array(places);
    table.set(this.near);
    this.near = table;
    return true;
  }

  /** Where a number stands among the others, or would; −1 where there are none. */
  private placeOf(digits: number): number {
    const { far, farCodes } = this;
    const mask = far.length - 1;
    if (mask < 0) return -1;
    let place = spread(digits) & mask;
    while (farCodes[place] !== 0 && far[place] !== digits) place = (place + 1) & mask;
    return place;
  }

  private putFar(digits: number, code: number): void {
    if ((this.farSize + 1) * 2 > this.far.length) this.growFar();
    const place = this.placeOf(digits);
    this.far[place] = digits;
    this.farCodes[place] = code;
    this.farSize++;
  }

  private growFar(): void {
    const { far, farCodes } = this;
    this.far = new Float64Array(Math.max(64, far.length * (far.length < 1 << 16 ? 4 : 2)));
    this.farCodes = new Int32Array(this.far.length);
    for (let i = 0; i < far.length; i++) {
      if (farCodes[i] === 0) continue;
      const place = this.placeOf(far[i]);
      this.far[place] = far[i];
      this.farCodes[place] = farCodes[i];
    }
  }
}

/** First place of a number's digits. */
function spread(digits: number): number {
  // What lies beyond 32 bits is cut off by the first, and is what the second is of.
  const hash = Math.imul(digits ^ Math.imul((digits / 2 ** 32) | 0, 0x85ebca6b), 0xc2b2ae35);
  return Math.imul(hash ^ (hash >>> 15), 0x27d4eb2f) >>> 8;
}
