import type { Extract, Notice, Variable } from '../extract/extract';
import { locateRows, nameRows, rowText, type Located, type RowName } from '../extract/row-names';
import type { Kind } from '../extract/words';
import { notAskedIn, type Universe } from '../flags/between/universe';
import type { Flag, Subject, Whole } from '../flags/rule';
import { summaryRows } from '../flags/rows/summary-row';
import { givingWay, standingFlags, type StandingRule } from '../flags/standing-rules';
import type { Levels } from '../infer/levels';
import { withoutCells } from '../infer/relevel';
import type { Written } from '../infer/storage';
import type { Entry } from '../log/entries';
import { foldLog, inForce, touched, type State } from '../log/fold';
import { isBlank } from '../read/looks';
import { has, type Bits } from '../extract/bits';
import { recordsOf } from '../rows/in-memory';
import type { Records } from '../rows/records';
import { belongingOf, proposeSets, type Belonging, type ProposedSet } from '../sets/propose';
import { aroundOf } from './around';
import { askedOf, type Asked } from './asked';
import { Cells } from './cells';
import { countedRows, type CountedRows } from './counted-rows';
import { cellsOf, documented, inspectVariable, levelsUnder, type Inspected, type Said } from './inspected';
import { Raised } from './raised';
import { retyped } from './retyped';
import { setsTold } from './sets-told';
import type { Inspection } from './schema';
import { summaryOf, type Summary } from './summary';
import type { Grounds } from './together';
import { weightedOf, type Weighted, type Weighting } from './weighted';
import { Writing } from './writing';

/** The state in which nothing was decided. */
export const UNDECIDED: State = foldLog([]);

/** The variables under a state of decisions, as they are and as rules see them; made anew when one of them changes. */
interface Variables {
  all: Inspected[];
  /** Without rows that are no observations. */
  studied: readonly Subject[];
}

/**
 * An extract under inspection: what its cells hold is worked out once, how they count anew for the variables that a ruling
 * touches. Everything is a function of extract and state. Its parts say what each is derived from: `Cells` from the extract
 * alone, `CountedRows` from the rows set aside, `Writing` from both, `Raised` from the variables.
 */
export class Inspector {
  /** Whatever holds the rows. */
  readonly records: Records;
  private readonly cells: Cells;
  private rows: CountedRows;
  private writing: Writing;
  private state: State = UNDECIDED;
  private readonly found = new Map<string, Inspected>();
  /** Their levels over all rows: what is set aside is taken off them, and nothing is read again. */
  private readonly counted = new Map<string, Levels>();
  private variablesNow: Variables | null = null;
  /** Rows that are no observations, looked for once for the rows that count, and the variables without them. */
  private strays: { of: CountedRows; rows: number[]; without: WeakMap<Inspected, Subject> } | null = null;
  private readonly raised = new Raised();
  /** Where the rows stand that decisions name. */
  private located: readonly Located[] = [];
  private noticed: Notice[] | null = null;
  private belongs: { of: readonly Inspected[]; found: Belonging } | null = null;

  /** @param standing what a person knows of the archive's codes: proposals among the flags */
  constructor(
    readonly extract: Extract,
    public standing: readonly StandingRule[] = [],
  ) {
    this.records = recordsOf(extract);
    this.cells = new Cells(extract);
    this.rows = countedRows(extract, new Set());
    this.writing = new Writing(this.cells, this.rows.headers.length > 0);
  }

  /** Lays another state over the extract. @returns names of the variables that changed by it */
  lay(state: State): Set<string> {
    const names = touched(this.state, state);
    for (const name of names) this.counted.delete(name);
    this.locate(state.aside);
    const aside = new Set(this.located.flatMap(({ row }) => (row === null ? [] : [row])));
    if (aside.size !== this.rows.aside.size || [...aside].some((row) => !this.rows.aside.has(row))) {
      // Rows count in every variable.
      for (const name of this.cells.byName.keys()) names.add(name);
      const hadHeaders = this.rows.headers.length > 0;
      this.rows = countedRows(this.extract, aside);
      if (this.rows.headers.length > 0 !== hadHeaders) {
        this.writing = new Writing(this.cells, this.rows.headers.length > 0);
        this.counted.clear();
      }
    }
    this.state = state;
    if (names.size) this.variablesNow = null;
    for (const name of names) this.found.delete(name);
    return names;
  }

  /** Tallies and infers variables one by one, so that the caller can report progress and stop. */
  *prepare(): Generator<number> {
    for (const [i, variable] of this.extract.variables.entries()) {
      this.variable(variable);
      yield i + 1;
    }
  }

