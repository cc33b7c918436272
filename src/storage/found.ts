import * as z from 'zod';
import { stores } from './stores';

/** Which build of the program this is: what another one found may be other than what this one would find. */
const BUILD = process.env.DIG_BUILD ?? 'unbuilt';

const foundSchema = z.object({
  build: z.literal(BUILD),
  /** What it was found under: the log, and standing rules. */
  under: z.string(),
  opened: z.looseObject({ summaries: z.array(z.unknown()), flags: z.array(z.unknown()) }),
});

/** Keeps what is shown of an extract, so that it is there at once when it is opened again. */
export async function keepFound(id: string, under: string, opened: object): Promise<void> {
  await stores.found.setItem(`${id}:found`, { build: BUILD, under, opened });
}

/** What was found of an extract by this very program under the same log; `null` where nothing of the kind is kept. */
export async function openFound(id: string, under: string): Promise<object | null> {
  const found = foundSchema.safeParse(await stores.found.getItem(`${id}:found`));
  return found.success && found.data.under === under ? found.data.opened : null;
}
