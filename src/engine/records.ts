import { both, has, sizeOf, type Bits } from '../core/extract/bits';
import { placeIn } from '../core/extract/sorted';
import type { Inspector } from '../core/inspect/inspect';
import type { RowName } from '../core/extract/row-names';
import type { Flag } from '../core/flags/rule';
import { failedIn, isSameFlag, listingOf, type ListAsk, type Listing } from '../core/inspect/listing';
import { rowsHolding } from '../core/inspect/listed';
import { cellsTold, placesTold, type ToldCell, type ToldPlace } from '../core/inspect/told-rows';

/** A row of the record table. */
export interface ListedRow extends ToldPlace {
  /** Whether it is held: only of rows that are something can be decided. */
  held: boolean;
  /** Whether a person set it aside. */
  aside: boolean;
  /** Ids of the conditions of the sieve at hand that it fails. */
  failed: string[];
  cells: ToldCell[];
}

/** Where something was found. */
export interface FoundAt {
  /** Zero-based place in the listing. */
  place: number;
  variable: string;
  /** Which of all that hold it this is, from 1. */
  number: number;
}

/** What the record table asks for: listings and what was found in them are kept as long as nothing changes. */
export class Records {
  private readonly listings = new Map<string, { of: unknown[]; listing: Listing }>();
  private lastFound: { key: string; of: unknown[]; bits: Bits } | null = null;

  listing(inspector: Inspector, ask: ListAsk): Listing {
    const key = JSON.stringify(ask);
    const of = [inspector, inspector.decided];
    const known = this.listings.get(key);
    if (known && same(known.of, of)) return known.listing;
    const listing = listingOf(inspector, ask);
    this.listings.delete(key);
    this.listings.set(key, { of, listing });
    // A few are enough to go forth and back between; each holds four bytes a row.
    for (const [old, { of: then }] of this.listings)
      if (this.listings.size > MOST_LISTINGS || !same(then, of)) this.listings.delete(old);
    return listing;
  }

  async rows(
    inspector: Inspector,
    ask: ListAsk,
    { from, take, names }: { from: number; take: number; names: string[] },
  ): Promise<ListedRow[]> {
    const listing = this.listing(inspector, ask);
    const rows = [...listing.rows.subarray(from, from + take)];
    const cells = await cellsTold(
      inspector,
      rows,
      names.flatMap((name) => inspector.wholly(name) ?? []),
    );
    return placesTold(inspector, rows).map((place, i) => ({
      ...place,
      held: true,
      aside: inspector.setAside.has(rows[i]),
      failed: failedIn(listing, rows[i]),
      cells: cells[i],
    }));
  }

  async cells(
    inspector: Inspector,
    cells: readonly { row: number; variable: string }[],
  ): Promise<ToldCell[]> {
    const told: ToldCell[] = [];
    for (const { row, variable } of cells) {
      const inspected = inspector.wholly(variable);
      if (inspected) told.push((await cellsTold(inspector, [row], [inspected]))[0][0]);
    }
    return told;
  }

  /** Names of all rows of a flag, also of those that it was not told with. */
  namesOf(inspector: Inspector, flag: Flag): RowName[] {
    return inspector.nameRows(inspector.flags.find((one) => isSameFlag(one, flag))?.at ?? flag.at ?? []);
  }

  found(inspector: Inspector, ask: ListAsk, text: string, names: string[]): number {
    return sizeOf(both(this.listing(inspector, ask).within, this.holding(inspector, text, names)));
  }

  async next(
    inspector: Inspector,
    ask: ListAsk,
    { text, names, from, back }: { text: string; names: string[]; from: number; back: boolean },
  ): Promise<FoundAt | null> {
    const { rows } = this.listing(inspector, ask);
    const bits = this.holding(inspector, text, names);
    const step = back ? -1 : 1;
    for (let i = 1; i <= rows.length; i++) {
      const place = (((from + i * step) % rows.length) + rows.length) % rows.length;
      if (!has(bits, rows[place])) continue;
      let number = 0;
      for (let at = 0; at <= place; at++) if (has(bits, rows[at])) number++;
      return { place, number, variable: await holdingVariable(inspector, rows[place], text, names) };
    }
    return null;
  }

  placeOf(inspector: Inspector, ask: ListAsk, sought: string): number | null {
    const { rows } = this.listing(inspector, ask);
    const place = (row: number): number | null => {
      const at = rows.indexOf(row);
      return at < 0 ? null : at;
    };
    // What identifies a row wins over its number: identifiers are numbers often enough.
    const { calledBy } = inspector;
    const column = inspector.extract.variables.find(({ name }) => name === calledBy)?.column;
    if (column) {
      const is = column.lift((text) => text.trim() === sought.trim());
      const at = rows.findIndex((row) => is(row));
      if (at >= 0) return at;
    }
    return /^\d+$/.test(sought.trim()) ? place(Number(sought) - 1) : null;
  }

  private holding(inspector: Inspector, text: string, names: string[]): Bits {
    const key = JSON.stringify([text, names]);
    const of = [inspector, inspector.decided];
    if (this.lastFound?.key !== key || !same(this.lastFound.of, of))
      this.lastFound = { key, of, bits: rowsHolding(inspector, names, text) };
    return this.lastFound.bits;
  }
}

const MOST_LISTINGS = 4;
const same = (a: readonly unknown[], b: readonly unknown[]): boolean => a.every((one, i) => one === b[i]);

/** The first of some variables that holds a text in a row. */
async function holdingVariable(
  inspector: Inspector,
  row: number,
  text: string,
  names: string[],
): Promise<string> {
  const [cells] = await cellsTold(
    inspector,
    [row],
    names.flatMap((name) => inspector.wholly(name) ?? []),
  );
  return holdingAmong(cells, text) ?? names[0];
}

/** The variable of the first cell that holds a text. */
export function holdingAmong(cells: readonly ToldCell[], text: string): string | undefined {
  const sought = text.toLowerCase();
  return cells.find(
    ({ raw, code, label }) =>
      raw.toLowerCase().includes(sought) ||
      (code ?? '').toLowerCase().includes(sought) ||
      (label ?? '').toLowerCase().includes(sought),
  )?.variable;
}

/** The next of ascending places behind one, or the last before it, round the end; `null` where there is none. */
export function nextOf(
  places: ArrayLike<number>,
  from: number,
  back: boolean,
): Pick<FoundAt, 'place' | 'number'> | null {
  if (places.length === 0) return null;
  // The first that is behind it, or not before it.
  const first = placeIn(places, back ? from : from + 1);
  const at = (first + (back ? places.length - 1 : 0)) % places.length;
  return { place: places[at], number: at + 1 };
}
