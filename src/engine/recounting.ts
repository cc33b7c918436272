import { toldFlag, type Flag } from '../core/flags/rule';
import type { Inspector } from '../core/inspect/inspect';
import type { Summary } from '../core/inspect/summary';

/** Milliseconds that are counted or raised at a stretch, so that other questions are not kept waiting. */
const AT_A_STRETCH = 60;

/** Summaries of the first of some variables, as many as a stretch allows; one at least. */
export function summariesOf(inspector: Inspector, names: readonly string[]): Summary[] {
  const until = performance.now() + AT_A_STRETCH;
  const made: Summary[] = [];
  for (const name of names) {
    const inspected = inspector.named(name);
    if (inspected) made.push(...inspector.summaries([inspected]));
    if (performance.now() > until) break;
  }
  return made;
}

/** Raises flags stretch by stretch. */
export class Raising {
  private under: { inspector: Inspector; version: number; steps: Generator<number> } | null = null;

  /** @param version entries that are laid; what was begun under others is begun anew @returns `null` while there is more to do */
  go(inspector: Inspector, version: number): Flag[] | null {
    if (this.under?.inspector !== inspector || this.under.version !== version)
      this.under = { inspector, version, steps: inspector.raise() };
    const until = performance.now() + AT_A_STRETCH;
    while (performance.now() < until)
      if (this.under.steps.next().done) {
        this.under = null;
        return inspector.flags.map(toldFlag);
      }
    return null;
  }
}
