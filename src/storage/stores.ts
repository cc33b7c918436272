import localforage from 'localforage';

/**
 * What the browser keeps, through localForage: per extract its record, its columns as binary in blocks, its log in batches,
 * how the person left the screen, and what was found last; and standing rules, which belong to no extract. All keys of one extract begin with
 * its id.
 */
export const stores = {
  extracts: localforage.createInstance({ name: 'dig-first-extracts' }),
  columns: localforage.createInstance({ name: 'dig-first-columns' }),
  log: localforage.createInstance({ name: 'dig-first-log' }),
  view: localforage.createInstance({ name: 'dig-first-view' }),
  found: localforage.createInstance({ name: 'dig-first-found' }),
  /** What this start of the program gave to whoever started it. */
  start: localforage.createInstance({ name: 'dig-first-start' }),
  standing: localforage.createInstance({ name: 'dig-first-standing-rules' }),
};

/** Keys of one extract in a store. */
export async function keysOf(store: LocalForage, id: string): Promise<string[]> {
  return (await store.keys()).filter((key) => key === id || key.startsWith(`${id}:`));
}
