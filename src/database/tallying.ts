import type { ColumnPass } from '../core/extract/extract';
import type { AskedColumn } from './cells';
import type { Connection, Row, Statement } from './connection';
import type { Where } from './where';

/** Up to so many different texts each is counted for itself. */
export const MOST_TEXTS = 100_000;
/** Of more the most frequent are told, and those at both ends, and some that are no numbers. */
const MOST_FREQUENT = 50;
const AT_EACH_END = 50;
const NO_NUMBERS = 200;
/** Columns that are counted in one pass. A server tells the columns of such a pass apart in 31 bits. */
const TOGETHER = 30;

/** The rows that are asked about. */
export interface Rows {
  from: string;
  where: Where;
}

/** What all rows hold in columns of few different texts: many columns in one pass. */
export async function tallies(
  connection: Connection,
  { from, where }: Rows,
  columns: readonly AskedColumn[],
): Promise<Map<string, ColumnPass>> {
  const found = new Map<string, ColumnPass>();
  for (let first = 0; first < columns.length; first += TOGETHER) {
    const some = columns.slice(first, first + TOGETHER);
    const each = (then: (column: AskedColumn, i: number) => string): string =>
      some.map((column, i) => `WHEN GROUPING(${column.by}) = 0 THEN ${then(column, i)}`).join(' ');
    const held = some.map(() => new Map<string, number>());
    const statement = {
      text: `SELECT CASE ${each((_, i) => String(i))} END, CASE ${each(({ by, text }) => (by === text ? by : `concat(${by})`))} END, count(*)
             FROM ${from} ${where.sql} GROUP BY GROUPING SETS (${some.map(({ by }) => `(${by})`).join(', ')})`,
      values: where.values,
    };
    await connection.batches(statement, BATCH, (rows) => {
      for (const [i, text, count] of rows) add(held[Number(i)], text ?? '', Number(count));
    });
    some.forEach(({ name }, i) => found.set(name, complete(held[i])));
  }
  return found;
}
const BATCH = 10_000;

const add = (held: Map<string, number>, text: string, count: number): void =>
  void held.set(text, (held.get(text) ?? 0) + count);

function complete(held: ReadonlyMap<string, number>): ColumnPass {
  const texts = [...held.keys()].sort();
  return { texts, counts: Float64Array.from(texts, (text) => held.get(text) ?? 0), others: null };
}

/** What a row of the answer is about. */
const PART = { all: '0', text: '1', others: '2' } as const;

/**
 * What all rows hold in a column of many different texts, by one statement: each text with its rows where there are not too many
 * of them; else exact figures, the most frequent, and those at the ends.
 * @param told texts that are to be told in any case
 */
export async function tally(
  connection: Connection,
  { from, where }: Rows,
  column: AskedColumn,
  told: readonly string[],
): Promise<ColumnPass> {
  const { name, by, textOfC, numberOfC } = column;
  const values = [...where.values, told];
  const most = `(SELECT k > ${MOST_TEXTS} FROM k)`;
  const few = `(SELECT k <= ${MOST_TEXTS} FROM k)`;
  const text = `WITH g AS MATERIALIZED (SELECT ${by} AS c, count(*) AS n FROM ${from} ${where.sql} GROUP BY 1),
    k AS MATERIALIZED (SELECT count(*) AS k FROM g),
    v AS MATERIALIZED (SELECT row_number() OVER () AS r, c, n, ${numberOfC} AS x FROM g WHERE ${most}),
    told AS MATERIALIZED (
      (SELECT r, c, n FROM v ORDER BY n DESC, c LIMIT ${MOST_FREQUENT})
      UNION (SELECT r, c, n FROM v WHERE x IS NOT NULL ORDER BY x LIMIT ${AT_EACH_END})
      UNION (SELECT r, c, n FROM v WHERE x IS NOT NULL ORDER BY x DESC LIMIT ${AT_EACH_END})
      UNION (SELECT r, c, n FROM v WHERE x IS NULL AND c IS NOT NULL ORDER BY c LIMIT ${AT_EACH_END})
      UNION (SELECT r, c, n FROM v WHERE x IS NULL AND c IS NOT NULL ORDER BY c DESC LIMIT ${AT_EACH_END})
      UNION (SELECT r, c, n FROM v WHERE x IS NULL ORDER BY n DESC, c LIMIT ${NO_NUMBERS})
      UNION (SELECT r, c, n FROM v WHERE ${textOfC} = ANY($${values.length}::text[]))
    ),
    o AS MATERIALIZED (SELECT v.c, v.n, v.x FROM v LEFT JOIN told ON told.r = v.r WHERE told.r IS NULL),
    m AS MATERIALIZED (SELECT sum(CASE WHEN ${IN_REACH} THEN n * x END) / nullif(sum(n) FILTER (WHERE ${IN_REACH}), 0) AS m FROM o)
    SELECT '${PART.all}', k::text, (SELECT sum(n) FROM g WHERE n > 1)::text, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL FROM k
    UNION ALL SELECT '${PART.text}', ${textOfC}, n::text, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL FROM g WHERE ${few}
    UNION ALL SELECT '${PART.text}', ${textOfC}, n::text, NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL FROM told
    UNION ALL ${othersOf(textOfC, 'o', 'm')}`;
  return passOf(connection, { text, values }, name);
}

/**
 * The same of a column that is a key by itself, and has more different texts than are counted each: nothing need be grouped.
 * @param all rows that there are
 */
