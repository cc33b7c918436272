import type { CodebookForm, Extract, FileSource, Marks, Notice, Part } from '../core/extract/extract';
import type { Problem } from '../core/extract/problem';
import type { Flag } from '../core/flags/rule';
import type { RowCounts } from '../core/inspect/schema';
import type { Summary } from '../core/inspect/summary';
import type { Hold } from '../core/intake/holding';
import type { CellGuess } from '../core/intake/cells';
import type { Steps } from '../core/intake/steps';
import type { WaveFrom } from '../core/intake/waves';
import type { DigLog, Entry } from '../core/log/entries';
import type { ProposedSet } from '../core/sets/propose';
import type { ConditionAccount } from '../core/sieve/sift';
import type { Look, Reading } from '../core/read/look';

/** A file handed over by the person. `key` tells it from others of its name. */
export interface HandedFile {
  key: string;
  file: File;
}

/** What a first look finds a file, or a member of an archive, to be. */
export type Found = { key: string; name: string; bytes: number; archive: string | null } & (
  | { what: 'data'; look: Look; layoutFrom: string | null; cells: CellGuess }
  | { what: 'codebook'; form: CodebookForm; title: string | null; variables: number }
  /** `returned`: it came with the data that were handed off under it. */
  | {
      what: 'log';
      extract: string;
      /** Entries in force. */
      rulings: number;
      returned: boolean;
      steps: Steps | null;
    }
  | { what: 'problem'; problem: Problem }
  | { what: 'passed'; says: string }
);

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
  /** How an earlier extract was read. */
  steps: Steps | null;
  /** Whether all rows are held, or a sample while all are counted; `null` as memory allows. */
  hold: Hold | null;
}

/** How far long work is. `whole` in the unit of `done`. */
export interface Progress {
  says: string;
  done: number;
  whole: number;
  rows: number;
}
export type Tell = (now: Progress) => void;

/** A file of the open extract with the rows that one looks for first. */
export interface OpenedFile extends FileSource {
  /** Text of the first column that identifies rows, or of the first column, in the first and the last row. */
  first: string;
  last: string;
}

/** What the log laid over the open extract comes to, besides what is said of single variables. */
export interface Standing {
  /** Entries of the log that are laid. */
  version: number;
  /** `null` where they are still to be raised: `flags` is asked then. */
  flags: Flag[] | null;
  /** Rows set aside; zero-based, of the whole extract. */
  aside: number[];
  notices: Notice[];
  /** Rows that are there, and those that the sieve in force keeps. */
  counts: RowCounts;
  /** What the sieve in force says; empty without one. */
  sieve: ConditionAccount[];
  /** Whether all rows were gone through for what the sieve keeps and for the cells of tables, of which only a sample is held. */
  countedAll: boolean;
}

/** An extract as it stands open: what the interface shows without asking further. */
export interface Opened extends Standing {
  /** Tells this opening from any other; what is laid names the opening that it is for. */
  serial: number;
  name: string;
  rows: number;
  files: OpenedFile[];
  codebooks: { name: string; form: CodebookForm; title: string | null; variables: number }[];
  part: Part | null;
  /** Where all rows were counted and a sample of them is held: how many of each. */
  pass: { rows: number; held: number } | null;
  marks: Marks | null;
  wave: Extract['wave'] | null;
  /** Where its rows stay, of a table of a database. */
  database: { at: string; table?: string; query?: string } | null;
  /** The variable by which a person calls rows; `null` where nothing identifies them. */
  calledBy: string | null;
  /** The column whose cells stand for the rows in `files`. */
  tells: string | null;
  summaries: Summary[];
  /** Sets that might be made; `null` until they are asked for, which takes a while in wide extracts. */
  proposals: ProposedSet[] | null;
  /** What came with the files: rulings that the data hold already, and an earlier log that is not laid yet. */
  stands: string[];
  earlier: { name: string; log: DigLog } | null;
  /** The log that is laid; rows that an earlier version knew by place alone have their names. */
  log: Entry[];
}

/** What changed by laying entries: summaries of the variables that were touched. */
export interface Laid extends Standing {
  summaries: Summary[];
  /** All variables in their order, where others are there than before: trial recodes come and go. */
  names: string[] | null;
  /** Names of those whose summaries are still to be made: `recount` is asked then. */
  stale: string[];
}

/** An answer, or what stands in its way. `problem: null` means that the person stopped it. */
export type Answer<T> = { ok: true; value: T } | { ok: false; problem: Problem | null };
