import type { Extract, Marks, Notice, Variable } from '../extract/extract';
import { locateRows, nameRows, rowText, type Located, type RowName } from '../extract/row-names';
import { isMeasure, type Kind } from '../extract/words';
import { explained, raiseFlags, raiseOfCells, raiseWhole } from '../flags/registry';
import { repeatedHeaders } from '../flags/repeated-header';
import type { Flag, Subject, Whole } from '../flags/rule';
import { givingWay, standingFlags, type StandingRule } from '../flags/standing-rules';
import { notAskedIn, type Universe } from '../flags/universe';
import { summaryRows } from '../flags/summary-row';
import { itemsAlike, scaleOf, type Scale } from '../infer/scale';
import { Declarations } from '../infer/levels';
import { withoutCells } from '../infer/relevel';
import { familyOf } from '../infer/stem';
import { inferStorage, type Hints, type Written } from '../infer/storage';
import { commonMarks } from '../infer/marks';
import type { Entry } from '../log/entries';
import { foldLog, inForce, touched, type State } from '../log/fold';
import { filesHolding } from '../intake/waves';
import { isBlank } from '../read/looks';
import { proposeSets } from '../sets/propose';
import { tallyColumn, type Tally } from '../tally/tally';
import { askedOf, type Asked } from './asked';
import { cellsOf, documented, inspectVariable, type Inspected, type Said } from './inspected';
import { retyped } from './retyped';
import { summaryOf, type Summary } from './summary';
import type { Inspection } from './schema';
import { weightedOf, type Weighted, type Weighting } from './weighted';

const misfitNotice = ({ name, row, says }: Located): Notice => ({
  says: `${rowText(name)} ${row === null ? 'was to be set aside, but' : 'is set aside:'} ${says}`,
});

/** Variables whose flags are raised between two reports. */
const AT_ONCE = 100;

/** The state in which nothing was decided. */
export const UNDECIDED: State = foldLog([]);

/**
 * An extract under inspection: tallies each column once, and afterwards recounts only the variables that a ruling
 * touches. Everything is a function of extract and state; the tallies are kept so that they need not be made again.
 */
export class Inspector {
  private readonly tallies = new Map<string, Tally>();
  private readonly writtenAs = new Map<string, Written>();
  private readonly found = new Map<string, Inspected>();
  private readonly inFiles = new Map<string, number[]>();
  private readonly scales = new Map<string, Scale | null>();
  private state: State = UNDECIDED;
  private readonly raised = new Map<string, Flag[]>();
  /** Flags of the extract as a whole; `null` where they have to be raised anew. */
  private wholeRaised: Flag[] | null = null;
  /** All variables, and as rules see them, until a ruling changes one. */
  private all: Inspected[] | null = null;
  private seenByRules: Subject[] | null = null;
  private withoutTheirCells = new WeakMap<Inspected, Subject>();
  /** Flags of rules that look at cells alone, whatever is ruled of codes. */
  private ofCells: Flag[] | null = null;
  /** Rows that a person set aside. */
  private aside: ReadonlySet<number> = new Set();
  /** Where the rows stand that decisions name. */
  private located: readonly Located[] = [];
  private marks: Marks | null = null;
  private noticed: Notice[] | null = null;
  /** Rows that repeat the names of the columns: they say nothing of what the others hold. */
  private headers: number[] | null = null;
  /** Those, and rows that sum up others. */
  private strays: number[] | null = null;
  private readonly byName: ReadonlyMap<string, Variable>;

  /** @param standing what a person knows of the archive's codes: proposals among the flags */
  constructor(
    readonly extract: Extract,
    public standing: readonly StandingRule[] = [],
  ) {
    this.byName = new Map(extract.variables.map((variable) => [variable.name, variable]));
  }

  /** Lays another state over the extract. @returns names of the variables that changed by it */
  lay(state: State): Set<string> {
    const names = touched(this.state, state);
    this.locate(state.aside);
    const aside = new Set(this.located.flatMap(({ row }) => (row === null ? [] : [row])));
    if (aside.size !== this.aside.size || [...aside].some((row) => !this.aside.has(row))) {
      // Rows count in every variable.
      for (const name of this.byName.keys()) names.add(name);
      this.found.clear();
      this.raised.clear();
      this.ofCells = null;
      this.aside = aside;
      this.headers = null;
      this.strays = null;
      this.withoutTheirCells = new WeakMap();
    }
    this.state = state;
    if (names.size) {
      this.wholeRaised = null;
      this.all = null;
      this.seenByRules = null;
    }
    for (const name of names) {
      if (!this.found.delete(name)) continue;
      // A flag also weighs what the siblings hold.
      for (const sibling of familyOf(name, this.byName.keys())) this.raised.delete(sibling);
    }
    return names;
  }

