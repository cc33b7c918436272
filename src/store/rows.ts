import type { AddedRow } from '../core/log/changes';
import { askOrSay } from './asking';
import { decide } from './decisions';
import { outside } from './outside';

/** A cell that is to count for another text. `row`: zero-based, of the whole extract. */
export interface CellCorrection {
  row: number;
  variable: string;
  /** `null`: as it was received. */
  to: string | null;
}

/** Corrects cells: what was received stays in the data. */
export async function correctCells(cells: readonly CellCorrection[], why = ''): Promise<void> {
  const names = await askOrSay(
    'nameRows',
    cells.map(({ row }) => row),
  );
  const received = await askOrSay(
    'wholeCells',
    cells.map(({ row, variable }) => ({ row, variable })),
  );
  if (!names || !received || cells.length === 0) return;
  await decide({
    type: 'correct-cells',
    cells: cells.map(({ variable, to }, i) => ({
      row: names[i],
      variable,
      from: received[i].raw,
      to: to ?? received[i].raw,
    })),
    rule: null,
    ...(why.trim() ? { why: why.trim() } : {}),
  });
}

/** Adds rows behind all others. */
export async function addRows(rows: readonly AddedRow['cells'][], why = ''): Promise<void> {
  if (rows.length === 0) return;
  await decide({
    type: 'add-rows',
    rows: rows.map((cells) => ({ id: outside().newId(), cells: { ...cells } })),
    ...(why.trim() ? { why: why.trim() } : {}),
  });
}
