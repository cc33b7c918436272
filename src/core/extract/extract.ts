import type { TextList } from './text-list';
import type { Column } from './column';
import type { Spelling } from './spelling';
import type { Kind, Reason, Role, Storage } from './words';

/** Something noticed while reading that does not stop the reading. */
export interface Notice {
  line?: number;
  says: string;
}

/** How a data file is built. */
export const FORMS = ['delimited', 'fixed-width', 'workbook', 'json', 'parquet'] as const;
export type Form = (typeof FORMS)[number];

/** One file of an extract, as it was read. Its rows follow those of the files before it. */
export interface FileSource {
  name: string;
  bytes: number;
  rows: number;
  columns: number;
  /** `table`: it is no file, but a table of a database. */
  form: Form | 'table';
  /** How its text is encoded; `binary` where the form is no text. */
  encoding: string;
  delimiter: string | null;
  header: boolean;
  /** The sheet that was read, of a workbook. */
  sheet?: string;
  /** What else was fixed of how it is read. */
  how?: HowRead;
  /** Names of its columns in its own order, made-up ones included. */
  names: string[];
  /** What this file is called among the waves of the extract, where it is one of several. */
  wave?: string;
  /** Where only a sample of its rows is held, which are `rows`: how many were read. */
  read?: number;
  /** Rows of the file that were left unread on purpose, where only the first were wanted and there are more. */
  partial?: boolean;
  /** What the file itself says of its variables. */
  codebook?: Codebook;
  /**
   * The line of the file at which a row stands: pairs of a zero-based row of this file and its one-based line; between
   * them lines go up by one a row. Absent where rows are not lines.
   */
  lines?: (readonly [row: number, line: number])[];
  /** Zero-based rows of this file, ascending, and the byte at which each begins: from there on it can be read alone. */
  begins?: (readonly [row: number, byte: number])[];
  notices: Notice[];
}

/** What is fixed of how a file is read, beyond its form, encoding, delimiter, header and sheet. */
export interface HowRead {
  quote: string;
  /** Rows above the names. */
  titles: number;
  /** Where the records are, of a JSON document. */
  records: string;
  /** Where the columns stand, of a fixed-width file. */
  layout: { name: string; start: number; end: number; record?: number }[] | null;
}

/** One-based line of a zero-based row of its file; `null` where rows are not lines. */
export function lineOfRow({ lines }: FileSource, row: number): number | null {
  const before = lines?.findLast(([first]) => first <= row);
  return before ? before[1] + row - before[0] : null;
}

/** A category of a codebook entry: a code with what it means. */
export interface Category {
  code: string;
  label: string | null;
  /** Declared by the codebook to stand for no answer. */
  missing: boolean;
  /** Why, where the codebook's own words tell; `null` for valid categories. */
  reason: Reason | null;
  /** Published number of rows. */
  frequency: number | null;
}

/** A closed interval of valid or of missing values; either end may be open. */
export interface CodeRange {
  min: number | null;
  max: number | null;
}

/** Where a variable's cells stand in a line of fixed-width text: one-based columns, both included. */
export interface Location {
  start: number;
  end: number;
  /** One-based line of a case, where a case takes several. */
  record?: number;
}

/** Figures that the codebook publishes of a variable, for comparison with what arrived. */
export interface PublishedFigures {
  valid?: number;
  invalid?: number;
  min?: number;
  max?: number;
  mean?: number;
  sd?: number;
}

/** What a codebook says of one variable. */
export interface CodebookEntry {
  name: string;
  label: string | null;
  question: string | null;
  universe: string | null;
  units: string | null;
  notes: string[];
  categories: Category[];
  validRanges: CodeRange[];
  missingRanges: CodeRange[];
  /** The codebook's own claim about the kind of quantity. */
  interval: 'discrete' | 'continuous' | null;
  isWeight: boolean;
  /** Texts that stand for no answer in every cell that is nothing else, such as `NA`. */
  missingTexts: string[];
  /** The document's own claim of how cells are written. */
  storage: Storage | null;
  /** The document's own claim of the kind of scale. */
  nature: 'nominal' | 'ordinal' | 'interval' | 'ratio' | null;
  location: Location | null;
  /** Digits after the decimal point; in fixed-width text they may be implied. */
  decimals: number | null;
  published: PublishedFigures;
  /** Data files or tables that it speaks of, where the document describes several. */
  files?: string[];
  /** Other names under which a column of it may stand. */
  titles?: string[];
  /** What a person had decided where the document was written by a handoff. */
  handed?: Handed;
}

/** Decisions that a handoff wrote down with a variable. */
export interface Handed {
  /** The kind that was confirmed. */
  kind?: Kind;
  role?: Role;
  /** Codes in the order that a person gave them. */
  order?: string[];
  /** What the archive's own codebook said; `null` where it had no entry. */
  archive?: CodebookEntry | null;
  /** How cells are spelt, where the form beside keeps their values alone. */
  spelling?: Spelling;
  /** Who was not asked. */
  gate?: { steps?: { by: string; codes: string[]; asked: boolean }[]; by: string; shut: string[] };
}

