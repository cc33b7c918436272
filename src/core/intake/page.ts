import type { ListWanted, OrderWanted } from '../rows/all-rows';
import { byCodePoint } from '../rows/sorting';
import type { PassingCells } from './passing';

/** What a row is ordered by: a number or a word for each order, NaN where it has no rank. */
type Ranks = readonly (number | string)[];

/** So many rows are kept in mind before those that cannot be on the page are let go. */
const ROOM = 4096;

/** Places of the records that are on a page of all that pass, while they pass. */
export class Page {
  /** Rows that passed and may be told. */
  passed = 0;
  private kept: { place: number; ranks: Ranks }[] = [];
  private readonly most: number;
  private readonly ranks: ((row: number) => number | string)[] = [];

  constructor(private readonly wanted: Pick<ListWanted, 'order' | 'from' | 'take'>) {
    this.most = wanted.from + wanted.take;
  }

  /** Makes ready what rows are ordered by. */
  ready(cells: ReadonlyMap<string, PassingCells>): void {
    for (const { variable, of, word } of this.wanted.order) {
      const own = cells.get(variable);
      const rank = own?.asking(of) ?? (() => NaN);
      const textAt = own?.texts ?? (() => '');
      this.ranks.push(
        word
          ? (row) => {
              const known = rank(row);
              return Number.isNaN(known) ? known : word(textAt(row));
            }
          : rank,
      );
    }
  }

  /** Takes a row. @param row in the batch at hand @param place among all rows @returns whether it is on the page for certain */
  take(row: number, place: number): boolean {
    const at = this.passed++;
    if (this.ranks.length === 0) return at >= this.wanted.from && at < this.most;
    this.kept.push({ place, ranks: this.ranks.map((rank) => rank(row)) });
    if (this.kept.length >= Math.max(ROOM, this.most * 2)) this.sort();
    return false;
  }

  /** Whether no row that comes can be on it. */
  get isFull(): boolean {
    return this.ranks.length === 0 && this.passed >= this.most;
  }

  /** Zero-based places of its records in the order wanted, where they are in another than that of the file. */
  get sorted(): number[] {
    this.sort();
    return this.kept.slice(this.wanted.from).map(({ place }) => place);
  }

  private sort(): void {
    const { order } = this.wanted;
    this.kept.sort((a, b) => {
      for (let i = 0; i < order.length; i++) {
        const compared = compare(a.ranks[i], b.ranks[i], order[i]);
        if (compared !== 0) return compared;
      }
      return a.place - b.place;
    });
    this.kept = this.kept.slice(0, this.most);
  }
}

/** What has no rank stands last, up or down. */
function compare(a: number | string, b: number | string, { down }: OrderWanted): number {
  const [none, other] = [Number.isNaN(a), Number.isNaN(b)];
  if (none || other) return none && other ? 0 : none ? 1 : -1;
  const way = down ? -1 : 1;
  return typeof a === 'string' && typeof b === 'string'
    ? way * byCodePoint(a, b)
    : way * (Number(a) - Number(b));
}
