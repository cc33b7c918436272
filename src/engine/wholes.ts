import type { Inspector } from '../core/inspect/inspect';
import type { Sorting } from '../core/inspect/listed';
import type { ListAsk } from '../core/inspect/listing';
import { WholeListing } from '../core/inspect/whole-listing';
import type { AllRows } from '../core/rows/all-rows';

/** The last listing of all rows, and the decisions under which it was made. */
export class Wholes {
  private made: { number: number; of: unknown; listing: WholeListing } | null = null;

  /** Lists rows anew. @returns the number by which they are asked for, and how many there are */
  async list(
    inspector: Inspector,
    all: AllRows,
    sort: readonly Sorting[],
  ): Promise<{ whole: number; rows: number }> {
    const of = inspector.decided;
    const listing = await WholeListing.of(inspector, all, sort);
    this.made = { number: (this.made?.number ?? 0) + 1, of, listing };
    return { whole: this.made.number, rows: listing.rows };
  }

  /** The listing that is asked for; `null` where it is another by now, or something else was decided since. */
  of({ whole }: Pick<ListAsk, 'whole'>, inspector: Inspector): WholeListing | null {
    const { made } = this;
    return made && made.number === whole && made.of === inspector.decided ? made.listing : null;
  }
}