/** An entry that says nothing yet beyond the name. */
export function bareEntry(name: string): CodebookEntry {
  return {
    name,
    label: null,
    question: null,
    universe: null,
    units: null,
    notes: [],
    categories: [],
    validRanges: [],
    missingRanges: [],
    interval: null,
    isWeight: false,
    missingTexts: [],
    storage: null,
    nature: null,
    location: null,
    decimals: null,
    published: {},
  };
}

/** A group of variables that the codebook itself makes. */
export interface CodebookGroup {
  name: string;
  /** Those of the groups within it too. */
  variables: string[];
  /** The group that it is part of, where there is one. */
  within?: string | null;
}

/** Forms of codebook documents. */
export type CodebookForm = 'ddi-codebook' | 'table-schema' | 'csvw' | 'code-table' | 'catalogue';

export interface Codebook {
  name: string;
  form: CodebookForm;
  title: string | null;
  /** Published number of rows of the data that it describes. */
  cases: number | null;
  /** The data files that it describes, where there are several, with the published number of rows of each. */
  parts?: { file: string; cases: number | null }[];
  entries: CodebookEntry[];
  groups: CodebookGroup[];
  notices: Notice[];
}

/** What one reading of all rows told of a column of which only a sample of rows is held. */
export interface ColumnPass {
  /** Texts with the rows that hold each, in the order in which they were met: all there are where `others` is `null`. */
  texts: TextList;
  counts: Float64Array;
  /** What is known of the rows whose texts were met after as many as are kept apart; `null` where there are none. */
  others: OtherRows | null;
}
/** Numbers that passed: how many, their ends, and the sums of the first four powers of their distance from a middle. */
export interface PassedNumbers {
  n: number;
  min: number;
  max: number;
  middle: number;
  sums: readonly number[];
}
interface OtherRows {
  rows: number;
  blank: number;
  /** Rows that hold a number as programs write it, the moments of those, and a middle that they are told from. */
  numbers: PassedNumbers;
  /** About how many different texts the whole column holds, and the standard error of that as a share. */
  distinct: number;
  error: number;
  /** Whether the lowest and the highest of all texts are among those that are told apart. */
  hasEnds?: boolean;
  /** Rows whose text stands in another row too, where it is known; the most frequent of such texts are told apart. */
  repeated?: number;
  /** Quartiles and median of all rows that hold a number, but for those with the texts named. */
  quartiles?: { q1: number; median: number; q3: number; without: readonly string[] };
}

/** A variable as received: its column and, where a codebook knows it, its entry. */
export interface Variable {
  name: string;
  /** One-based place in the file. */
  position: number;
  column: Column;
  entry: CodebookEntry | null;
  /** Where only a sample of its rows is held: what all of them hold. */
  pass?: ColumnPass;
  /** How the file itself declares the cells to be written, where its form does (Parquet). */
  declared?: Storage;
  /** Of a trial recode: what it was made to be. It stands in no file. */
  trial?: TrialOf;
  /** Digits after a decimal point that the cells leave out, where a fixed-width file implies them. */
  implied?: number;
}

/** What a trial recode was made to be. */
export interface TrialOf {
  of: string;
  kind: Kind;
  /** Its codes in their order. */
  order: readonly string[];
  /** Texts that could not be read in what it was made of. */
  unreadable: ReadonlySet<string>;
  /** The text that it makes of a raw text of what it was made of. */
  text(raw: string): string;
}

/** The received data. Nothing ever changes them. */
export interface Extract {
  name: string;
  files: FileSource[];
  codebooks: Codebook[];
  /** What the reading noticed of the files together. */
  notices: Notice[];
  /** What stands in the data and in no codebook, and the other way round. */
  linkNotices: Notice[];
  rows: number;
  variables: Variable[];
  /** How cells are to be read that leave it open, as a person chose. */
  marks?: Marks;
  /** What a person left unread on purpose; absent where everything was read. */
  part?: Part;
  /** The variable that tells the wave, where there are several files. */
  wave?: { variable: string; by: 'found' | 'made' };
  /** Where the rows held are a sample: how many rows were read, and where those held stand among them, zero-based. */
  pass?: { rows: number; places?: Uint32Array };
  /** Where the rows stay in a database: which, what of it, and what was asked of it so far. */
  database?: DatabaseSource;
  /** Where these are some rows of another extract: that, and for each row its zero-based place there. */
  taken?: Taken;
}

/** Where rows stay that are not held here. */
export interface DatabaseSource {
  /** Host, port and database. */
  at: string;
  table?: string;
  query?: string;
  /** Variables that tell its rows apart; empty where none does. */
  key?: readonly string[];
  /** Statements that were asked, and bytes that came back. */
  statements: number;
  bytes: number;
}

/** Which rows of an extract were taken. */
export interface Taken {
  from: Extract;
  rows: Uint32Array;
}

/** The place of a zero-based row in the extract as it was received, whose rows these may be some of. */
export const placeReceived = ({ taken }: Pick<Extract, 'taken'>, row: number): number =>
  taken ? taken.rows[row] : row;

/** What a person says of cells that leave it open: the decimal mark, and whether the day or the month comes first. */
export interface Marks {
  decimal?: '.' | ',';
  order?: 'dmy' | 'mdy';
}

/** A first look: only so many rows of each file, or only some variables. */
export interface Part {
  /** Most rows of each file; `null` for all. */
  rows: number | null;
  /** Names wanted; `null` for all. */
  names: string[] | null;
}
