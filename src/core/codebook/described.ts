import type { Category } from '../extract/extract';
import { readPasted } from './pasted';

/** Fewer codes than this are an example, or a sentence with a number in it. */
const LEAST_CODES = 2;

/**
 * Codes with labels that stand in the text of a description: "1 = Owned; 2 = Rented". None where the text is anything else:
 * every part of it, after an introduction such as "Tenure:", has to be a code and its label.
 */
export function codesDescribed(text: string | null): Category[] {
  if (text === null) return [];
  for (const part of [text, ...text.split(/\r\n|\n|(?<=\p{L}[.?!])\s+/u), text.replace(/^[^:=]*:\s*/, '')]) {
    if (!/\d\s*(?:=|:|→|–|—|\s-\s)|\d[.)]\s/.test(part)) continue;
    const read = readPasted(part.replace(/[.;]\s*$/, ''));
    const found = read.flatMap(({ code, label, missing }) =>
      code === undefined || !label
        ? []
        : [{ code, label, missing: Boolean(missing), reason: missing ?? null, frequency: null }],
    );
    if (found.length >= LEAST_CODES && found.length === read.length) return found;
  }
  return [];
}
