/** Work on one thing that no two windows may do at once. Where the browser has no locks, it is alone within its window. */
export async function alone<T>(what: string, work: () => Promise<T>): Promise<T> {
  const locks = lockManager();
  if (locks) return locks.request(lockName(what), work) as Promise<T>;
  const before = queues.get(what) ?? Promise.resolve();
  const now = before.then(work, work);
  queues.set(what, now);
  return now;
}

/** Does work while a lock is held that others can only ask about. */
export async function holding<T>(what: string, work: () => Promise<T>): Promise<T> {
  const locks = lockManager();
  return locks ? (locks.request(lockName(what), work) as Promise<T>) : work();
}

/** Whether any window holds a lock. */
export async function isHeld(what: string): Promise<boolean> {
  const { held = [] } = (await lockManager()?.query()) ?? {};
  return held.some(({ name }) => name === lockName(what));
}

const queues = new Map<string, Promise<unknown>>();
const lockName = (what: string): string => `dig-first:${what}`;
const lockManager = (): LockManager | undefined =>
  typeof navigator === 'undefined' ? undefined : (navigator.locks as LockManager | undefined);
