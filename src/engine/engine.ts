import { linkCodebooks } from '../core/codebook/link';
import type {
  Codebook,
  CodebookForm,
  Extract,
  FileSource,
  Marks,
  Notice,
  Part,
  Variable,
} from '../core/extract/extract';
import { Stopped, InputError, type Problem } from '../core/extract/problem';
import type { Kind } from '../core/extract/words';
import type { Flag } from '../core/flags/rule';
import type { StandingRule } from '../core/flags/standing-rules';
import { chartFile } from '../core/handoff/chart';
import { inventoryCsv } from '../core/handoff/inventory';
import { reportHtml } from '../core/handoff/report';
import { documented, type Inspected } from '../core/inspect/inspected';
import { Inspector } from '../core/inspect/inspect';
import type { InspectedVariable } from '../core/inspect/schema';
import { profileOf, type Profile } from '../core/inspect/profile';
import { evidenceOf, type Evidence } from '../core/inspect/evidence';
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
import type { Summary } from '../core/inspect/summary';
import { batteryOf, groupedBy, type Battery, type Grouped } from '../core/inspect/together';
import { bring, problemOf, type Brought, type Handed } from '../core/intake/bring';
import type { CellGuess } from '../core/intake/cells';
import { readExtract } from '../core/intake/receive';
import { withFiles, withoutFile, withWaves } from '../core/intake/rejoin';
import { fileStarts, type WaveFrom } from '../core/intake/waves';
import type { Entry } from '../core/log/entries';
import { foldLog } from '../core/log/fold';
import { proposeSets, type ProposedSet } from '../core/sets/propose';
import type { Look, Reading } from '../core/read/look';
import type { ByteSource } from '../core/read/source';
import { keepExtract, openKept, refusal, type Kept } from '../store/kept';

/** A file handed over by the person. `key` tells it from others of its name. */
export interface HandedFile {
  key: string;
  file: File;
}

/** What a first look finds a file, or a member of an archive, to be. */
export type Found = { key: string; name: string; bytes: number; archive: string | null } & (
  | { what: 'data'; look: Look; layoutFrom: string | null; cells: CellGuess }
  | { what: 'codebook'; form: CodebookForm; title: string | null; variables: number }
  | { what: 'problem'; problem: Problem }
  | { what: 'passed'; says: string }
);

/** How far long work is. `whole` in the unit of `done`. */
export interface Progress {
  says: string;
  done: number;
  whole: number;
  rows: number;
}

/** A file of the open extract with the rows that one looks for first. */
export interface OpenedFile extends FileSource {
  /** Text of the first column that identifies rows, or of the first column, in the first and the last row. */
  first: string;
  last: string;
}

/** An extract as it stands open: what the interface shows without asking further. */
export interface Opened {
  name: string;
  rows: number;
  files: OpenedFile[];
  codebooks: { name: string; form: CodebookForm; title: string | null; variables: number }[];
  notices: Notice[];
  part: Part | null;
  wave: Extract['wave'] | null;
  /** The column whose cells stand for the rows in `files`. */
  tells: string | null;
  summaries: Summary[];
  flags: Flag[];
  proposals: ProposedSet[];
}

/** Everything that is to be read as one extract, with what a person chose. */
export interface Plan {
  handed: HandedFile[];
  chosen: Record<string, Partial<Reading>>;
  /** Keys of what is left out. */
  left: string[];
  /** What files are called among the waves, by key. */
  waves: Record<string, string>;
  waveFrom: WaveFrom;
  part: Part | null;
  marks: Marks;
}

export type Answer<T> = { ok: true; value: T } | { ok: false; problem: Problem | null };

/** The core behind messages: holds the columns, answers what the interface asks. One extract is open at a time. */
export class Engine {
  private inspector: Inspector | null = null;
  private stopped = false;

  private standing: StandingRule[] = [];

  /** Proposes by other standing rules from now on. @returns all flags of the open extract, or none */
  follow(rules: StandingRule[]): Flag[] {
    this.standing = rules;
    if (!this.inspector) return [];
    this.inspector.standing = rules;
    return this.inspector.flags;
  }

