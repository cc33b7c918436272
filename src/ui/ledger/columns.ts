'use client';

import { create } from 'zustand';

/** Columns of the ledger that can be left out, with the room they take. */
export const COLUMN_NAMES = { position: 'No.', name: 'Name', label: 'Label', kind: 'Kind', role: 'Role', storage: 'Storage', distinct: 'Distinct', valid: 'Make-up', sketch: 'Distribution', flags: 'Flags', standing: 'Progress' } as const;
export type ColumnKey = keyof typeof COLUMN_NAMES;

interface Columns {
  shown: ColumnKey[];
  /** Pixels of columns that a person made wider or narrower. */
  widths: Partial<Record<ColumnKey, number>>;
  /** What stands first. */
  first: 'name' | 'label';
}

const USUAL: Columns = { shown: ['position', 'name', 'label', 'kind', 'distinct', 'valid', 'sketch', 'flags', 'standing'], widths: {}, first: 'name' };
/** Name and label are always there: one alone does not tell a variable. */
export const ALWAYS: readonly ColumnKey[] = ['name', 'label'];
const ROOM: Record<ColumnKey, string> = { position: '34px', name: 'minmax(76px, 0.4fr)', label: 'minmax(130px, 1fr)', kind: '90px', role: '78px', storage: '66px', distinct: '52px', valid: '62px', sketch: '72px', flags: '34px', standing: '22px' };
const KEY = 'dig-first-columns';
export const LEAST_WIDTH = 40;

function kept(): Columns {
  try {
    const found = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Columns>;
    const shown = found.shown?.filter((key) => key in COLUMN_NAMES);
    return { ...USUAL, ...found, shown: shown?.length ? shown : USUAL.shown };
  } catch {
    return USUAL;
  }
}

export const useColumns = create<Columns>(() => (typeof localStorage === 'undefined' ? USUAL : kept()));
useColumns.subscribe((now) => {
  try {
    localStorage.setItem(KEY, JSON.stringify(now));
  } catch {
    // A browser that keeps nothing forgets this too.
  }
});

/** The columns in their order. */
export function orderOf({ shown, first }: Columns): ColumnKey[] {
  const all = (Object.keys(COLUMN_NAMES) as ColumnKey[]).filter((key) => ALWAYS.includes(key) || shown.includes(key));
  if (first === 'name') return all;
  const [name, label] = [all.indexOf('name'), all.indexOf('label')];
  return all.map((key, i) => (i === name ? 'label' : i === label ? 'name' : key));
}

/** The grid that lays them out, behind the column for choosing. */
export const templateOf = (columns: Columns): string => ['26px', ...orderOf(columns).map((key) => (columns.widths[key] ? `${columns.widths[key]}px` : ROOM[key]))].join(' ');

export const widen = (key: ColumnKey, width: number): void => useColumns.setState(({ widths }) => ({ widths: { ...widths, [key]: Math.max(LEAST_WIDTH, Math.round(width)) } }));
export const toggleColumn = (key: ColumnKey): void => useColumns.setState(({ shown }) => ({ shown: shown.includes(key) ? shown.filter((other) => other !== key) : [...shown, key] }));
export const usualColumns = (): void => useColumns.setState(USUAL);
