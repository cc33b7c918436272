import type { Bits } from '../extract/bits';
import { placeReceived, type Extract } from '../extract/extract';
import { subsetOf } from '../extract/subset';
import { factsOf, ofSample } from '../flags/registry';
import type { Flag, Subject, Whole } from '../flags/rule';
import { headerCells, repeatedHeaders } from '../flags/rows/repeated-header';
import { summaryRows } from '../flags/rows/summary-row';
import { withoutCells } from '../infer/relevel';
import { askable, cellsOf, keptOf, type Inspected } from './inspected';
import { Raised } from './raised';

/**
 * The rows that count as an extract of their own, for rules: what was set aside and what a sieve drops is not there at all. Made
 * anew when other rows count; what is known of variables that nothing touched is kept.
 */
export class Study {
  readonly extract: Extract;
  private readonly subjects: WeakMap<Inspected, Subject>;
  private readonly without = new WeakMap<Subject, Subject>();
  /** What rules saw last of each variable. */
  private readonly last: Map<string, { inspected: Inspected; subject: Subject }>;
  private readonly raised: Raised;
  private readonly allRows: number;
  private strays: number[] | null = null;
  private now: { of: readonly Inspected[]; whole: Whole } | null = null;

  /** @param extract all rows @param within those that count; all where it is `null` @param sieved whether a sieve is in force @param before what is known already */
  constructor(
    extract: Extract,
    private readonly within: Bits | null,
    private readonly sieved: boolean,
    before: Study | null = null,
  ) {
    // A corrected cell makes no other variable another.
    const same =
      before !== null && within === null && !before.extract.taken && before.extract.rows === extract.rows;
    this.subjects = same ? before.subjects : new WeakMap();
    this.last = same ? before.last : new Map();
    this.raised = same ? before.raised : new Raised();
    this.allRows = extract.rows;
    this.extract = within === null ? extract : subsetOf(extract, within);
  }

  /** What rules look at. @param all variables over the rows that count */
  whole(all: readonly Inspected[]): Whole {
    if (this.now?.of === all) return this.now.whole;
    const subjects = all.map((inspected, i) => {
      let known = this.subjects.get(inspected);
      if (!known) {
        const last = this.last.get(inspected.name);
        known =
          last && isSameToRules(last.inspected, inspected)
            ? last.subject
            : { ...inspected, ...askable(this.extract.variables[i], this.extract) };
        this.subjects.set(inspected, known);
        this.last.set(inspected.name, { inspected, subject: known });
      }
      return known;
    });
    const whole: Whole = {
      extract: this.extract,
      subjects,
      studied: this.studiedOf(subjects),
      ...(this.extract.pass ? { sample: this.sampleOf(all) } : {}),
      ...(this.sieved ? { sieved: true } : {}),
    };
    this.now = { of: all, whole };
    return whole;
  }

  /** What the rows held tell alone, where they are a sample of those that were counted. */
  private sampleOf(all: readonly Inspected[]): Whole {
    const { extract } = this;
    const subjects = all.map((inspected, i): Subject => {
      const own =
        inspected.sampled === undefined || inspected.passed
          ? keptOf(inspected, this.within, this.allRows, true)
          : inspected;
      const { pass: _, ...variable } = extract.variables[i];
      return { ...own, ...askable(variable, extract) };
    });
    const strays = repeatedHeaders(extract);
    const studied = strays.length
      ? subjects.map((subject, i) => ({
          ...subject,
          levels: withoutCells(subject.levels, cellsOf(extract.variables[i], strays)),
        }))
      : subjects;
    return { extract, subjects, studied, ...(this.sieved ? { sieved: true } : {}) };
  }

  /** Flags of the rows that count; rows are told by the places that they were received at. */
  flags(all: readonly Inspected[]): Flag[] {
    const { extract } = this;
    const sampled = new Set(all.flatMap(({ name, sampled: of }) => (of === undefined ? [] : [name])));
    const flags = this.raised
      .of(this.whole(all))
      .map((flag) =>
        sampled.has(flag.variables[0]) && factsOf(flag.rule)?.needs === 'tally'
          ? ofSample(flag, extract)
          : flag,
      );
    return extract.taken
      ? flags.map((flag) =>
          flag.at ? { ...flag, at: flag.at.map((row) => placeReceived(extract, row)) } : flag,
        )
      : flags;
  }

  /** Raises step by step what is not raised yet. @returns how many variables are done */
  steps(all: readonly Inspected[]): Generator<number> {
    return this.raised.steps(this.whole(all));
  }

  /** Rows that are no observations are none of those that rules look at. */
  private studiedOf(subjects: readonly Subject[]): readonly Subject[] {
    const { extract } = this;
    // Rows that are no observations but by their sums are not found in a sample.
    const sums = extract.pass ? [] : summaryRows({ extract, subjects });
    this.strays ??= [...new Set([...repeatedHeaders(extract), ...sums.map(({ row }) => row)])];
    const { strays } = this;
    const { pass } = extract;
    if (strays.length === 0 && !pass) return subjects;
    return extract.variables.map((variable, i) => {
      // What no ruling touched stays the same object, so that rules need not work it out again.
      let seen = this.without.get(subjects[i]);
      if (!seen) {
        const isComplete = pass && !variable.pass?.others && !(this.sieved && extract.taken);
        const cells = isComplete ? headerCells(variable, extract) : cellsOf(variable, strays);
        const levels = cells.size > 0 ? withoutCells(subjects[i].levels, cells) : subjects[i].levels;
        this.without.set(subjects[i], (seen = { ...subjects[i], levels }));
      }
      return seen;
    });
  }
}

/** What a rule is not told: whether a kind is presumed or confirmed, and how surely. */
const NOT_TOLD: ReadonlySet<string> = new Set<keyof Inspected>([
  'confirmed',
  'confidence',
  'because',
  'presumed',
]);

/** Whether rules see the same in two states of a variable. */
function isSameToRules(a: Inspected, b: Inspected): boolean {
  const keys = Object.keys(a) as (keyof Inspected)[];
  return keys.length === Object.keys(b).length && keys.every((key) => NOT_TOLD.has(key) || a[key] === b[key]);
}
