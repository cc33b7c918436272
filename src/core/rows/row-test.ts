import type { Storage } from '../extract/words';

/** What is asked of one row: of the texts that it holds, each by itself. */
export type RowTest = TextTest | { not: RowTest } | { any: readonly RowTest[] };

/** What is asked of one cell, by its raw text. */
export interface TextTest {
  variable: string;
  holds(text: string): boolean;
  /** What is asked of texts that no level has, since only a sample of the rows told the levels: for who cannot read each. */
  unread?: UnreadTest;
}

/** What is asked of a text by its own reading. */
export type UnreadTest =
  | { codes: readonly string[]; numbers: readonly number[] }
  | { answered: boolean; numeric: boolean }
  | { contains: string }
  | { from: number; to: number; storage: Storage };

/** Names of the variables whose cells are asked for, each once. */
export const askedOf = (tests: readonly RowTest[]): string[] => [...new Set(tests.flatMap(namesIn))];

const namesIn = (test: RowTest): string[] =>
  'not' in test ? namesIn(test.not) : 'any' in test ? test.any.flatMap(namesIn) : [test.variable];

/**
 * A test made ready to be asked of many rows.
 * @param asking makes one cell's test ready @returns whether a zero-based row passes
 */
export function rowPasses(
  test: RowTest,
  asking: (test: TextTest) => (row: number) => boolean,
): (row: number) => boolean {
  if ('not' in test) {
    const passes = rowPasses(test.not, asking);
    return (row) => !passes(row);
  }
  if ('any' in test) {
    const each = test.any.map((one) => rowPasses(one, asking));
    return (row) => each.some((passes) => passes(row));
  }
  return asking(test);
}
