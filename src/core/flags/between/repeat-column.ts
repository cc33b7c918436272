import { categoryAt } from '../../extract/coding';
import { codingOfTexts, type Column } from '../../extract/column';
import { validOf } from '../../infer/levels';
import type { Extract } from '../../extract/extract';
import type { Role } from '../../extract/words';
import { cellsRule } from '../cells-rule';
import { round2, type Flag, type Subject } from '../rule';
import { putUnder } from '../../extract/put-under';

/** The same values, or the same partition of the rows, under another name. */
export const repeatColumn = cellsRule({
  rule: 'repeat-column',
  needs: 'pairs',
  answers: 'whole',
  reads,
  find,
});

/** What is read of a variable besides its cells. */
interface Read {
  name: string;
  role: Role;
  /** Valid rows, and different values among them. */
  valid: number;
  distinct: number;
  /** Codes of a variable that has two, trimmed, and the rows of the rarer. */
  two: { codes: string[]; least: number } | null;
}

function reads({ name, role, levels: all }: Subject): Read {
  const { levels, rows } = validOf(all);
  return {
    name,
    role,
    valid: rows,
    distinct: levels.length,
    two:
      levels.length === 2
        ? {
            codes: levels.map(({ code }) => code.trim()),
            least: Math.min(...levels.map(({ count }) => count)),
          }
        : null,
  };
}

const LEAST_ROWS = 20;
const SAMPLE = 500;
const LEAST_AGREED = 0.98;
/** Pairs of rows with the same value that are tried before all rows are looked at. */
const PAIRS = 150;
/** So many pairs that the other column parts are as many as chance and slips leave. */
const MOST_PARTED = 3;

function find({ extract, read: all }: { extract: Extract; read: readonly Read[] }): Flag[] {
  const { rows, variables } = extract;
  if (rows < LEAST_ROWS) return [];
  // Only what tells rows apart, and not each of them: those all agree with each other.
  const able = all.flatMap((subject, i) => {
    const { valid, distinct } = subject;
    // What tells waves, or was left over by the archive, goes with much else.
    return subject.role !== 'wave' &&
      subject.role !== 'admin' &&
      distinct >= 3 &&
      (distinct > extract.files.length ||
        variesWithin(variables[i].column, extract.files[0]?.rows ?? rows)) &&
      distinct < valid * 0.95 &&
      valid >= rows * 0.02 &&
      valid >= LEAST_ROWS
      ? [{ subject, i, distinct, rows: valid }]
      : [];
  });
  const step = Math.max(1, Math.floor(rows / SAMPLE));
  const known = new Array<Parting | undefined>(able.length).fill(undefined);
  const parting = (n: number): Parting => (known[n] ??= partingOf(variables[able[n].i].column));
  const taken = new Uint8Array(able.length);
  const flags: Flag[] = [];
  // Of many columns nearly all pairs end here.
  const held = Float64Array.from(able, (one) => one.rows);
  const distinct = Float64Array.from(able, (one) => one.distinct);
  for (const [n, one] of able.entries()) {
    if (taken[n]) continue;
    for (let m = n + 1; m < able.length; m++) {
      if (
        taken[m] ||
        Math.abs(held[n] - held[m]) > rows * 0.01 ||
        Math.abs(distinct[n] - distinct[m]) > distinct[n] * 0.01
      )
        continue;
      const other = able[m];
      const a = parting(n);
      const b = parting(m);
      if (partsNeighbours(a, b) || partsNeighbours(b, a) || parts(a, b) || parts(b, a)) continue;
      // Two short scales agree by chance in few rows.
      const wanted = one.distinct === other.distinct ? LEAST_AGREED : 0.985;
      if ((one.distinct < 5 && rows < 100) || agreement(a.numbered(), b.numbered(), rows, step) < wanted)
        continue;
      const whole = agreement(a.numbered(), b.numbered(), rows, 1);
      if (whole < LEAST_AGREED) continue;
      const same = sameTexts(variables[one.i].column, variables[other.i].column, rows, step) > LEAST_AGREED;
      taken[m] = 1;
      flags.push({
        rule: 'repeat-column',
        variables: [one.subject.name, other.subject.name],
        codes: [],
        rows: one.rows,
        severity: 'low',
        certainty: round2(whole === 1 ? 0.95 : 0.88),
        says: `${other.subject.name} ${same ? 'repeats' : 'parts the rows as'} ${one.subject.name}${same ? '' : ' does, under other codes'}${whole < 1 ? `, but for ${Math.max(1, Math.round((1 - whole) * rows))} rows` : ''}`,
      });
    }
  }
  return [
    ...flags,
    ...turnedRound(
      all,
      variables.map(({ column }) => column),
      rows,
    ),
    ...ofTheirOwn(
      all,
      variables.map(({ column }) => column),
      rows,
    ),
  ];
}