  /** Rows that decisions name are looked for once. */
  private locate(names: readonly RowName[]): void {
    const known = new Map(this.located.map((one) => [one.name, one]));
    const fresh = names.filter((name) => !known.has(name));
    for (const one of locateRows(this.extract, fresh)) known.set(one.name, one);
    this.located = names.flatMap((name) => known.get(name) ?? []);
  }

  /** What was found of rows that are named and do not simply stand at their place. */
  get misfits(): Located[] {
    return this.located.filter(({ row, says }) => row === null || says !== null);
  }

  /** The variable that tells units apart, where one does. */
  get unitsBy(): string | null {
    return (
      this.variables.find(({ kind, role }) => kind === 'identifier' && role === 'identifier')?.name ?? null
    );
  }

  /** Rows as a decision names them. @param rows zero-based, of the whole extract */
  nameRows(rows: readonly number[]): RowName[] {
    return nameRows(this.extract, rows, this.unitsBy);
  }

  /** Entries that set a row aside, each with the other rows that it names. @param row zero-based */
  asideBy(row: number, log: readonly Entry[]): { entry: Entry; others: RowName[] }[] {
    const names = new Set(this.located.filter((one) => one.row === row).map(({ name }) => name));
    return inForce(log).flatMap((entry) => {
      if (entry.type !== 'set-aside' || !entry.rows.some((name) => names.has(name))) return [];
      return [{ entry, others: entry.rows.filter((name) => !names.has(name)) }];
    });
  }

  /** Tallies and infers variables one by one, so that the caller can report progress and stop. */
  *prepare(): Generator<number> {
    for (const [i, variable] of this.extract.variables.entries()) {
      this.variable(variable);
      yield i + 1;
    }
  }

  get variables(): Inspected[] {
    return (this.all ??= this.extract.variables.map((variable) => this.variable(variable)));
  }

  /** @returns `undefined` where the extract has no variable of that name */
  named(name: string): Inspected | undefined {
    const variable = this.byName.get(name);
    return variable && this.variable(variable);
  }

  /** Flags in force: those that no ruling answered. */
  get flags(): Flag[] {
    const standing = standingFlags(this.standing, this.subjects);
    return [...givingWay(explained(this.allFlags, this.whole), standing), ...standing].flatMap((flag) =>
      this.unanswered(flag),
    );
  }

  private get allFlags(): Flag[] {
    const names = [...this.byName.keys()];
    this.raiseOf(names);
    this.ofCells ??= raiseOfCells(this.whole);
    this.wholeRaised ??= raiseWhole(this.whole);
    return [...this.ofCells, ...this.wholeRaised, ...names.flatMap((name) => this.raised.get(name) ?? [])];
  }

  /** Raises flags step by step, so that the caller can report progress and stop. @returns how many of the variables are done */
  *raise(): Generator<number> {
    const names = [...this.byName.keys()];
    for (let done = 0; done < names.length; done += AT_ONCE) {
      this.raiseOf(names.slice(done, done + AT_ONCE));
      yield Math.min(names.length, done + AT_ONCE);
    }
    this.ofCells ??= raiseOfCells(this.whole);
    yield names.length;
    this.wholeRaised ??= raiseWhole(this.whole);
    yield names.length;
  }

  /** Raises flags of variables that have none yet, or whose were taken back by a ruling. */
  private raiseOf(names: readonly string[]): void {
    const stale = new Set(names.filter((name) => !this.raised.has(name)));
    if (stale.size === 0) return;
    for (const name of stale) this.raised.set(name, []);
    for (const flag of raiseFlags(this.subjects, stale)) this.raised.get(flag.variables[0])?.push(flag);
  }

  /** Rows that a person set aside. */
  get setAside(): ReadonlySet<number> {
    return this.aside;
  }

  /** What the ledger shows of variables. */
  summaries(of: readonly Inspected[] = this.variables): Summary[] {
    return of.map((inspected) => summaryOf(inspected, this.filesOf(inspected.name)));
  }

  /** Zero-based places of the files that hold anything of a variable; `null` where there is but one file. */
  private filesOf(name: string): number[] | null {
    const { files } = this.extract;
    const variable = this.byName.get(name);
    if (files.length < 2 || !variable) return null;
    let found = this.inFiles.get(name);
    if (!found) this.inFiles.set(name, (found = filesHolding(variable.column, files)));
    return found;
  }

