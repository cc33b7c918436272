import { associationOf, standsOutBy } from '../cross/standing-out';
import { etaSquared } from '../cross/summary';
import { isCategorical, isMeasure } from '../extract/words';
import { numbersOf, validRows } from './as-counted';
import { ranked, type Pair } from '../cross/ranked';
import type { EverythingDocument } from './cross-document';
import type { CrossAsk } from './crossing';
import type { Inspector } from './inspect';
import { sideOf, weightIn, type Side } from './sides';
import { sum } from './tables';

/** Holds one variable against others, one by one. */
export class Against {
  private readonly down: Side;
  private readonly weight: ReturnType<typeof weightIn>;

  /** @throws InputError for what can stand in no table, with the way on */
  constructor(
    private readonly inspector: Inspector,
    { down, weight }: Pick<CrossAsk, 'down' | 'weight'>,
  ) {
    this.down = sideOf(inspector, down, PLAIN);
    this.weight = weightIn(inspector, weight);
  }

  get side(): { down: EverythingDocument['down']; weight: string | null } {
    const { variable, label, codes } = this.down;
    return { down: { variable, label, codes }, weight: this.weight?.variable ?? null };
  }

  /**
   * V for categories; η² for counts and continuous ones, with the codes of the one as groups.
   * @returns `null` for what can't be held against it
   */
  async pair(name: string): Promise<Pair | null> {
    const { inspector, down } = this;
    const other = inspector.wholly(name);
    if (!other || other.name === down.variable) return null;
    const pair = { variable: other.name, label: other.label, kind: other.kind };
    if (isCategorical(other.kind)) return { ...pair, ...(await this.category(name)) };
    if (!isMeasure(other.kind)) return null;
    const { records, within } = inspector;
    const groups = await records.measured([down.categories], numbersOf(other), within, this.weight);
    // Whatever they weigh, and without those that have no weight, as of categories.
    const { rows } = await records.cross([down.categories, validRows(other)], within, this.weight);
    return { ...pair, base: sum(rows), etaSquared: etaSquared(groups), cells: null };
  }

  private async category(name: string): Promise<Pick<Pair, 'base' | 'cramersV' | 'cells'>> {
    const { inspector, down, weight } = this;
    const across = sideOf(inspector, name, PLAIN);
    const { rows, sums, positive } = await inspector.records.cross(
      [down.categories, across.categories],
      inspector.within,
      weight,
    );
    const { cramersV, residuals } = associationOf(
      sums,
      down.codes.length,
      across.codes.length,
      sum(positive),
    );
    const cells = residuals.filter(standsOutBy).length;
    return { base: sum(rows), cramersV, cells };
  }
}
const PLAIN = { withMissing: false, binned: false };

/**
 * One variable against every other.
 * @param names of the others, those that can't be held against it passed over
 */
export async function everythingDocument(
  inspector: Inspector,
  ask: Pick<CrossAsk, 'down' | 'weight'>,
  names: readonly string[],
): Promise<EverythingDocument> {
  const against = new Against(inspector, ask);
  // All at once: where all rows have to be gone through, they are once for all pairs.
  const pairs = (await Promise.all(names.map((name) => against.pair(name)))).filter((pair) => pair !== null);
  return {
    format: 'dig-first-cross-check',
    version: 1,
    rows: inspector.rowCounts,
    sieve: inspector.account,
    ...against.side,
    pairs: ranked(pairs),
  };
}
