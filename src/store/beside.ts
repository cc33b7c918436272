import { askKept } from './opening';
import { useSession } from './session';

const { getState: get, setState: set } = useSession;

/** Holds the open extract beside an earlier one that is kept here, and shows what came, went and changed. */
export async function holdBeside(id: string, name: string): Promise<void> {
  if (!get().opened) return;
  const beside = await askKept(id, name);
  if (beside) set({ asking: 'beside', beside });
}
