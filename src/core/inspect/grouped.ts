import { InputError } from '../extract/problem';
import { summaryOf, type Summary } from '../cross/summary';
import { isCategorical, isMeasure, type Kind } from '../extract/words';
import type { Valued } from '../rows/counting';
import { quantile } from '../tally/quantile';
import { stemDisplay, type StemDisplay } from '../tally/stem';
import { numbersOf, validRows } from './as-counted';
import type { Inspector } from './inspect';
import { firstOf, sideOf, sideOfFiles, weightIn, type Side } from './sides';
import { sum } from './tables';

/** The same summary of one variable within each group of rows. */
export interface Grouped {
  variable: string;
  kind: Kind;
  by: string;
  codes: { code: string; label: string | null }[];
  groups: Group[];
  /** The weight by which counts and figures are weighted; rows, valid rows and stem displays never are. */
  weight: string | null;
  /** Groups, and codes of the variable, beyond those shown. */
  more: number;
  moreCodes: number;
  why: string | null;
}

export interface Group {
  code: string;
  label: string | null;
  rows: number;
  /** Rows with a valid answer, and what shares of the group are of: these rows, or the sum of their weights. */
  valid: number;
  base: number;
  counts: number[];
  /** Of a measure. */
  summary: Summary | null;
  stem: StemDisplay | null;
}

const MOST_GROUPS = 30;
const MOST_CODES = 12;
/** A grouping by more levels than this is a mistake. */
const MOST_LEVELS = 200;

/**
 * The summary of one variable within the levels of another, or within the files where `by` is `null`: a table of two whose
 * lines are the groups.
 */
export async function groupedBy(
  inspector: Inspector,
  name: string,
  by: string | null,
): Promise<Grouped | null> {
  const inspected = inspector.named(name);
  if (!inspected || (by !== null && !inspector.named(by))) return null;
  const { kind } = inspected;
  const weight = weightIn(inspector, null);
  const none: Grouped = {
    variable: name,
    kind,
    by: by ?? 'file',
    codes: [],
    groups: [],
    weight: weight?.variable ?? null,
    more: 0,
    moreCodes: 0,
    why: null,
  };
  if (!isCategorical(kind) && !isMeasure(kind))
    return { ...none, why: `${kind} has no summary that could be set side by side` };
  const found = groupsOf(inspector, by);
  if (typeof found === 'string') return { ...none, why: found };
  const { records, within } = inspector;
  const groups = firstOf(found, MOST_GROUPS);
  const of = groups.categories;
  const { rows } = await records.cross([of], within);
  const valid = await records.cross([of, validRows(inspected)], within);
  const head = (g: number): Pick<Group, 'code' | 'label' | 'rows' | 'valid'> => ({
    code: groups.codes[g].code,
    label: groups.codes[g].label,
    rows: rows[g],
    valid: valid.rows[g],
  });
  const made = { ...none, more: found.codes.length - groups.codes.length };
  if (isMeasure(kind)) {
    const plain = await records.measured([of], numbersOf(inspected), within);
    const heavy = weight ? await records.measured([of], numbersOf(inspected), within, weight) : plain;
    return {
      ...made,
      groups: groups.codes.map((_, g) => ({
        ...head(g),
        base: sum(heavy[g].weights),
        counts: [],
        summary: summaryOf([heavy[g]], weight !== null),
        stem: stemOf(plain[g]),
      })),
    };
  }
  const all = sideOf(inspector, name, { withMissing: false, binned: false });
  const codes = all.codes.length;
  const { sums } = await records.cross([of, all.categories], within, weight);
  return {
    ...made,
    moreCodes: Math.max(0, codes - MOST_CODES),
    codes: all.codes.slice(0, MOST_CODES).map(({ code, label }) => ({ code, label })),
    groups: groups.codes.map((_, g) => {
      const own = sums.subarray(g * codes, (g + 1) * codes);
      return { ...head(g), base: sum(own), counts: [...own.slice(0, MOST_CODES)], summary: null, stem: null };
    }),
  };
}

/** The side of the groups, or why there is none. */
function groupsOf(inspector: Inspector, by: string | null): Side | string {
  if (by === null) return sideOfFiles(inspector);
  try {
    const side = sideOf(inspector, by, { withMissing: false, binned: false });
    return side.codes.length > MOST_LEVELS
      ? `${by} has ${side.codes.length} levels: too many to be groups`
      : side;
  } catch (cause) {
    if (cause instanceof InputError) return `${by} makes no groups: ${cause.problem.says}`;
    throw cause;
  }
}

/** The stem display of some values; `null` where they have no spread. */
function stemOf({ values, rows }: Valued): StemDisplay | null {
  if (values.length === 0) return null;
  const weighed = { values, counts: rows };
  const [q1, q3] = [quantile(weighed, 0.25), quantile(weighed, 0.75)];
  return q1 === null || q3 === null ? null : stemDisplay(weighed, [q1, q3]);
}
