import type { Extract } from '../core/extract/extract';
import { countedSchema, FarAsks, type CellsSent } from '../core/intake/asked-far';
import type { TableWanted } from '../core/intake/sent';
import type { AllRows, CellCounting, KeptRows, RowsAsked } from '../core/rows/all-rows';
import type { Crossed, Valued } from '../core/rows/counting';
import { gathered } from '../core/rows/gathered';
import { answerTo, keptFrom } from './table-source';

/** Where a table of a database is asked for. */
export interface TableAt {
  session: string;
  wanted: TableWanted;
}

/** All rows of a table, which stay in a database: the program that serves this page asks it. */
export class FarRows implements AllRows {
  private readonly asks: FarAsks;

  /** @param going what goes on at the time: `breathe` throws where it is to stop */
  constructor(
    private readonly extract: Extract,
    private readonly at: TableAt,
    private readonly going: { breathe: () => Promise<void> },
  ) {
    this.asks = new FarAsks(extract);
  }

  async kept(asked: RowsAsked, figures: boolean): Promise<KeptRows> {
    const { extract: made, counts } = await keptFrom(
      { ask: 'kept', ...this.at, rows: this.asks.rows(asked), figures },
      () => this.going.breathe(),
    );
    if (!made) return { ...counts, extract: null };
    const { extract } = this;
    const byName = new Map(made.variables.map((one) => [one.name, one]));
    return {
      ...counts,
      extract: {
        ...extract,
        rows: made.rows,
        pass: { rows: counts.kept },
        files: extract.files.map((file) => ({ ...file, rows: made.rows, read: counts.kept })),
        variables: extract.variables.map((variable) => {
          const again = byName.get(variable.name);
          if (!again) throw new Error(`${variable.name} did not come`);
          return { ...variable, column: again.column, pass: again.pass };
        }),
      },
    };
  }

  counting(asked: RowsAsked): CellCounting {
    const count = gathered((cells: CellsSent[]) => this.count(asked, cells));
    return {
      cross: async (by, _within, weight = null) =>
        (await count(this.asks.cells(by, weight, null))) as Crossed,
      measured: async (by, measure, _within, weight = null) =>
        (await count(this.asks.cells(by, weight, measure))) as Valued[],
    };
  }

  private async count(asked: RowsAsked, cells: CellsSent[]): Promise<(Crossed | Valued[])[]> {
    const ask = { ask: 'count' as const, ...this.at, rows: this.asks.rows(asked, cells), cells };
    const { counted } = await answerTo(ask, countedSchema);
    return counted.map((one) =>
      Array.isArray(one)
        ? one.map((of) => ({
            values: Float64Array.from(of.values),
            rows: Float64Array.from(of.rows),
            weights: Float64Array.from(of.weights),
          }))
        : {
            ...one,
            rows: Float64Array.from(one.rows),
            sums: Float64Array.from(one.sums),
            positive: Float64Array.from(one.positive),
          },
    );
  }
}
