/** Everything that is asked of the browser's storage, as one thing that tests can replace. */
import { keepingLock, removeKept, renameKept, savedLog, sweep, takePlace } from './extracts';
import { openFound } from './found';
import { holding } from './locks';
import { appendEntries, openLog } from './log';
import { listKept } from './records';
import { keepStanding, openStanding } from './standing';
import { keepStartSecret } from './start-secret';
import { keepView, lastOpen, openView, setLastOpen } from './view';

export const browserStorage = {
  appendEntries,
  keepStanding,
  keepStartSecret,
  keepView,
  lastOpen,
  listKept,
  openFound,
  openLog,
  openStanding,
  openView,
  removeKept,
  renameKept,
  savedLog,
  setLastOpen,
  sweep,
  takePlace,
  /** Does work while other windows can see that an extract is being kept. */
  whileKeeping: <T>(id: string, work: () => Promise<T>): Promise<T> => holding(keepingLock(id), work),
  /** Asks the browser not to clear away what is kept when room is short. */
  persist: async (): Promise<void> => {
    await navigator.storage?.persist?.();
  },
};
export type BrowserStorage = typeof browserStorage;