  /** What a person gave a variable besides its kind. */
  said(name: string): Said {
    const { called, notes, signedOff } = this.state;
    return {
      called: called.get(name)?.name ?? null,
      note: notes.get(name) ?? null,
      signedOff: signedOff.has(name),
    };
  }

  /** The weight in force, where one is and the extract has it. */
  get weighting(): Weighting | null {
    const variable = this.state.weight === null ? undefined : this.byName.get(this.state.weight);
    return variable ? { variable, inspected: this.variable(variable) } : null;
  }

  /** What a variable comes to by the weight in force; `null` without one, and for the weight itself. */
  weighted(name: string): Weighted | null {
    const { weighting } = this;
    const variable = this.byName.get(name);
    const hasFigures =
      variable !== undefined &&
      weighting?.variable !== variable &&
      !['identifier', 'text', 'empty'].includes(this.variable(variable).kind);
    return weighting && hasFigures
      ? weightedOf(variable, this.variable(variable), weighting, this.aside)
      : null;
  }

  get whole(): Whole {
    return {
      extract: this.extract,
      subjects: this.variables,
      studied: this.subjects,
      aside: this.aside,
    };
  }

  /** The variables as rules see them: rows that are no observations are none of theirs. */
  private get subjects(): readonly Subject[] {
    return (this.seenByRules ??= this.withoutStrays());
  }

  private withoutStrays(): Subject[] {
    this.strays ??= [
      ...new Set([
        ...this.headerRows,
        ...summaryRows({ extract: this.extract, subjects: this.variables }).map(({ row }) => row),
      ]),
    ].filter((row) => !this.aside.has(row));
    const strays = this.strays;
    if (strays.length === 0) return this.variables;
    return this.extract.variables.map((variable) => {
      const inspected = this.variable(variable);
      // What no ruling touched stays the same object, so that rules need not work it out again.
      let seen = this.withoutTheirCells.get(inspected);
      if (!seen)
        this.withoutTheirCells.set(
          inspected,
          (seen = { ...inspected, levels: withoutCells(inspected.levels, cellsOf(variable, strays)) }),
        );
      return seen;
    });
  }

  private get headerRows(): number[] {
    return (this.headers ??= repeatedHeaders(this.extract).filter((row) => !this.aside.has(row)));
  }

  /** Everything noticed of the files together, of the codebooks, and of variables that later files write otherwise. */
  get notices(): Notice[] {
    this.noticed ??= [
      ...this.extract.notices,
      ...this.extract.linkNotices,
      ...retyped(this.extract, (variable) => this.hints(variable)),
    ];
    return [...this.noticed, ...this.misfits.map(misfitNotice)];
  }

  private unanswered(flag: Flag): Flag[] {
    // A universe that was accepted, or said otherwise, is no question any more.
    if (flag.rule === 'universe-gate' && this.state.universes.has(flag.variables[0])) return [];
    // Rows that were set aside are no question any more.
    if (flag.at?.length && flag.at.every((row) => this.aside.has(row))) return [];
    const kept = this.state.kept.get(flag.variables[0] ?? '')?.get(flag.rule);
    return kept && flag.codes.every((code) => kept.has(code)) ? [] : [flag];
  }

  private variable(variable: Variable): Inspected {
    const { name } = variable;
    const known = this.found.get(name);
    if (known) return known;
    const made = this.under(variable, this.state);
    this.found.set(name, made);
    return made;
  }

  /** A variable as another state would leave it. */
  private under(variable: Variable, state: State): Inspected {
    return inspectVariable(variable, state, {
      tally: this.tally(variable),
      written: this.writtenUnder(variable, state),
      extract: this.extract,
      headers: this.headerRows,
      aside: [...this.aside],
      notAskedBlank: this.notAskedBlanks(variable, state.universes.get(variable.name)),
      itemsAlike: this.itemsAlike(variable.name),
    });
  }

  /** How many variables of the same stem answer on the same scale: by what the cells hold, whatever is ruled of them. */
  private itemsAlike(name: string): number {
    return itemsAlike(name, this.byName.keys(), (other) => {
      let scale = this.scales.get(other);
      const variable = this.byName.get(other);
      if (scale === undefined)
        this.scales.set(other, (scale = variable ? scaleOf(this.tally(variable)) : null));
      return scale;
    });
  }

