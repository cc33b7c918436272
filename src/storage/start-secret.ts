import { stores } from './stores';

const SECRET = 'secret';

/** Keeps the secret of this start of the program, which stands in the address that it printed. */
export const keepStartSecret = async (secret: string): Promise<void> =>
  void (await stores.start.setItem(SECRET, secret));

/** The secret of the last start whose address was opened here; `null` where none was, or storage does not answer. */
export async function startSecret(): Promise<string | null> {
  const kept: unknown = await stores.start.getItem(SECRET).catch(() => null);
  return typeof kept === 'string' ? kept : null;
}
