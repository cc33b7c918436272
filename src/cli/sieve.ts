import { InputError } from '../core/extract/problem';
import { nearNames } from '../core/extract/near-names';
import type { Inspector } from '../core/inspect/inspect';
import type { Entry } from '../core/log/entries';
import { readSieve, variablesOf, type SieveFile } from '../core/sieve/condition';
import { conditionSays } from '../core/sieve/says';
import { misfitOf, unheld } from '../core/sieve/sift';
import { parsedJson } from './files';

/** The sieve of a file. @throws InputError where it is none, with the place in it */
export function readSieveFile(path: string): SieveFile {
  const read = readSieve(parsedJson(path, 'give a sieve that was saved, or write one'));
  if ('sieve' in read) return read.sieve;
  throw new InputError({ file: path, ...read });
}

/** The sieve as a decision, in force. */
export const sieveEntry = ({ name, conditions }: SieveFile): Entry => ({
  type: 'make-sieve',
  id: 'sieve',
  at: new Date(0).toISOString(),
  why: 'given on the command line',
  sieve: 'given',
  name,
  parts: conditions.map((condition, i) => ({ id: String(i), condition, on: true })),
  use: true,
});

/** @returns codes that no row holds, in words @throws InputError where a condition does not fit the extract */
export function fitting({ conditions }: SieveFile, path: string, { lookup, extract }: Inspector): string[] {
  for (const [i, condition] of conditions.entries()) {
    const says = misfitOf(condition, lookup);
    if (says === null) continue;
    const gone = variablesOf(condition).find((name) => !lookup(name));
    const near =
      gone === undefined
        ? []
        : nearNames(
            gone,
            extract.variables.map(({ name }) => name),
          );
    throw new InputError({
      file: path,
      element: `conditions.${i}`,
      says: `${says}${near.length ? `; near are ${near.join(', ')}` : ''} (${conditionSays(condition)})`,
    });
  }
  return conditions.flatMap((condition) =>
    unheld(condition, lookup).map(({ variable, code }) => `${path}: no row holds ${code} in ${variable}`),
  );
}
