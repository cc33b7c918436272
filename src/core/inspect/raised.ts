import { explained, familiesOf, raiseOf, raiseOfCells, raiseWhole } from '../flags/registry';
import type { Flag, Subject, Whole } from '../flags/rule';

/** The flags of one variable, and the siblings that they were raised beside. */
interface Own {
  siblings: readonly Subject[];
  flags: Flag[];
}

/**
 * Flags, raised once for the same variables: a flag of a variable holds as long as it and its siblings are the same
 * objects, one of the whole as long as all variables are.
 */
export class Raised {
  private readonly own = new WeakMap<Subject, Own>();
  private ofWhole: { subjects: unknown; studied: unknown; flags: Flag[] } | null = null;

  /** All flags that others do not explain. */
  of(whole: Whole): Flag[] {
    const all: Flag[] = [];
    // They remember for themselves what they read.
    for (const flag of raiseOfCells(whole)) all.push(flag);
    for (const flag of this.whole(whole)) all.push(flag);
    for (const flags of this.eachVariable(whole)) for (const flag of flags) all.push(flag);
    return explained(all, whole);
  }

  /** Raises step by step what is not raised yet. @returns how many variables are done */
  *steps(whole: Whole): Generator<number> {
    let done = 0;
    for (const _ of this.eachVariable(whole)) yield ++done;
    raiseOfCells(whole);
    yield done;
    this.whole(whole);
    yield done;
  }

  private *eachVariable({ subjects, studied = subjects }: Whole): Generator<Flag[]> {
    const families = familiesOf(studied);
    for (const subject of studied) {
      const family = families(subject);
      const known = this.own.get(subject);
      if (known && sameMembers(known.siblings, family)) {
        yield known.flags;
        continue;
      }
      const flags = raiseOf(
        subject,
        family.filter((other) => other !== subject),
      );
      this.own.set(subject, { siblings: family, flags });
      yield flags;
    }
  }

  private whole(whole: Whole): Flag[] {
    const { subjects, studied } = whole;
    if (this.ofWhole?.subjects !== subjects || this.ofWhole.studied !== studied)
      this.ofWhole = { subjects, studied, flags: raiseWhole(whole) };
    return this.ofWhole.flags;
  }
}

const sameMembers = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a === b || (a.length === b.length && a.every((one, i) => one === b[i]));
