import * as z from 'zod';
import { nearNames } from '../core/extract/near-names';
import { InputError } from '../core/extract/problem';
import type { ListedTable, TableWanted } from '../core/intake/sent';
import { placeText } from './address';
import { quoted, type Connection } from './connection';

/** A column as the catalogue has it. */
export interface CatalogueColumn {
  name: string;
  /** As SQL writes it: "numeric(10,2)". */
  type: string;
  /** The type beneath a domain, without its measures: "numeric". */
  base: string;
  /** Whether equal values are written alike, so that rows can be counted by the value itself. */
  alike: boolean;
  comment: string | null;
  /** The words of an enumerated type, in their order. */
  words: string[] | null;
}

/** A check or a reference to another table that says which values there are. */
export interface Constraint {
  columns: string[];
  /** As SQL writes it. */
  says: string;
  /** Of a foreign key the table that it refers to, as SQL names it, and the column there. */
  refers: { table: string; column: string } | null;
}

/** A table, or the rows of a query, as the catalogue describes it. */
export interface Described {
  name: string;
  /** What stands behind FROM. */
  from: string;
  columns: CatalogueColumn[];
  comment: string | null;
  /** Columns that tell rows apart, in their order; empty where nothing does. */
  key: string[];
  /** Whether that is a primary key, in which nothing is NULL. */
  isPrimary: boolean;
  constraints: Constraint[];
  /** Whether the server can draw rows of it at random by itself. */
  drawable: boolean;
}

/** Types of which equal values are written alike, as `format_type` names them. */
const ALIKE =
  /^(smallint|integer|bigint|oid|boolean|date|timestamp( \(?\d?\)?)? ?with(out)? time zone|timestamp with(out)? time zone|uuid|text|character varying(\(\d+\))?|numeric\(\d+,\d+\))$/;

const columnsSchema = z.array(
  z.object({
    name: z.string(),
    type: z.string(),
    base: z.string(),
    enumerated: z.boolean(),
    deterministic: z.boolean(),
    comment: z.string().nullable(),
    words: z.array(z.string()).nullable(),
  }),
);

/** One row of columns as JSON, of the columns that a condition names; `a` is the attribute. */
const COLUMNS = `
  SELECT coalesce(json_agg(json_build_object(
    'name', a.attname,
    'type', format_type(a.atttypid, a.atttypmod),
    'base', format_type(coalesce(nullif(t.typbasetype, 0), t.oid), NULL),
    'enumerated', coalesce(b.typtype, t.typtype) = 'e',
    'deterministic', coalesce(l.collisdeterministic, true),
    'comment', col_description(a.attrelid, a.attnum),
    'words', (SELECT json_agg(e.enumlabel ORDER BY e.enumsortorder) FROM pg_catalog.pg_enum e
              WHERE e.enumtypid = coalesce(nullif(t.typbasetype, 0), t.oid))
  ) ORDER BY a.attnum), '[]')
  FROM pg_catalog.pg_attribute a
  JOIN pg_catalog.pg_type t ON t.oid = a.atttypid
  LEFT JOIN pg_catalog.pg_type b ON b.oid = nullif(t.typbasetype, 0)
  LEFT JOIN pg_catalog.pg_collation l ON l.oid = a.attcollation
  WHERE a.attrelid = $1::oid AND a.attnum > 0 AND NOT a.attisdropped`;

/** @throws InputError where it is not there or may not be read */
export async function described(connection: Connection, wanted: TableWanted): Promise<Described> {
  return 'table' in wanted ? table(connection, wanted.table) : ofQuery(connection, wanted.query);
}

