'use client';

import { useEffect } from 'react';
import type { CrossDocument } from '../../core/inspect/cross-document';
import { changeCross, conditionOfCell, keepTable, lookAtCell, turnRound } from '../../store/cross';
import { askRecode } from '../../store/recodes';
import { useSession } from '../../store/session';
import { isTyping } from '../keys/keys';
import { press } from '../keys/table';
import { codesAt, remarkable, sizeOf, type At } from './cellsAt';
import { nextShares } from './CrossBar';
import { askSide } from './Sides';

/** The keys of the tables. @param told `null` while nothing is counted */
export function useCrossKeys(
  told: CrossDocument | null,
  copy: () => void,
): (event: React.KeyboardEvent) => void {
  const at = useSession((session) => session.crossing.at);
  // The cell at hand is in sight whenever it changes.
  useEffect(() => {
    if (at)
      requestAnimationFrame(() =>
        document.querySelector('.crosstable td.at')?.scrollIntoView({ block: 'nearest', inline: 'nearest' }),
      );
  }, [at]);
  return (event) => {
    if (isTyping(event)) return;
    const { crossing } = useSession.getState();
    const go = (move: (at: At, size: { lines: number; columns: number }) => Partial<At>): boolean => {
      if (!told) return false;
      const size = sizeOf(told);
      const from = crossing.at ?? { table: 0, line: 0, column: 0 };
      const moved = crossing.at ? { ...from, ...move(from, size) } : from;
      const clamp = (place: number, end: number): number => Math.max(0, Math.min(end - 1, place));
      changeCross({
        at: {
          table: clamp(moved.table, told.tables.length),
          line: clamp(moved.line, size.lines),
          column: clamp(moved.column, size.columns),
        },
      });
      return true;
    };
    const nextOut = (step: 1 | -1): boolean => {
      if (!told) return false;
      const all = remarkable(told, crossing.skip);
      if (all.length === 0) return false;
      const order = ({ table, line, column }: At): number => (table * 1e6 + line) * 1e4 + column;
      const here = crossing.at ? order(crossing.at) : -1;
      const next = step > 0 ? all.find((one) => order(one) > here) : all.findLast((one) => order(one) < here);
      changeCross({ at: next ?? (step > 0 ? all[0] : all[all.length - 1]) });
      return true;
    };
    const onCell = (does: (at: ReturnType<typeof codesAt>) => void): boolean => {
      if (!told || !crossing.at || (event.target as HTMLElement).closest('button, a')) return false;
      does(codesAt(told, crossing.at));
      return true;
    };
    const meant = press('cross', event.nativeEvent, {
      lineUp: () => go(({ line }) => ({ line: line - 1 })),
      lineDown: () => go(({ line }) => ({ line: line + 1 })),
      columnLeft: () => go(({ column }) => ({ column: column - 1 })),
      columnRight: () => go(({ column }) => ({ column: column + 1 })),
      firstCell: () => go(() => ({ line: 0, column: 0 })),
      lastCell: () => go((_, { lines, columns }) => ({ line: lines - 1, column: columns - 1 })),
      nextTable: () => go(({ table }) => ({ table: table + 1 })),
      tableBefore: () => go(({ table }) => ({ table: table - 1 })),
      nextOut: () => nextOut(1),
      outBefore: () => nextOut(-1),
      rowsOfCell: () => onCell((one) => void lookAtCell(one)),
      keepCell: () => onCell((one) => void conditionOfCell(one, false)),
      dropCell: () => onCell((one) => void conditionOfCell(one, true)),
      fillDown: () => askSide('down'),
      fillAcross: () => askSide('across'),
      fillWithin: () => askSide('within'),
      fillMeasure: () => askSide('measure'),
      turn: turnRound,
      shares: nextShares,
      states: () => changeCross({ withMissing: !crossing.withMissing, at: null }),
      small: () => changeCross({ blank: !crossing.blank }),
      bandSide: () => {
        if (crossing.down === null) return false;
        askRecode(crossing.down, 'down');
      },
      bandAcross: () => {
        if (crossing.across === null) return false;
        askRecode(crossing.across, 'across');
      },
      copyTable: copy,
      keepTable: () => void keepTable(),
      againstAll: () => askSide('everything'),
    });
    if (meant) event.preventDefault();
  };
}
