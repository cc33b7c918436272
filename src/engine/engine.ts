import { linkCodebooks } from '../core/codebook/link';
import type { Extract, Marks } from '../core/extract/extract';
import { InputError } from '../core/extract/problem';
import type { Flag } from '../core/flags/rule';
import type { StandingRule } from '../core/flags/standing-rules';
import { asWaves, besideOf, driftsOf, type Beside } from '../core/inspect/beside';
import { Inspector } from '../core/inspect/inspect';
import { replayOf, type Replay } from '../core/inspect/replay';
import { withFiles, withoutFile, withWaves } from '../core/intake/rejoin';
import type { TableWanted, Tables } from '../core/intake/sent';
import type { Steps } from '../core/intake/steps';
import type { Entry } from '../core/log/entries';
import { foldLog } from '../core/log/fold';
import { returned } from '../core/log/returned';
import type { Reading } from '../core/read/look';
import type { Control } from '../core/read/source';
import type { ProposedSet } from '../core/sets/propose';
import type { Summary } from '../core/inspect/summary';
import { keepFound } from '../storage/found';
import type { Refused } from '../storage/refusal';
import { Arriving } from './arriving';
import { keptExtract, known, mustHoldAll, openedOf, prepared, standingOf, withNamedRows } from './opening';
import type { Found, HandedFile, Laid, Opened, Plan, Tell } from './protocol';
import { reporting } from './reading';
import { ThroughAll } from './through-all';
import { Raising, summariesOf } from './recounting';
import type { TableAt } from './far-rows';
import { databaseTables, knownDatabase, tableFrom } from './table-source';
import type { HandoffForm } from '../core/handoff/handoff-forms';
import type { LeavingAsk } from '../core/handoff/leaving';
import { handOff, type HandedOff } from './handing-off';

/** Variables whose counts are told at once; of more, those on the screen are asked for first. */
const MOST_AT_ONCE = 60;

/** Of more variables the ledger is shown before flags are raised. */
const MOST_FLAGGED_AT_ONCE = 400;

/** An open extract with the log that is laid over it. */
interface Desk {
  /** Tells this opening from any other. */
  serial: number;
  inspector: Inspector;
  log: Entry[];
  /** Sets that might be made, where they were asked for. */
  proposals: ProposedSet[] | null;
  /** Where the table is asked for that it is. */
  at: TableAt | null;
}

/**
 * The core behind messages: holds the columns and the log that is laid over them, answers what the interface asks. One
 * extract is open at a time. What cannot be answered is thrown, and becomes a problem in words where messages go out.
 */
export class Engine extends ThroughAll {
  private desk: Desk | null = null;
  private serial = 0;
  private standing: StandingRule[] = [];
  private readonly raising = new Raising();
  /** Resolves when what is being opened is there, or is not. */
  ready: Promise<void> = Promise.resolve();
  private readonly arriving = new Arriving();

  /** Proposes by other standing rules from now on. @returns all flags of the open extract, or none */
  follow(rules: StandingRule[]): Flag[] {
    this.standing = rules;
    if (!this.desk) return [];
    this.desk.inspector.standing = rules;
    return this.desk.inspector.flags;
  }

  /** Finds out what the files are; nothing is decided yet. */
  look(
    handed: HandedFile[],
    chosen: Record<string, Partial<Reading>>,
    marks: Marks = {},
    steps: Steps | null = null,
  ): Promise<{ found: Found[]; notices: string[] }> {
    return this.reader.look(handed, chosen, marks, steps);
  }

