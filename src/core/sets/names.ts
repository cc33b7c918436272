import { plain } from './words';

/** A variable's name taken apart: "hasRadio_12b" → tokens has, radio, 12, b. */
export interface NameParts {
  /** Runs of letters or digits, in lower case, in order. */
  tokens: readonly string[];
  /** The tokens that are words. */
  words: readonly string[];
  /** The name with its last number, letter or word open: "g19" → "g#", "v20a" → "v20@", "has_radio" → "has_*". */
  patterns: readonly string[];
}

export function partsOf(name: string): NameParts {
  const spaced = name.replace(/(\p{Ll})(\p{Lu})/gu, '$1_$2');
  const bare = plain(spaced);
  const tokens = bare.match(/\p{L}+|\d+/gu) ?? [];
  return {
    tokens,
    words: tokens.filter((token) => /^\p{L}/u.test(token)),
    patterns: patternsOf(bare),
  };
}

function patternsOf(bare: string): string[] {
  const patterns: string[] = [];
  // "v20a": a letter behind a digit or a mark.
  const lettered = /^(.*[\d_.])([a-z])$/.exec(bare);
  if (lettered) patterns.push(`${lettered[1]}@`);
  const numbered = /^(.*?)(\d{1,4})$/.exec(bare);
  if (numbered && numbered[1]) patterns.push(`${numbered[1]}#`);
  // "ap03_age": a number within.
  const within = /^(\D*)(\d{1,3})(\D.*)$/.exec(bare);
  if (within && !lettered) patterns.push(`${within[1]}#${within[3]}`);
  // "has_radio": a word behind a mark; "radio_has": one before it.
  const behind = /^(.*[_.])([^_.]+)$/.exec(bare);
  if (behind && !numbered && !lettered) patterns.push(`${behind[1]}*`);
  const before = /^([^_.]+)([_.].*)$/.exec(bare);
  if (before) patterns.push(`*${before[2]}`);
  return patterns;
}
