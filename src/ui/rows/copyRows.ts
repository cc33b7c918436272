import type { ListAsk } from '../../core/inspect/listing';
import { counted, whole } from '../../core/handoff/words';
import { askOrSay } from '../../store/asking';
import { copyCells } from '../frame/copy';
import { useTableLook } from './tableLook';

/** More rows than these are no table to paste but a file: the handoff writes one. */
export const MOST_COPIED = 5000;

/** Copies a stretch of rows as a table, for a document and as text with tabs. @returns how many rows were copied */
export async function copyRows(
  ask: ListAsk,
  [from, to]: readonly [number, number],
  columns: readonly string[],
): Promise<number> {
  const listed = await askOrSay('listedRows', ask, from, Math.min(MOST_COPIED, to - from + 1), [...columns]);
  if (!listed) return 0;
  const { face } = useTableLook.getState();
  const lines = listed.map(({ cells }) =>
    cells.map(({ raw, code, label }) => {
      if (face === 'raw' || code === null) return raw;
      if (label === null) return code;
      return face === 'label' ? `${label} (${code})` : `${code} ${label}`;
    }),
  );
  const head = columns.map((text) => ({ text, head: true }));
  const copied = await copyCells([
    head,
    ...lines.map((cells) => cells.map((text) => ({ text, head: false }))),
  ]);
  return copied ? listed.length : 0;
}

/** How many of the rows wanted were copied. */
export function copiedSays(copied: number, wanted: number): string {
  if (copied === 0) return 'The browser did not let it be copied.';
  const rest = copied < wanted ? ` of ${whole(wanted)}: more are a file, not a table to paste` : '';
  return `${counted(copied, 'row')} copied${rest}.`;
}
