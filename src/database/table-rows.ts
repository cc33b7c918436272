import type { ColumnPass, Extract } from '../core/extract/extract';
import { textArray } from '../core/extract/text-list';
import { InputError } from '../core/extract/problem';
import type {
  AllRows,
  CellCounting,
  ConditionCounts,
  KeptRows,
  Listed,
  ListWanted,
  OrderWanted,
  RowsAsked,
} from '../core/rows/all-rows';
import { tooManyToPlace } from '../core/intake/asked-far';
import type { Crossed, Valued } from '../core/rows/counting';
import type { Categories, Numbers } from '../core/rows/records';
import type { TableExtract } from './table-extract';
import { quoted, type Connection, type Row } from './connection';
import { conditionSql, Values, type KnownColumn, type Where } from './where';

/** Groups that an answer may have: of more, each row is nearly one of its own. */
const MOST_GROUPS = 2_000_000;
const BATCH = 10_000;

/** The rows of a table, which stay where they are: what is asked of all of them is counted there. */
export class TableRows implements AllRows {
  private readonly known: Map<string, KnownColumn>;

  /** @param kept makes an extract of the rows that a condition keeps */
  constructor(
    private readonly connection: Connection,
    private readonly made: TableExtract,
    private readonly extract: Extract,
    private readonly keptWhere: (where: Where, rows: number) => Promise<Extract>,
  ) {
    this.known = new Map(
      extract.variables.flatMap(({ name, pass }) => {
        const column = made.columns.get(name);
        return column && pass ? [[name, { column, pass }] as const] : [];
      }),
    );
  }

  async kept(asked: RowsAsked, wanted: boolean): Promise<KeptRows> {
    const { tests } = asked;
    const values = new Values();
    const each = tests.map((test) => conditionSql(test, this.known, values));
    const there = this.there(asked, values);
    const names = each.map((_, i) => `b${i}`);
    const groups = await this.connection.rows({
      text: `SELECT ${[...names.map((name) => `${name}::text`), 'count(*)::text'].join(', ')}
             FROM (SELECT ${['1 AS one', ...each.map((sql, i) => `${sql} AS ${names[i]}`)].join(', ')} FROM ${this.made.table.from} ${there ? `WHERE ${there}` : ''}) b
             ${names.length ? `GROUP BY ${names.join(', ')}` : ''}`,
      values: values.all,
    });
    const { all, kept, conditions } = accountOf(
      tests.length,
      groups.map((row) => ({
        passes: row.slice(0, -1).map((one) => one === 'true'),
        rows: Number(row.at(-1)),
      })),
    );
    return { all, kept, conditions, extract: wanted ? await this.keptWhere(this.where(asked), kept) : null };
  }

  counting(asked: RowsAsked): CellCounting {
    return {
      cross: (by, _within, weight = null) => this.cross(asked, by, weight),
      measured: (by, measure, _within, weight = null) => this.measured(asked, by, measure, weight),
    };
  }

  async list(asked: RowsAsked, wanted: ListWanted): Promise<Listed> {
    const { table } = this.made;
    const values = new Values();
    const tests = asked.tests.map((test) => conditionSql(test, this.known, values));
    const there = this.there(asked, values);
    const passes = tests.length ? tests.join(' AND ') : 'true';
    const found = wanted.find && conditionSql(wanted.find, this.known, values);
    const where = [
      wanted.dropped ? `NOT (${passes})` : passes,
      ...(there ? [there] : []),
      ...(found ? [found] : []),
    ];
    // Rows are numbered in the order of the key, whichever of them are listed.
    const key = table.key.map(quoted).join(', ');
    const numbered = `(SELECT *, row_number() OVER (${key ? `ORDER BY ${key}` : ''}) AS dig_row FROM ${table.from}) AS dig_all`;
    const counted = found
      ? (
          await this.connection.rows({
            text: `SELECT count(*)::text FROM ${table.from} WHERE ${where.join(' AND ')}`,
            values: values.all,
          })
        )[0][0]
      : null;
    const joined = new Joined(this.known, values);
    const order = wanted.order.map((one) => `${joined.order(one)} ${one.down ? 'DESC' : 'ASC'} NULLS LAST`);
    const cells = wanted.variables.map((name) => this.columnOf(name).column.text);
    const rows = await this.connection.rows({
      text: `SELECT dig_all.dig_row::text, ${[...tests.map((sql) => `(${sql})::text`), ...cells].join(', ')}
             FROM ${numbered} ${joined.sql} WHERE ${where.join(' AND ')}
             ORDER BY ${[...order, 'dig_all.dig_row'].join(', ')} OFFSET ${wanted.from} LIMIT ${wanted.take}`,
      values: values.all,
    });
    return {
      found: counted === null ? null : Number(counted),
      rows: rows.map(([place, ...rest]) => ({
        place: Number(place) - 1,
        failed: tests.flatMap((_, i) => (rest[i] === 'true' ? [] : [i])),
        texts: rest.slice(tests.length).map((text) => text ?? ''),
      })),
    };
  }