export async function tallyOfKey(
  connection: Connection,
  { from, where }: Rows,
  { name, cell, by, textOfC, numberOfC }: AskedColumn,
  told: readonly string[],
  all: number,
): Promise<ColumnPass> {
  const values = [...where.values, told];
  const rows = `(SELECT ${by} AS c FROM ${from} ${where.sql}) AS g`;
  const ordered = (direction: string): string =>
    `SELECT ${by} AS c FROM ${from} ${where.sql} ORDER BY ${cell} ${direction} LIMIT ${AT_EACH_END}`;
  const text = `WITH told AS MATERIALIZED ((${ordered('ASC')}) UNION (${ordered('DESC')})
      UNION (SELECT c FROM ${rows} WHERE ${textOfC} = ANY($${values.length}::text[]))),
    m AS MATERIALIZED (SELECT avg(CASE WHEN ${IN_REACH} THEN x END) AS m FROM (SELECT ${numberOfC} AS x FROM told) t),
    o AS (SELECT g.c, 1 AS n, ${numberOfC.replaceAll(/\bc\b/g, 'g.c')} AS x FROM ${rows} LEFT JOIN told ON told.c = g.c WHERE told.c IS NULL)
    SELECT '${PART.all}', '${all}', '0', NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL
    UNION ALL SELECT '${PART.text}', ${textOfC}, '1', NULL, NULL, NULL, NULL, NULL, NULL, NULL, NULL FROM told
    UNION ALL ${othersOf(textOfC, 'o', 'm')}`;
  return passOf(connection, { text, values }, name);
}

/** Numbers whose fourth power has room in 64 bits; where there are others there are no moments. */
const IN_REACH = 'abs(x) < 1e60';

/** What texts that are not told come to together. @param from a table of texts c, rows n, and numbers x @param middle of one number m */
const othersOf = (textOfC: string, from: string, middle: string): string => `
  SELECT '${PART.others}', sum(n)::text, (sum(n) FILTER (WHERE ${textOfC} !~ '\\S'))::text,
    (sum(n) FILTER (WHERE x IS NOT NULL))::text, min(x)::text, max(x)::text, max(m)::text,
    sum(n * d)::text, sum(n * d * d)::text, sum(n * d * d * d)::text, sum(n * d * d * d * d)::text
  FROM (SELECT c, n, x, m, CASE WHEN x IS NULL THEN NULL WHEN ${IN_REACH} THEN x - m ELSE 'NaN' END AS d
        FROM ${from} CROSS JOIN (SELECT m FROM ${middle}) middle) AS each HAVING count(*) > 0`;

/** Takes the answer to one of these. */
async function passOf(connection: Connection, statement: Statement, name: string): Promise<ColumnPass> {
  const held = new Map<string, number>();
  let all = 0;
  let repeated = 0;
  let others: Row | null = null;
  const take = (rows: Row[]): void => {
    for (const row of rows) {
      const [part, text, count] = row;
      if (part === PART.all) [all, repeated] = [Number(text), Number(count ?? 0)];
      else if (part === PART.text) add(held, text ?? '', Number(count));
      else others = row;
    }
  };
  await connection.batches(statement, BATCH, take, name);
  const pass = complete(held);
  if (!others) return pass;
  const [, rows, blank, n, min, max, middle, ...sums] = others as Row;
  const figure = (text: string | null | undefined): number => Number(text ?? 0);
  return {
    ...pass,
    others: {
      rows: figure(rows),
      blank: figure(blank),
      numbers: {
        n: figure(n),
        min: min === null ? Infinity : figure(min),
        max: max === null ? -Infinity : figure(max),
        middle: figure(middle),
        sums: sums.map(figure),
      },
      distinct: all,
      error: 0,
      hasEnds: true,
      repeated,
    },
  };
}

/** Quartiles and the median of all rows but those with some texts. */
export interface Quartiles {
  q1: number;
  median: number;
  q3: number;
}

/** Columns whose quartiles are worked out in one pass. */
const SORTED_TOGETHER = 8;

/** @param of columns of many numbers, each with the texts that are none of its values @returns by name; none where there are no numbers */
export async function quartiles(
  connection: Connection,
  { from, where }: Rows,
  of: readonly { column: AskedColumn; without: readonly string[] }[],
): Promise<Map<string, Quartiles>> {
  const found = new Map<string, Quartiles>();
  for (let first = 0; first < of.length; first += SORTED_TOGETHER) {
    const some = of.slice(first, first + SORTED_TOGETHER);
    const values = [...where.values, ...some.map(({ without }) => without)];
    const [row = []] = await connection.rows({
      text: `SELECT ${some
        .map(
          ({ column: { number, text } }, i) =>
            `array_to_json(percentile_cont(ARRAY[0.25, 0.5, 0.75]) WITHIN GROUP (ORDER BY ${number}) FILTER (WHERE ${text} <> ALL($${where.values.length + 1 + i}::text[])))::text`,
        )
        .join(', ')} FROM ${from} ${where.sql}`,
      values,
    });
    some.forEach(({ column: { name } }, i) => {
      const [q1, median, q3] = (JSON.parse(row[i] ?? '[]') ?? []) as (number | undefined)[];
      if (q1 !== undefined && median !== undefined && q3 !== undefined) found.set(name, { q1, median, q3 });
    });
  }
  return found;
}
