import { sameBits, sizeOf, type Bits } from '../extract/bits';
import type { Extract, Notice, Variable } from '../extract/extract';
import { universeGate } from '../flags/between/universe-gate';
import type { Flag, Whole } from '../flags/rule';
import { givingWay, standingFlags, type StandingRule } from '../flags/standing-rules';
import type { State } from '../log/fold';
import { recordsOf } from '../rows/in-memory';
import type { AllRows, CellCounting, KeptRows } from '../rows/all-rows';
import type { Records } from '../rows/records';
import { belongingOf, proposeSets, type Belonging, type ProposedSet } from '../sets/propose';
import type { ConditionAccount } from '../sieve/sift';
import { aroundOf } from './around';
import { askedOf, type Asked } from './asked';
import { documentOf } from './document';
import { keptOf, type Inspected } from './inspected';
import { Laid } from './laid';
import { laidNotices, receivedNotices } from './notices';
import type { Inspection, RowCounts } from './schema';
import { countingOf, rowsAsked, withoutRows } from './settled';
import { accountOf, isSameSieve, sievingOf, type Sieving } from './sieving';
import { Study } from './study';
import { summaryOf, type Summary } from './summary';
import { weightedOf, type Weighted, type Weighting } from './weighted';

export { UNDECIDED } from './laid';

/** What was counted by going through all rows again, and under which sieve. */
interface Again {
  sieving: Sieving | null;
  counting: CellCounting | null;
  told: KeptRows | null;
  kept: Inspector | null;
}
const NOT_AGAIN: Again = { sieving: null, counting: null, told: null, kept: null };

/**
 * An extract under inspection: what its cells hold is worked out once, how they count anew for the variables that a ruling
 * touches. Everything is a function of extract and state. Its parts say what each is derived from: `Basis` what the person's word
 * makes of rows and cells, `Cells` what these hold, `Writing` how; `Sieving` which rows are kept, `Study` what rules find in those. What a variable is is told by all rows there; counts, figures and flags are of the rows kept.
 */
export class Inspector extends Laid {
  private sieving: Sieving | null = null;
  /** What rules look at: all rows that are there, and those that a sieve keeps. */
  private plain: Study;
  private sieved: { within: Bits; study: Study } | null = null;
  /** The same over the rows kept, where a sieve is in force. */
  private readonly kept = new Map<string, Inspected>();
  private wholes: Inspected[] | null = null;
  private keeps: Inspected[] | null = null;
  private holder: { of: Extract; records: Records } | null = null;
  private noticed: { of: Extract; notices: Notice[] } | null = null;
  private owned: { of: readonly Inspected[]; own: readonly Inspected[] } | null = null;
  private belongs: { of: readonly Inspected[]; found: Belonging } | null = null;

  private again: Again = NOT_AGAIN;

  /** @param standing what a person knows of the archive's codes: proposals among the flags */
  constructor(
    received: Extract,
    public standing: readonly StandingRule[] = [],
    /** The same extract with all rows, of which a sieve keeps these. */
    sieved: Inspector | null = null,
  ) {
    super(received, sieved);
    this.plain = new Study(received, null, sieved !== null);
  }

  /** Whatever holds its rows. */
  get records(): Records {
    const { extract } = this;
    if (this.holder?.of !== extract) this.holder = { of: extract, records: recordsOf(extract) };
    const { counting } = this.again;
    return counting ? { ...this.holder.records, ...counting } : this.holder.records;
  }

  /**
   * Where only a sample of the rows is held, has all of them gone through again for what a sieve keeps, and for whatever is
   * counted in cells from now on. Corrected cells and added rows are known of the sample alone: with them nothing is settled.
   * @param figures whether what is kept is wanted itself, or only how much that is @returns whether it is settled
   */
  async countAll(all: AllRows, figures = true): Promise<boolean> {
    const asked = rowsAsked(this);
    if (!asked) return false;
    const { sieving } = this;
    this.again = { sieving, counting: countingOf(all.counting(asked), this), told: null, kept: null };
    if (!sieving) return true;
    const told = await all.kept(asked, figures);
    const kept = told.extract && new Inspector(told.extract, this.standing, this);
    kept?.lay(withoutRows(this.state));
    this.again = { ...this.again, told, kept };
    this.keeps = null;
    return true;
  }

  /** Whether figures under the sieve in force, and in the cells of tables, are of all rows, of which only a sample is held. */
  get isCountedAll(): boolean {
    return this.again.counting !== null;
  }

