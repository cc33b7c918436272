/** Bad input as data: where it is, what is wrong with it, what to do now. Worded once, formatted at the edge. */
export interface Problem {
  file: string;
  /** One-based line in the file, where one can be named. */
  line?: number;
  /** One-based column: a cell's position in its row, or a character's in its line. */
  column?: number;
  /** The element of an XML document. */
  element?: string;
  says: string;
}

/** Thrown by readers for input that cannot be used. Anything else thrown is a defect of ours. */
export class InputError extends Error {
  constructor(readonly problem: Problem) {
    super(problemText(problem));
    this.name = 'InputError';
  }
}

/** "upkeep.csv, line 812: the row ends inside quotes". */
export function problemText({ file, line, column, element, says }: Problem): string {
  const place = [file, line && `line ${line}`, column && `column ${column}`, element && `element ${element}`];
  return `${place.filter(Boolean).join(', ')}: ${says}`;
}

/** Reading was stopped by the person; not an error to report. */
export class Stopped extends Error {
  constructor() {
    super('reading was stopped');
    this.name = 'Stopped';
  }
}
