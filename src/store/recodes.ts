import type { Recode } from '../core/recode/recode';
import { fill } from './cross';
import type { Side } from './cross-words';
import { decide } from './decisions';
import { useSession } from './session';

const { getState: get, setState: set } = useSession;

/**
 * Opens the making of a trial recode of a variable; of one that is a recode itself, its changing.
 * @param side of a table where the recode is to stand once it is made
 */
export function askRecode(name: string, side: Side | null = null): void {
  const recode = get().state.recodes.get(name);
  set({
    asking: 'recode',
    recoding: { ...(recode ? { of: recode.of, name } : { of: name, name: null }), side },
  });
}

/** Opens the making of a trial recode of a trial recode. */
export const askFurther = (name: string): void =>
  set({ asking: 'recode', recoding: { of: name, name: null, side: null } });

/** Makes a trial recode, in the place of one that it changes. */
export async function makeRecode(recode: Recode, replaces: string | null): Promise<void> {
  if (replaces !== null && replaces !== recode.name) await decide({ type: 'drop-recode', name: replaces });
  await decide({ type: 'make-recode', recode });
}

/** The same, and what it was made for goes on with it. */
export async function madeRecode(recode: Recode, replaces: string | null): Promise<void> {
  const { side } = get().recoding;
  await makeRecode(recode, replaces);
  const { station, summaries } = get();
  const there = summaries.some(({ name }) => name === recode.name);
  if (there && station === 'cross' && side !== null) fill(side, recode.name);
  else if (there && station === 'inventory') set({ current: recode.name });
}

/** Takes a trial recode away; no data are touched by it. */
export const dropRecode = (name: string): Promise<void> => decide({ type: 'drop-recode', name });
