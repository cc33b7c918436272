import { InputError } from '../extract/problem';
import type { Bins } from '../recode/bins';
import type { CrossDocument, TableTold } from './cross-document';
import type { Inspector } from './inspect';
import { measureIn, sideOf, weightIn, type Side } from './sides';
import { partsOf, sum, tableOf, wholeOf, type Part } from './tables';

/** What is held against what; names of variables. */
export interface CrossAsk {
  down: string;
  across: string | null;
  within: string | null;
  /** `null` for the weight in force, or none. */
  weight: string | null;
  measure: string | null;
  /** Whether states without a valid value are lines and columns too. */
  withMissing: boolean;
  /** Cells of fewer rows than this are small. */
  small: number;
  /** Whether measures of very many values are put into bins of a round size; else they are refused. */
  binned?: boolean;
  /** Bins that a person wants for this table alone, by variable. */
  bins?: Readonly<Record<string, Bins>>;
}

/** More cells than this are no table that anybody reads, and one text could not hold them. */
const MOST_CELLS = 1_000_000;

/**
 * A cross-check as the command line tells it.
 * @throws InputError for what can't be held against each other
 */
export async function crossDocument(inspector: Inspector, ask: CrossAsk): Promise<CrossDocument> {
  const { records, within, rowCounts, account } = inspector;
  const how = { withMissing: ask.withMissing, binned: ask.binned ?? false, bins: ask.bins };
  const side = (name: string | null): Side | null => (name === null ? null : sideOf(inspector, name, how));
  const [down, across, third] = [sideOf(inspector, ask.down, how), side(ask.across), side(ask.within)];
  const sizes = [down, across, third].map((one) => one?.codes.length ?? 1);
  const [D, A, W] = sizes;
  if (D * A * W > MOST_CELLS)
    throw new InputError({
      file: [down, across, third].flatMap((one) => one?.variable ?? []).join(', '),
      says: `${sizes.filter((_, i) => [down, across, third][i]).join(' × ')} codes are ${D * A * W} cells, more than ${MOST_CELLS}; put one of them into bands first, as a trial recode`,
    });
  const weight = weightIn(inspector, ask.weight);
  const measure = ask.measure === null ? null : measureIn(inspector, ask.measure);
  const by = [down, ...(across ? [across] : []), ...(third ? [third] : [])].map(
    ({ categories }) => categories,
  );
  const counted = await records.cross(by, within, weight);
  const measured = measure && (await records.measured(by, measure, within, weight));
  const lacks = (one: Side | null): number => (one ? counted.leftOut[by.indexOf(one.categories)] : 0);
  const table = (part: Part, level: string | null): TableTold =>
    tableOf(part, level, down, across, ask.small, weight !== null);
  const whole = table(wholeOf(counted, measured, D * A, W), null);
  const tables = third
    ? [...partsOf(counted, measured, D * A, W).map((part, i) => table(part, third.codes[i].code)), whole]
    : [whole];
  return {
    format: 'dig-first-cross-check',
    version: 1,
    rows: rowCounts,
    sieve: account,
    down: told(down),
    across: across && told(across),
    within: third && told(third),
    weight: weight?.variable ?? null,
    base: {
      rows: sum(counted.rows),
      weighted: sum(counted.sums),
      leftOut: {
        down: lacks(down),
        across: lacks(across),
        within: lacks(third),
        weight: counted.without,
      },
    },
    tables,
  };
}

const told = ({ variable, label, codes, bins }: Side): CrossDocument['down'] => ({
  variable,
  label,
  codes,
  ...(bins ? { bins } : {}),
});