  /**
   * Reads files as one extract and opens it; what was open stays open where that fails or is stopped.
   * @param instead whether it is the open extract in another shape: its log and its name stay
   */
  read(plan: Plan, instead: boolean, tell: Tell): Promise<Opened> {
    const name = instead ? (this.desk?.inspector.received.name ?? null) : null;
    return this.turn.take(async (breathe) => {
      const { codebooks, log } = await this.reader.contents(plan);
      const received = await this.reader.receive(plan, tell, breathe);
      if (log?.variables && !instead) {
        const back = returned(received, codebooks, log.log, log.variables);
        const extract = linkCodebooks(back.extract, back.codebooks);
        return {
          ...(await this.openExtract(extract, () => back.entries, tell, breathe)),
          stands: back.stands,
        };
      }
      const extract = linkCodebooks(name === null ? received : { ...received, name }, codebooks);
      const opened = await (instead
        ? this.reshape(extract, tell, breathe)
        : this.openExtract(extract, () => [], tell, breathe));
      return { ...opened, earlier: log };
    });
  }

  /** Where the database is that the program that serves this page was told of; `null` where it was of none. */
  database(): Promise<{ at: string | null }> {
    return knownDatabase();
  }

  /** The tables of a database. @param address `null` for the one that is known */
  tables(address: string | null): Promise<Tables> {
    return databaseTables(address);
  }

  /** Opens a table, under the log that is kept of it; its rows stay where they are. @param session as `tables` gave it */
  readTable(session: string, wanted: TableWanted, log: Entry[], tell: Tell): Promise<Opened> {
    return this.turn.take(async (breathe) => {
      const extract = await tableFrom(session, wanted, tell, breathe);
      const opened = await this.openExtract(extract, () => log, tell, breathe);
      if (this.desk) this.desk.at = { session, wanted };
      return opened;
    });
  }

  /** Reads more files, or codebooks, into the open extract. */
  add(plan: Plan, tell: Tell): Promise<Opened> {
    return this.turn.take(async (breathe) => {
      const { received: extract } = this.opened;
      const { codebooks, hasData } = await this.reader.contents(plan);
      if (hasData && extract.database)
        throw new InputError({
          file: extract.name,
          says: 'it is a table of a database, which no file can join; bring a codebook, or open the file by itself',
        });
      if (hasData) mustHoldAll(extract, 'more files cannot join it; bring all of them together');
      const known = extract.files.flatMap(({ names }) => names);
      const joining: Plan = { ...plan, part: extract.part ?? null, waveFrom: 'none' };
      const more = hasData
        ? withFiles(extract, await this.reader.receive(joining, tell, breathe, known))
        : extract;
      return this.reshape(linkCodebooks(more, [...extract.codebooks, ...codebooks]), tell, breathe);
    });
  }

  /** Takes one file's rows out of the open extract. @param index its zero-based place among the files */
  leaveOut(index: number, tell: Tell): Promise<Opened> {
    return this.turn.take((breathe) => {
      const { received: extract } = this.opened;
      mustHoldAll(extract, 'no file can be taken out; bring the others together');
      return this.reshape(linkCodebooks(withoutFile(extract, index), extract.codebooks), tell, breathe);
    });
  }

  /** Calls the files otherwise among the waves. */
  callWaves(waves: string[], tell: Tell): Promise<Opened> {
    return this.turn.take((breathe) => {
      const { received: extract } = this.opened;
      return this.reshape(linkCodebooks(withWaves(extract, waves), extract.codebooks), tell, breathe);
    });
  }

  /**
   * Writes what goes out as one zip; the open extract stays as it is.
   * @param file where it goes on disk; into memory where it is `null`
   */
  handoff(
    ask: LeavingAsk,
    forms: HandoffForm[],
    madeAt: string,
    file: FileSystemFileHandle | null,
    tell: Tell,
  ): Promise<HandedOff> {
    return this.turn.take((breathe) =>
      handOff(this.opened, this.log, { ask, forms, madeAt: new Date(madeAt) }, file, tell, breathe),
    );
  }

  /** Opens an extract that the browser keeps, with its log laid over it. What is asked of it meanwhile waits. */
  open(id: string, log: Entry[], tell: Tell): Promise<Opened> {
    const opening = this.turn.take(async (breathe) => {
      return this.openExtract(await keptExtract(id), () => log, tell, breathe);
    });
    const done = (): void => undefined;
    this.ready = opening.then(done, done);
    return opening;
  }

