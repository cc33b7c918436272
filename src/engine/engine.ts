import { linkCodebooks } from '../core/codebook/link';
import type { Extract, Marks } from '../core/extract/extract';
import { InputError } from '../core/extract/problem';
import type { RowName } from '../core/extract/row-names';
import type { Kind } from '../core/extract/words';
import type { Flag } from '../core/flags/rule';
import type { StandingRule } from '../core/flags/standing-rules';
import { chartFile } from '../core/handoff/chart';
import { inventoryCsv } from '../core/handoff/inventory';
import { reportHtml } from '../core/handoff/report';
import { evidenceOf, type Evidence } from '../core/inspect/evidence';
import { Inspector } from '../core/inspect/inspect';
import { documented } from '../core/inspect/inspected';
import { onlyOf } from '../core/inspect/sets-told';
import { profileOf, type Profile } from '../core/inspect/profile';
import {
  codesOf,
  effectsOf,
  holdingOf,
  likeOf,
  peekOf,
  understoodOf,
  type CodeHeld,
  type KindEffect,
  type Like,
  type Peeked,
  type UnderstoodLine,
} from '../core/inspect/questions';
import { recordOf, type RecordCard } from '../core/inspect/record';
import type { InspectedVariable } from '../core/inspect/schema';
import { batteryOf, groupedBy, type Battery, type Grouped } from '../core/inspect/together';
import { withFiles, withoutFile, withWaves } from '../core/intake/rejoin';
import type { Entry } from '../core/log/entries';
import { foldLog } from '../core/log/fold';
import type { Reading } from '../core/read/look';
import { belongsTo, type Belongs } from '../core/sets/belongs';
import { announce, keepColumns, openKept } from '../storage/extracts';
import { refusedBy, type Refused } from '../storage/refusal';
import { openedOf, prepared, standingOf, withNamedRows } from './opening';
import type { Found, HandedFile, Laid, Opened, Plan, Tell } from './protocol';
import { Reader } from './reading';
import { Turn } from './turn';

/** An open extract with the log that is laid over it. */
interface Desk {
  /** Tells this opening from any other. */
  serial: number;
  inspector: Inspector;
  log: Entry[];
}

/**
 * The core behind messages: holds the columns and the log that is laid over them, answers what the interface asks. One
 * extract is open at a time. What cannot be answered is thrown, and becomes a problem in words where messages go out.
 */