  private columnOf(name: string): KnownColumn {
    const found = this.known.get(name);
    if (!found) throw new Error(`there is no column ${name}`);
    return found;
  }

  /** The rows that count, as a condition. */
  private where(asked: RowsAsked): Where {
    const values = new Values();
    const parts = asked.tests.map((test) => conditionSql(test, this.known, values));
    const there = this.there(asked, values);
    const all = [...parts, ...(there ? [there] : [])];
    return { sql: all.length ? `WHERE ${all.join(' AND ')}` : '', values: values.all };
  }

  /** Rows that were not set aside. @throws InputError where nothing tells rows apart */
  private there({ aside }: RowsAsked, values: Values): string | null {
    if (aside.size === 0) return null;
    const { key } = this.made.table;
    const columns = key.map((name) => this.extract.variables.find((one) => one.name === name)?.column);
    if (key.length === 0 || columns.some((column) => column === undefined))
      throw new InputError({
        file: this.made.table.name,
        says: 'nothing tells its rows apart (no key among the variables), so that rows set aside cannot be left out in the database; use a sieve instead',
      });
    const each = columns.map((column) => [...aside].map((row) => column?.text(row) ?? ''));
    const names = key.map((_, i) => `dig_k${i}`);
    return `NOT EXISTS (SELECT 1 FROM unnest(${each.map((texts) => values.bind(texts, 'text[]')).join(', ')}) AS gone(${names.join(', ')}) WHERE ${key
      .map((name, i) => `gone.dig_k${i} = concat(${quoted(name)})`)
      .join(' AND ')})`;
  }

  private async cross(asked: RowsAsked, by: readonly Categories[], weight: Numbers | null): Promise<Crossed> {
    const cells = by.reduce((product, { size }) => product * size, 1);
    const rows = new Float64Array(cells);
    const sums = weight ? new Float64Array(cells) : rows;
    const positive = weight ? new Float64Array(cells) : rows;
    const leftOut = by.map(() => 0);
    let without = 0;
    const where = this.where(asked);
    const values = new Values(where.values);
    const joined = new Joined(this.known, values);
    const categories = by.map((one) => joined.category(one));
    const w = weight && joined.number(weight);
    const counts = w ? `count(*), count(${w}), sum(${w}), count(*) FILTER (WHERE ${w} > 0)` : 'count(*)';
    const text = `SELECT ${[...categories, counts].join(', ')} FROM ${this.made.table.from} ${joined.sql} ${where.sql}
                  GROUP BY ${categories.map((_, i) => i + 1).join(', ') || '()'}`;
    await this.connection.batches({ text, values: values.all }, BATCH, (batch) => {
      for (const row of batch) {
        const at = row.slice(0, by.length).map(Number);
        const [all, counted, sum, above] = row.slice(by.length).map(Number);
        const cell = cellOf(at, by, leftOut, all);
        if (cell < 0) continue;
        if (!weight) {
          rows[cell] += all;
          continue;
        }
        without += all - counted;
        rows[cell] += counted;
        sums[cell] += sum;
        positive[cell] += above;
      }
    });
    return { rows, sums, positive, leftOut, without };
  }

  private async measured(
    asked: RowsAsked,
    by: readonly Categories[],
    measure: Numbers,
    weight: Numbers | null,
  ): Promise<Valued[]> {
    const cells = by.reduce((product, { size }) => product * size, 1);
    const held = Array.from({ length: cells }, () => new Map<number, { rows: number; weights: number }>());
    const where = this.where(asked);
    const values = new Values(where.values);
    const joined = new Joined(this.known, values);
    const categories = by.map((one) => joined.category(one));
    const m = joined.number(measure);
    const w = weight && joined.number(weight);
    const wanted = [`${m} IS NOT NULL`, ...(w ? [`${w} > 0`] : [])].join(' AND ');
    const text = `SELECT ${[...categories, m, 'count(*)', w ? `sum(${w})` : 'count(*)'].join(', ')}
                  FROM ${this.made.table.from} ${joined.sql} ${where.sql ? `${where.sql} AND` : 'WHERE'} ${wanted}
                  GROUP BY ${[...categories, m].map((_, i) => i + 1).join(', ')}`;
    let groups = 0;
    const take = (batch: Row[]): void => {
      groups += batch.length;
      if (groups > MOST_GROUPS)
        throw new InputError({
          file: measure.variable,
          says: `its values in these cells are more than ${MOST_GROUPS}, too many to fetch; put it into bands first, as a trial recode`,
        });
      for (const row of batch) {
        const cell = cellOf(row.slice(0, by.length).map(Number), by);
        if (cell < 0) continue;
        const [value, rows, weights] = row.slice(by.length).map(Number);
        const known = held[cell].get(value);
        if (known) {
          known.rows += rows;
          known.weights += weights;
        } else held[cell].set(value, { rows, weights });
      }
    };
    await this.connection.batches({ text, values: values.all }, BATCH, take, measure.variable);
    return held.map((of) => {
      const found = Float64Array.from(of.keys()).sort();
      const told = Array.from(found, (value) => of.get(value) ?? { rows: 0, weights: 0 });
      return {
        values: found,
        rows: Float64Array.from(told, ({ rows }) => rows),
        weights: Float64Array.from(told, ({ weights }) => weights),
      };
    });
  }
}