  /**
   * Keeps what is shown of the open extract, to be there at once when it is opened again.
   * @param under what it was found under, as a text @returns whether it is kept: not where something else is laid by now
   */
  async keepFound(id: string, serial: number, version: number, under: string): Promise<boolean> {
    const inspector = this.under(serial, version);
    // What was counted by going through the files is not found again without them, nor a table without its database.
    if (!inspector || !this.desk || inspector.isCountedAll || inspector.received.database) return false;
    try {
      const { log, proposals } = this.desk;
      await keepFound(id, under, openedOf(inspector, log, serial, proposals));
      return true;
    } catch {
      // Where there is no room for it, the extract is got to know again.
      return false;
    }
  }

  /**
   * Holds the open extract beside an earlier one that the browser keeps; both stay as they are.
   * @param log of the earlier one
   */
  beside(id: string, log: Entry[], tell: Tell): Promise<Beside> {
    return this.turn.take(async (breathe) => {
      const now = this.opened;
      mustHoldAll(now.extract, 'it cannot be held beside another');
      const earlier = new Inspector(await keptExtract(id));
      earlier.lay(foldLog(log));
      await known(earlier, `Getting to know ${earlier.extract.name}`, tell, breathe);
      const joined = asWaves(earlier, now);
      await known(joined, 'Holding both side by side', tell, breathe);
      return besideOf(earlier, now, driftsOf(joined));
    });
  }

  /**
   * Goes through the files of the open extract again, of whose rows only a sample is held, for what the sieve in force keeps;
   * tables are counted in all rows from then on, as long as the log stays.
   * @param plan what it was read from; of a table of a database it need not be known @returns `null` where something else is laid by now, or cells were changed by hand
   */
  countAll(serial: number, version: number, plan: Plan | null, tell: Tell): Promise<Opened | null> {
    return this.turn.take(async (breathe) => {
      const inspector = this.under(serial, version);
      if (!inspector?.received.pass) return null;
      const progress = reporting(inspector.received.files, 'Counting all rows of', tell);
      const control: Control = { progress, breathe };
      const settled = await inspector.countAll(await this.again(inspector, plan, control));
      // Whoever counts a table later lets others in, and is stopped by nobody.
      control.progress = undefined;
      control.breathe = () => new Promise((resolve) => setTimeout(resolve));
      if (!settled || this.under(serial, version) !== inspector) return null;
      await prepared(inspector, tell, breathe);
      return openedOf(inspector, this.desk?.log ?? [], serial, this.desk?.proposals);
    });
  }

  /** Stops whatever long work is under way. */
  stop(): void {
    this.turn.stop();
  }

  /** Where the person's wish to stop is written by the page, so that it is heard in the midst of a loop. */
  hear(flag: SharedArrayBuffer | null): void {
    this.turn.hear(flag);
  }

  /** Answers, to show that it is there. */
  ping(): true {
    return true;
  }

  /**
   * Makes a place for the open extract in the browser's storage, so that its log can be kept while its columns are not yet.
   * @param serial the opening that is meant @param instead the kept extract whose place it takes
   */
  async announce(id: string, serial: number, instead: string | null): Promise<Refused | null> {
    const { desk } = this;
    return desk?.serial === serial
      ? this.arriving.announce(id, desk.inspector.received, instead)
      : { why: 'other', message: 'another extract was opened first' };
  }

  /** Keeps the columns of an extract that was announced. */
  keep(id: string): Promise<Refused | null> {
    return this.arriving.keep(id);
  }

  /** Sets that might be made of the open extract's variables. @returns `null` where another is open by now */
  proposals(serial: number): ProposedSet[] | null {
    const { desk } = this;
    return desk?.serial === serial ? (desk.proposals ??= desk.inspector.proposals) : null;
  }

  /** Gives the open extract another name. */
  callIt(name: string): void {
    this.opened.callIt(name);
  }

