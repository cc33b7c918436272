import { codingOfStretches } from '../../extract/coding';
import type { Column } from '../../extract/column';
import { isCategorical, isMeasure, isNumericStorage } from '../../extract/words';
import { levelCoding } from '../../infer/level-coding';
import { levelAt, type Level, type LevelList } from '../../infer/level-list';
import { validOf } from '../../infer/levels';
import { crossed } from '../../rows/counting';
import { fileStarts } from '../../extract/files';
import { isBlank } from '../../read/looks';
import { remembered } from '../remembered';
import { round2, type ExtractRule, type Flag, type Subject, type Whole } from '../rule';

/**
 * Between the files of one series: a code that appears or vanishes, a scale that shifted, codes that changed places.
 * What is rare may be missing by chance; what half the people gave and suddenly nobody does is not.
 *
 * Example: fuel 2 is 21 of 100 in 2019 and 2020 and 7 of 100 from 2021, fuel 4 the other way round → the codes changed places.
 */
export const waveDrift: ExtractRule = {
  rule: 'wave-drift',
  needs: 'pairs',
  answers: 'whole',
  look,
};

/** Rows of a wave below which nothing is said. */
const LEAST_ROWS = 60;
/** A code that has come or gone must be expected this many times where it is not. */
const EXPECTED = 12;
/** Shares of two codes that changed places differ by at least this, and agree crosswise to a fifth of it. */
const LEAST_CHANGE = 0.06;
/** Distances of means, in standard deviations, that no year-to-year change makes. */
const FAR = 1.2;
const MOST_CODES = 40;
/** Words rarer than this come and go by chance, or are slips of the pen. */
const LEAST_WORD = 0.02;

function look({ extract, subjects: all, studied: subjects = all }: Whole): Flag[] {
  if (extract.files.length < 2) return [];
  const starts = fileStarts(extract.files);
  const names = extract.files.map(({ wave, name }) => wave ?? name);
  return subjects.flatMap((subject, i): Flag[] => {
    if (subject.role !== 'analysis' || subject.name === extract.wave?.variable) return [];
    return drifts(extract, subjects, [i], () => driftOf(subject, extract.variables[i].column, starts, names));
  });
}

const drifts = remembered<Flag[]>();

function driftOf(
  subject: Subject,
  column: Column,
  starts: readonly number[],
  names: readonly string[],
): Flag[] {
  const written = writingDrift(subject, column, starts, names);
  if (written.length > 0) return written;
  if (isCategorical(subject.kind)) return codesDrift(subject, column, starts, names);
  return isMeasure(subject.kind) && isNumericStorage(subject.written.storage)
    ? scaleDrift(subject, column, starts, names)
    : [];
}

/** Nearly all cells of a wave are written so, and hardly one of another. */
const NEARLY_ALL = 0.95;
const SOME_DECIMALS = 0.3;
const WRITINGS = ['whole numbers', 'numbers with decimals', 'words'] as const;

/** Cells written as numbers in one wave and as words in another, or without decimals and with them. */
function writingDrift(
  { name, kind }: Subject,
  column: Column,
  starts: readonly number[],
  names: readonly string[],
): Flag[] {
  if (kind === 'identifier' || kind === 'date' || kind === 'text') return [];
  const writing = column.lift((text) =>
    isBlank(text) ? -1 : /^\s*[-+]?\d+\s*$/.test(text) ? 0 : /^\s*[-+]?\d*[.,]\d+\s*$/.test(text) ? 1 : 2,
  );
  const waves = starts.slice(1).map((end, file) => {
    const counts = [0, 0, 0];
    for (let row = starts[file]; row < end; row++) if (writing(row) >= 0) counts[writing(row)]++;
    const rows = sum(counts);
    const as =
      counts[2] >= rows * NEARLY_ALL
        ? 2
        : counts[0] + counts[1] >= rows * NEARLY_ALL
          ? counts[1] >= rows * SOME_DECIMALS
            ? 1
            : counts[1] === 0
              ? 0
              : null
          : null;
    return { file, rows, as };
  });
  const telling = waves.filter(({ rows, as }) => rows >= LEAST_ROWS && as !== null);
  const [first] = telling;
  const other = telling.find(({ as }) => as !== first?.as);
  if (!other) return [];
  return [
    {
      rule: 'wave-drift',
      variables: [name],
      codes: [],
      rows: other.rows,
      severity: 'medium',
      certainty: 0.85,
      says: `written as ${WRITINGS[first.as ?? 0]} in ${names[first.file]} and as ${WRITINGS[other.as ?? 0]} in ${names[other.file]}`,
    },
  ];
}

const isYear = ({ value }: Level): boolean => value !== null && value >= 1800 && value <= 2200;

/** Rows of each level in each file. */
function countsByFile(column: Column, starts: readonly number[], levels: LevelList): Float64Array[] {
  const { sums } = crossed(column.rows, [
    codingOfStretches(starts, column.rows),
    levelCoding(column, levels),
  ]);
  return starts.slice(1).map((_, file) => sums.subarray(file * levels.length, (file + 1) * levels.length));
}

