import type { CodebookEntry } from '../extract/extract';
import type { Kind } from '../extract/words';
import type { Levels } from './levels';
import type { Marking } from './marker';
import type { Battery } from './scale';
import type { Written } from './storage';

/** How the values of a variable follow each other in the rows of its file. */
export interface Sequence {
  /** Share of rows, 0 to 1, whose value is not below that of the row before. */
  rising: number;
  /** Stretches of rows that hold one value each. */
  stretches: number;
  /** Whether it is the first variable of the extract. */
  first: boolean;
}

/** What is known of a variable when its kind is inferred. */
export interface Known {
  name: string;
  label: string | null;
  written: Written;
  levels: Levels;
  entry: CodebookEntry | null;
  /** Whether no value repeats within a file, where there are several files and values do repeat between them. */
  uniqueInFiles?: boolean;
  /** The battery that it is an item of, by names and by short scales. */
  battery?: Battery | null;
  sequence?: Sequence;
  /** What its name says that it marks; `null` where it says nothing. */
  marking?: Marking | null;
}

export interface InferredKind {
  kind: Kind;
  /** Probability, 0 to 1, that a person who knows the data would agree. */
  confidence: number;
  /** The two or three reasons that told most. */
  because: string[];
}
