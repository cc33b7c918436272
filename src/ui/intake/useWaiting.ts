'use client';

import { useEffect, useRef, useState } from 'react';
import type { Reading } from '../../core/read/look';
import type { Found, Plan } from '../../engine/protocol';
import { askOrSay } from '../../store/asking';
import { outside } from '../../store/outside';
import { planOf } from '../../store/reading';

export type FoundData = Extract<Found, { what: 'data' }>;

export interface Waiting {
  plan: Plan;
  /** What the files were found to be; `null` while the first look is not done. */
  found: Found[] | null;
  notices: string[];
  looking: boolean;
}

const NONE: Waiting = { plan: planOf([]), found: null, notices: [], looking: false };

/** Files that were brought in and not read yet, with what a person chose; each change is looked at anew. */
export function useWaiting() {
  const [waiting, setWaiting] = useState<Waiting>(NONE);
  const latest = useRef(0);
  const { handed, chosen, marks } = waiting.plan;
  useEffect(() => {
    const mine = ++latest.current;
    if (handed.length === 0) {
      void outside().engine.ask('look', [], {});
      return;
    }
    setWaiting((now) => ({ ...now, looking: true }));
    void askOrSay('look', handed, chosen, marks).then((looked) => {
      if (mine === latest.current)
        setWaiting((now) => ({ ...now, ...(looked ?? { found: [], notices: [] }), looking: false }));
    });
  }, [handed, chosen, marks]);

  const change = (part: Partial<Plan>): void =>
    setWaiting((now) => ({ ...now, plan: { ...now.plan, ...part } }));
  return {
    ...waiting,
    change,
    bring: (files: readonly File[]): void =>
      setWaiting((now) => ({
        ...now,
        plan: { ...now.plan, handed: [...now.plan.handed, ...planOf(files).handed] },
      })),
    /** Says how files are read, for each of the keys. */
    choose: (keys: readonly string[], part: Partial<Reading>): void =>
      setWaiting((now) => ({
        ...now,
        plan: {
          ...now.plan,
          chosen: {
            ...now.plan.chosen,
            ...Object.fromEntries(keys.map((key) => [key, { ...now.plan.chosen[key], ...part }])),
          },
        },
      })),
    toggle: (key: string): void =>
      setWaiting((now) => ({
        ...now,
        plan: {
          ...now.plan,
          left: now.plan.left.includes(key)
            ? now.plan.left.filter((other) => other !== key)
            : [...now.plan.left, key],
        },
      })),
    putAway: (key: string): void =>
      setWaiting((now) => {
        const rest = now.plan.handed.filter((one) => one.key !== key);
        return rest.length ? { ...now, plan: { ...now.plan, handed: rest } } : { ...NONE, plan: planOf([]) };
      }),
    clear: (): void => setWaiting({ ...NONE, plan: planOf([]) }),
  };
}
export type WaitingFiles = ReturnType<typeof useWaiting>;
