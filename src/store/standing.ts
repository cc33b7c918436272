import type { StandingRule } from '../core/flags/standing-rules';
import { inTime } from '../storage/refusal';
import { outside } from './outside';
import { useSession } from './session';

const { getState: get, setState: set } = useSession;

const PATIENCE = 15_000;

/** Reads the standing rules. @returns what there is to say of it */
export async function openStandingRules(): Promise<string[]> {
  try {
    const { rules, unreadable } = await inTime(outside().storage.openStanding(), PATIENCE);
    await follow(rules);
    return unreadable ? [`${unreadable} standing rules cannot be read and are left out`] : [];
  } catch {
    return [];
  }
}

/** Proposes by other standing rules from now on, in this extract and every other. */
export async function standBy(standing: StandingRule[]): Promise<void> {
  const before = get().standing;
  set({ standing });
  try {
    await outside().storage.keepStanding(before, standing);
    outside().windows.say({ kind: 'standing' });
  } catch (cause) {
    const says = `are not kept (${(cause as Error).message}); export them before closing the tab`;
    set({ problem: { file: 'standing rules', says } });
  }
  await follow(standing);
}

async function follow(standing: StandingRule[]): Promise<void> {
  set({ standing });
  const asked = outside().engine.ask('follow', standing);
  // Nothing is open whose flags could change; whatever is opened next is opened under these. The engine may still be loading.
  if (!get().opened) return;
  const flags = await asked;
  if (flags.ok && get().opened) set((now) => ({ flags: flags.value, laid: now.laid + 1 }));
}
