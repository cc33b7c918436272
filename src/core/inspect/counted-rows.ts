import type { Extract } from '../extract/extract';
import { repeatedHeaders } from '../flags/rows/repeated-header';
import { bitsOf, type Bits } from '../extract/bits';

/** Which rows count. Derived from the extract and the rows that a person set aside. */
export interface CountedRows {
  /** Rows that a person set aside: they count nowhere. */
  aside: ReadonlySet<number>;
  /** All others; `null` where none was set aside. */
  within: Bits | null;
  /** Rows that repeat the names of the columns: they say nothing of what the others hold. */
  headers: readonly number[];
}

export function countedRows(extract: Extract, aside: ReadonlySet<number>): CountedRows {
  return {
    aside,
    within: aside.size === 0 ? null : bitsOf(extract.rows, (row) => !aside.has(row)),
    headers: repeatedHeaders(extract).filter((row) => !aside.has(row)),
  };
}