export class Engine {
  private desk: Desk | null = null;
  private serial = 0;
  private standing: StandingRule[] = [];
  private readonly reader = new Reader();
  private readonly turn = new Turn();
  /** Extracts that are being kept, by the id under which they will be. */
  private readonly arriving = new Map<string, Extract>();

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
  ): Promise<{ found: Found[]; notices: string[] }> {
    return this.reader.look(handed, chosen, marks);
  }

  /**
   * Reads files as one extract and opens it; what was open stays open where that fails or is stopped.
   * @param instead whether it is the open extract in another shape: its log and its name stay
   */
  read(plan: Plan, instead: boolean, tell: Tell): Promise<Opened> {
    const name = instead ? (this.desk?.inspector.extract.name ?? null) : null;
    return this.turn.take(async (breathe) => {
      const { codebooks } = await this.reader.contents(plan);
      const received = await this.reader.receive(plan, tell, breathe);
      const extract = linkCodebooks(name === null ? received : { ...received, name }, codebooks);
      return instead
        ? this.reshape(extract, tell, breathe)
        : this.openExtract(extract, () => [], tell, breathe);
    });
  }

  /** Reads more files, or codebooks, into the open extract. */
  add(plan: Plan, tell: Tell): Promise<Opened> {
    return this.turn.take(async (breathe) => {
      const { extract } = this.opened;
      const { codebooks, hasData } = await this.reader.contents(plan);
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
      const { extract } = this.opened;
      return this.reshape(linkCodebooks(withoutFile(extract, index), extract.codebooks), tell, breathe);
    });
  }

  /** Calls the files otherwise among the waves. */
  callWaves(waves: string[], tell: Tell): Promise<Opened> {
    return this.turn.take((breathe) => {
      const { extract } = this.opened;
      return this.reshape(linkCodebooks(withWaves(extract, waves), extract.codebooks), tell, breathe);
    });
  }

  /** Opens an extract that the browser keeps, with its log laid over it. */
  open(id: string, log: Entry[], tell: Tell): Promise<Opened> {
    return this.turn.take(async (breathe) => {
      const extract = await openKept(id).catch((cause: unknown) => {
        const says = `cannot be opened: ${(cause as Error).message}; remove it at the intake and read its files again`;
        throw new InputError({ file: 'the kept extract', says });
      });
      return this.openExtract(extract, () => log, tell, breathe);
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
    if (desk?.serial !== serial) return { why: 'other', message: 'another extract was opened first' };
    // Whatever is opened meanwhile, these are the columns to be kept.
    const { extract } = desk.inspector;
    this.arriving.set(id, extract);
    try {
      await announce(id, extract, instead);
      return null;
    } catch (cause) {
      return refusedBy(cause);
    }
  }

  /** Keeps the columns of an extract that was announced. */
  async keep(id: string): Promise<Refused | null> {
    const extract = this.arriving.get(id);
    if (!extract) return { why: 'other', message: 'it was not announced' };
    try {
      await keepColumns(id, extract);
      return null;
    } catch (cause) {
      return refusedBy(cause);
    } finally {
      this.arriving.delete(id);
    }
  }

  /** Gives the open extract another name. */
  callIt(name: string): void {
    this.opened.extract.name = name;
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
    const names = inspector.lay(foldLog(desk.log));
    return {
      ...standingOf(inspector, desk.log),
      summaries: inspector.summaries(inspector.variables.filter(({ name }) => names.has(name))),
    };
  }

  /** Rows as a decision names them. @param rows zero-based, of the whole extract */
  nameRows(rows: number[]): RowName[] {
    return this.opened.nameRows(rows);
  }

  /** Entries that set a row aside, each with the other rows that it names. */
  asideBy(row: number): { entry: Entry; others: RowName[] }[] {
    return this.opened.asideBy(row, this.desk?.log ?? []);
  }

  understood(text: string, names: string[]): UnderstoodLine[] {
    return understoodOf(this.opened, text, names);
  }

  effects(names: string[], kind: Kind): KindEffect[] {
    return effectsOf(this.opened, names, kind);
  }

  like(name: string): Like[] {
    return likeOf(this.opened, name);
  }

  peek(name: string): Peeked[] {
    return peekOf(this.opened, name);
  }

  codes(names: string[]): CodeHeld[] {
    return codesOf(this.opened, names);
  }

  holding(texts: string[]): [text: string, variables: string[]][] {
    return [...holdingOf(this.opened, texts)];
  }

  /** Variables that may belong to a set too. @param members names of those that are in it */
  belongs(members: string[]): Belongs[] {
    return belongsTo(this.opened.belonging, members);
  }

  /** All cells of one row, with their labels. @param row zero-based, of the whole extract */
  record(row: number): Promise<RecordCard> {
    return recordOf(this.opened, row);
  }

  /** What a flag rests on. */
  evidence(flag: Flag): Promise<Evidence | null> {
    return evidenceOf(flag, this.opened);
  }

  /** Variables of one list of codes as one table. */
  battery(names: string[]): Battery | null {
    return batteryOf(names.flatMap((name) => this.opened.named(name) ?? []));
  }

  /** The summary of a variable within the levels of another, or within the files. */
  async grouped(name: string, by: string | null): Promise<Grouped | null> {
    const { opened } = this;
    const one = opened.named(name);
    const other = by === null ? null : opened.named(by);
    if (!one || other === undefined) return null;
    return groupedBy(one, other, opened.grounds);
  }

  /** A chart as an SVG file. */
  async chart(name: string, binWidth: number | null, all = false): Promise<string | null> {
    const profile = await this.profile(name, binWidth, all);
    const { label } = profile?.variable ?? {};
    return profile && chartFile(profile.picture, `${name}${label ? `: ${label}` : ''}`);
  }

  /** Several variables as the inspection documents them. */
  documented(names: string[]): InspectedVariable[] {
    return names.flatMap((name) => {
      const found = this.opened.named(name);
      return found ? [documented(found, this.opened.said(name))] : [];
    });
  }

  profile(name: string, binWidth: number | null = null, all = false): Promise<Profile | null> {
    return profileOf(this.opened, name, { binWidth, all });
  }

  /** @param harmless whether cells that a spreadsheet would run are kept from it */
  inventory(names: string[], harmless = false): string {
    return inventoryCsv(this.opened, names, { harmless });
  }

  /** The inspection document, with no other variables and flags than of these. */
  inspection(names: string[]): string {
    return `${JSON.stringify(onlyOf(this.opened.document(), names), null, 1)}\n`;
  }

  report(names: string[], madeAt: string): Promise<string> {
    return reportHtml(this.opened, this.desk?.log ?? [], names, new Date(madeAt));
  }

  private get opened(): Inspector {
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
    await prepared(inspector, tell, breathe);
    const log = withNamedRows(inspector, logNow());
    inspector.lay(foldLog(log));
    this.desk = { serial: ++this.serial, inspector, log };
    return openedOf(inspector, log, this.serial);
  }
}