async function table(connection: Connection, named: string): Promise<Described> {
  const file = placeText(connection.place);
  const parts = namesIn(named);
  if (!parts)
    throw new InputError({
      file,
      element: `--table ${named}`,
      says: 'this is no name of a table; write it as in SQL, schema.table, in double quotes where it needs them',
    });
  const name = parts.map(quoted).join('.');
  const [[oid = null, kind = null, readable = null, comment = null, shown = null] = []] =
    await connection.rows({
      text: `SELECT c.oid::text, c.relkind::text, has_table_privilege(c.oid, 'SELECT')::text, obj_description(c.oid, 'pg_class'),
             (SELECT n.nspname FROM pg_catalog.pg_namespace n WHERE n.oid = c.relnamespace) || '.' || c.relname
           FROM pg_catalog.pg_class c WHERE c.oid = to_regclass($1)`,
      values: [name],
    });
  if (oid === null) throw await notThere(connection, named, parts);
  if (!/^[rvmfp]$/.test(kind ?? ''))
    throw new InputError({ file, element: named, says: 'this is no table or view; name one' });
  if (readable !== 'true')
    throw new InputError({
      file,
      element: named,
      says: 'this user may not read it; ask who runs the database for the right to select from it',
    });
  const [columns, constraints] = [
    await connection.rows({ text: COLUMNS, values: [oid] }),
    await connection.rows({
      text: `SELECT k.contype::text, pg_get_constraintdef(k.oid),
               (SELECT json_agg(a.attname ORDER BY o.place)::text FROM unnest(k.conkey) WITH ORDINALITY o(num, place)
                JOIN pg_catalog.pg_attribute a ON a.attrelid = k.conrelid AND a.attnum = o.num),
               nullif(k.confrelid, 0)::regclass::text,
               (SELECT a.attname FROM pg_catalog.pg_attribute a WHERE a.attrelid = k.confrelid AND a.attnum = k.confkey[1]),
               has_table_privilege(nullif(k.confrelid, 0), 'SELECT')::text
             FROM pg_catalog.pg_constraint k WHERE k.conrelid = $1::oid AND k.contype IN ('p', 'u', 'c', 'f') ORDER BY k.conname`,
      values: [oid],
    }),
  ];
  const told = constraints.map(([type, says, names, refers, column, mayRead]) => ({
    type,
    columns: z.array(z.string()).parse(JSON.parse(names ?? '[]')),
    says: says ?? '',
    refers: type === 'f' && refers && column && mayRead === 'true' ? { table: refers, column } : null,
  }));
  return {
    name: shown ?? named,
    from: name,
    columns: columnsOf(columns[0][0]),
    comment,
    key: (told.find(({ type }) => type === 'p') ?? told.find(({ type }) => type === 'u'))?.columns ?? [],
    isPrimary: told.some(({ type }) => type === 'p'),
    constraints: told.filter(({ type }) => type === 'c' || type === 'f'),
    drawable: kind === 'r' || kind === 'm' || (kind === 'p' && !(await hasForeign(connection, oid))),
  };
}

/** Whether a partitioned table has parts on other servers, of which rows cannot be drawn by the server itself. */
async function hasForeign(connection: Connection, oid: string): Promise<boolean> {
  const [[found]] = await connection.rows({
    text: `SELECT count(*)::text FROM pg_partition_tree($1::oid::regclass) p
           JOIN pg_catalog.pg_class c ON c.oid = p.relid WHERE c.relkind = 'f'`,
    values: [oid],
  });
  return found !== '0';
}