  /** Blank cells of a variable in rows where the variable that gates it holds a code at which it was not asked. */
  private notAskedBlanks({ column }: Variable, universe: Universe | undefined): number {
    const notAsked = universe && notAskedIn(universe, (name) => this.byName.get(name)?.column);
    if (!notAsked) return 0;
    let blanks = 0;
    for (let row = 0; row < this.extract.rows; row++)
      if (!this.aside.has(row) && isBlank(column.text(row)) && notAsked(row)) blanks++;
    return blanks;
  }

  /** Who was asked, as the blanks tell or as a person accepted; `null` where nothing hangs on another variable. */
  asked(name: string): Asked | null {
    return askedOf(name, this.whole, this.state.universes.get(name), this.allFlags);
  }

  /** What a variable would be if a person said that it is of a kind; nothing is decided by asking. */
  asKind(name: string, kind: Kind): Inspected | undefined {
    const variable = this.byName.get(name);
    return (
      variable && this.under(variable, { ...this.state, kinds: new Map([...this.state.kinds, [name, kind]]) })
    );
  }

  /** How cells are read where a person says that words are numbers or dates: as many as can be, and the others not. */
  private writtenUnder(variable: Variable, { kinds, missing }: State): Written {
    const written = this.written(variable);
    const said = kinds.get(variable.name);
    const force =
      said === undefined || written.storage !== 'text'
        ? null
        : isMeasure(said)
          ? 'number'
          : said === 'date'
            ? 'date'
            : null;
    if (force === null) return written;
    const declared = new Set(missing.get(variable.name)?.map(({ code }) => code.trim()));
    const hints = this.hints(variable);
    return inferStorage(this.tally(variable), {
      ...hints,
      force,
      skip: (text) => declared.has(text.trim()) || (hints.skip?.(text) ?? false),
    });
  }

  private tally(variable: Variable): Tally {
    let tally = this.tallies.get(variable.name);
    if (!tally) this.tallies.set(variable.name, (tally = tallyColumn(variable.column)));
    return tally;
  }

  /** How cells are written, by the file and its codebook. */
  private written(variable: Variable): Written {
    const known = this.writtenAs.get(variable.name);
    if (known) return known;
    const hints = this.hints(variable);
    let written = inferStorage(this.tally(variable), hints);
    // What holds nothing but its own name is text.
    if (written.storage === 'empty' && this.tally(variable).texts.some((text) => !isBlank(text)))
      written = { ...written, storage: 'text' };
    if (written.open) {
      // What a variable leaves open, a person's word or the other variables decide.
      const { decimal, order } = this.marksOfAll();
      if ((written.open === 'decimal-mark' && decimal) || (written.open === 'date-order' && order))
        written = inferStorage(this.tally(variable), { ...hints, mark: decimal, order });
    }
    this.writtenAs.set(variable.name, written);
    return written;
  }

  private hints({ name, entry, declared, implied }: Variable): Hints {
    const byCodebook = new Declarations(entry);
    const fixed =
      this.extract.files.length > 0 && this.extract.files.every(({ form }) => form === 'fixed-width');
    const ownName = this.headerRows.length > 0 ? name : null;
    return {
      skip:
        byCodebook.none && ownName === null
          ? undefined
          : (text) => text === ownName || byCodebook.missing(text) !== null,
      declared,
      implied,
      padded: fixed && (entry?.storage === 'integer' || entry?.storage === 'decimal'),
    };
  }

  private marksOfAll(): Marks {
    this.marks ??= {
      ...commonMarks(
        this.extract.variables.map((variable) => inferStorage(this.tally(variable), this.hints(variable))),
      ),
      ...this.extract.marks,
    };
    return this.marks;
  }

  /** The inspection document, as the state in force leaves it. */
  document(): Inspection {
    const { extract } = this;
    return {
      format: 'dig-first-inspection',
      version: 1,
      source: {
        name: extract.name,
        files: extract.files.map(
          ({
            name,
            bytes,
            rows,
            columns,
            form,
            encoding,
            delimiter,
            header,
            sheet,
            wave,
            partial,
            notices,
          }) => ({
            name,
            bytes,
            rows,
            columns,
            form,
            encoding,
            delimiter,
            header,
            ...(sheet === undefined ? {} : { sheet }),
            ...(wave === undefined ? {} : { wave }),
            ...(partial ? { partial } : {}),
            notices,
          }),
        ),
        codebooks: extract.codebooks.map(({ name, form }) => ({ name, form })),
        notices: this.notices,
        ...(extract.part ? { part: extract.part } : {}),
      },
      rows: extract.rows,
      variables: this.variables.map((inspected) => documented(inspected, this.said(inspected.name))),
      flags: this.flags,
      sets: proposeSets(this.variables, extract.codebooks),
    };
  }
}
