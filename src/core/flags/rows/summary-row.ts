import { BETWEEN_PULSES, pulse } from '../../extract/pulse';
import { largest } from '../../tally/extent';
import type { Variable } from '../../extract/extract';
import { findRows } from '../../extract/rows';
import { isNumericStorage } from '../../extract/words';
import { validOf } from '../../infer/levels';
import { valueOf } from '../../infer/read-levels';
import { fileStarts } from '../../extract/files';
import { isBlank } from '../../read/looks';
import { placeOf } from './repeated-header';
import { round2, type ExtractRule, type Flag, type Subject, type Whole } from '../rule';
import { putUnder } from '../../extract/put-under';

/**
 * Rows that are no observations but sums of them, or notes below the table. Evidence: a cell that says "Total"; cells
 * that are the sum of their column; a row far emptier than the others; standing at the end of a file.
 *
 * Example: the last row of a file holds "TOTAL" in its first column and, in three others, the sum of all above.
 */
export const summaryRow: ExtractRule = {
  rule: 'summary-row',
  needs: 'rows',
  answers: 'rows',
  look,
};

/** Words by which such rows call themselves, in English, German, French and Spanish. */
const TOTAL =
  /^\W*(grand\s+|sub\s*-?)?(totals?|sums?|overall|all|all (rows|cases|respondents)|mean|average|gesamt(summe)?|zwischensumme|summe|insgesamt|ensemble|sous-total|somme|suma|subtotal|promedio)\W*$/i;
/** The same with what it is the total of: "Subtotal 2017", "North total". It takes sums or an empty row to be believed. */
const TOTAL_OF =
  /^\W*((grand\s+|sub\s*-?)?totals?|zwischensumme|summe|sous-total|subtotal)\b.{1,30}$|^.{1,30}\s(sub\s*-?)?totals?\W*$/i;
/** Some of it stands in every one of both; most texts have none. */
const ANY_TOTAL = /total|sum|all|mean|average|gesamt|ensemble|somme|promedio/i;
const NOTE =
  /^\W*(source|note|notes|quelle|anmerkung|fuente|nota|\*{1,3}|©)\b|^\W*(source|quelle|note)s?\s*:/i;
/** A value stands in at most so many rows to be a row's name for itself. */
const MOST_ROWS = 20;
/** How far a written sum may be from the sum, as a share of it. */
const NEAR = 1e-6;

export interface SummaryRow {
  row: number;
  variable: string;
  code: string;
  certainty: number;
  why: string;
}

const found = new WeakMap<readonly Subject[], { extract: unknown; rows: SummaryRow[] }>();

/** @returns rows that are no observations, in order, each with the cell that says so best; worked out once for the same variables */
export function summaryRows(whole: Whole): SummaryRow[] {
  const { extract, subjects } = whole;
  const known = found.get(subjects);
  if (known?.extract === extract) return known.rows;
  const rows = findSummaryRows(whole);
  found.set(subjects, { extract, rows });
  return rows;
}

function findSummaryRows({ extract, subjects }: Whole): SummaryRow[] {
  const named = new Map<number, { variable: Variable; code: string; note: boolean }>();
  const starts = fileStarts(extract.files);
  for (const { variable, code, note } of candidates(extract.variables, subjects)) {
    for (const row of findRows(variable.column, [[code]], MOST_ROWS)[0])
      if (!named.has(row)) named.set(row, { variable, code, note });
  }
  const ends = extract.files.flatMap((_, i) => (starts[i + 1] - starts[i] > 3 ? [starts[i + 1] - 1] : []));
  const rows: SummaryRow[] = [];
  for (const row of new Set([...named.keys(), ...ends])) {
    const name = named.get(row);
    const file = extract.files.findIndex((_, i) => row < starts[i + 1]);
    const [from, to] = [starts[file] ?? 0, starts[file + 1] ?? extract.rows];
    // The sum of all others, or of those since the last such row.
    const before = Math.max(
      from,
      ...[...named.keys()].filter((other) => other < row).map((other) => other + 1),
    );
    const all = sumsIn(extract.variables, subjects, row, from, to);
    const group =
      name && all.length === 0 && before < row ? sumsIn(extract.variables, subjects, row, before, row) : [];
    const sums = all.length > 0 ? all : group;
    const emptier = emptiness(extract.variables, row, starts[file] ?? 0, starts[file + 1] ?? extract.rows);
    const atEnd = starts.includes(row + 1) || [...named.keys(), ...ends].includes(row + 1);
    if (!name && sums.length < 2) continue;
    // A word alone may be an answer: a brand, a category. It takes sums, or an empty row at the end, to make it a row's name.
    const certainty =
      sums.length >= 2 || (name && sums.length === 1)
        ? 0.97
        : name && atEnd && emptier > 0.3
          ? 0.9
          : name && emptier > 0.5
            ? 0.75
            : 0;
    if (certainty === 0) continue;
    const variable = name?.variable.name ?? sums[0];
    const code = name?.code ?? extract.variables.find((one) => one.name === sums[0])?.column.text(row) ?? '';
    const why = [
      ...(name ? [`says “${code.trim().slice(0, 60)}”`] : []),
      ...(sums.length
        ? [
            `holds the sum of ${all.length > 0 ? 'all other rows' : `the ${row - before} rows above`} in ${sums.slice(0, 3).join(', ')}${sums.length > 3 ? ` and ${sums.length - 3} more` : ''}`,
          ]
        : []),
      ...(!sums.length && emptier > 0.3 ? ['is blank where other rows are filled'] : []),
    ].join(' and ');
    rows.push({ row, variable, code, certainty, why });
  }
  return rows.sort((a, b) => a.row - b.row);
}

