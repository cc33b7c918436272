import type { Crossed, Valued } from '../rows/counting';
import type { Categories, Numbers } from '../rows/records';
import type { PassingCells } from './passing';

/** What is counted in the cells of a table. */
export interface CellsAsked {
  by: readonly Categories[];
  weight: Numbers | null;
  /** The values of which are wanted in each cell. */
  measure: Numbers | null;
}

/** Counts rows that pass by in the cells of a table: the same figures as `crossed` and `measured` of rows that are held. */
export class CellCounter {
  private readonly rows: Float64Array;
  private readonly sums: Float64Array;
  private readonly positive: Float64Array;
  private readonly leftOut: number[];
  private without = 0;
  /** For each cell the rows and weights by value. */
  private readonly values: Map<number, { rows: number; weights: number }>[];
  private codings: ((row: number, file: number) => number)[] = [];
  private weighs: ((row: number) => number) | null = null;
  private measures: ((row: number) => number) | null = null;

  constructor(private readonly asked: CellsAsked) {
    const { by, weight, measure } = asked;
    const cells = by.reduce((product, { size }) => product * size, 1);
    this.rows = new Float64Array(cells);
    this.sums = weight ? new Float64Array(cells) : this.rows;
    this.positive = weight ? new Float64Array(cells) : this.rows;
    this.leftOut = by.map(() => 0);
    this.values = measure ? Array.from({ length: cells }, () => new Map()) : [];
  }

  get variables(): string[] {
    const { by, weight, measure } = this.asked;
    return [...by, weight, measure].flatMap((one) => one?.variable ?? []);
  }

  /** @param cells of the variables, as they will pass by */
  ready(cells: ReadonlyMap<string, PassingCells>): void {
    const { by, weight, measure } = this.asked;
    const asking = (variable: string, of: (text: string) => number): ((row: number) => number) => {
      const found = cells.get(variable);
      if (!found) throw new Error(`${variable} does not pass by`);
      return found.asking(of);
    };
    this.codings = by.map(({ variable, of, size }) =>
      variable === null ? (_, file) => (file < size ? file : -1) : asking(variable, of),
    );
    this.weighs = weight && asking(weight.variable, weight.of);
    this.measures = measure && asking(measure.variable, measure.of);
  }

  /** @param rows zero-based, of the batch at hand */
  count(rows: readonly number[], file: number): void {
    const { codings, weighs, measures, asked } = this;
    for (const row of rows) {
      let cell = 0;
      for (let i = 0; i < codings.length; i++) {
        const category = codings[i](row, file);
        if (category < 0) {
          this.leftOut[i]++;
          cell = -1;
          break;
        }
        cell = cell * asked.by[i].size + category;
      }
      if (cell < 0) continue;
      const weight = weighs ? weighs(row) : 1;
      if (Number.isNaN(weight)) {
        this.without++;
        continue;
      }
      this.rows[cell]++;
      if (weighs) {
        this.sums[cell] += weight;
        if (weight > 0) this.positive[cell]++;
      }
      if (!measures || weight <= 0) continue;
      const value = measures(row);
      if (Number.isNaN(value)) continue;
      const known = this.values[cell].get(value);
      if (known) {
        known.rows++;
        known.weights += weight;
      } else this.values[cell].set(value, { rows: 1, weights: weight });
    }
  }

  get crossed(): Crossed {
    const { rows, sums, positive, leftOut, without } = this;
    return { rows, sums, positive, leftOut, without };
  }

  get measured(): Valued[] {
    return this.values.map((held) => {
      const values = Float64Array.from(held.keys()).sort();
      const told = Array.from(values, (value) => held.get(value) ?? { rows: 0, weights: 0 });
      const rows = Float64Array.from(told, (one) => one.rows);
      return {
        values,
        rows,
        weights: this.asked.weight ? Float64Array.from(told, (one) => one.weights) : rows,
      };
    });
  }
}
