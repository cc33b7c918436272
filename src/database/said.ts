import {
  bareEntry,
  type Category,
  type Codebook,
  type CodebookEntry,
  type CodeRange,
} from '../core/extract/extract';
import type { CatalogueColumn, Constraint, Described } from './catalogue';
import { quoted, type Connection } from './connection';

/** A table that others refer to is a list of codes where it has no more rows than this. */
const MOST_CODES = 500;

/** What the catalogue says of the columns of a table: comments, words of enumerated types, checks and references; `null` where nothing. */
export async function codebookOf(connection: Connection, table: Described): Promise<Codebook | null> {
  const entries: CodebookEntry[] = [];
  for (const column of table.columns) {
    const own = table.constraints.filter(({ columns }) => columns.length === 1 && columns[0] === column.name);
    const listed = await codesOf(connection, column, own);
    const ranges = own.flatMap(({ says, refers }) => (refers ? [] : rangeIn(says)));
    entries.push({
      ...bareEntry(column.name),
      label: column.comment,
      categories: listed,
      validRanges: listed.length ? [] : ranges,
    });
  }
  const saysAnything = entries.some(
    ({ label, categories, validRanges }) => label !== null || categories.length > 0 || validRanges.length > 0,
  );
  return saysAnything
    ? {
        name: table.name,
        form: 'catalogue',
        title: table.comment,
        cases: null,
        entries,
        groups: [],
        notices: [],
      }
    : null;
}

async function codesOf(
  connection: Connection,
  { words }: CatalogueColumn,
  constraints: readonly Constraint[],
): Promise<Category[]> {
  if (words) return words.map((code) => category(code));
  for (const { refers } of constraints) {
    const codes = refers && (await referred(connection, refers));
    if (codes?.length) return codes;
  }
  return constraints
    .flatMap(({ says, refers }) => (refers ? [] : listIn(says)))
    .map((code) => category(code));
}

const category = (code: string, label: string | null = null): Category => ({
  code,
  label,
  missing: false,
  reason: null,
  frequency: null,
});

/** The rows of a small table that is referred to: its keys, each with the first words beside it. */
async function referred(
  connection: Connection,
  { table, column }: NonNullable<Constraint['refers']>,
): Promise<Category[]> {
  const [[name = null] = []] = await connection.rows({
    text: `SELECT a.attname FROM pg_catalog.pg_attribute a WHERE a.attrelid = to_regclass($1) AND a.attnum > 0
             AND NOT a.attisdropped AND a.attname <> $2 AND a.atttypid IN ('text'::regtype, 'varchar'::regtype, 'bpchar'::regtype)
           ORDER BY a.attnum LIMIT 1`,
    values: [table, column],
  });
  const rows = await connection.rows({
    text: `SELECT concat(${quoted(column)}), ${name === null ? 'NULL' : quoted(name)} FROM ${table}
           ORDER BY ${quoted(column)} LIMIT ${MOST_CODES + 1}`,
  });
  return rows.length > MOST_CODES ? [] : rows.map(([code, label]) => category(code ?? '', label));
}

const literal = String.raw`'(?:[^']|'')*'|\(?-?\d+(?:\.\d+)?\)?`;
const typed = String.raw`(?:::[\w ."\[\]()]+)?`;

/**
 * The codes that a check lists, as the server writes it: "CHECK ((tenure = ANY (ARRAY[1, 2, 3])))"; none where it lists none.
 */
export function listIn(says: string): string[] {
  const found =
    /^CHECK \(\(+[^=<>!]+\)?(?:::[\w ]+)?\)? = ANY \(+ARRAY\[(.*?)\](?:\)?::[\w ."\[\]()]+)?\)+( NOT VALID)?$/s.exec(
      says,
    );
  if (!found) return [];
  const item = new RegExp(String.raw`\s*\(?(${literal})\)?${typed}\)?\s*(?:,|$)`, 'y');
  const codes: string[] = [];
  while (item.lastIndex < found[1].length) {
    const one = item.exec(found[1]);
    if (!one) return [];
    codes.push(bare(one[1]));
  }
  return codes;
}

/** The range that a check gives: "CHECK (((age >= 0) AND (age <= 120)))"; none where it gives none. */
export function rangeIn(says: string): CodeRange[] {
  const parts = /^CHECK \((.*)\)( NOT VALID)?$/s.exec(says)?.[1].split(' AND ') ?? [];
  const side = new RegExp(String.raw`^\(*[\w"$]+\)?${typed}\)? (>=|<=) \(*(${literal})\)*${typed}\)*$`);
  const range: CodeRange = { min: null, max: null };
  for (const part of parts) {
    const found = side.exec(part);
    const value = found ? Number(bare(found[2])) : NaN;
    if (!found || !Number.isFinite(value)) return [];
    if (found[1] === '>=') range.min = value;
    else range.max = value;
  }
  return range.min === null && range.max === null ? [] : [range];
}

const bare = (text: string): string =>
  text.startsWith("'") ? text.slice(1, -1).replaceAll("''", "'") : text.replace(/[()]/g, '');
