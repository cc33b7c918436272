import { InputError } from '../core/extract/problem';
import type { Inspector } from '../core/inspect/inspect';
import type { Inspection } from '../core/inspect/schema';
import { onlyOf } from '../core/inspect/sets-told';
import { setNamed } from '../core/sets/named';
import { give } from './files';
import { openedWithLog, type OpenOptions } from './open';

/** `dig inspect` */
export async function inspect(paths: string[], options: OpenOptions & { set?: string }): Promise<void> {
  const { inspector, replay } = await openedWithLog(paths, options);
  const document = inspector.document();
  if (replay) document.source.replay = replay;
  give(options.set === undefined ? document : ofSet(document, options.set, inspector), options.out);
}

/** The document with no variables and flags but those of a set. @throws InputError where there is no set of that name */
function ofSet(document: Inspection, name: string, inspector: Inspector): Inspection {
  const { variables: names, near } = setNamed(name, inspector.sets, inspector.proposals);
  if (names === null)
    throw new InputError({
      file: document.source.name,
      element: `--set ${name}`,
      says: near.length
        ? `there is no set of that name; near are ${near.map((one) => `“${one}”`).join(', ')}`
        : `there is no set of that name; there are ${document.sets.length} proposed, named under sets in the inspection`,
    });
  const { flags, ...narrowed } = onlyOf(document, names);
  // What is about rows as a whole is about no set.
  return { ...narrowed, flags: flags.filter(({ variables }) => variables.length > 0) };
}
