import { nearNames } from '../core/extract/near-names';
import { InputError } from '../core/extract/problem';
import type { Inspector } from '../core/inspect/inspect';
import type { Entry } from '../core/log/entries';
import { readRecodes, type Recode } from '../core/recode/recode';
import { unheld } from '../core/sieve/sift';
import { parsedJson } from './files';

/** The trial recodes of a file. @throws InputError where they are none, with the place */
export function readRecodesFile(path: string): Recode[] {
  const read = readRecodes(parsedJson(path, 'give trial recodes that were saved, or write some'));
  if ('recodes' in read) return read.recodes;
  throw new InputError({ file: path, ...read });
}

/** Trial recodes as decisions. */
export const recodeEntries = (recodes: readonly Recode[]): Entry[] =>
  recodes.map((recode, i) => ({
    type: 'make-recode',
    id: `recode ${i}`,
    at: new Date(0).toISOString(),
    why: 'given on the command line',
    recode,
  }));

/** @throws InputError for a name that is taken, or a variable that is not there, before anything is laid */
export function checkNames(recodes: readonly Recode[], path: string, { extract }: Inspector): void {
  const names = new Set(extract.variables.map(({ name }) => name));
  for (const [i, { name, of }] of recodes.entries()) {
    const element = `recodes.${i}`;
    if (names.has(name))
      throw new InputError({
        file: path,
        element,
        says: `there is a variable ${name} already; give the recode another name`,
      });
    if (!names.has(of)) {
      const near = nearNames(of, [...names]);
      throw new InputError({
        file: path,
        element,
        says: `there is no variable ${of}${near.length ? `; near are ${near.join(', ')}` : ''}`,
      });
    }
    names.add(name);
  }
}

/** @throws InputError for a recode that could not be made */
export function checkMade(path: string, { trialMisfits }: Inspector): void {
  const [says] = trialMisfits;
  if (says !== undefined) throw new InputError({ file: path, says });
}

/** Codes that recodes pick and no row holds, in words: that is no error, and may be a slip. */
export function unheldIn(recodes: readonly Recode[], path: string, { lookup }: Inspector): string[] {
  return recodes.flatMap((recode) => {
    const codes =
      'only' in recode
        ? recode.only
        : 'bands' in recode
          ? recode.bands.flatMap((band) => ('values' in band ? band.values : []))
          : [];
    return codes.length
      ? unheld({ variable: recode.of, codes }, lookup).map(
          ({ variable, code }) =>
            `${path}: no row holds ${code} in ${variable}, of which ${recode.name} is made`,
        )
      : [];
  });
}
