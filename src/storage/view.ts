import * as z from 'zod';
import { tableSchema } from '../core/cross/kept-table';
import { partSchema } from '../core/sieve/condition';
import { stores } from './stores';

const viewSchema = z.object({
  current: z.string().nullable(),
  chosen: z.array(z.string()),
  search: z.string(),
  sort: z.object({ by: z.string(), down: z.boolean() }),
  station: z.string(),
  seen: z.array(z.string()).default([]),
  narrow: z.record(z.string(), z.string()).default({}),
  /** A sieve that was being made. */
  draft: z
    .object({ sieve: z.string().nullable(), name: z.string(), parts: z.array(partSchema) })
    .nullable()
    .default(null),
  /** The table that the cross-checks showed. */
  crossing: tableSchema.nullable().default(null),
});
/** How the person left the screen. */
export type View = z.infer<typeof viewSchema>;

export async function keepView(id: string, view: View): Promise<void> {
  await stores.view.setItem(`${id}:view`, view);
}

/** @returns `damaged` where something is kept that cannot be read */
export async function openView(id: string): Promise<{ view: View | null; damaged: boolean }> {
  const value: unknown = (await stores.view.getItem(`${id}:view`)) ?? (await stores.view.getItem(id));
  if (value === null) return { view: null, damaged: false };
  const view = viewSchema.safeParse(value);
  return view.success ? { view: view.data, damaged: false } : { view: null, damaged: true };
}

/** The extract that was open last, to be opened again. */
export async function lastOpen(): Promise<{ id: string | null; damaged: boolean }> {
  const id: unknown = await stores.view.getItem('last-open');
  return typeof id === 'string' ? { id, damaged: false } : { id: null, damaged: id !== null };
}

export async function setLastOpen(id: string | null): Promise<void> {
  if (id === null) await stores.view.removeItem('last-open');
  else await stores.view.setItem('last-open', id);
}
