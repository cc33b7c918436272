import type { Column } from '../../extract/column';
import type { ColumnPass, Extract } from '../../extract/extract';
import { textAt } from '../../extract/text-list';
import { validOf } from '../../infer/levels';
import { fileStarts } from '../../extract/files';
import { namesIdentifier } from '../../infer/vocabulary';
import { isBlank } from '../../read/looks';
import { cellsRule } from '../cells-rule';
import { round2, type Flag, type Subject } from '../rule';

/** What looks like the unit's identifier, and repeats within a file. */
export const duplicateIdentifier = cellsRule({
  rule: 'duplicate-identifier',
  needs: 'rows',
  answers: 'rows',
  countedToo: ({ files, variables }) =>
    files.length < 2 && variables.every(({ pass }) => !pass?.others || pass.others.repeated !== undefined),
  reads: (subject) => ({ able: readOf(subject) }),
  find,
});

const LEAST_ROWS = 20;
/** Where more repeat, it identifies something else than the row. */
const MOST_REPEATED = 0.1;
const LONG_CODE = 8;
const ID_WORDS =
  /\b(identif\w+|id|serial number|case number|record number|respondent number|household number)\b/i;
const ID_NAME = /^(id|case|serial)/i;

/** What is read of what looks like an identifier; `null` of anything else. */
interface Able {
  name: string;
  isIdentifier: boolean;
  named: boolean;
  rows: number;
  distinct: number;
  /** Whether every row is told of, and each value stands once. */
  once: boolean;
  tallied: number;
  /** Whether all codes are long: so long ones do not meet by chance. */
  long: boolean;
  /** Texts that are no values. */
  no: string[];
}

function readOf({ name, label, kind, role, written, levels }: Subject): Able | null {
  const named = ID_NAME.test(name) || namesIdentifier(name) || ID_WORDS.test(label ?? '');
  if (kind !== 'identifier' && (!named || kind === 'text')) return null;
  if (written.storage === 'decimal' || role === 'admin') return null;
  const valid = validOf(levels);
  return {
    name,
    isIdentifier: kind === 'identifier',
    named,
    rows: valid.rows,
    distinct: valid.levels.length,
    once: valid.levels.counts.every((count) => count === 1),
    tallied: levels.rows,
    long: kind === 'identifier' && valid.levels.everyCode((code) => code.length >= LONG_CODE),
    no: valid.others.flatMap(({ code, spellings }) => [code, ...spellings]),
  };
}

function find({ extract, read }: { extract: Extract; read: readonly { able: Able | null }[] }): Flag[] {
  const starts = fileStarts(extract.files);
  const parts = extract.files.length
    ? extract.files.map((_, i) => [starts[i], starts[i + 1]] as const)
    : [[0, extract.rows] as const];
  const able = read.flatMap(({ able: one }, i) => {
    if (!one) return [];
    const no = new Set(one.no);
    const { column, pass } = extract.variables[i];
    const counted = pass ? repeatsCounted(pass, parts.length, no) : null;
    if (pass && !counted) return [];
    const rows = counted?.valid ?? one.rows;
    const distinct = counted?.distinct ?? one.distinct;
    if (rows < LEAST_ROWS || distinct < (rows / Math.max(1, parts.length)) * (1 - MOST_REPEATED)) return [];
    // Where each level stands in one row alone, none stands in two.
    const isUnique = one.tallied === column.rows && one.once;
    const twice = counted ?? (isUnique ? NONE : repeatsWithin(column, parts, no));
    const kind = one.isIdentifier ? 'identifier' : 'other';
    return [{ name: one.name, named: one.named || one.long, kind, rows, twice }];
  });
  // Beside one that tells every row apart, what repeats is another thing, unless its name says otherwise.
  const told = able.some(({ kind, twice }) => kind === 'identifier' && twice.rows === 0);
  return able.flatMap(({ name, named, kind, rows, twice }): Flag[] => {
    if (twice.rows === 0 || twice.rows > rows * MOST_REPEATED || (told && !named)) return [];
    return [
      {
        rule: 'duplicate-identifier',
        variables: [name],
        codes: twice.texts.slice(0, 20),
        rows: twice.rows,
        severity: 'high',
        certainty: round2(named && kind === 'identifier' ? 0.93 : 0.75),
        says: `${twice.texts.slice(0, 3).join(', ')}${twice.texts.length > 3 ? ` and ${twice.texts.length - 3} more` : ''} ${twice.texts.length === 1 ? 'stands' : 'stand'} in ${twice.rows} rows${parts.length > 1 ? ' within a file' : ''}, where every other value stands once`,
      },
    ];
  });
}

/** The same of all rows that were counted, with how many of them hold a value and how many different ones; `null` where it is not known. */
function repeatsCounted(
  { texts, counts, others }: ColumnPass,
  parts: number,
  no: ReadonlySet<string>,
): { texts: string[]; rows: number; valid: number; distinct: number } | null {
  if (parts > 1 || (others && others.repeated === undefined)) return null;
  let [valid, distinct, rows] = [others ? others.rows - others.blank : 0, 0, others?.repeated ?? 0];
  const twice: number[] = [];
  texts.forEach((text, i) => {
    const isValue = !isBlank(text) && !no.has(text);
    if (isValue) {
      valid += counts[i];
      distinct++;
    }
    if (counts[i] < 2) return;
    if (isValue) twice.push(i);
    // Of all that repeat, those that are no values do not count.
    if (others && !isValue) rows -= counts[i];
    if (!others && isValue) rows += counts[i];
  });
  return {
    texts: twice.sort((a, b) => counts[b] - counts[a]).map((i) => textAt(texts, i)),
    rows,
    valid,
    distinct: others ? others.distinct - (texts.length - distinct) : distinct,
  };
}

const NONE = { texts: [], rows: 0 };

/** Texts that stand in more than one row of a part, in the order in which they first do, and those rows. */
function repeatsWithin(
  column: Column,
  parts: readonly (readonly [number, number])[],
  no: ReadonlySet<string>,
): { texts: string[]; rows: number } {
  const { codes, texts } = column.listed;
  const told = new Set<number>();
  let rows = 0;
  for (const [from, to] of parts) {
    const counts = new Uint32Array(texts.length);
    const firsts = new Uint32Array(texts.length);
    const repeated: number[] = [];
    for (let row = from; row < to; row++) {
      const code = codes[row];
      if (++counts[code] === 1) firsts[code] = row;
      else if (counts[code] === 2 && !isBlank(textAt(texts, code)) && !no.has(textAt(texts, code)))
        repeated.push(code);
    }
    for (const code of repeated.sort((a, b) => firsts[a] - firsts[b])) {
      told.add(code);
      rows += counts[code];
    }
  }
  return { texts: Array.from(told, (code) => textAt(texts, code)), rows };
}
