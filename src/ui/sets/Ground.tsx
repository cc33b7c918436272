'use client';

import { memo, useMemo } from 'react';
import { counted, whole } from '../../core/handoff/words';
import type { Summary } from '../../core/inspect/summary';
import type { State } from '../../core/log/fold';

/** The extract as it lies in the file, from the first variable to the last: where sets were made, and where the one at hand lies. */
export const Ground = memo(function Ground({
  summaries,
  state,
  proposed,
  at,
}: {
  summaries: readonly Summary[];
  state: State;
  /** Variables of proposals that wait. */
  proposed: ReadonlySet<string>;
  /** Variables of the set at hand. */
  at: readonly string[];
}) {
  const made = useMemo(
    () => new Set([...state.sets.values()].flatMap(({ variables }) => variables)),
    [state.sets],
  );
  const here = useMemo(() => new Set(at), [at]);
  const runs = stretches(summaries, ({ name }) =>
    made.has(name) ? 'made' : proposed.has(name) ? 'proposed' : 'rest',
  );
  const own = stretches(summaries, ({ name }) => (here.has(name) ? 'at' : ''));
  const count = (which: string): number =>
    runs.filter(({ is }) => is === which).reduce((sum, { length }) => sum + length, 0);
  const says = `${whole(count('made'))} of ${counted(summaries.length, 'variable')} in sets, ${whole(count('proposed'))} more proposed, ${whole(count('rest'))} in neither`;
  return (
    <figure className="groundstrip">
      <svg viewBox={`0 0 ${summaries.length} 14`} preserveAspectRatio="none" role="img" aria-label={says}>
        {runs.map(({ from, length, is }) => (
          <rect key={from} x={from} y={5} width={length} height={9} className={is}>
            <title>{`${summaries[from].name} to ${summaries[from + length - 1].name}: ${SAYS[is]}`}</title>
          </rect>
        ))}
        {own
          .filter(({ is }) => is === 'at')
          .map(({ from, length }) => (
            <rect key={from} x={from} y={0} width={length} height={4} className="at" />
          ))}
      </svg>
      <figcaption className="soft small">
        File order, {summaries[0]?.name} to {summaries[summaries.length - 1]?.name}: {says}
      </figcaption>
    </figure>
  );
});

const SAYS: Record<string, string> = { made: 'in a set', proposed: 'proposed', rest: 'in no set' };

/** Neighbours that are alike, as one. */
function stretches(
  summaries: readonly Summary[],
  isOf: (summary: Summary) => string,
): { from: number; length: number; is: string }[] {
  const runs: { from: number; length: number; is: string }[] = [];
  summaries.forEach((summary, at) => {
    const is = isOf(summary);
    const last = runs[runs.length - 1];
    if (last?.is === is) last.length++;
    else runs.push({ from: at, length: 1, is });
  });
  return runs;
}
