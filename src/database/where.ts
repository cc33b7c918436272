/** Which rows count, as SQL with its parameters from `$1` on. */
export interface Where {
  /** "WHERE …", or nothing where all rows count. */
  sql: string;
  values: unknown[];
}

export const EVERYWHERE: Where = { sql: '', values: [] };
