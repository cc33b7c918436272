/** Whether all rows of an extract are held in memory, or a sample of them while all are counted as they pass. */
export type Hold = 'all' | 'sample';

export interface Holding {
  hold: Hold;
  /** Bytes that holding all would take, about. */
  takes: number;
}

/** Gigabytes that a machine has, where nothing tells, and the part of them that one page may use. */
const USUAL = 4;
const OF_MACHINE = 0.25;
/** Bytes of memory that a page may use. @param machine what a browser tells of it: at most 8 GB, some tell nothing */
export const roomIn = (machine: object = {}): number =>
  ('deviceMemory' in machine && typeof machine.deviceMemory === 'number' ? machine.deviceMemory : USUAL) *
  OF_MACHINE *
  1e9;

/** Memory that columns take, for each byte of text. */
const FOR_EACH_BYTE = 1.6;
/** What is there besides. */
const BESIDES = 150e6;
/** Bytes of text in a packed byte. */
const UNPACKED = 6;

/**
 * Which way fits into memory.
 * @param files with their size in bytes as delivered @param room bytes of memory that may be used
 */
export function holdingIn(files: readonly { bytes: number; packed: boolean }[], room: number): Holding {
  const text = files.reduce((sum, { bytes, packed }) => sum + bytes * (packed ? UNPACKED : 1), 0);
  const takes = text * FOR_EACH_BYTE + BESIDES;
  return { hold: takes > room ? 'sample' : 'all', takes };
}