async function ofQuery(connection: Connection, query: string): Promise<Described> {
  const bare = query.trim().replace(/;\s*$/, '');
  const from = `(${bare}\n) AS asked`;
  const file = placeText(connection.place);
  if (bare === '')
    throw new InputError({
      file,
      element: '--query',
      says: 'there is no query; write one that selects rows',
    });
  // The server itself says what the columns of a query are.
  const names = await connection.columnsOf({ text: `SELECT * FROM ${from} LIMIT 0` }, '--query');
  const twice = names.find(({ name }, i) => names.findIndex((other) => other.name === name) !== i);
  if (twice)
    throw new InputError({
      file,
      element: '--query',
      says: `two columns are called ${twice.name}; give one of them another name with AS`,
    });
  const [[types]] = await connection.rows({
    text: `SELECT json_agg(json_build_object(
             'name', x.name, 'type', format_type(x.type, x.mod),
             'base', format_type(coalesce(nullif(t.typbasetype, 0), t.oid), NULL),
             'enumerated', t.typtype = 'e', 'deterministic', true, 'comment', NULL,
             'words', (SELECT json_agg(e.enumlabel ORDER BY e.enumsortorder) FROM pg_catalog.pg_enum e WHERE e.enumtypid = t.oid)
           ) ORDER BY x.place)::text
           FROM unnest($1::text[], $2::oid[], $3::int[]) WITH ORDINALITY x(name, type, mod, place)
           JOIN pg_catalog.pg_type t ON t.oid = x.type`,
    values: [names.map(({ name }) => name), names.map(({ type }) => type), names.map(({ mod }) => mod)],
  });
  return {
    name: 'query',
    from,
    columns: columnsOf(types),
    comment: null,
    key: [],
    isPrimary: false,
    constraints: [],
    drawable: false,
  };
}

const columnsOf = (told: string | null): CatalogueColumn[] =>
  columnsSchema
    .parse(JSON.parse(told ?? '[]'))
    .map(({ name, type, base, enumerated, deterministic, comment, words }) => ({
      name,
      type,
      base,
      alike: deterministic && (enumerated || ALIKE.test(type)),
      comment,
      words,
    }));

/** The names of which a name as in SQL is made, folded to lower case where they are not quoted; `null` where it is none. */
export function namesIn(named: string): string[] | null {
  const name = /\s*(?:"((?:[^"]|"")+)"|([\p{L}_][\p{L}\p{N}_$]*))\s*(\.|$)/uy;
  const names: string[] = [];
  for (;;) {
    const found = name.exec(named);
    if (!found) return null;
    names.push(found[1] === undefined ? found[2].toLowerCase() : found[1].replaceAll('""', '"'));
    if (found[3] === '') return names.length <= 3 ? names : null;
  }
}

/** Tables and views that this user may read, those of the server itself left out. */
export async function tablesIn(connection: Connection): Promise<ListedTable[]> {
  const rows = await connection.rows({
    text: `SELECT n.nspname || '.' || c.relname, format('%I.%I', n.nspname, c.relname), c.relnatts::text,
             CASE WHEN c.relkind IN ('v', 'f') OR c.reltuples < 0 THEN NULL ELSE c.reltuples::bigint::text END,
             obj_description(c.oid, 'pg_class')
           FROM pg_catalog.pg_class c JOIN pg_catalog.pg_namespace n ON n.oid = c.relnamespace
           WHERE c.relkind IN ('r', 'v', 'm', 'f', 'p') AND NOT c.relispartition
             AND n.nspname NOT IN ('pg_catalog', 'information_schema') AND n.nspname NOT LIKE 'pg\\_toast%'
             AND has_schema_privilege(n.oid, 'USAGE') AND has_table_privilege(c.oid, 'SELECT')
           ORDER BY 1`,
  });
  return rows.map(([name, sql, columns, about, comment]) => ({
    name: name ?? '',
    sql: sql ?? '',
    columns: Number(columns),
    rows: about === null ? null : Number(about),
    comment,
  }));
}

async function notThere(
  connection: Connection,
  named: string,
  parts: readonly string[],
): Promise<InputError> {
  const there = await tablesIn(connection);
  const bare = (name: string): string => name.slice(name.indexOf('.') + 1);
  const last = parts[parts.length - 1];
  const near = nearNames(last, [...new Set(there.map(({ name }) => bare(name)))]);
  const found = there.filter(({ name }) => bare(name) === last || near.includes(bare(name))).slice(0, 5);
  return new InputError({
    file: placeText(connection.place),
    element: named,
    says: `there is no table of this name that this user may see${found.length ? `; near are ${found.map(({ sql }) => sql).join(', ')}` : there.length ? `; there are ${there.length} others` : '; there is none at all'}`,
  });
}
