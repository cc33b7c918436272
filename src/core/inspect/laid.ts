import type { Extract, Variable } from '../extract/extract';
import { sameBits, type Bits } from '../extract/bits';
import type { Located, RowName } from '../extract/row-names';
import type { Kind } from '../extract/words';
import { notAskedIn } from '../flags/between/universe';
import type { Levels } from '../infer/levels';
import type { Written } from '../infer/storage';
import type { Entry } from '../log/entries';
import { foldLog, touched, type State } from '../log/fold';
import { asideBy, Bases, namedRows, type AsideBy, type Basis } from './basis';
import { Cells } from './cells';
import { inspectVariable, levelsUnder, saidIn, type Inspected, type Said } from './inspected';
import { siftedBy } from './sieving';
import { Trials } from './trials';
import { overHanded } from './handed';
import { Writing } from './writing';

/** The state in which nothing was decided. */
export const UNDECIDED: State = foldLog([]);

/**
 * An extract with a person's word laid over it, and what its variables are by all rows that are there: what their cells hold is
 * worked out once, how they count anew for those that a ruling touches.
 */
export class Laid {
  private readonly bases: Bases;
  protected basis: Basis;
  protected cells: Cells;
  protected writing: Writing;
  protected readonly trials = new Trials();
  /** The basis with trial recodes behind its variables. */
  protected full: Extract;
  protected state: State = UNDECIDED;
  /** Variables as all rows that are there tell them. */
  protected readonly found = new Map<string, Inspected>();
  /** Their levels over all rows that were received, before rulings merge or order them: nothing is read again. */
  private readonly counted = new Map<string, { written: Written; levels: Levels }>();

  /**
   * @param as the same variables over more rows: what each is, and how its cells are written, is what it is there
   */
  constructor(
    readonly received: Extract,
    private readonly as: Laid | null = null,
  ) {
    this.bases = new Bases(received);
    this.state = overHanded(UNDECIDED, received);
    this.basis = this.bases.under(this.state);
    this.full = received;
    this.cells = new Cells(received);
    this.writing = new Writing(this.cells, this.basis.headers.length > 0);
  }

  /** The received extract with corrected cells and added rows laid over it. */
  get extract(): Extract {
    return this.full;
  }

  /** Gives the extract another name. */
  callIt(name: string): void {
    for (const extract of [this.received, this.basis.extract, this.full]) extract.name = name;
  }

  /** The decisions in force. */
  get decided(): State {
    return this.state;
  }

  /** Lays another state over rows and cells. @returns names of the variables that changed by it */
  protected layOver(decided: State): Set<string> {
    const state = overHanded(decided, this.received);
    const names = touched(this.state, state);
    const confirmed = this.confirmedOnly(names, state);
    for (const name of names) if (!confirmed.has(name)) this.counted.delete(name);
    const { extract, there } = this.basis;
    this.state = state;
    this.settle(state, names);
    if (this.basis.extract !== extract || this.basis.there !== there) confirmed.clear();
    for (const name of names) {
      const found = confirmed.get(name);
      if (found) this.found.set(name, found);
      else this.found.delete(name);
    }
    this.extend(names);
    return names;
  }

  /** Of some variables those of which nothing changes but that a person says, or no longer says, the kind that they have. */
  private confirmedOnly(names: ReadonlySet<string>, state: State): Map<string, Inspected> {
    const otherwise = touched(this.state, { ...state, kinds: this.state.kinds });
    const confirmed = new Map<string, Inspected>();
    for (const name of names) {
      const found = this.found.get(name);
      const variable = this.cells.byName.get(name);
      if (!found || !variable || otherwise.has(name)) continue;
      const said = state.kinds.get(name);
      if ((said ?? found.presumed) === found.kind && this.writing.under(variable, state) === found.written)
        confirmed.set(name, { ...found, confirmed: said !== undefined });
    }
    return confirmed;
  }

  /** What becomes of rows and cells. Names of variables that are other columns now, or of which other rows are there, are added. */
  private settle(state: State, names: Set<string>): void {
    const before = this.basis;
    const made = this.bases.under(state);
    const sameRows = sameBits(before.there, made.there) && before.extract.rows === made.extract.rows;
    this.basis = sameRows ? { ...made, there: before.there } : made;
    const { extract, there, headers } = this.basis;
    if (before.extract !== extract) {
      for (const [i, variable] of extract.variables.entries()) {
        if (before.extract.variables[i] === variable) continue;
        names.add(variable.name);
        this.counted.delete(variable.name);
      }
      this.cells = new Cells(extract, this.cells);
    }
    const hasHeaders = headers.length > 0;
    if (before.extract !== extract || !sameRows || hasHeaders !== before.headers.length > 0) {
      this.writing = new Writing(this.cells, hasHeaders, there, this.writing);
      if (!sameRows) for (const name of this.cells.byName.keys()) names.add(name);
    }
  }

