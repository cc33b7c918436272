import type { Extract } from '../extract/extract';
import type { ExtractRule, Flag, RuleFacts, Subject, Whole } from './rule';

/** What a rule is given that goes through cells: the extract, and of each variable what it reads besides. */
interface CellsRead<R> {
  extract: Extract;
  read: readonly R[];
}

interface CellsRule<R> extends RuleFacts {
  /** The variables that it looks at: those that are studied, unless it says otherwise. */
  of?(whole: Whole): readonly Subject[];
  /** All that it reads of a variable besides its cells, as a flat record: kind, role, numbers of values and the like. */
  reads(subject: Subject, extract: Extract): R;
  /** It is given nothing else, so that it can find nothing that its memory is not keyed by. */
  find(cells: CellsRead<R>): Flag[];
}

/**
 * A rule that goes through all cells, which takes long, and is asked after every ruling. What it found is remembered for the
 * extract and for what it read of the variables; a ruling that changes either has it look again.
 */
export function cellsRule<R extends object>({ of, reads, find, ...facts }: CellsRule<R>): ExtractRule {
  const known = new WeakMap<Extract, { read: readonly R[]; flags: Flag[] }>();
  /** Variables that no ruling touches are the same objects: what is read of them is, too. */
  const readOf = new WeakMap<Subject, { extract: Extract; read: R }>();
  const readIn = (subject: Subject, extract: Extract): R => {
    const before = readOf.get(subject);
    if (before?.extract === extract) return before.read;
    const read = reads(subject, extract);
    readOf.set(subject, { extract, read });
    return read;
  };
  return {
    ...facts,
    ofCells: true,
    look: (whole) => {
      const { extract } = whole;
      const read = (of?.(whole) ?? whole.studied ?? whole.subjects).map((subject) =>
        readIn(subject, extract),
      );
      const before = known.get(extract);
      if (before && sameRead(before.read, read)) return before.flags;
      const flags = find({ extract, read });
      known.set(extract, { read, flags });
      return flags;
    },
  };
}

const sameRead = (a: readonly object[], b: readonly object[]): boolean =>
  a.length === b.length && a.every((one, i) => one === b[i] || JSON.stringify(one) === JSON.stringify(b[i]));