  /** The rows that the sieve in force keeps of all, where they were gone through. */
  private get keptOfAll(): Inspector | null {
    return this.again.sieving === this.sieving ? this.again.kept : null;
  }

  /** How many rows that is, and what each condition does to all of them. */
  private get told(): KeptRows | null {
    return this.again.sieving === this.sieving ? this.again.told : null;
  }

  /** Lays another state over the extract. @returns names of the variables that changed by it */
  lay(state: State): Set<string> {
    const before = { basis: this.basis, sieving: this.sieving };
    const names = this.layOver(state);
    for (const name of names) this.kept.delete(name);
    if (names.size) this.wholes = null;
    this.sieve(names);
    const { extract, there } = this.basis;
    if (before.basis.extract !== extract || before.basis.there !== there)
      this.plain = new Study(extract, there, false, this.plain);
    const { sieving } = this;
    if (before.basis.there !== there || before.sieving?.within !== sieving?.within) {
      this.kept.clear();
      // Rows count in every variable.
      for (const name of this.cells.byName.keys()) names.add(name);
    }
    if (!sieving) this.sieved = null;
    else if (this.sieved?.within !== sieving.within || before.basis.extract !== extract)
      this.sieved = { within: sieving.within, study: new Study(extract, sieving.within, true) };
    if (names.size) this.keeps = null;
    // What was gone through tells the same, as long as the same rows count.
    const isSame =
      before.basis.extract === extract && before.basis.there === there && before.sieving === sieving;
    if (isSame) this.again.kept?.lay(withoutRows(this.state));
    else this.again = NOT_AGAIN;
    return names;
  }

  /** Holds the sieve in force against the rows, where that may have changed. @param names of variables that did */
  private sieve(names: ReadonlySet<string>): void {
    const { sieves, sieve: id } = this.state;
    const sieve = id === null ? undefined : sieves.get(id);
    const before = this.sieving;
    if (!sieve) this.sieving = null;
    else if (
      !before ||
      !isSameSieve(before.sieve, sieve) ||
      before.there !== this.basis.there ||
      before.asks.some((name) => names.has(name))
    ) {
      const made = sievingOf(sieve, this.lookup, this.extract.rows, this.basis.there);
      this.sieving =
        made && before && sameBits(before.within, made.within) ? { ...made, within: before.within } : made;
    }
  }

  /** Tallies and infers variables one by one, so that the caller can report progress and stop. */
  *prepare(): Generator<number> {
    if (this.keptOfAll) return yield* this.keptOfAll.prepare();
    for (const [i, variable] of this.extract.variables.entries()) {
      this.variable(variable);
      yield i + 1;
    }
  }

  /** Raises flags step by step, so that the caller can report progress and stop. @returns how many of the variables are done */
  raise(): Generator<number> {
    if (this.keptOfAll) return this.keptOfAll.raise();
    return this.study.steps(this.own(this.held));
  }

  /** Over the rows kept. */
  get variables(): Inspected[] {
    return this.keptOfAll?.variables ?? this.held;
  }

  /** The same as the rows that are held tell, where all were gone through. */
  private get held(): Inspected[] {
    const all = (): Inspected[] => this.extract.variables.map((variable) => this.variable(variable));
    return this.sieving ? (this.keeps ??= all()) : (this.wholes ??= all());
  }

  /** Over the rows kept. @returns `undefined` where the extract has no variable of that name */
  named(name: string): Inspected | undefined {
    if (this.keptOfAll) return this.keptOfAll.named(name);
    const variable = this.cells.byName.get(name);
    return variable && this.variable(variable);
  }

  /** Flags in force: those that no ruling answered. */
  get flags(): Flag[] {
    // Rows of another sample than the one held can be shown to nobody.
    if (this.keptOfAll) return this.keptOfAll.flags.map(({ at: _, ...flag }) => flag);
    const found = this.study.flags(this.own(this.held));
    const standing = standingFlags(this.standing, this.whole.studied ?? this.variables);
    return [...givingWay(found, standing), ...standing].filter((flag) => !this.isAnswered(flag));
  }

  /** The rows that count: there, and kept by the sieve in force; `null` where all do. */
  get within(): Bits | null {
    return this.sieving ? this.sieving.within : this.basis.there;
  }

  /** The number of rows there, of those set aside, and of those kept. */
  get rowCounts(): RowCounts {
    const { extract, setAside, sieving, told } = this;
    if (told) return { all: told.all, aside: setAside.size, kept: told.kept };
    const all = (sieving ? extract.rows : (extract.pass?.rows ?? extract.rows)) - setAside.size;
    return { all, aside: setAside.size, kept: sieving ? sizeOf(sieving.within) : all };
  }

