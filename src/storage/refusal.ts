/** Why something cannot be kept. */
export type Refused =
  | { why: 'full' }
  | { why: 'blocked'; message: string }
  | { why: 'silent' }
  /** The extract was taken out of the browser, or another took its place. */
  | { why: 'removed' }
  | { why: 'replaced'; by: string }
  | { why: 'other'; message: string };

/** Thrown where an extract is no longer kept under its id. */
export class GoneError extends Error {
  constructor(readonly replacedBy: string | null) {
    super('the extract is no longer kept');
    this.name = 'GoneError';
  }
}
/** Thrown where storage does not answer in time. */
export class SilentError extends Error {
  constructor() {
    super('the storage does not answer');
    this.name = 'SilentError';
  }
}

export function refusedBy(cause: unknown): Refused {
  if (cause instanceof GoneError)
    return cause.replacedBy === null ? { why: 'removed' } : { why: 'replaced', by: cause.replacedBy };
  if (cause instanceof SilentError) return { why: 'silent' };
  const { name = '', message = '' } =
    cause instanceof Error || cause instanceof DOMException ? cause : { message: String(cause) };
  if (/quota/i.test(`${name} ${message}`)) return { why: 'full' };
  if (/SecurityError|No available storage|denied|not allowed|InvalidStateError/i.test(`${name} ${message}`))
    return { why: 'blocked', message: message || name };
  return { why: 'other', message: message || name || 'no reason given' };
}

/** Why it is not kept and what to do now, in words for the person. */
export function refusalText(refused: Refused): string {
  switch (refused.why) {
    case 'full':
      return 'The browser’s storage is full, so this is not kept. Work goes on in memory; remove kept extracts at the intake to make room, then keep it now.';
    case 'blocked':
      return `The browser allows this page no storage (${refused.message}), so nothing is kept. Work goes on in memory; hand off before closing the tab.`;
    case 'silent':
      return 'The browser’s storage does not answer, so this is not kept yet. Work goes on in memory; hand off before closing the tab, or try to keep it now.';
    case 'removed':
      return 'This extract was removed in another window, so it is kept no more. Work goes on in memory; keep it anew, or hand off before closing the tab.';
    case 'replaced':
      return 'Another window read this extract anew; it is opened here as it is now.';
    case 'other':
      return `The browser could not store this (${refused.message}). Work goes on in memory; try to keep it now, or hand off before closing the tab.`;
  }
}

/** A promise that fails where it takes too long; what it was for may still come to pass. @param limit in milliseconds */
export function inTime<T>(work: Promise<T>, limit: number): Promise<T> {
  return new Promise<T>((resolve, reject) => {
    const timer = setTimeout(() => reject(new SilentError()), limit);
    work.then(resolve, reject).finally(() => clearTimeout(timer));
  });
}