  /** Raises flags step by step, so that the caller can report progress and stop. @returns how many of the variables are done */
  raise(): Generator<number> {
    return this.raised.steps(this.whole);
  }

  get variables(): Inspected[] {
    return this.now.all;
  }

  /** @returns `undefined` where the extract has no variable of that name */
  named(name: string): Inspected | undefined {
    const variable = this.cells.byName.get(name);
    return variable && this.variable(variable);
  }

  /** Flags in force: those that no ruling answered. */
  get flags(): Flag[] {
    const { whole } = this;
    const standing = standingFlags(this.standing, this.now.studied);
    return [...givingWay(this.raised.of(whole), standing), ...standing].filter(
      (flag) => !this.isAnswered(flag),
    );
  }

  /** Rows that a person set aside; zero-based, of the whole extract. */
  get setAside(): ReadonlySet<number> {
    return this.rows.aside;
  }

  /** The rows that count; `null` where all do. */
  get within(): Bits | null {
    return this.rows.within;
  }

  /** What tables ask of. */
  get grounds(): Grounds {
    const { records, within, weighting } = this;
    return { records, files: this.extract.files, within, weighting };
  }

  /** What was found of rows that are named and do not simply stand at their place. */
  get misfits(): Located[] {
    return this.located.filter(({ row, says }) => row === null || says !== null);
  }

