import type { ColumnPass } from '../core/extract/extract';
import { textArray } from '../core/extract/text-list';
import { InputError } from '../core/extract/problem';
import { isoText } from '../core/infer/dates';
import type { RowTest, TextTest, UnreadTest } from '../core/rows/row-test';
import type { AskedColumn } from './cells';

/** Which rows count, as SQL with its parameters from `$1` on. */
export interface Where {
  /** "WHERE …", or nothing where all rows count. */
  sql: string;
  values: readonly unknown[];
}

export const EVERYWHERE: Where = { sql: '', values: [] };

/** Parameters of a statement, bound one by one. */
export class Values {
  readonly all: unknown[];

  constructor(before: readonly unknown[] = []) {
    this.all = [...before];
  }

  /** @returns what stands for the value in the statement */
  bind(value: unknown, type: string): string {
    this.all.push(value);
    return `$${this.all.length}::${type}`;
  }
}

/** A column with what all rows hold, as far as it was fetched. */
export interface KnownColumn {
  column: AskedColumn;
  pass: ColumnPass;
}

/** A test of rows as SQL, never NULL. @param known the columns by name @throws InputError for what a server cannot be asked */
export function conditionSql(test: RowTest, known: ReadonlyMap<string, KnownColumn>, values: Values): string {
  if ('not' in test) return `NOT ${conditionSql(test.not, known, values)}`;
  if ('any' in test) return `(${test.any.map((one) => conditionSql(one, known, values)).join(' OR ')})`;
  const found = known.get(test.variable);
  if (!found) throw new Error(`there is no column ${test.variable}`);
  const { column, pass } = found;
  const yes = pass.texts.filter((text) => test.holds(text));
  const isMost = yes.length > pass.texts.length / 2;
  // Texts that were not fetched are none of those that hold, nor of the others.
  if (!pass.others) {
    const listed = isMost ? pass.texts.filter((text) => !test.holds(text)) : yes;
    return `(${column.text} ${isMost ? '<> ALL' : '= ANY'}(${values.bind(listed, 'text[]')}))`;
  }
  const told = values.bind(textArray(pass.texts), 'text[]');
  const unread = unreadSql(test, column, values);
  return `(${column.text} = ANY(${values.bind(yes, 'text[]')}) OR (${column.text} <> ALL(${told}) AND ${unread}))`;
}

/** What is asked of texts that were not fetched. */
function unreadSql({ variable, unread }: TextTest, column: AskedColumn, values: Values): string {
  if (!unread)
    throw new InputError({
      file: variable,
      says: 'it holds more different values than are fetched, and a trial recode of it cannot be a condition in the database; make the condition on the variable itself',
    });
  const { text, number } = column;
  if ('codes' in unread) {
    const codes = `${text} = ANY(${values.bind(unread.codes, 'text[]')})`;
    return unread.numbers.length
      ? `(${codes} OR coalesce(${number} = ANY(${values.bind(unread.numbers, 'float8[]')}), false))`
      : codes;
  }
  if ('answered' in unread) {
    const answered = unread.numeric ? `${number} IS NOT NULL` : `${text} ~ '\\S'`;
    return unread.answered ? `(${answered})` : `NOT (${answered})`;
  }
  if ('contains' in unread)
    return `(position(${values.bind(unread.contains, 'text')} in lower(${text})) > 0)`;
  return rangeSql(variable, unread, column, values);
}

function rangeSql(
  variable: string,
  { from, to, storage }: Extract<UnreadTest, { from: number }>,
  { number, type, cell }: AskedColumn,
  values: Values,
): string {
  const ends = (of: string, bind: (end: number) => string): string =>
    `coalesce(${[
      `${of} IS NOT NULL`,
      ...(from === -Infinity ? [] : [`${of} >= ${bind(from)}`]),
      ...(to === Infinity ? [] : [`${of} <= ${bind(to)}`]),
    ].join(' AND ')}, false)`;
  if (storage === 'integer' || storage === 'decimal')
    return ends(number, (end) => values.bind(end, 'float8'));
  if ((storage === 'date' || storage === 'datetime') && /^(date|timestamp)/.test(type))
    return ends(cell, (end) => values.bind(isoText(end, storage, 'ymd'), type.replace(/\(\d\)/, '')));
  throw new InputError({
    file: variable,
    says: 'it holds more different times than are fetched, and is no date or time to the database, so that a range of it cannot be asked there; cast it in a query',
  });
}