  /** Trial recodes behind all other variables. Names of those that are others now are added. */
  private extend(names: Set<string>): void {
    const before = this.full;
    const { extract, headers, there } = this.basis;
    const own = extract.variables.length;
    /** @param exactly whether no other recode may be known: else those that come later may be, as they were before */
    const enter = (made: Extract, exactly = false): void => {
      const { byName } = this.cells;
      const recodes = made.variables.slice(own);
      if (
        (!exactly || byName.size === made.variables.length) &&
        recodes.every((variable) => byName.get(variable.name) === variable)
      )
        return;
      for (const { name, trial } of made.variables) {
        if (!trial) continue;
        this.found.delete(name);
        this.counted.delete(name);
      }
      this.cells = new Cells(made, this.cells);
      this.writing = new Writing(this.cells, headers.length > 0, there, this.writing);
    };
    this.full = this.trials.over(extract, this.state, (name) => this.wholly(name), enter);
    if (this.full === before) return;
    enter(this.full, true);
    const known = new Map(before.variables.map((variable) => [variable.name, variable]));
    for (const { name } of [...before.variables, ...this.full.variables])
      if (this.cells.byName.get(name) !== known.get(name)) names.add(name);
  }

  /** What conditions on rows may ask of a variable, by the archive's name for it or a person's. */
  readonly lookup = (name: string): ReturnType<typeof siftedBy> | undefined => {
    const variable = this.cells.byName.get(name) ?? this.cells.byName.get(this.archiveName(name) ?? '');
    return variable && siftedBy(this.wholeOf(variable), this.state);
  };

  private archiveName(name: string): string | undefined {
    return [...this.state.called].find(([, called]) => called.name === name)?.[0];
  }

  /** Over all rows that are there, whatever a sieve keeps. */
  wholly(name: string): Inspected | undefined {
    const variable = this.cells.byName.get(name);
    return variable && this.wholeOf(variable);
  }

  /** What a variable would be if a person said that it is of a kind; nothing is decided by asking. */
  asKind(name: string, kind: Kind): Inspected | undefined {
    const variable = this.cells.byName.get(name);
    const kinds = new Map([...this.state.kinds, [name, kind]]);
    return variable && this.inspected(variable, { ...this.state, kinds });
  }

  /** Whether a person gave the codes of a variable an order. */
  isOrdered(name: string): boolean {
    return this.state.orders.has(name);
  }

  /** Rows that a person set aside; zero-based, of the whole extract. */
  get setAside(): ReadonlySet<number> {
    return this.basis.aside;
  }

  /** The rows that are there; `null` where all are. */
  get there(): Bits | null {
    return this.basis.there;
  }

  /** Trial recodes that cannot be made of this extract, in words. */
  get trialMisfits(): readonly string[] {
    return this.trials.misfits;
  }

  /** Corrected cells by variable and zero-based row, with the text that was received. */
  get corrected(): Basis['corrected'] {
    return this.basis.corrected;
  }

  /** What was found of rows that are named and do not simply stand at their place. */
  get misfits(): Located[] {
    return this.basis.located.filter(({ row, says }) => row === null || says !== null);
  }

  /** The variable that tells units apart, where one does. */
  get unitsBy(): string | null {
    const isUnit = ({ kind, role }: Inspected): boolean => kind === 'identifier' && role === 'identifier';
    return this.extract.variables.find((variable) => isUnit(this.wholeOf(variable)))?.name ?? null;
  }

  /** The variable by which a person calls rows: what tells units apart, else what identifies anything; `null` where nothing does. */
  get calledBy(): string | null {
    const isIdentifier = (variable: Variable): boolean => this.wholeOf(variable).kind === 'identifier';
    return this.unitsBy ?? this.extract.variables.find(isIdentifier)?.name ?? null;
  }

  /** Rows as a decision names them. @param rows zero-based, of the whole extract */
  nameRows(rows: readonly number[]): RowName[] {
    return namedRows(this.received, this.state.added, rows, this.unitsBy);
  }

  /** Entries that set a row aside, each with the other rows that it names. @param row zero-based */
  asideBy(rows: readonly number[], log: readonly Entry[]): AsideBy[] {
    return asideBy(this.basis, rows, log);
  }

  /** What a person gave a variable besides its kind. */
  said(name: string): Said {
    return saidIn(this.state, name);
  }

  /** Over all rows that are there. */
  protected wholeOf(variable: Variable): Inspected {
    const known = this.found.get(variable.name);
    if (known) return known;
    const made = this.inspected(variable, this.state);
    this.found.set(variable.name, made);
    return made;
  }

  /** A variable as a state leaves it, be it the one in force or another. */
  private inspected(variable: Variable, state: State): Inspected {
    const { name } = variable;
    const { extract, there, headers } = this.basis;
    const as = this.as?.wholly(name);
    const written = as?.written ?? this.writing.under(variable, state);
    let counted = this.counted.get(name);
    if (counted?.written !== written || state !== this.state) {
      counted = { written, levels: levelsUnder(variable, state, this.cells.tally(variable), written) };
      if (state === this.state) this.counted.set(name, counted);
    }
    // Who was not asked is who was not asked what it is made of.
    const universe = state.universes.get(variable.trial?.of ?? name);
    const made = inspectVariable(variable, state, {
      counted: counted.levels,
      written,
      extract,
      there,
      headers,
      notAsked: (universe && notAskedIn(universe, (other) => this.cells.byName.get(other)?.column)) ?? null,
      battery: this.cells.battery(name),
      sequence: this.cells.sequence(variable),
      marking: this.cells.marking(name),
    });
    if (!as) return made;
    const { kind, role, presumed, confirmed, confidence, because } = as;
    return { ...made, kind, role, presumed, confirmed, confidence, because };
  }
}
