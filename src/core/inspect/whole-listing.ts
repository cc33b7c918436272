import { has } from '../extract/bits';
import { InputError } from '../extract/problem';
import { placeIn } from '../extract/sorted';
import type { AllRows } from '../rows/all-rows';
import type { Inspected } from './inspected';
import type { Inspector } from './inspect';
import type { Sorting } from './listed';
import { holding, orderOf, stoodAmongAll } from './listed-all';
import { cellOf, type RecordCard } from './record';
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
    const { inspector } = this;
    const { received } = inspector;
    const shown = names.flatMap((name) => inspector.wholly(name) ?? []);
    const length = Math.max(0, Math.min(take, this.rows - from));
    const places = Array.from({ length }, (_, i) => this.place(from + i));
    const cells = textsTold(await this.texts(places, shown), shown);
    return places.map((place, i) => {
      const row = placeAmong(received.pass?.places ?? [], place);
      return { ...placeTold(this.stood(place), row, received.name), held: row >= 0, cells: cells[i] };
    });
  }

  /** A row with all its cells; `null` where there is none. @param at zero-based place in the listing */
  async card(at: number): Promise<RecordCard | null> {
    const [row] = await this.told(at, 1, []);
    if (!row) return null;
    const { extract, received } = this.inspector;
    const variables = extract.variables.flatMap(({ name }) => this.inspector.wholly(name) ?? []);
    const [texts] = await this.texts([this.place(at)], variables);
    return {
      row: row.held ? row.row - 1 : null,
      at,
      of: this.rows,
      place: row.place,
      all: received.pass?.rows ?? this.rows,
      file: row.file,
      rowInFile: row.rowInFile - 1,
      line: row.line,
      cells: variables.map((variable, i) => cellOf(variable, texts[i])),
    };
  }

  /** What rows hold of some variables, as those that they are made of have it. @param places zero-based, among all rows */
  private async texts(places: readonly number[], variables: readonly Inspected[]): Promise<string[][]> {
    const raw = rawIn(this.inspector);
    const made = variables.map(({ name }) => raw(name));
    const texts = await this.all.textsAt?.(
      places,
      made.map(({ name }) => name),
    );
    return (texts ?? []).map((row) => row.map((text, i) => made[i].text(text)));
  }

  /**
   * Which of its rows hold a text in some variables, or have it in a label: all rows are gone through once.
   * @returns zero-based places in the listing, ascending
   */
  async holding(text: string, names: readonly string[]): Promise<Uint32Array> {
    const { inspector, all } = this;
    const asked = rowsAsked(inspector);
    const sought = text.toLowerCase();
    const any = names.flatMap((name) => {
      const variable = inspector.wholly(name);
      return variable ? [holding(inspector, variable, sought)] : [];
    });
    if (!asked || !all.places || any.length === 0) return new Uint32Array(0);
    const places = await all.places({ ...asked, tests: [...asked.tests, { any }] }, []);
    const among = new Int32Array(((inspector.received.pass?.rows ?? 0) + 31) >>> 5);
    for (const place of places) among[place >>> 5] |= 1 << (place & 31);
    const found = new Uint32Array(Math.min(places.length, this.rows));
    let many = 0;
    for (let at = 0; at < this.rows && many < found.length; at++)
      if (has(among, this.place(at))) found[many++] = at;
    return found.slice(0, many);
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
function placeAmong(sorted: ArrayLike<number>, sought: number): number {
  const at = placeIn(sorted, sought);
  return sorted[at] === sought ? at : -1;
}