/** Where a row of an answer belongs; −1 for no cell, which is counted under the first coding that has no category for it. */
function cellOf(at: readonly number[], by: readonly Categories[], leftOut?: number[], rows = 0): number {
  let cell = 0;
  for (let i = 0; i < by.length; i++) {
    if (at[i] < 0) {
      if (leftOut) leftOut[i] += rows;
      return -1;
    }
    cell = cell * by[i].size + at[i];
  }
  return cell;
}

/** Lists of texts with what each comes to, joined to the rows: the server groups by that. */
class Joined {
  private readonly parts: string[] = [];

  constructor(
    private readonly known: ReadonlyMap<string, KnownColumn>,
    private readonly values: Values,
  ) {}

  get sql(): string {
    return this.parts.join(' ');
  }

  category({ variable, of, size }: Categories): string {
    // All rows of a table are of one file.
    if (variable === null) return size > 0 ? '0' : '-1';
    const { pass } = this.columnOf(variable);
    if (pass.others) throw tooManyToPlace(variable, pass.others.distinct);
    const name = this.join(variable, textArray(pass.texts), pass.texts.map(of), 'int');
    return `coalesce(${name}, -1)`;
  }

  /** NULL where the text is no number of those that count. */
  number({ variable, of, from = -Infinity }: Numbers): string {
    const { column, pass } = this.columnOf(variable);
    const numbers = pass.texts.map((text) => of(text));
    const name = this.join(
      variable,
      textArray(pass.texts),
      numbers.map((one) => (Number.isNaN(one) ? null : one)),
      'float8',
    );
    if (!pass.others) return name;
    const least = from === -Infinity ? '' : ` AND ${column.number} >= ${from}`;
    const told = name.replace(/dig_v$/, 'dig_t');
    return `CASE WHEN ${told} IS NOT NULL THEN ${name}${least ? ` WHEN NOT (true${least}) THEN NULL` : ''} ELSE ${column.number} END`;
  }

  /** What rows are sorted by; NULL for what has no rank. */
  order({ variable, numeric, of }: OrderWanted): string {
    const { column, pass } = this.columnOf(variable);
    if (numeric || !pass.others) return this.number({ variable, of });
    if (/^(date|timestamp)/.test(column.type)) return column.cell;
    const none = pass.texts.filter((text) => Number.isNaN(of(text)));
    return `CASE WHEN ${column.text} ~ '\\S' AND ${column.text} <> ALL(${this.values.bind(none, 'text[]')}) THEN ${column.text} END COLLATE "C"`;
  }

  private columnOf(variable: string): { column: KnownColumn['column']; pass: ColumnPass } {
    const found = this.known.get(variable);
    if (!found) throw new Error(`there is no column ${variable}`);
    return found;
  }

  private join(variable: string, texts: readonly string[], to: readonly unknown[], type: string): string {
    const name = `dig_m${this.parts.length}`;
    const { column } = this.columnOf(variable);
    this.parts.push(
      `LEFT JOIN unnest(${this.values.bind(texts, 'text[]')}, ${this.values.bind(to, `${type}[]`)}) AS ${name}(dig_t, dig_v) ON ${name}.dig_t = ${column.text}`,
    );
    return `${name}.dig_v`;
  }
}

/** What each of some conditions does, by how many rows pass which of them. */
function accountOf(
  conditions: number,
  groups: readonly { passes: readonly boolean[]; rows: number }[],
): { all: number; kept: number; conditions: ConditionCounts[] } {
  const sum = (is: (passes: readonly boolean[]) => boolean): number =>
    groups.reduce((rows, group) => (is(group.passes) ? rows + group.rows : rows), 0);
  const all = sum(() => true);
  return {
    all,
    kept: sum((passes) => passes.every(Boolean)),
    conditions: Array.from({ length: conditions }, (_, i) => {
      const keeps = sum((passes) => passes[i]);
      return {
        keeps,
        drops: all - keeps,
        dropsAlone: sum((passes) => passes.every((passed, other) => passed === (other !== i))),
        left: sum((passes) => passes.slice(0, i + 1).every(Boolean)),
      };
    }),
  };
}