const sum = (counts: ArrayLike<number>): number =>
  Array.prototype.reduce.call(counts, (all, count) => (all as number) + (count as number), 0) as number;

function codesDrift(
  subject: Subject,
  column: Column,
  starts: readonly number[],
  names: readonly string[],
): Flag[] {
  const { levels } = validOf(subject.levels);
  // Years count on by themselves.
  if (levels.length < 2 || levels.length > MOST_CODES || levels.every(isYear)) return [];
  const counts = countsByFile(column, starts, levels);
  const rows = counts.map(sum);
  const waves = rows.flatMap((count, i) => (count >= LEAST_ROWS ? [i] : []));
  if (waves.length < 2) return [];
  const flag = (codes: string[], touched: number, certainty: number, says: string): Flag => ({
    rule: 'wave-drift',
    variables: [subject.name],
    codes,
    rows: touched,
    severity: 'medium',
    certainty: round2(certainty),
    says,
  });
  const share = (wave: number, level: number): number => counts[wave][level] / rows[wave];
  const found: Flag[] = [];
  // What holds one value in each wave tells the wave.
  if (waves.every((wave) => counts[wave].filter((count) => count > 0).length <= 1)) return [];
  const listed = new Set(
    subject.entry?.categories.filter(({ label }) => label !== null).map(({ code }) => code),
  );
  const numeric = isNumericStorage(subject.written.storage);

  // Codes that come or go, expected from where they are.
  const odd = levels.flatMap((level, l) => {
    const has = waves.filter((wave) => counts[wave][l] > 0);
    const lacks = waves.filter((wave) => counts[wave][l] === 0);
    if (has.length === 0 || lacks.length === 0) return [];
    // A code that the codebook does not know, or a rare way to write a word, is no matter of waves.
    if ((listed.size >= 2 && !listed.has(level.code)) || (!numeric && level.count < sum(rows) * LEAST_WORD))
      return [];
    const usual =
      has.reduce((all, wave) => all + counts[wave][l], 0) / has.reduce((all, wave) => all + rows[wave], 0);
    const expected = usual * lacks.reduce((all, wave) => all + rows[wave], 0);
    return expected >= EXPECTED
      ? [{ level, has, lacks, touched: has.reduce((all, wave) => all + counts[wave][l], 0) }]
      : [];
  });
  const shift = shiftOf(levels, counts, rows, waves);
  if (shift)
    found.push(
      flag(
        shift.codes,
        shift.touched,
        0.9,
        `${subject.name} runs from ${shift.from} in ${names[shift.wave]} and from ${shift.others} in the other waves: its scale is shifted`,
      ),
    );
  else if (odd.length) {
    const [first] = odd;
    found.push(
      flag(
        odd.map(({ level }) => level.code),
        odd.reduce((all, one) => all + one.touched, 0),
        0.85,
        longerScale(levels, odd, names) ??
          `${first.level.code}${first.level.label ? ` ${first.level.label}` : ''} stands in ${first.has.map((wave) => names[wave]).join(', ')} and in no row of ${first.lacks.map((wave) => names[wave]).join(', ')}${odd.length > 1 ? `; so do ${odd.length - 1} more codes` : ''}`,
      ),
    );
  }

  // Two codes whose shares changed places between one wave and the next.
  for (let w = 1; w < waves.length && found.length === 0; w++) {
    const [before, after] = [waves[w - 1], waves[w]];
    const changed = levels
      .map((_, l) => ({ l, change: share(after, l) - share(before, l) }))
      .filter(
        ({ l, change }) =>
          Math.abs(change) >=
          Math.max(
            LEAST_CHANGE,
            SURE_CHANGE * chanceOf(share(before, l), share(after, l), rows[before], rows[after]),
          ),
      )
      .sort((a, b) => Math.abs(b.change) - Math.abs(a.change));
    const [up, down] = [changed.find(({ change }) => change > 0), changed.find(({ change }) => change < 0)];
    if (!up || !down) continue;
    const slack = Math.abs(up.change) / 5;
    if (
      Math.abs(share(after, up.l) - share(before, down.l)) > slack ||
      Math.abs(share(before, up.l) - share(after, down.l)) > slack
    )
      continue;
    const codes = [levelAt(levels, down.l), levelAt(levels, up.l)];
    const per100 = (wave: number, l: number): string => `${Math.round(share(wave, l) * 100)}`;
    found.push(
      flag(
        codes.map(({ code }) => code).sort(),
        codes.reduce((all, { count }) => all + count, 0),
        0.8,
        `${codes[0].code} falls from ${per100(before, down.l)} to ${per100(after, down.l)} of 100 between ${names[before]} and ${names[after]} while ${codes[1].code} rises from ${per100(before, up.l)} to ${per100(after, up.l)}: the codes may have changed places`,
      ),
    );
  }
  return found;
}

