import { useCallback, useEffect, useRef, useState } from 'react';
import type { Problem } from '../../core/extract/problem';
import type { ListAsk } from '../../core/inspect/listing';
import type { ListedRow } from '../../engine/records';
import { outside } from '../../store/outside';
import { useSession } from '../../store/session';

/** Rows and variables that are read together. */
const BLOCK = 64;
const GROUP = 12;
/** Blocks that are remembered. */
const MOST_BLOCKS = 600;

export interface Seen {
  first: number;
  last: number;
  /** Places of the first and the last column that are seen. */
  from: number;
  to: number;
}

export interface Records {
  /** A row with what identifies it; `null` while it is being read. */
  row: (place: number) => ListedRow | null;
  /** A cell; `undefined` while it is being read. */
  cell: (place: number, column: number) => ListedRow['cells'][number] | undefined;
  /** Changes whenever more of a row is there. */
  version: (place: number) => string;
  problem: Problem | null;
}

/** The part of a listing that is seen, read as it comes into sight, and kept while it may come back. */
export function useRecords(
  ask: ListAsk,
  pinned: readonly string[],
  columns: readonly string[],
  seen: Seen,
): Records {
  const laid = useSession((session) => session.laid);
  const blocks = useRef(new Map<string, ListedRow[]>());
  const [, drawAgain] = useState(0);
  const [problem, setProblem] = useState<Problem | null>(null);
  const key = JSON.stringify([laid, ask, pinned, columns]);
  const keyed = useRef(key);
  if (keyed.current !== key) {
    keyed.current = key;
    blocks.current = new Map();
  }
  const wanted = useRef({ ask, pinned, columns, seen });
  wanted.current = { ask, pinned, columns, seen };
  const busy = useRef(false);

  const read = useCallback(async (): Promise<void> => {
    if (busy.current) return;
    busy.current = true;
    try {
      // Whatever is in sight by now, until all of it is there.
      for (;;) {
        const now = keyed.current;
        const { ask: asked, pinned: first, columns: others, seen: sight } = wanted.current;
        const [next] = missingOf(sight, blocks.current);
        if (!next) return;
        const { block, group } = next;
        const names = group < 0 ? first : others.slice(group * GROUP, (group + 1) * GROUP);
        const answer = await outside().engine.ask('listedRows', asked, block * BLOCK, BLOCK, [...names]);
        if (now !== keyed.current) continue;
        if (!answer.ok) {
          setProblem(answer.problem);
          return;
        }
        setProblem(null);
        blocks.current.set(`${block} ${group}`, answer.value);
        for (const old of blocks.current.keys()) {
          if (blocks.current.size <= MOST_BLOCKS) break;
          blocks.current.delete(old);
        }
        drawAgain((n) => n + 1);
      }
    } finally {
      busy.current = false;
    }
  }, []);
  useEffect(() => {
    void read();
  }, [
    key,
    Math.floor(seen.first / BLOCK),
    Math.floor(seen.last / BLOCK),
    Math.floor(seen.from / GROUP),
    Math.floor(seen.to / GROUP),
  ]);

  const at = (place: number, group: number): ListedRow | null =>
    blocks.current.get(`${Math.floor(place / BLOCK)} ${group}`)?.[place % BLOCK] ?? null;
  return {
    row: (place) => at(place, -1),
    version: (place) => {
      const block = Math.floor(place / BLOCK);
      let there = '';
      for (let group = Math.floor(seen.from / GROUP); group <= Math.floor(seen.to / GROUP); group++)
        there += blocks.current.has(`${block} ${group}`) ? `${group} ` : '';
      return there;
    },
    cell: (place, column) => at(place, Math.floor(column / GROUP))?.cells[column % GROUP],
    problem,
  };
}

/** Blocks that are in sight and not there, those with what identifies the rows first. */
function missingOf(
  { first, last, from, to }: Seen,
  blocks: ReadonlyMap<string, unknown>,
): { block: number; group: number }[] {
  const missing: { block: number; group: number }[] = [];
  const groups = [-1];
  for (let group = Math.floor(from / GROUP); to >= from && group <= Math.floor(to / GROUP); group++)
    groups.push(group);
  for (const group of groups)
    for (let block = Math.floor(first / BLOCK); last >= first && block <= Math.floor(last / BLOCK); block++)
      if (!blocks.has(`${block} ${group}`)) missing.push({ block, group });
  return missing;
}