/** Totals of several groups are one cause: "Subtotal 2017", "Subtotal 2018". */
const keyOf = ({ variable, code }: SummaryRow): string =>
  `${variable}\n${TOTAL_OF.test(code) ? 'total of' : code}`;
const MOST_CODES = 20;

function look(whole: Whole): Flag[] {
  const rows = summaryRows(whole);
  // One cause, one flag: rows that call themselves the same.
  const groups = new Map<string, SummaryRow[]>();
  for (const one of rows) putUnder(groups, keyOf(one), one);
  return [...groups.values()].map((group) => ({
    rule: 'summary-row',
    variables: [group[0].variable],
    codes: [...new Set(group.map(({ code }) => code))].slice(0, MOST_CODES),
    rows: group.length,
    severity: 'high',
    at: group.map(({ row }) => row),
    certainty: round2(largest(group.map(({ certainty }) => certainty))),
    says: `${group
      .slice(0, 3)
      .map(({ row }) => placeOf(whole.extract, row))
      .join(', ')} ${group.length === 1 ? 'is' : 'are'} no observation: it ${group[0].why}`,
  }));
}

function* candidates(
  variables: readonly Variable[],
  subjects: readonly Subject[],
): Generator<{ variable: Variable; code: string; note: boolean }> {
  for (const [i, variable] of variables.entries()) {
    const subject = subjects[i];
    // Free text and answers with labels may say "total" and mean it.
    // Among numbers a word is what could not be read.
    const words = isNumericStorage(subject.written.storage)
      ? validOf(subject.levels).others
      : subject.levels.levels;
    for (let place = 0; place < words.length; place++) {
      if ((place & (BETWEEN_PULSES - 1)) === 0) pulse();
      if (!Number.isNaN(words.values[place]) || words.counts[place] > MOST_ROWS) continue;
      if (words.label(place) !== null) continue;
      const code = words.code(place);
      if ((i > 0 && !ANY_TOTAL.test(code)) || !/\p{L}|\*/u.test(code)) continue;
      if (ANY_TOTAL.test(code) && (TOTAL.test(code) || TOTAL_OF.test(code)))
        yield { variable, code, note: false };
      else if (i === 0 && NOTE.test(code)) yield { variable, code, note: true };
    }
  }
}

/** Columns in which a row's value is the sum of all other values of its file. */
function sumsIn(
  variables: readonly Variable[],
  subjects: readonly Subject[],
  row: number,
  from: number,
  to: number,
): string[] {
  const found: string[] = [];
  for (const [i, { name, column }] of variables.entries()) {
    const { written, levels } = subjects[i];
    if (!isNumericStorage(written.storage) || column.distinct === null) continue;
    const claimed = valueOf(column.text(row), written);
    // Sums of what is never negative are larger than all else; zeros and small sums prove nothing.
    const top = levels.levels.slice(-MOST_ROWS);
    if (claimed === null || claimed < 20 || !top.some(({ value }) => value === claimed)) continue;
    const valueAt = column.lift((text) => valueOf(text, written) ?? 0);
    let sum = 0;
    let terms = 0;
    for (let other = from; other < to; other++) {
      if (other === row) continue;
      const value = valueAt(other);
      sum += value;
      if (value !== 0) terms++;
    }
    if (terms >= 3 && Math.abs(sum - claimed) <= Math.abs(sum) * NEAR) found.push(name);
  }
  return found;
}

/** By how much a larger share of a row's cells is blank than in the row that stands in the middle of its file. */
function emptiness(variables: readonly Variable[], row: number, from: number, to: number): number {
  const share = (at: number): number =>
    variables.filter(({ column }) => isBlank(column.text(at))).length / variables.length;
  const middle = [0.3, 0.5, 0.7]
    .map((part) => share(from + Math.floor((to - from - 1) * part)))
    .sort((a, b) => a - b)[1];
  return share(row) - middle;
}
