import { entriesFor } from '../../codebook/by-file';
import { largest } from '../../tally/extent';
import type { CodebookEntry, Extract } from '../../extract/extract';
import { isNumericStorage } from '../../extract/words';
import type { Level, LevelList } from '../../infer/level-list';
import { validOf } from '../../infer/levels';
import { valueOf } from '../../infer/read-levels';
import { moments } from '../../tally/moments';
import { headerCells, headersPassed, repeatedHeaders } from './repeated-header';
import type { ExtractRule, Flag, Subject, Whole } from '../rule';
import { summaryRows } from './summary-row';

/**
 * What the codebook publishes against what arrived: cases, frequencies of codes, valid and invalid cases, lowest, highest,
 * mean, standard deviation. Rows that are no observations are left out of what arrived. Where the number of cases itself
 * differs, every frequency does for the same reason, and one flag says so.
 *
 * Example: tenure 3 is published with 812 rows, 798 arrived → one flag with the code 3, fourteen rows.
 */
export const codebookMismatch: ExtractRule = {
  rule: 'codebook-mismatch',
  needs: 'tally',
  answers: 'whole',
  look,
};

const NAMED = 4;

function look({ extract, subjects, sieved }: Whole): Flag[] {
  // What is published is of all rows.
  if (sieved || extract.codebooks.length === 0 || typeof extract.part?.rows === 'number') return [];
  const { pass } = extract;
  // Where not all rows are held, sums among them are not found.
  const noObservation = pass
    ? []
    : [
        ...new Set([
          ...repeatedHeaders(extract),
          ...summaryRows({ extract, subjects }).map(({ row }) => row),
        ]),
      ];
  const none = pass ? headersPassed(extract) : noObservation.length;
  const there = pass
    ? pass.rows - (extract.taken ? extract.taken.from.rows - extract.rows : 0)
    : extract.rows;
  const arrived = there - none;
  const cases = publishedCases(extract);
  if (cases !== null && cases !== arrived) {
    return [
      {
        rule: 'codebook-mismatch',
        variables: [],
        codes: [],
        rows: Math.abs(cases - arrived),
        severity: cases > arrived ? 'high' : 'medium',
        certainty: 0.95,
        says: `the codebook publishes ${cases} cases, ${arrived} rows arrived${none ? ` besides ${none} that are no observations` : ''}: ${Math.abs(cases - arrived)} too ${cases > arrived ? 'few' : 'many'}`,
      },
    ];
  }
  return subjects.flatMap((subject, i) => {
    const { entry, name } = subject;
    if (!entry) return [];
    const variable = extract.variables[i];
    if (variable.pass?.others) return [];
    const left = pass
      ? [...headerCells(variable, extract)].flatMap(([text, rows]) => Array<string>(rows).fill(text))
      : noObservation.map((row) => variable.column.text(row));
    return [...frequencyFlags(name, entry, subject, left), ...figureFlags(name, entry, subject, left)];
  });
}

/** The number of cases that the codebooks publish, or that most of their frequencies add up to. */
function publishedCases({ codebooks, files, variables }: Extract): number | null {
  const names = files.map(({ name }) => name);
  const stated = codebooks
    .map((codebook) => entriesFor(codebook, names).cases)
    .filter((cases) => cases !== null);
  if (stated.length) return stated.length === 1 ? stated[0] : null;
  const sums = new Map<number, number>();
  for (const { entry, column } of variables) {
    const frequencies = entry?.categories.map(({ frequency }) => frequency) ?? [];
    if (frequencies.length < 2 || frequencies.some((frequency) => frequency === null) || column.rows === 0)
      continue;
    const sum = frequencies.reduce<number>((all, frequency) => all + (frequency ?? 0), 0);
    sums.set(sum, (sums.get(sum) ?? 0) + 1);
  }
  // Frequencies of those who were asked are smaller; the largest sum that several share is all cases.
  const shared = [...sums].filter(([, times]) => times >= 3).map(([sum]) => sum);
  return shared.length ? largest(shared) : null;
}