  /** The sieve in force, with what each condition does; `null` where none is. */
  get sifted(): Sieving | null {
    return this.sieving;
  }

  /** What each condition of the sieve in force does to the rows, in order. */
  get account(): ConditionAccount[] {
    const { sieving, told } = this;
    if (sieving && told) return accountOf(sieving.conditions, told.conditions, this.lookup);
    return sieving?.account ?? [];
  }

  /** What the ledger shows of variables. */
  summaries(of: readonly Inspected[] = this.variables): Summary[] {
    return of.map((inspected) => summaryOf(inspected, this.cells.inFiles(inspected.name)));
  }

  /** The weight in force, where one is and the extract has it. */
  get weighting(): Weighting | null {
    const variable = this.state.weight === null ? undefined : this.cells.byName.get(this.state.weight);
    return variable ? { variable, inspected: this.wholeOf(variable) } : null;
  }

  /** What a variable comes to by the weight in force; `null` without one, and for the weight itself. */
  weighted(name: string): Weighted | null {
    if (this.keptOfAll) return this.keptOfAll.weighted(name);
    const { weighting } = this;
    const variable = this.cells.byName.get(name);
    if (!weighting || !variable || weighting.variable === variable) return null;
    const inspected = this.variable(variable);
    return ['identifier', 'text', 'empty'].includes(inspected.kind)
      ? null
      : weightedOf(variable, inspected, weighting, this.within);
  }

  /** Who was asked, as the blanks tell or as a person accepted; `null` where nothing hangs on another variable. */
  asked(name: string): Asked | null {
    const { whole } = this;
    return askedOf(
      name,
      whole.sample ?? whole,
      this.state.universes.get(name),
      this.study.flags(this.own(this.held)),
    );
  }

  /** Without trial recodes: what they hold is told by what they are made of. */
  private own(all: readonly Inspected[]): readonly Inspected[] {
    if (this.owned?.of === all) return this.owned.own;
    const own = this.full === this.basis.extract ? all : all.filter(({ trial }) => trial === undefined);
    this.owned = { of: all, own };
    return own;
  }

  private get study(): Study {
    return this.sieved?.study ?? this.plain;
  }

  /** The rows kept, as rules see them. */
  get whole(): Whole {
    return this.study.whole(this.own(this.held));
  }

  /** Everything noticed of the files together, of the codebooks, of variables that later files write otherwise, and of rows. */
  get notices(): Notice[] {
    const { received, misfits, basis, sieving } = this;
    if (this.noticed?.of !== received)
      this.noticed = { of: received, notices: receivedNotices(received, (one) => this.writing.hints(one)) };
    return [
      ...this.noticed.notices,
      ...laidNotices(misfits, [...basis.misfits, ...this.trials.misfits, ...(sieving?.misfits ?? [])]),
    ];
  }

  /** What variables tell of where they belong. */
  get belonging(): Belonging {
    // Where variables belong is told by all rows: a sieve makes no other sets.
    this.wholes ??= this.extract.variables.map((variable) => this.wholeOf(variable));
    const all = this.own(this.wholes);
    if (this.belongs?.of !== all) {
      const gates = universeGate.look(this.plain.whole(all));
      const around = aroundOf(this.extract, gates, this.state.universes);
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
    const { belonging } = this;
    return proposeSets(this.own(this.wholes ?? this.variables), this.extract.codebooks, belonging);
  }

  /** The inspection document, as the state in force leaves it. */
  document(): Inspection {
    return documentOf(this);
  }

  private isAnswered(flag: Flag): boolean {
    const { universes, kept } = this.state;
    // A universe that was accepted, or said otherwise, is no question any more.
    if (flag.rule === 'universe-gate' && universes.has(flag.variables[0])) return true;
    // Rows that were set aside are no question any more.
    if (flag.at?.length && flag.at.every((row) => this.setAside.has(row))) return true;
    const codes = kept.get(flag.variables[0] ?? '')?.get(flag.rule);
    return codes !== undefined && flag.codes.every((code) => codes.has(code));
  }

  /** Over the rows kept. */
  private variable(variable: Variable): Inspected {
    const { sieving } = this;
    const whole = this.wholeOf(variable);
    if (sieving === null) return whole;
    let made = this.kept.get(variable.name);
    if (!made)
      this.kept.set(
        variable.name,
        (made = keptOf(whole, sieving.within, this.extract.rows, this.extract.pass !== undefined)),
      );
    return made;
  }
}
