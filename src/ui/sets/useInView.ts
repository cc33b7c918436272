import { useMemo } from 'react';
import type { Summary } from '../../core/inspect/summary';
import { inView } from '../../core/sets/view';
import { useSession } from '../../store/session';

/** The variables in view: what every list, picker, count and offer holds. */
export interface InView {
  inside: readonly Summary[];
  isInside: (name: string) => boolean;
  /** How many are out of sight. */
  outside: number;
}

export function useInView(): InView {
  const summaries = useSession((session) => session.summaries);
  const state = useSession((session) => session.state);
  return useMemo(() => {
    const inside = inView(summaries, state);
    const names = new Set(inside.map(({ name }) => name));
    return { inside, isInside: (name) => names.has(name), outside: summaries.length - inside.length };
  }, [summaries, state.sets, state.shown, state.always]);
}