/** Of two answers the rarer is given by so many rows that two columns hardly agree in all of them by chance: one in e to this. */
const LEAST_ODDS = 13;
const LEAST_SECOND = 3;
/** Natural logarithm of in how many ways so many rows can be chosen. */
const waysToChoose = (few: number, rows: number): number => {
  let sum = 0;
  for (let i = 0; i < Math.min(few, 40); i++) sum += Math.log((rows - i) / (i + 1));
  return sum;
};

const isTelling = (second: number, rows: number): boolean =>
  second >= LEAST_SECOND && waysToChoose(second, rows) >= LEAST_ODDS;

/** Columns of two codes that part the rows alike without an exception: the same, or one the other turned round. */
function turnedRound(all: readonly Read[], columns: readonly Column[], rows: number): Flag[] {
  const first = new Map<string, number>();
  return all.flatMap((subject, i): Flag[] => {
    const { two, valid } = subject;
    if (
      two === null ||
      subject.role === 'wave' ||
      subject.role === 'admin' ||
      subject.role === 'imputation' ||
      valid < LEAST_ROWS ||
      !isTelling(two.least, valid)
    )
      return [];
    const key = partingKey(columns[i], rows);
    const before = first.get(key);
    if (before === undefined) {
      first.set(key, i);
      return [];
    }
    const same = sameTexts(columns[before], columns[i], rows, 1) > LEAST_AGREED;
    const codes = new Set(all[before].two?.codes);
    const turned = !same && two.codes.every((code) => codes.has(code));
    return [
      {
        rule: 'repeat-column',
        variables: [all[before].name, subject.name],
        codes: [],
        rows: valid,
        severity: 'low',
        certainty: 0.9,
        says: `${subject.name} ${same ? 'repeats' : turned ? 'is the other way round of' : 'parts the rows as'} ${all[before].name}${same || turned ? '' : ' does, under other codes'}, in every row`,
      },
    ];
  });
}

/** The same for columns that part the rows alike: each text by its first appearance, all rows in two numbers. */
function partingKey(column: Column, rows: number): string {
  const coding = codingOfTexts(column, (text) => text.trim());
  const place = new Int32Array(coding.size + 1).fill(-1);
  let [seen, one, other] = [0, 7, 11];
  for (let row = 0; row < rows; row++) {
    const at = categoryAt(coding, row) + 1;
    if (place[at] < 0) place[at] = seen++;
    one = Math.imul(one ^ place[at], 0x01000193) ^ (one >>> 13);
    other = Math.imul(other + place[at] + 1, 0x85ebca6b) ^ (other >>> 11);
  }
  return `${one} ${other} ${seen}`;
}

/** Whether a column holds more than one thing in the first file: else it may tell the files apart, as much else does. */
function variesWithin(column: Column, rows: number): boolean {
  const first = column.text(0);
  for (let row = 1; row < rows; row++) if (column.text(row) !== first) return true;
  return false;
}

/** Rows that are compared first. */
const FIRST_ROWS = 24;
const LEAST_UNIQUE = 0.95;

/** Columns with a value of their own in nearly every row: these part the rows alike whatever they hold, so the values themselves are compared. */
function ofTheirOwn(all: readonly Read[], columns: readonly Column[], rows: number): Flag[] {
  const able = all.flatMap(({ name, valid, distinct }, i) =>
    distinct >= valid * LEAST_UNIQUE && valid >= Math.max(LEAST_ROWS, rows * 0.5)
      ? [{ name, column: columns[i], rows: valid }]
      : [],
  );
  const step = Math.max(1, Math.floor(rows / FIRST_ROWS));
  const first = able.map(({ column }) =>
    Array.from({ length: Math.min(FIRST_ROWS, rows) }, (_, n) => column.text(n * step).trim()),
  );
  const taken = new Set<number>();
  const alikeTo = halvesAlike(first);
  return able.flatMap((one, a) =>
    alikeTo(a).flatMap((b): Flag[] => {
      const other = able[b];
      if (taken.has(a) || taken.has(b) || !alike(first[a], first[b])) return [];
      const same = sameTexts(one.column, other.column, rows, 1);
      if (same < LEAST_AGREED) return [];
      taken.add(b);
      return [
        {
          rule: 'repeat-column',
          variables: [one.name, other.name],
          codes: [],
          rows: one.rows,
          severity: 'low',
          certainty: round2(same === 1 ? 0.95 : 0.9),
          says: `${other.name} repeats ${one.name}${same < 1 ? `, but for ${Math.max(1, Math.round((1 - same) * rows))} rows` : ''}`,
        },
      ];
    }),
  );
}

