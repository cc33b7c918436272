import { InputError } from '../extract/problem';
import type { AllRows } from '../rows/all-rows';
import type { Inspector } from './inspect';
import type { Sorting } from './listed';
import { orderOf, stoodAmongAll } from './listed-all';
import { rawIn, rowsAsked } from './settled';
import { placeTold, textsTold, type ToldCell, type ToldPlace } from './told-rows';

/** A record of all rows. */
export interface WholeRow extends ToldPlace {
  /** Whether it is one of the rows that are held: else `row` is 0. */
  held: boolean;
  cells: ToldCell[];
}

/** The records of all rows, of which only a sample is held, in an order; they are read where they stand when they are looked at. */
export class WholeListing {
  private readonly stood: ReturnType<typeof stoodAmongAll>;

  private constructor(
    private readonly inspector: Inspector,
    private readonly all: AllRows,
    /** Zero-based places of the rows; `null` for all of them in the order of the files, but those that were set aside. */
    private readonly places: Uint32Array | null,
    /** Zero-based places of those, ascending. */
    private readonly aside: readonly number[],
    readonly rows: number,
  ) {
    this.stood = stoodAmongAll(inspector.received);
  }

  /**
   * Lists the rows that the sieve in force keeps. With a sieve or an order all rows are gone through once.
   * @throws InputError where cells were corrected or rows added: the files know nothing of them
   */
  static async of(inspector: Inspector, all: AllRows, sort: readonly Sorting[]): Promise<WholeListing> {
    const { received } = inspector;
    const asked = rowsAsked(inspector);
    if (!asked || !all.places || !received.pass)
      throw new InputError({
        file: received.name,
        says: 'cells were corrected or rows added in the sample, which the files know nothing of; take those rulings back first',
      });
    const order = sort.flatMap((one) => orderOf(inspector, one) ?? []);
    if (asked.tests.length > 0 || order.length > 0) {
      const places = await all.places(asked, order);
      return new WholeListing(inspector, all, places, [], places.length);
    }
    const aside = [...asked.aside].sort((a, b) => a - b);
    return new WholeListing(inspector, all, null, aside, received.pass.rows - aside.length);
  }

  /** Some records. @param from zero-based place in the listing */
  async told(from: number, take: number, names: readonly string[]): Promise<WholeRow[]> {
    const { inspector, all, stood } = this;
    const { received } = inspector;
    const raw = rawIn(inspector);
    const shown = names.flatMap((name) => inspector.wholly(name) ?? []);
    const length = Math.max(0, Math.min(take, this.rows - from));
    const places = Array.from({ length }, (_, i) => this.place(from + i));
    const texts =
      (await all.textsAt?.(
        places,
        shown.map(({ name }) => raw(name).name),
      )) ?? [];
    const cells = textsTold(
      texts.map((row) => row.map((text, i) => raw(shown[i].name).text(text))),
      shown,
    );
    return places.map((place, i) => {
      const row = placeIn(received.pass?.places ?? [], place);
      return { ...placeTold(stood(place), row, received.name), held: row >= 0, cells: cells[i] };
    });
  }

  /** Zero-based place in the listing of a row by its one-based number among all; `null` where it is not listed. */
  placeOf(row: number): number | null {
    const { places, aside } = this;
    const place = row - 1;
    if (places) {
      const at = places.indexOf(place);
      return at < 0 ? null : at;
    }
    if (aside.includes(place) || place < 0 || place >= this.rows + aside.length) return null;
    return place - aside.filter((gone) => gone < place).length;
  }

  private place(at: number): number {
    if (this.places) return this.places[at];
    let place = at;
    for (const gone of this.aside) if (gone <= place) place++;
    return place;
  }
}

/** Place of a number among ascending ones; −1 where it is not there. */
function placeIn(sorted: ArrayLike<number>, sought: number): number {
  let [low, high] = [0, sorted.length - 1];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle] < sought) low = middle + 1;
    else high = middle;
  }
  return sorted[low] === sought ? low : -1;
}
