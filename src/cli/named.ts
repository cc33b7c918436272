import { InputError } from '../core/extract/problem';
import { nearNames } from '../core/extract/near-names';
import type { Inspector } from '../core/inspect/inspect';

/** Variables by the names that a command line gives, the archive's or a person's. */
export interface Named {
  has(name: string): boolean;
  /** The archive's name for a variable. @param option where it was named @throws InputError where there is none, with names that are near */
  one(name: string, option: string): string;
}

export function namedIn({ lookup, extract }: Inspector): Named {
  return {
    has: (name) => lookup(name) !== undefined,
    one: (name, option) => {
      const found = lookup(name);
      if (found) return found.name;
      const near = nearNames(
        name,
        extract.variables.map((variable) => variable.name),
      );
      throw new InputError({
        file: extract.name,
        element: `${option} ${name}`,
        says: `there is no variable ${name}; ${near.length ? `near are ${near.join(', ')}` : `there are ${extract.variables.length}, none of a name like it`}`,
      });
    },
  };
}
