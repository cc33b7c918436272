import type { Flag } from '../core/flags/rule';
import { entryOf, type Decision } from '../core/log/entries';
import { lastInForce } from '../core/log/fold';
import type { RowName } from '../core/extract/row-names';
import { enter } from './desk';
import { outside } from './outside';
import { atHand, useSession } from './session';

const { getState: get, setState: set } = useSession;

/** What tells a flag from all others, as long as it is the same. */
export const flagKey = ({ rule, variables, codes }: Flag): string => JSON.stringify([rule, variables, codes]);

/**
 * A person decides: the entry joins the log, is kept, and is laid over the extract. Resolves when it is laid.
 * @param answers flags that are a question no more, also while they still wait to be counted anew
 */
export function decide(decision: Decision, answers: readonly Flag[] = []): Promise<void> {
  if (answers.length) set((now) => ({ answered: new Set([...now.answered, ...answers.map(flagKey)]) }));
  return enter(entryOf(decision, outside().newId(), outside().now()));
}

/** Sets rows aside: they count nowhere. @param rows zero-based, of the whole extract */
export async function setRowsAside(
  rows: readonly number[],
  rule: string | null,
  { why, answers = [] }: { why?: string; answers?: readonly Flag[] } = {},
): Promise<void> {
  const named = await outside().engine.ask('nameRows', [...rows]);
  if (!named.ok) set({ problem: named.problem });
  else if (named.value.length)
    await decide({ type: 'set-aside', rows: named.value, rule, ...(why ? { why } : {}) }, answers);
}

/** Sets all rows of flags aside, also those that a flag was not told with. */
export async function setFlaggedAside(
  flags: readonly Flag[],
  { why, answers = [] }: { why?: string; answers?: readonly Flag[] } = {},
): Promise<void> {
  const named = new Map<string, RowName>();
  for (const flag of flags) {
    const answer = await outside().engine.ask('rowsOfFlag', flag);
    if (!answer.ok) return set({ problem: answer.problem });
    for (const name of answer.value) named.set(JSON.stringify(name), name);
  }
  const [rule = null] = flags.map((flag) => flag.rule);
  if (named.size)
    await decide({ type: 'set-aside', rows: [...named.values()], rule, ...(why ? { why } : {}) }, answers);
}

/**
 * Counts rows again. A ruling that set these rows aside and no others is taken back; of one that set others aside, too, only
 * these are: one entry says so, however many rows there are.
 * @param rows zero-based
 */
export async function countAgain(rows: readonly number[]): Promise<void> {
  const found = await outside().engine.ask('asideBy', [...rows]);
  if (!found.ok) return set({ problem: found.problem });
  for (const { entry, others } of found.value) if (others === 0) await undo(entry.id);
  const back = found.value.flatMap(({ own, others }) => (others > 0 ? own : []));
  if (back.length) await decide({ type: 'count-again', rows: back });
}

/** Confirms the presumed kinds of what is at hand. */
export function confirmKinds(): void {
  const names = new Set(atHand(get()));
  const { kinds: confirmed } = get().state;
  const kinds = get()
    .summaries.filter(({ name }) => names.has(name) && !confirmed.has(name))
    .map(({ name, kind }) => ({ variable: name, kind }));
  if (kinds.length) void decide({ type: 'confirm-kind', kinds });
}

/** Signs off what is at hand, or takes that back where all of it is signed off. */
export function signOff(): void {
  const names = atHand(get());
  const { signedOff } = get().state;
  const done = !names.every((name) => signedOff.has(name));
  const touched = names.filter((name) => signedOff.has(name) !== done);
  if (touched.length) void decide({ type: 'sign-off', variables: touched, done });
}

export function undoLast(): Promise<void> {
  const last = lastInForce(get().log);
  return last ? undo(last.id) : Promise.resolve();
}

export const undo = (entry: string): Promise<void> => decide({ type: 'undo', entry });