/** A level that some waves have and others lack. */
interface Odd {
  level: Level;
  has: number[];
  lacks: number[];
}

/** In words, where whole numbers run on in some waves beyond where they end in all others. */
function longerScale(levels: LevelList, odd: readonly Odd[], names: readonly string[]): string | null {
  if (odd.length < 2 || levels.some(({ value }) => value === null || !Number.isInteger(value))) return null;
  const [{ has, lacks }] = odd;
  if (odd.some((one) => one.has.join() !== has.join())) return null;
  const ends = levels.slice(-odd.length);
  if (ends.length === levels.length || ends.some((level, i) => level !== odd[i].level)) return null;
  const named = (waves: readonly number[]): string => waves.map((wave) => names[wave]).join(', ');
  return `the codes run to ${levelAt(ends, ends.length - 1).code} in ${named(has)} and only to ${levelAt(levels, levels.length - odd.length - 1).code} in ${named(lacks)}: the scale is a longer one`;
}

/** A change of shares has to be so many standard errors. */
const SURE_CHANGE = 5;
/** The standard error of the difference of two shares. */
function chanceOf(a: number, b: number, rowsOfA: number, rowsOfB: number): number {
  const both = (a * rowsOfA + b * rowsOfB) / (rowsOfA + rowsOfB);
  return Math.sqrt(both * (1 - both) * (1 / rowsOfA + 1 / rowsOfB));
}

/** One wave whose whole numbers begin and end a step or two from where those of all others do. */
function shiftOf(
  levels: LevelList,
  counts: readonly Float64Array[],
  rows: readonly number[],
  waves: readonly number[],
): { wave: number; from: number; others: number; codes: string[]; touched: number } | null {
  if (levels.some(({ value }) => value === null || !Number.isInteger(value))) return null;
  const ends = waves.map((wave) => {
    const held = levels.flatMap(({ value }, l) =>
      counts[wave][l] >= Math.max(2, rows[wave] * 0.003) ? [value as number] : [],
    );
    return { wave, low: held[0], high: held[held.length - 1], touched: rows[wave] };
  });
  for (const one of ends) {
    const rest = ends.filter((other) => other !== one);
    const [{ low, high }] = rest;
    if (
      rest.every((other) => other.low === low && other.high === high) &&
      one.low - low === one.high - high &&
      one.low !== low &&
      high - low >= 2
    ) {
      // What it lacks of the others' scale must be more than chance leaves out.
      const others = rest.reduce((all, { wave }) => all + rows[wave], 0);
      const lacking = levels.reduce(
        (all, { value }, l) =>
          (value as number) < one.low || (value as number) > one.high
            ? all + rest.reduce((held, { wave }) => held + counts[wave][l], 0)
            : all,
        0,
      );
      if ((lacking / others) * rows[one.wave] < EXPECTED) continue;
      const apart = levels.filter(
        ({ value }, l) => counts[one.wave][l] > 0 && ((value as number) < low || (value as number) > high),
      );
      return {
        wave: one.wave,
        from: one.low,
        others: low,
        codes: apart.map(({ code }) => code),
        touched: one.touched,
      };
    }
  }
  return null;
}

/** A measure whose middle moved further between waves than any change of a year does. */
function scaleDrift(
  subject: Subject,
  column: Column,
  starts: readonly number[],
  names: readonly string[],
): Flag[] {
  const { levels } = validOf(subject.levels);
  if (column.distinct === null || levels.length < 8) return [];
  const counts = countsByFile(column, starts, levels);
  const rows = counts.map(sum);
  const waves = rows.flatMap((count, i) => (count >= LEAST_ROWS ? [i] : []));
  if (waves.length < 2) return [];
  const figures = waves.map((wave) => {
    // Middle and spread by ranks, which a few wild values do not move.
    const at = (part: number): number => {
      let below = 0;
      for (let l = 0; l < levels.length; l++)
        if ((below += counts[wave][l]) >= rows[wave] * part) return levelAt(levels, l).value as number;
      return 0;
    };
    return { wave, middle: at(0.5), spread: (at(0.84) - at(0.16)) / 2 };
  });
  for (let w = 1; w < figures.length; w++) {
    const [before, after] = [figures[w - 1], figures[w]];
    const spread = Math.min(before.spread, after.spread);
    if (spread <= 0 || Math.abs(after.middle - before.middle) < FAR * spread) continue;
    // A year counts on by itself.
    if (levels.every(isYear)) continue;
    return [
      {
        rule: 'wave-drift',
        variables: [subject.name],
        codes: [],
        rows: rows[after.wave],
        severity: 'medium',
        certainty: 0.75,
        says: `half of the values lie above ${before.middle} in ${names[before.wave]} and above ${after.middle} in ${names[after.wave]}: the unit or the question may have changed`,
      },
    ];
  }
  return [];
}
