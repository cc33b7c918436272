import type { Condition, Part } from '../core/sieve/condition';
import { decide } from './decisions';
import { outside } from './outside';
import { useSession, type Draft } from './session';

const { getState: get, setState: set } = useSession;

const NO_PARTS: readonly Part[] = [];

/** The conditions at hand: those that are being made, else those in force. */
export function partsAtHand(now = get()): { parts: readonly Part[]; inForce: boolean } {
  if (now.draft) return { parts: now.draft.parts, inForce: false };
  const sieve = now.state.sieve === null ? undefined : now.state.sieves.get(now.state.sieve);
  return { parts: sieve?.parts ?? NO_PARTS, inForce: sieve !== undefined };
}

/** Changes the conditions at hand; nothing is in force by it. What comes out as it was in force is no draft any more. */
export function changeParts(change: (parts: readonly Part[]) => readonly Part[]): void {
  const { state } = get();
  const sieve = state.sieve === null ? undefined : state.sieves.get(state.sieve);
  const from: Draft = get().draft ?? {
    sieve: sieve?.id ?? null,
    name: sieve?.name ?? '',
    parts: sieve?.parts ?? [],
  };
  const parts = change(from.parts);
  const same = sieve && from.sieve === sieve.id && JSON.stringify(parts) === JSON.stringify(sieve.parts);
  set({ draft: same || (parts.length === 0 && !sieve) ? null : { ...from, parts } });
}

/** One more condition, not yet in force. */
export function addCondition(condition: Condition): void {
  const id = outside().newId();
  changeParts((parts) =>
    parts.some((part) => JSON.stringify(part.condition) === JSON.stringify(condition))
      ? parts
      : [...parts, { id, condition, on: true }],
  );
}

/** Another condition in place of one. */
export const replaceCondition = (id: string, condition: Condition): void =>
  changeParts((parts) => parts.map((part) => (part.id === id ? { ...part, condition } : part)));

export const switchPart = (id: string): void =>
  changeParts((parts) => parts.map((part) => (part.id === id ? { ...part, on: !part.on } : part)));

/** Keeps what was dropped, and drops what was kept. */
export const turnPart = (id: string): void =>
  changeParts((parts) =>
    parts.map((part) =>
      part.id === id
        ? { ...part, condition: 'not' in part.condition ? part.condition.not : { not: part.condition } }
        : part,
    ),
  );

export const removeParts = (ids: readonly string[]): void =>
  changeParts((parts) => parts.filter(({ id }) => !ids.includes(id)));

/** Moves a condition among the others. @param by places, down where it is positive */
export const movePart = (id: string, by: number): void =>
  changeParts((parts) => {
    const from = parts.findIndex((part) => part.id === id);
    const to = Math.max(0, Math.min(parts.length - 1, from + by));
    const rest = parts.filter((part) => part.id !== id);
    return from < 0 ? parts : [...rest.slice(0, to), parts[from], ...rest.slice(to)];
  });

/** Several conditions become one of which any is enough; a single one of that form falls apart again. */
export function groupParts(ids: readonly string[]): void {
  changeParts((parts) => {
    const chosen = parts.filter(({ id }) => ids.includes(id));
    const [first] = chosen;
    if (!first) return parts;
    if (chosen.length === 1)
      return parts.flatMap((part): readonly Part[] => {
        const { condition } = part;
        if (part.id !== first.id || !('any' in condition)) return [part];
        return condition.any.map((one) => ({ id: outside().newId(), condition: one, on: part.on }));
      });
    const any = chosen.flatMap(({ condition }) => ('any' in condition ? condition.any : [condition]));
    return parts.flatMap((part): readonly Part[] =>
      part.id === first.id ? [{ ...part, condition: { any } }] : ids.includes(part.id) ? [] : [part],
    );
  });
}

/** Puts the conditions at hand in force: from now on every number is of the rows that they keep. */
export async function putInForce(why = ''): Promise<void> {
  const { draft, state } = get();
  if (!draft) return;
  set({ draft: null });
  const parts = [...draft.parts];
  const reason = why ? { why } : {};
  const known = draft.sieve !== null && state.sieves.has(draft.sieve);
  if (parts.length === 0) {
    if (known && draft.sieve !== null) await decide({ type: 'drop-sieve', sieve: draft.sieve });
    return;
  }
  if (known && draft.sieve !== null)
    await decide({ type: 'change-sieve', sieve: draft.sieve, parts, use: true, ...reason });
  else
    await decide({
      type: 'make-sieve',
      sieve: outside().newId(),
      name: draft.name,
      parts,
      use: true,
      ...reason,
    });
}

export const leaveDraft = (): void => set({ draft: null });

/** Puts a sieve that there is in force; `null` for all rows. */
export function sieveBy(id: string | null): void {
  if (get().state.sieve === id) return;
  void decide({ type: 'use-sieve', sieve: id });
}

/** Gives the sieve at hand a name; one that is being made takes it along. */
export function nameSieve(name: string): void {
  const { draft, state } = get();
  if (draft && draft.sieve === null) set({ draft: { ...draft, name } });
  else {
    const id = draft?.sieve ?? state.sieve;
    if (id !== null && state.sieves.has(id)) void decide({ type: 'name-sieve', sieve: id, name });
  }
}
