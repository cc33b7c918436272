import type { Inspector } from '../core/inspect/inspect';
import type { Sorting } from '../core/inspect/listed';
import type { ListAsk } from '../core/inspect/listing';
import { WholeListing } from '../core/inspect/whole-listing';
import type { Control } from '../core/read/source';
import type { AllRows } from '../core/rows/all-rows';

interface Made {
  number: number;
  /** The decisions under which it was made. */
  of: unknown;
  listing: WholeListing;
  control: Control;
  /** What was looked for last, and zero-based places in the listing where it is, ascending. */
  found: { key: string; places: Uint32Array } | null;
}

/** The last listing of all rows, and what was looked for in it. */
export class Wholes {
  private made: Made | null = null;

  /** Lists rows anew. @param control of going through them @returns the number by which they are asked for, and how many there are */
  async list(
    inspector: Inspector,
    all: AllRows,
    sort: readonly Sorting[],
    control: Control,
  ): Promise<{ whole: number; rows: number }> {
    const of = inspector.decided;
    const listing = await WholeListing.of(inspector, all, sort);
    const number = (this.made?.number ?? 0) + 1;
    this.made = { number, of, listing, control, found: null };
    letGo(control);
    return { whole: number, rows: listing.rows };
  }

  /** The listing that is asked for; `null` where it is another by now, or something else was decided since. */
  of(ask: Pick<ListAsk, 'whole'>, inspector: Inspector): WholeListing | null {
    return this.madeFor(ask, inspector)?.listing ?? null;
  }

  /** Looks for a text in all its rows, where it was not looked for last. @returns how many hold it; `null` as `of` does */
  async find(
    ask: Pick<ListAsk, 'whole'>,
    inspector: Inspector,
    { text, names }: { text: string; names: readonly string[] },
    control: Control,
  ): Promise<number | null> {
    const made = this.madeFor(ask, inspector);
    if (!made) return null;
    const known = this.found(ask, inspector, text, names);
    if (known) return known.length;
    Object.assign(made.control, control);
    try {
      made.found = { key: keyOf(text, names), places: await made.listing.holding(text, names) };
    } finally {
      letGo(made.control);
    }
    return made.found.places.length;
  }

  /** Zero-based places in a listing that hold a text, ascending; `null` where it was not looked for. */
  found(
    ask: Pick<ListAsk, 'whole'>,
    inspector: Inspector,
    text: string,
    names: readonly string[],
  ): Uint32Array | null {
    const found = this.madeFor(ask, inspector)?.found;
    return found?.key === keyOf(text, names) ? found.places : null;
  }

  private madeFor({ whole }: Pick<ListAsk, 'whole'>, inspector: Inspector): Made | null {
    const { made } = this;
    return made && made.number === whole && made.of === inspector.decided ? made : null;
  }
}

const keyOf = (text: string, names: readonly string[]): string => JSON.stringify([text.toLowerCase(), names]);

/** Whoever looks at records later is told nothing of it, and stopped by nobody. */
function letGo(control: Control): void {
  control.progress = undefined;
  control.breathe = undefined;
}