  /** The variable that tells units apart, where one does. */
  get unitsBy(): string | null {
    const isUnit = ({ kind, role }: Inspected): boolean => kind === 'identifier' && role === 'identifier';
    return this.variables.find(isUnit)?.name ?? null;
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

  /** What the ledger shows of variables. */
  summaries(of: readonly Inspected[] = this.variables): Summary[] {
    return of.map((inspected) => summaryOf(inspected, this.cells.inFiles(inspected.name)));
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
    const variable = this.state.weight === null ? undefined : this.cells.byName.get(this.state.weight);
    return variable ? { variable, inspected: this.variable(variable) } : null;
  }

  /** What a variable comes to by the weight in force; `null` without one, and for the weight itself. */
  weighted(name: string): Weighted | null {
    const { weighting } = this;
    const variable = this.cells.byName.get(name);
    if (!weighting || !variable || weighting.variable === variable) return null;
    const inspected = this.variable(variable);
    return ['identifier', 'text', 'empty'].includes(inspected.kind)
      ? null
      : weightedOf(variable, inspected, weighting, this.rows.within);
  }

  /** Who was asked, as the blanks tell or as a person accepted; `null` where nothing hangs on another variable. */
  asked(name: string): Asked | null {
    const { whole } = this;
    return askedOf(name, whole, this.state.universes.get(name), this.raised.of(whole));
  }

  /** What a variable would be if a person said that it is of a kind; nothing is decided by asking. */
  asKind(name: string, kind: Kind): Inspected | undefined {
    const variable = this.cells.byName.get(name);
    const kinds = new Map([...this.state.kinds, [name, kind]]);
    return variable && this.under(variable, { ...this.state, kinds });
  }

  get whole(): Whole {
    const { all, studied } = this.now;
    return { extract: this.extract, subjects: all, studied, aside: this.rows.aside };
  }

  /** Everything noticed of the files together, of the codebooks, of variables that later files write otherwise, and of rows. */
  get notices(): Notice[] {
    this.noticed ??= [
      ...this.extract.notices,
      ...this.extract.linkNotices,
      ...retyped(this.extract, (variable) => this.writing.hints(variable)),
    ];
    return [...this.noticed, ...this.misfits.map(misfitNotice)];
  }

  /** What variables tell of where they belong. */
  get belonging(): Belonging {
    const { all } = this.now;
    if (this.belongs?.of !== all) {
      const around = aroundOf(this.extract, this.raised.of(this.whole), this.state.universes);
      this.belongs = { of: all, found: belongingOf(all, around) };
    }
    return this.belongs.found;
  }

  /** Thematic sets that a person made. */
  get sets(): State['sets'] {
    return this.state.sets;
  }

  /** Thematic sets that might be made, those of the codebook first. */
  get proposals(): ProposedSet[] {
    return proposeSets(this.variables, this.extract.codebooks, this.belonging);
  }

  /** The inspection document, as the state in force leaves it. */
  document(): Inspection {
    const { extract } = this;
    return {
      format: 'dig-first-inspection',
      version: 1,
      source: {
        name: extract.name,
        files: extract.files.map(fileTold),
        codebooks: extract.codebooks.map(({ name, form }) => ({ name, form })),
        notices: this.notices,
        ...(extract.part ? { part: extract.part } : {}),
      },
      rows: extract.rows,
      variables: this.variables.map((inspected) => documented(inspected, this.said(inspected.name))),
      flags: this.flags,
      sets: setsTold(this.proposals, this.state),
    };
  }

  private get now(): Variables {
    if (this.variablesNow) return this.variablesNow;
    const all = this.extract.variables.map((variable) => this.variable(variable));
    return (this.variablesNow = { all, studied: this.studiedOf(all) });
  }

  /** The variables as rules see them: rows that are no observations are none of theirs. */
  private studiedOf(all: Inspected[]): readonly Subject[] {
    const strays = this.straysIn(all);
    if (strays.rows.length === 0) return all;
    return this.extract.variables.map((variable, i) => {
      // What no ruling touched stays the same object, so that rules need not work it out again.
      let seen = strays.without.get(all[i]);
      if (!seen) {
        const levels = withoutCells(all[i].levels, cellsOf(variable, strays.rows));
        strays.without.set(all[i], (seen = { ...all[i], levels }));
      }
      return seen;
    });
  }

  private straysIn(all: Inspected[]): NonNullable<typeof this.strays> {
    if (this.strays?.of === this.rows) return this.strays;
    const sums = summaryRows({ extract: this.extract, subjects: all }).map(({ row }) => row);
    const rows = [...new Set([...this.rows.headers, ...sums])].filter((row) => !this.rows.aside.has(row));
    return (this.strays = { of: this.rows, rows, without: new WeakMap() });
  }

  private isAnswered(flag: Flag): boolean {
    const { universes, kept } = this.state;
    // A universe that was accepted, or said otherwise, is no question any more.
    if (flag.rule === 'universe-gate' && universes.has(flag.variables[0])) return true;
    // Rows that were set aside are no question any more.
    if (flag.at?.length && flag.at.every((row) => this.rows.aside.has(row))) return true;
    const codes = kept.get(flag.variables[0] ?? '')?.get(flag.rule);
    return codes !== undefined && flag.codes.every((code) => codes.has(code));
  }

  private variable(variable: Variable): Inspected {
    const known = this.found.get(variable.name);
    if (known) return known;
    const written = this.writing.under(variable, this.state);
    let counted = this.counted.get(variable.name);
    if (!counted) {
      counted = levelsUnder(variable, this.state, this.cells.tally(variable), written);
      this.counted.set(variable.name, counted);
    }
    const made = this.inspected(variable, this.state, written, counted);
    this.found.set(variable.name, made);
    return made;
  }

  /** A variable as another state would leave it. */
  private under(variable: Variable, state: State): Inspected {
    const written = this.writing.under(variable, state);
    return this.inspected(
      variable,
      state,
      written,
      levelsUnder(variable, state, this.cells.tally(variable), written),
    );
  }

  private inspected(variable: Variable, state: State, written: Written, counted: Levels): Inspected {
    return inspectVariable(variable, state, {
      counted,
      written,
      extract: this.extract,
      headers: this.rows.headers,
      aside: [...this.rows.aside],
      notAskedBlank: this.notAskedBlanks(variable, state.universes.get(variable.name)),
      battery: this.cells.battery(variable.name),
      sequence: this.cells.sequence(variable),
      marking: this.cells.marking(variable.name),
    });
  }

  /** Blank cells of a variable in rows where the variable that gates it holds a code at which it was not asked. */
  private notAskedBlanks({ column }: Variable, universe: Universe | undefined): number {
    const notAsked = universe && notAskedIn(universe, (name) => this.cells.byName.get(name)?.column);
    if (!notAsked) return 0;
    const { within } = this.rows;
    const isBlankAt = column.lift(isBlank);
    let blanks = 0;
    for (let row = 0; row < this.extract.rows; row++)
      if ((within === null || has(within, row)) && isBlankAt(row) && notAsked(row)) blanks++;
    return blanks;
  }

  /** Rows that decisions name are looked for once. */
  private locate(names: readonly RowName[]): void {
    const known = new Map(this.located.map((one) => [one.name, one]));
    const fresh = names.filter((name) => !known.has(name));
    for (const one of locateRows(this.extract, fresh)) known.set(one.name, one);
    this.located = names.flatMap((name) => known.get(name) ?? []);
  }
}

const misfitNotice = ({ name, row, says }: Located): Notice => ({
  says: `${rowText(name)} ${row === null ? 'was to be set aside, but' : 'is set aside:'} ${says}`,
});

/** A file as the inspection tells it. */
const fileTold = ({
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
}: Extract['files'][number]): Inspection['source']['files'][number] => ({
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
});