function frequencyFlags(
  name: string,
  entry: CodebookEntry,
  { levels, written }: Subject,
  left: readonly string[],
): Flag[] {
  const published = entry.categories.filter(({ frequency }) => frequency !== null);
  if (published.length === 0) return [];
  const { byText, byValue } = indexOf(levels.levels);
  const differs = published.flatMap(({ code, frequency }) => {
    const value = valueOf(code, written);
    const level = byText.get(code.trim()) ?? (value === null ? undefined : byValue.get(value));
    const count = (level?.count ?? 0) - left.filter((text) => text.trim() === level?.code).length;
    return count === frequency ? [] : [{ code, frequency: frequency as number, count }];
  });
  if (differs.length === 0) return [];
  const rows = differs.reduce((sum, { frequency, count }) => sum + Math.abs(frequency - count), 0);
  return [
    {
      rule: 'codebook-mismatch',
      variables: [name],
      codes: differs.map(({ code }) => code),
      rows,
      severity: 'medium',
      certainty: 0.95,
      says: `published and arrived differ: ${differs
        .slice(0, NAMED)
        .map(({ code, frequency, count }) => `${code} ${frequency} published, ${count} arrived`)
        .join('; ')}${differs.length > NAMED ? ` and ${differs.length - NAMED} more codes` : ''}`,
    },
  ];
}

function indexOf(levels: LevelList): {
  byText: ReadonlyMap<string, Level>;
  byValue: ReadonlyMap<number, Level>;
} {
  const byText = new Map<string, Level>();
  const byValue = new Map<number, Level>();
  for (const level of levels) {
    byText.set(level.code.trim(), level);
    if (level.value !== null) byValue.set(level.value, level);
  }
  return { byText, byValue };
}

function figureFlags(
  name: string,
  { published }: CodebookEntry,
  { levels, written }: Subject,
  left: readonly string[],
): Flag[] {
  if (Object.keys(published).length === 0) return [];
  const { levels: valid } = validOf(levels);
  const gone = (level: Level): number => left.filter((text) => text.trim() === level.code).length;
  const counts = valid.map((level) => level.count - gone(level));
  const n = counts.reduce((sum, count) => sum + count, 0);
  const differs: string[] = [];
  let rows = 0;
  const compare = (what: string, said: number | undefined, found: number | null): void => {
    if (said === undefined || found === null || Math.abs(said - found) <= slack(said)) return;
    differs.push(`${what} ${said} published, ${Number(found.toPrecision(8))} arrived`);
  };
  if (published.valid !== undefined && published.valid !== n) rows = Math.abs(published.valid - n);
  compare('valid cases', published.valid, n);
  if (isNumericStorage(written.storage)) {
    const kept = valid.flatMap((level, i) =>
      level.value !== null && counts[i] > 0 ? [{ value: level.value, count: counts[i] }] : [],
    );
    const values = {
      values: Float64Array.from(kept, ({ value }) => value),
      counts: Float64Array.from(kept, ({ count }) => count),
    };
    const { mean, sd } = kept.length ? moments(values) : { mean: null, sd: null };
    compare('lowest', published.min, kept[0]?.value ?? null);
    compare('highest', published.max, kept.at(-1)?.value ?? null);
    compare('mean', published.mean, mean);
    compare('standard deviation', published.sd, sd);
  }
  return differs.length === 0
    ? []
    : [
        {
          rule: 'codebook-mismatch',
          variables: [name],
          codes: [],
          rows,
          severity: 'medium',
          certainty: 0.9,
          says: `published and arrived differ: ${differs.slice(0, NAMED).join('; ')}`,
        },
      ];
}

/** How far a figure may be off for being rounded: half of its last printed digit, and a little for how it was computed. */
function slack(said: number): number {
  const decimals = /\.(\d+)/.exec(String(said))?.[1].length ?? 0;
  return Number.isInteger(said) && decimals === 0
    ? Math.abs(said) > 1000
      ? 0.5001
      : 0.5
    : 0.51 * 10 ** -decimals;
}