  /** What was found of files that wait to be read, so that a change to one does not look at all again. */
  private memo = new Map<string, unknown>();

  /** Finds out what the files are; nothing is decided yet. */
  async look(
    handed: HandedFile[],
    chosen: Record<string, Partial<Reading>>,
    marks: Marks = {},
  ): Promise<{ found: Found[]; notices: string[] }> {
    if (handed.length === 0) this.memo = new Map();
    const { brought, notices } = await this.bring(handed, chosen, marks);
    return { found: brought.map(foundOf), notices };
  }

  /**
   * Reads files as one extract and opens it. `problem: null` means that it was stopped; what was open stays open then.
   * @param log rulings laid over it at once, where it was known in part before
   * @param name what the extract is called, where a person said
   */
  read(
    plan: Plan,
    log: Entry[],
    name: string | null,
    progress: (now: Progress) => void,
  ): Promise<Answer<Opened>> {
    return this.working(plan.handed[0]?.file.name ?? 'the files', async () => {
      const { received, codebooks } = await this.receive(plan, progress);
      return this.openExtract(
        linkCodebooks(name === null ? received : { ...received, name }, codebooks),
        log,
        progress,
      );
    });
  }

  /** Reads more files, or codebooks, into the open extract. */
  add(plan: Plan, log: Entry[], progress: (now: Progress) => void): Promise<Answer<Opened>> {
    return this.working(plan.handed[0]?.file.name ?? 'the files', async () => {
      const { extract } = this.opened;
      const { brought } = await this.bring(plan.handed, plan.chosen);
      const kept = brought.filter(({ key }) => !plan.left.includes(key));
      const codebooks = [
        ...extract.codebooks,
        ...kept.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : [])),
      ];
      const hasData = kept.some(({ what }) => what === 'data');
      const more = hasData
        ? withFiles(
            extract,
            (await this.receive({ ...plan, part: extract.part ?? null, waveFrom: 'none' }, progress))
              .received,
          )
        : extract;
      return this.openExtract(linkCodebooks(more, codebooks), log, progress);
    });
  }

  /** Takes one file's rows out of the open extract. @param index its zero-based place among the files */
  leaveOut(index: number, log: Entry[], progress: (now: Progress) => void): Promise<Answer<Opened>> {
    return this.changed((extract) => withoutFile(extract, index), log, progress);
  }

  /** Calls the files otherwise among the waves. */
  callWaves(waves: string[], log: Entry[], progress: (now: Progress) => void): Promise<Answer<Opened>> {
    return this.changed((extract) => withWaves(extract, waves), log, progress);
  }

  private changed(
    change: (extract: Extract) => Extract,
    log: Entry[],
    progress: (now: Progress) => void,
  ): Promise<Answer<Opened>> {
    return this.working(this.opened.extract.name, () => {
      const { extract } = this.opened;
      return this.openExtract(linkCodebooks(change(extract), extract.codebooks), log, progress);
    });
  }

  private bring(
    handed: readonly HandedFile[],
    chosen: Record<string, Partial<Reading>>,
    marks?: Marks,
  ): ReturnType<typeof bring> {
    return bring(
      handed.map(({ key, file }): Handed => ({ key, source: fileSource(file) })),
      new Map(Object.entries(chosen)),
      this.memo,
      marks,
    );
  }

  private async receive(
    plan: Plan,
    progress: (now: Progress) => void,
  ): Promise<{ received: Extract; codebooks: Codebook[] }> {
    const { brought } = await this.bring(plan.handed, plan.chosen);
    const kept = brought.filter(({ key }) => !plan.left.includes(key));
    const data = kept.filter((one) => one.what === 'data');
    if (data.length === 0)
      throw new InputError({
        file: plan.handed[0]?.file.name ?? 'the files',
        says: 'there is no data among the files; bring the data that the codebook describes',
      });
    const whole = data.reduce((sum, { bytes }) => sum + bytes, 0);
    let finished = 0;
    let last = '';
    let current = 0;
    const received = await readExtract(
      data.map(({ key, source, look, layout }) => ({
        source,
        look,
        layout,
        ...(plan.waves[key] ? { wave: plan.waves[key] } : {}),
      })),
      {
        progress: (file, bytes, rows) => {
          if (file !== last && last) finished += current;
          last = file;
          current = bytes;
          progress({ says: `Reading ${file}`, done: finished + bytes, whole, rows });
        },
        breathe: () => this.breathe(),
      },
      { part: plan.part, marks: plan.marks, waveFrom: plan.waveFrom },
    );
    return { received, codebooks: kept.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : [])) };
  }

  /** Runs long work that may be stopped, and makes what goes wrong an answer. */
  private async working(file: string, work: () => Promise<Opened>): Promise<Answer<Opened>> {
    this.stopped = false;
    try {
      return { ok: true, value: await work() };
    } catch (cause) {
      if (cause instanceof Stopped) return { ok: false, problem: null };
      return { ok: false, problem: problemOf(cause, file) };
    }
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

  holding(texts: string[]): Record<string, string[]> {
    return holdingOf(this.opened, texts);
  }

  /** Gives the open extract another name. */
  callIt(name: string): void {
    this.opened.extract.name = name;
  }

  /** All cells of one row, with their labels. @param row zero-based, of the whole extract */
  record(row: number): RecordCard {
    return recordOf(this.opened, row);
  }

  /** What a flag rests on. */
  evidence(flag: Flag): Evidence | null {
    return evidenceOf(flag, this.opened);
  }

  /** Opens an extract that the browser keeps, with its log laid over it. */
  async open(id: string, log: Entry[], progress: (now: Progress) => void): Promise<Answer<Opened>> {
    this.stopped = false;
    try {
      return { ok: true, value: await this.openExtract(await openKept(id), log, progress) };
    } catch (cause) {
      if (cause instanceof Stopped) return { ok: false, problem: null };
      return {
        ok: false,
        problem: {
          file: 'the kept extract',
          says: `cannot be opened (${(cause as Error).message}); remove it and read the file again`,
        },
      };
    }
  }

  /** Stops whatever is being read. */
  stop(): void {
    this.stopped = true;
  }

  /** Keeps the open extract in the browser. A full or refused storage is an answer, not an error. */
  async keep(id: string): Promise<{ kept: Kept } | { refused: string }> {
    try {
      return { kept: await keepExtract(id, this.opened.extract) };
    } catch (cause) {
      return { refused: refusal(cause) };
    }
  }

  /** Lays a log over the open extract. @returns the summaries that changed, and all flags */
  lay(log: Entry[]): { summaries: Summary[]; flags: Flag[] } {
    const { opened } = this;
    const names = opened.lay(foldLog(log));
    return {
      summaries: opened.summaries(opened.variables.filter(({ name }) => names.has(name))),
      flags: opened.flags,
    };
  }

  /** Variables of one list of codes as one table. */
  battery(names: string[]): Battery | null {
    return batteryOf(names.flatMap((name) => this.opened.named(name) ?? []));
  }

  /** The summary of a variable within the levels of another, or within the files. */
  grouped(name: string, by: string | null): Grouped | null {
    const { opened } = this;
    const one = this.found(name);
    const other = by === null ? null : this.found(by);
    return one && (by === null || other)
      ? groupedBy(one.variable, one.inspected, other, opened.extract.files, opened.weighting, opened.setAside)
      : null;
  }

  /** A chart as an SVG file. */
  chart(name: string, binWidth: number | null, all = false): string | null {
    const profile = this.profile(name, binWidth, all);
    return (
      profile &&
      chartFile(profile.picture, `${name}${profile.variable.label ? `: ${profile.variable.label}` : ''}`)
    );
  }

  /** Several variables as the inspection documents them. */
  documented(names: string[]): InspectedVariable[] {
    return names.flatMap((name) => {
      const found = this.opened.named(name);
      return found ? [documented(found)] : [];
    });
  }

  profile(name: string, binWidth: number | null = null, all = false): Profile | null {
    const { opened } = this;
    const variable = opened.extract.variables.find((candidate) => candidate.name === name);
    const inspected = opened.named(name);
    return variable && inspected
      ? profileOf(variable, inspected, opened.flags, {
          binWidth,
          all,
          weighted: opened.weighted(name),
          asked: opened.asked(name),
        })
      : null;
  }

  inventory(names: string[]): string {
    return inventoryCsv(this.opened, names);
  }

  inspection(): string {
    return `${JSON.stringify(this.opened.document(), null, 1)}\n`;
  }

  report(log: Entry[], names: string[], madeAt: string): string {
    return reportHtml(this.opened, log, names, new Date(madeAt));
  }

  private found(name: string): { variable: Variable; inspected: Inspected } | null {
    const variable = this.opened.extract.variables.find((one) => one.name === name);
    const inspected = this.opened.named(name);
    return variable && inspected ? { variable, inspected } : null;
  }

  private get opened(): Inspector {
    if (!this.inspector) throw new Error('no extract is open');
    return this.inspector;
  }

  private async openExtract(
    extract: Extract,
    log: Entry[],
    progress: (now: Progress) => void,
  ): Promise<Opened> {
    const inspector = new Inspector(extract, this.standing);
    inspector.lay(foldLog(log));
    const whole = extract.variables.length;
    let told = performance.now();
    const step = async (says: string, steps: Generator<number>): Promise<void> => {
      for (const done of steps) {
        if (performance.now() - told < 100) continue;
        told = performance.now();
        progress({ says, done, whole, rows: extract.rows });
        await this.breathe();
      }
    };
    await step('Getting to know the variables', inspector.prepare());
    await step('Looking for suspicious codes', inspector.raise());
    this.inspector = inspector;
    const tells =
      inspector.variables.find(({ kind }) => kind === 'identifier')?.name ??
      extract.variables[0]?.name ??
      null;
    const column = extract.variables.find(({ name }) => name === tells)?.column;
    const starts = fileStarts(extract.files);
    return {
      name: extract.name,
      rows: extract.rows,
      files: extract.files.map((file, i) => ({
        ...file,
        names: [],
        lines: undefined,
        first: file.rows ? (column?.text(starts[i]) ?? '') : '',
        last: file.rows ? (column?.text(starts[i + 1] - 1) ?? '') : '',
      })),
      codebooks: extract.codebooks.map(({ name, form, title, entries }) => ({
        name,
        form,
        title,
        variables: entries.length,
      })),
      notices: inspector.notices,
      part: extract.part ?? null,
      wave: extract.wave ?? null,
      tells,
      summaries: inspector.summaries(),
      flags: inspector.flags,
      proposals: proposeSets(inspector.variables, extract.codebooks),
    };
  }

  /** Lets waiting messages in, among them the one that stops. */
  private async breathe(): Promise<void> {
    await new Promise((resolve) => setTimeout(resolve));
    if (this.stopped) throw new Stopped();
  }
}

function foundOf(one: Brought): Found {
  const { key, name, bytes, archive } = one;
  const base = { key, name, bytes, archive };
  switch (one.what) {
    case 'data':
      return { ...base, what: 'data', look: one.look, layoutFrom: one.layoutFrom, cells: one.cells };
    case 'codebook':
      return {
        ...base,
        what: 'codebook',
        form: one.codebook.form,
        title: one.codebook.title,
        variables: one.codebook.entries.length,
      };
    case 'problem':
      return { ...base, what: 'problem', problem: one.problem };
    case 'passed':
      return { ...base, what: 'passed', says: one.says };
  }
}

function fileSource(file: File): ByteSource {
  return {
    name: file.name,
    bytes: file.size,
    slice: async (from, to) => new Uint8Array(await file.slice(from, to).arrayBuffer()),
    open: async function* () {
      const reader = file.stream().getReader();
      try {
        for (let next = await reader.read(); !next.done; next = await reader.read()) yield next.value;
      } finally {
        await reader.cancel().catch(() => undefined);
      }
    },
  };
}
