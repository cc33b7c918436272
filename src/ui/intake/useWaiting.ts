'use client';

import { useEffect, useRef, useState } from 'react';
import { waveFromSteps, type Steps } from '../../core/intake/steps';
import type { Reading } from '../../core/read/look';
import type { Found, Plan } from '../../engine/protocol';
import { askOrSay } from '../../store/asking';
import { outside } from '../../store/outside';
import { planOf } from '../../store/reading';
import type { EarlierLog } from '../../store/replay';

export type FoundData = Extract<Found, { what: 'data' }>;

export interface Waiting {
  plan: Plan;
  /** What the files were found to be; `null` while the first look is not done. */
  found: Found[] | null;
  notices: string[];
  looking: boolean;
  /** The log of an extract that was read before, which tells how these are read and is held against them. */
  earlier: EarlierLog | null;
}

const NONE: Waiting = { plan: planOf([]), found: null, notices: [], looking: false, earlier: null };

/** What a person fixed already stays. */
const readAsBefore = (plan: Plan, steps: Steps): Plan => ({
  ...plan,
  steps,
  marks: { ...steps.marks, ...plan.marks },
  waveFrom: waveFromSteps(steps),
});

/** Files that were brought in and not read yet, with what a person chose; each change is looked at anew. */
export function useWaiting() {
  const [waiting, setWaiting] = useState<Waiting>(NONE);
  const latest = useRef(0);
  const { handed, chosen, marks, steps } = waiting.plan;
  useEffect(() => {
    const mine = ++latest.current;
    if (handed.length === 0) {
      void outside().engine.ask('look', [], {});
      return;
    }
    setWaiting((now) => ({ ...now, looking: true }));
    void askOrSay('look', handed, chosen, marks, steps).then((looked) => {
      if (mine !== latest.current) return;
      const { found, notices } = looked ?? { found: [], notices: [] };
      setWaiting((now) => {
        // A log that came along tells how its files were read, as one that was chosen does.
        const told = now.plan.steps ?? found.find((one) => one.what === 'log')?.steps ?? null;
        return {
          ...now,
          found,
          notices,
          looking: false,
          ...(told && !now.plan.steps ? { plan: readAsBefore(now.plan, told) } : {}),
        };
      });
    });
  }, [handed, chosen, marks, steps]);

  const change = (part: Partial<Plan>): void =>
    setWaiting((now) => ({ ...now, plan: { ...now.plan, ...part } }));
  return {
    ...waiting,
    change,
    /** Reads the files as those of an earlier extract; `null` as they look of themselves. */
    readAs: (earlier: EarlierLog | null): void =>
      setWaiting((now) => ({
        ...now,
        earlier,
        plan: earlier?.log.reading
          ? readAsBefore(now.plan, earlier.log.reading)
          : { ...now.plan, steps: null },
      })),
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