  /**
   * Lays entries behind the first `base` of the log, in place of whatever stood there.
   * @returns what that changed; `null` where they are meant for another opening or for a log that is longer
   */
  lay(serial: number, base: number, entries: Entry[]): Laid | null {
    const { desk } = this;
    if (!desk || desk.serial !== serial || base > desk.log.length) return null;
    desk.log = [...desk.log.slice(0, base), ...entries];
    const { inspector } = desk;
    const before = inspector.extract.variables.map(({ name }) => name);
    const names = inspector.lay(foldLog(desk.log));
    const after = inspector.extract.variables.map(({ name }) => name);
    // Where other rows count everything is counted anew: what is on the screen is asked for first, the rest after it.
    const later = names.size > MOST_AT_ONCE;
    return {
      ...standingOf(inspector, desk.log, !later),
      names: after.length === before.length && after.every((name, i) => name === before[i]) ? null : after,
      summaries: inspector.summaries(
        (later ? after.filter((name) => !before.includes(name)) : [...names]).flatMap(
          (name) => inspector.named(name) ?? [],
        ),
      ),
      stale: later
        ? inspector.extract.variables.map(({ name }) => name).filter((name) => names.has(name))
        : [],
    };
  }

  /**
   * What an earlier log would come to over the open extract. It is laid to be looked at, and taken off again.
   * @param entries those in force
   */
  replay(entries: Entry[]): Replay {
    const inspector = this.opened;
    inspector.lay(foldLog([...this.log, ...entries]));
    try {
      return replayOf(entries, inspector);
    } finally {
      inspector.lay(foldLog(this.log));
    }
  }

  /**
   * Summaries of variables as they stand under the log that is laid, as many as some milliseconds allow.
   * @param version entries that are laid @returns `null` where others are by now
   */
  recount(serial: number, version: number, names: string[]): Summary[] | null {
    const inspector = this.under(serial, version);
    return inspector && summariesOf(inspector, names);
  }

  /** Raises flags for some milliseconds. @returns all of them once they are raised, `null` before that */
  flags(serial: number, version: number): { flags: Flag[] | null } | null {
    const inspector = this.under(serial, version);
    return inspector && { flags: this.raising.go(inspector, version) };
  }

  protected get at(): TableAt | null {
    return this.desk?.at ?? null;
  }

  protected under(serial: number, version: number): Inspector | null {
    const { desk } = this;
    return desk?.serial === serial && desk.log.length === version ? desk.inspector : null;
  }

  protected get log(): readonly Entry[] {
    return this.desk?.log ?? [];
  }

  protected get opened(): Inspector {
    if (!this.desk)
      throw new InputError({ file: 'the engine', says: 'no extract is open; open one at the intake' });
    return this.desk.inspector;
  }

  /** The open extract in another shape, under its log, which may grow while the shape is prepared. */
  private reshape(extract: Extract, tell: Tell, breathe: () => Promise<void>): Promise<Opened> {
    const { desk } = this;
    // Rows that are known by their place have it in the extract as it was.
    return this.openExtract(
      extract,
      () => (desk ? withNamedRows(desk.inspector, desk.log) : []),
      tell,
      breathe,
    );
  }

  private async openExtract(
    extract: Extract,
    logNow: () => Entry[],
    tell: Tell,
    breathe: () => Promise<void>,
  ): Promise<Opened> {
    const inspector = new Inspector(extract, this.standing);
    inspector.lay(foldLog(logNow()));
    const flagsNow = extract.variables.length <= MOST_FLAGGED_AT_ONCE;
    await prepared(inspector, tell, breathe, flagsNow);
    const log = withNamedRows(inspector, logNow());
    inspector.lay(foldLog(log));
    // In another shape it is the same table still.
    const at = extract.database ? (this.desk?.at ?? null) : null;
    this.desk = { serial: ++this.serial, inspector, log, proposals: null, at };
    return openedOf(inspector, log, this.serial, null, flagsNow);
  }
}