/** Which later lists have the first half of one, or the second: of two that differ in one place, one half is the same. */
function halvesAlike(lists: readonly (readonly string[])[]): (at: number) => number[] {
  const halves = lists.map((list) =>
    [list.slice(0, list.length >> 1), list.slice(list.length >> 1)].map((half, i) =>
      JSON.stringify([i, half]),
    ),
  );
  const having = new Map<string, number[]>();
  halves.forEach((both, at) => {
    for (const half of both) {
      putUnder(having, half, at);
    }
  });
  return (at) =>
    [...new Set(halves[at].flatMap((half) => having.get(half) ?? []))]
      .filter((other) => other > at)
      .sort((a, b) => a - b);
}

function alike(a: readonly string[], b: readonly string[]): boolean {
  let other = 0;
  for (let n = 0; n < a.length; n++) if (a[n] !== b[n] && ++other > 1) return false;
  return true;
}

/** For each row the number of its text, blanks at the edges left out, and how many there are. */
interface Numbered {
  of: (row: number) => number;
  texts: number;
}

/** How a column parts the rows. */
interface Parting {
  text: (row: number) => string;
  /** Worked out where it is wanted: few columns come so far. */
  numbered: () => Numbered;
  /** Pairs of rows that hold the same, not blank, one after the other. */
  pairs: Int32Array;
  /** Of the first rows, a bit for each that holds the same as the next, blank or not; and for each that is not blank, too. */
  same: Int32Array;
  filled: Int32Array;
}

/** First rows of which neighbours are looked at, in numbers of 32 bits; fewer than pairs. */
const NEIGHBOURS = 4;

function partingOf(column: Column): Parting {
  const last = new Map<string, number>();
  const pairs: number[] = [];
  for (let row = 0; row < column.rows && pairs.length < PAIRS * 2; row++) {
    const text = column.text(row).trim();
    if (text === '') continue;
    const before = last.get(text);
    if (before !== undefined) pairs.push(before, row);
    last.set(text, row);
  }
  const [same, filled] = [new Int32Array(NEIGHBOURS), new Int32Array(NEIGHBOURS)];
  for (let row = 0; row < Math.min(column.rows - 1, NEIGHBOURS * 32); row++) {
    const text = column.text(row).trim();
    if (text !== column.text(row + 1).trim()) continue;
    same[row >> 5] |= 1 << (row & 31);
    if (text !== '') filled[row >> 5] |= 1 << (row & 31);
  }
  let numbered: Numbered | null = null;
  return {
    same,
    filled,
    text: (row) => column.text(row).trim(),
    numbered: () => (numbered ??= numberedOf(column)),
    pairs: Int32Array.from(pairs),
  };
}

function numberedOf(column: Column): Numbered {
  const coding = codingOfTexts(column, (text) => text.trim());
  return { of: (row) => categoryAt(coding, row), texts: coding.size };
}

/** What `parts` finds, of neighbours among the first rows alone: nearly all columns show it there. */
function partsNeighbours({ same }: Parting, { filled }: Parting): boolean {
  let parted = 0;
  for (let i = 0; i < NEIGHBOURS; i++) {
    let left = filled[i] & ~same[i];
    for (; left !== 0; left &= left - 1) if (++parted > MOST_PARTED) return true;
  }
  return false;
}

/** Whether a column holds different values in rows in which another holds the same, more often than by a slip. */
function parts(by: Parting, { pairs }: Parting): boolean {
  let parted = 0;
  for (let i = 0; i < pairs.length; i += 2)
    if (by.text(pairs[i]) !== by.text(pairs[i + 1]) && ++parted > MOST_PARTED) return true;
  return false;
}

/** Share of rows, of every `step`-th, in which each value of one goes with one value of the other, both ways. */
function agreement(a: Numbered, b: Numbered, rows: number, step: number): number {
  const pairs = new Map<number, number>();
  let n = 0;
  for (let row = 0; row < rows; row += step, n++) {
    const key = a.of(row) * b.texts + b.of(row);
    pairs.set(key, (pairs.get(key) ?? 0) + 1);
  }
  const [mostOfA, mostOfB] = [new Map<number, number>(), new Map<number, number>()];
  for (const [key, count] of pairs) {
    const [inA, inB] = [Math.floor(key / b.texts), key % b.texts];
    mostOfA.set(inA, Math.max(mostOfA.get(inA) ?? 0, count));
    mostOfB.set(inB, Math.max(mostOfB.get(inB) ?? 0, count));
  }
  const held = (most: Map<number, number>): number =>
    [...most.values()].reduce((sum, count) => sum + count, 0);
  return Math.min(held(mostOfA), held(mostOfB)) / Math.max(1, n);
}

function sameTexts(a: Column, b: Column, rows: number, step: number): number {
  let [same, n] = [0, 0];
  for (let row = 0; row < rows; row += step, n++) if (a.text(row).trim() === b.text(row).trim()) same++;
  return same / Math.max(1, n);
}
