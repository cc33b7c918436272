'use client';

import { create } from 'zustand';

/** Columns of the ledger that can be left out, with the room they take. */
export const COLUMN_NAMES = {
  position: 'No.',
  name: 'Name',
  label: 'Label',
  values: 'Values',
  kind: 'Kind',
  role: 'Role',
  storage: 'Storage',
  distinct: 'Distinct',
  valid: 'Make-up',
  sketch: 'Distribution',
  sets: 'Sets',
  flags: 'Flags',
  standing: 'Progress',
} as const;
export type ColumnKey = keyof typeof COLUMN_NAMES;

interface Columns {
  shown: ColumnKey[];
  /** Pixels of columns that a person made wider or narrower. */
  widths: Partial<Record<ColumnKey, number>>;
  /** What stands first. */
  first: 'name' | 'label';
}

const USUAL: Columns = {
  shown: ['position', 'name', 'label', 'kind', 'distinct', 'valid', 'sketch', 'flags', 'standing'],
  widths: {},
  first: 'name',
};
/** Name and label are always there: one alone does not tell a variable. */
export const ALWAYS: readonly ColumnKey[] = ['name', 'label'];
const ROOM: Record<Exclude<ColumnKey, 'name' | 'label'>, string> = {
  values: 'minmax(120px, 220fr)',
  position: '34px',
  kind: '90px',
  role: '78px',
  storage: '66px',
  distinct: '52px',
  valid: '62px',
  sketch: '72px',
  sets: 'minmax(60px, 110fr)',
  flags: '34px',
  standing: '22px',
};
const KEY = 'dig-first-columns';
export const LEAST_WIDTH = 40;

/** As they were left; where the browser keeps nothing for this page, even asking for what it keeps is refused. */
function kept(): Columns {
  try {
    if (typeof localStorage === 'undefined') return USUAL;
    const found = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Columns>;
    const shown = found.shown?.filter((key) => key in COLUMN_NAMES);
    return { ...USUAL, ...found, shown: shown?.length ? shown : USUAL.shown };
  } catch {
    return USUAL;
  }
}

export const useColumns = create<Columns>(kept);
useColumns.subscribe((now) => {
  try {
    localStorage.setItem(KEY, JSON.stringify(now));
  } catch {
    // A browser that keeps nothing forgets this too.
  }
});

/** The columns in their order. @param labelled whether any variable has a label: where none has, its values stand in that place */
export function orderOf({ shown, first }: Columns, labelled = true): ColumnKey[] {
  const all = (Object.keys(COLUMN_NAMES) as ColumnKey[]).filter((key) =>
    labelled
      ? ALWAYS.includes(key) || shown.includes(key)
      : key !== 'label' && (key === 'name' || key === 'values' || shown.includes(key)),
  );
  if (!labelled) return all;
  if (first === 'name') return all;
  const [name, label] = [all.indexOf('name'), all.indexOf('label')];
  return all.map((key, i) => (i === name ? 'label' : i === label ? 'name' : key));
}

/** Pixels of a character of a name and of a label, and the most and least of them that room is made for. */
const NAME = { each: 8.2, least: 9, most: 42, pixels: 76 };
const LABEL = { each: 7, least: 9, most: 44, pixels: 80 };
/** So many of a hundred texts are to be read whole. */
const READ_WHOLE = 0.95;

/** Names and labels share what the other columns leave by how long they are: without labels the names have nearly all of it. */
export function shares(texts: readonly { name: string; label: string | null }[]): {
  name: string;
  label: string;
} {
  const room = (lengths: number[], { each, least, most, pixels }: typeof NAME): string => {
    const usual = [...lengths].sort((a, b) => a - b)[Math.floor((lengths.length - 1) * READ_WHOLE)] ?? 0;
    return `minmax(${pixels}px, ${Math.round(each * Math.min(most, Math.max(least, usual)))}fr)`;
  };
  return {
    name: room(
      texts.map(({ name }) => name.length),
      NAME,
    ),
    label: room(
      texts.map(({ label }) => label?.length ?? 0),
      LABEL,
    ),
  };
}

/** Numbers of distinct values from here on take more room than usual, and what they take. */
const MANY = 100_000;
const LONG = '74px';
/** Room for the numbers of distinct values, where some are long. */
export const roomForDistinct = (
  summaries: readonly { counts: { distinct: number } }[],
): { distinct?: string } =>
  summaries.some(({ counts }) => counts.distinct >= MANY) ? { distinct: LONG } : {};

/** The grid that lays them out, behind the column for choosing. */
export const templateOf = (
  columns: Columns,
  shared: { name: string; label: string; distinct?: string },
  labelled = true,
): string =>
  [
    '26px',
    ...orderOf(columns, labelled).map((key) =>
      columns.widths[key]
        ? `${columns.widths[key]}px`
        : key === 'name' || key === 'label'
          ? shared[key]
          : ((key === 'distinct' ? shared.distinct : undefined) ?? ROOM[key]),
    ),
  ].join(' ');

export const widen = (key: ColumnKey, width: number): void =>
  useColumns.setState(({ widths }) => ({
    widths: { ...widths, [key]: Math.max(LEAST_WIDTH, Math.round(width)) },
  }));
export const toggleColumn = (key: ColumnKey): void =>
  useColumns.setState(({ shown }) => ({
    shown: shown.includes(key) ? shown.filter((other) => other !== key) : [...shown, key],
  }));
export const usualColumns = (): void => useColumns.setState(USUAL);
