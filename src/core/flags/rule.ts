import type { InFile } from '../rows/by-file';
import type { Extract } from '../extract/extract';
import type { Kind, Reason, Role, Severity } from '../extract/words';
import type { Known } from '../infer/known';
import type { Universe } from './between/universe';

/** What a rule may know of one variable. */
export interface Subject extends Known {
  kind: Kind;
  role: Role;
  /** Where there are several files: the rows of each that hold one of these texts, and all its rows. */
  byFile?: (texts: readonly string[]) => InFile[];
  /** Rows that hold one of these texts, each as it is written. */
  rowsWith?: (texts: readonly string[]) => number;
}

/** This does not look like what it claims to be, here is the evidence. */
export interface Flag {
  rule: string;
  variables: string[];
  /** Raw codes that the flag is about; empty where it is about the variable as a whole. */
  codes: string[];
  /** Rows touched. */
  rows: number;
  severity: Severity;
  /** Probability, 0 to 1, that a person who looks agrees. */
  certainty: number;
  /** One sentence that a person can check. */
  says: string;
  /** Zero-based rows of the extract that the flag is about, where it is about rows. */
  at?: number[];
  /** How many those are, where only the first of them are told. */
  atAll?: number;
  /** What each code is another way to write, where they are. */
  into?: Record<string, string>;
  /** Who was not asked, where the flag is about that. */
  universe?: Universe;
  /** Why its codes are missing, where that is known. */
  reason?: Reason;
}

/** So many rows are told of outside the core. */
const MOST_AT = 1000;
/** A flag as it is told: with the first of its rows, and how many there are where there are more. */
export const toldFlag = (flag: Flag): Flag =>
  flag.at && flag.at.length > MOST_AT
    ? { ...flag, at: flag.at.slice(0, MOST_AT), atAll: flag.at.length }
    : flag;

/** What is to be known of a rule besides what it finds. All of it stands in the rule's own file. */
export interface RuleFacts {
  rule: string;
  /**
   * What a holder of rows has to give: the tally of each variable, one variable counted against another, or rows. Where it
   * cannot be given, as where only a sample of the rows is held, the rule is left out, and said to be.
   */
  needs: 'tally' | 'pairs' | 'rows';
  /** What a ruling answers it: codes declared missing, rows set aside, or neither. */
  answers: 'codes' | 'rows' | 'whole';
  /** Of rules that see the same code the one of the lowest precedence speaks; without one a rule gives way to none. */
  precedence?: number;
  /** Where it is less sure than `below`, it gives way to more rules. */
  unsure?: { below: number; precedence: number };
  /** Rules that have nothing to say of a variable where this one holds. */
  explains?: readonly string[];
  /** Which flags are one pattern: those of all the same codes, of some of them, or wherever they hold. */
  pattern?: 'some codes' | 'everywhere';
  /** It needs rows, but may speak of those variables of which all texts, or what repeats, were counted. */
  countedToo?: (extract: Extract) => boolean;
  /** It goes through cells, and does so again only where what it reads besides has changed. @see cellsRule */
  ofCells?: true;
}

/** A rule that looks at one variable at a time, beside its siblings: variables with the same stem. */
export interface VariableRule extends RuleFacts {
  look(subject: Subject, siblings: readonly Subject[]): Flag[];
}

/**
 * The whole extract, for rules that look at rows, files, or one variable against another. Rows that were set aside, and those
 * that a sieve drops, are not there at all.
 */
export interface Whole {
  extract: Extract;
  subjects: readonly Subject[];
  /** The same without rows that are no observations; by default with them. */
  studied?: readonly Subject[];
  /** Where only a sample of the rows is held, of which not all variables are told: the same as the sample alone tells it. */
  sample?: Whole;
  /** Whether a sieve is in force: these rows are some of those that were received, and are meant to be. */
  sieved?: boolean;
}

/** A rule that looks at the extract as a whole. */
export interface ExtractRule extends RuleFacts {
  look(whole: Whole): Flag[];
}

/** Flags below this certainty are not worth a person's time. */
export const LEAST_CERTAINTY = 0.6;

export const round2 = (x: number): number => Math.round(x * 100) / 100;
/** Log odds → probability. */
export const probability = (logOdds: number): number => 1 / (1 + Math.exp(-logOdds));
/** "40 rows hold", "1 row holds". */
export const rowsHold = (rows: number): string => (rows === 1 ? '1 row holds' : `${rows} rows hold`);
/** "77, 88 or 99". */
export const anyOf = (codes: readonly string[]): string =>
  codes.length < 2 ? codes.join('') : `${codes.slice(0, -1).join(', ')} or ${codes[codes.length - 1]}`;
/** "37" of 100, never 0 or 100 for what is not quite nothing or all. */
export const percentOf = (part: number, whole: number): number =>
  Math.min(99, Math.max(part > 0 ? 1 : 0, Math.round((100 * part) / Math.max(1, whole))));
