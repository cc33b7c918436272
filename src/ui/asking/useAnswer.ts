'use client';

import { useEffect, useState } from 'react';
import type { Problem } from '../../core/extract/problem';
import type { Asked, Question, Said } from '../../engine/answered';
import { outside } from '../../store/outside';
import { useSession } from '../../store/session';

/** What the engine said. */
export interface Heard<T> {
  /** The answer to this question, never to another; `null` while there is none. */
  value: T | null;
  /** What stood in the way of the last answer. */
  problem: Problem | null;
}
const NOTHING: Heard<never> = { value: null, problem: null };

/**
 * Asks the engine, and asks again whenever a ruling was laid; until then the last answer to the same question stays.
 * @param args `null` where nothing is to be asked
 * @param after milliseconds to wait first, for questions that follow a pointer
 */
export function useAnswer<Q extends Question>(question: Q, args: Asked<Q> | null, after = 0): Heard<Said<Q>> {
  const laid = useSession((session) => session.laid);
  const id = useSession((session) => session.id);
  // What was said of other rows is no answer any more.
  const base = useSession((session) => session.base);
  const key = args === null ? null : `${id} ${base} ${question} ${JSON.stringify(args)}`;
  const [heard, setHeard] = useState<Heard<Said<Q>> & { key: string | null }>({ ...NOTHING, key: null });
  useEffect(() => {
    if (args === null) return;
    let wanted = true;
    const timer = setTimeout(() => {
      void outside()
        .engine.ask(question, ...args)
        .then((answer) => {
          if (!wanted) return;
          if (answer.ok) setHeard({ value: answer.value, problem: null, key });
          // What was stopped is asked again when something changes.
          else if (answer.problem) setHeard({ value: null, problem: answer.problem, key });
        });
    }, after);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
    // The key says all that the arguments hold.
  }, [key, laid]);
  return heard.key === key && key !== null ? heard : NOTHING;
}
