import { create } from 'zustand';

/** What stands in a cell of the record table. */
export const FACES = { code: 'code and label', label: 'label and code', raw: 'raw text' } as const;
export type Face = keyof typeof FACES;

interface TableLook {
  face: Face;
  /** Pixels of columns that a person made wider or narrower, by variable. */
  widths: Record<string, number>;
  /** Variables in the order to which a person moved them, by extract. */
  moved: Record<string, string[]>;
}

const KEY = 'dig-first-record-table';
const USUAL: TableLook = { face: 'code', widths: {}, moved: {} };
export const USUAL_WIDTH = 132;
export const LEAST_WIDTH = 48;
const MOST_WIDTH = 900;
/** Extracts whose order of columns is remembered. */
const MOST_MOVED = 20;

/** As it was left; where the browser keeps nothing for this page, even asking for what it keeps is refused. */
function kept(): TableLook {
  try {
    if (typeof localStorage === 'undefined') return USUAL;
    const found = JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<TableLook>;
    return { ...USUAL, ...found, face: found.face && found.face in FACES ? found.face : USUAL.face };
  } catch {
    return USUAL;
  }
}

export const useTableLook = create<TableLook>(kept);
useTableLook.subscribe((now) => {
  try {
    localStorage.setItem(KEY, JSON.stringify(now));
  } catch {
    // What is not kept is as usual the next time.
  }
});

export const nextFace = (): void =>
  useTableLook.setState(({ face }) => {
    const faces = Object.keys(FACES) as Face[];
    return { face: faces[(faces.indexOf(face) + 1) % faces.length] };
  });

export const widen = (name: string, width: number): void =>
  useTableLook.setState(({ widths }) => ({
    widths: { ...widths, [name]: Math.round(Math.max(LEAST_WIDTH, Math.min(MOST_WIDTH, width))) },
  }));

/** Moves a column among the others. @param names all columns in their order now @param by places, to the right where it is positive */
export function moveColumn(extract: string, names: readonly string[], name: string, by: number): void {
  const from = names.indexOf(name);
  const to = Math.max(0, Math.min(names.length - 1, from + by));
  if (from < 0 || from === to) return;
  const rest = names.filter((other) => other !== name);
  useTableLook.setState(({ moved }) => ({
    moved: Object.fromEntries(
      [
        ...Object.entries(moved).filter(([id]) => id !== extract),
        [extract, [...rest.slice(0, to), name, ...rest.slice(to)]] as [string, string[]],
      ].slice(-MOST_MOVED),
    ),
  }));
}

/** Columns in the order in which they stand: as they were moved, new ones where the ledger has them. */
export function inOrder(names: readonly string[], moved: readonly string[] | undefined): string[] {
  if (!moved) return [...names];
  const there = new Set(names);
  const known = new Set(moved);
  const ordered = moved.filter((name) => there.has(name));
  names.forEach((name, i) => {
    if (known.has(name)) return;
    const before = names.slice(0, i).findLast((other) => ordered.includes(other));
    ordered.splice(before === undefined ? 0 : ordered.indexOf(before) + 1, 0, name);
  });
  return ordered;
}
