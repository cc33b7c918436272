import { largest } from '../../tally/extent';
import { isCategorical } from '../../extract/words';
import type { Level, LevelList } from '../../infer/level-list';
import { LEAST_CERTAINTY, round2, rowsHold, type Flag, type Subject, type VariableRule } from '../rule';
import { putUnder } from '../../extract/put-under';

/**
 * Levels that differ only in case, white space, punctuation, accents, or by one typing slip from a much more frequent
 * one. One flag for each word that has variants; its codes are the variants, not the word itself.
 *
 * Example: "Quillmere" 410 times, "quillmere" 3, "Quilmere" 2 → one flag with two codes, five rows.
 */
export const variantSpelling: VariableRule = {
  rule: 'variant-spelling',
  needs: 'tally',
  answers: 'codes',
  look,
};

/** Below this length one letter more or less is often another word: "one", "none". */
const LEAST_SLIP_LENGTH = 5;
/** A slip is at most this share of the word it is a slip of. */
const RARE = 0.1;
/** Slips are looked for among this many levels at most; beyond, the variable is free text. */
const MOST_LEVELS = 5000;

interface Word {
  level: Level;
  variants: { level: Level; certainty: number }[];
}

function look({ name, kind, written, levels, entry }: Subject): Flag[] {
  if (written.storage !== 'text' || !isCategorical(kind)) return [];
  const valid = levels.levels.filter(({ standing, code }) => standing === 'valid' && /[\p{L}]/u.test(code));
  if (valid.length < 2 || valid.length > MOST_LEVELS) return [];
  const documented = new Set(entry?.categories.map(({ code }) => code));
  const words = gatherSame(valid, documented);
  gatherSlips(words, documented);
  return words
    .map(({ level, variants }) => ({
      level,
      variants: variants.filter(({ certainty }) => certainty >= LEAST_CERTAINTY),
    }))
    .filter(({ variants }) => variants.length > 0)
    .map(({ level, variants }): Flag => {
      const rows = variants.reduce((sum, variant) => sum + variant.level.count, 0);
      const shown = variants
        .slice(0, 5)
        .map((variant) => `“${visible(variant.level.code)}”`)
        .join(', ');
      return {
        rule: 'variant-spelling',
        variables: [name],
        codes: variants.map((variant) => variant.level.code),
        rows,
        severity: 'medium',
        certainty: round2(largest(variants.map(({ certainty }) => certainty))),
        into: Object.fromEntries(variants.map((variant) => [variant.level.code, level.code])),
        says: `${rowsHold(rows)} ${shown}${variants.length > 5 ? ` and ${variants.length - 5} more` : ''} where ${level.count} have “${visible(level.code)}”`,
      };
    });
}

/** White space made visible where it is the only difference. */
const visible = (text: string): string =>
  text.replace(/^\s+|\s+$|\s{2,}|[\u00a0\u2000-\u200b]/g, (blanks) => '␣'.repeat(blanks.length));

/** What is left of a level without case, accents, white space and punctuation; signs between digits stay apart. */
export function bareForm(text: string): string {
  const folded = text.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();
  const sign = /\d/.test(folded) ? ' ' : '';
  // "<12" is not "12", nor "master+" "master".
  return folded.replace(/[^\p{L}\p{N}<>≤≥+±#%]+/gu, sign).trim();
}

/** Levels with the same bare form; the most frequent one is the word. */
function gatherSame(valid: LevelList, documented: ReadonlySet<string>): Word[] {
  const groups = new Map<string, Level[]>();
  for (const level of valid) {
    const key = bareForm(level.code);
    putUnder(groups, key, level);
  }
  return [...groups].flatMap(([, group]): Word[] => {
    group.sort(
      (a, b) => Number(documented.has(b.code)) - Number(documented.has(a.code)) || b.count - a.count,
    );
    const [level, ...others] = group;
    const own = others.filter(({ code }) => documented.has(code));
    const variants = others
      .filter(({ code }) => !documented.has(code))
      .map((variant) => ({ level: variant, certainty: 0.96 }));
    return [{ level, variants }, ...own.map((word) => ({ level: word, variants: [] }))];
  });
}

/** Rare words one slip away from a frequent one become its variants, with their own variants. */
function gatherSlips(words: Word[], documented: ReadonlySet<string>): void {
  const total = words.reduce((sum, { level }) => sum + level.count, 0);
  const byFrequency = [...words].sort((a, b) => b.level.count - a.level.count);
  const gone = new Set<Word>();
  for (const rare of [...byFrequency].reverse()) {
    const text = bareForm(rare.level.code);
    if (documented.has(rare.level.code)) continue;
    const read = misread(text);
    const meant =
      read === null
        ? undefined
        : byFrequency.find(
            (word) =>
              word !== rare &&
              !gone.has(word) &&
              rare.level.count <= word.level.count * RARE &&
              bareForm(word.level.code) === read,
          );
    if (meant) {
      meant.variants.push({ level: rare.level, certainty: MISREAD }, ...rare.variants);
      rare.variants = [];
      gone.add(rare);
      continue;
    }
    if (text.length < LEAST_SLIP_LENGTH) continue;
    const of = byFrequency.find(
      (word) =>
        word !== rare &&
        !gone.has(word) &&
        rare.level.count <= word.level.count * RARE &&
        oneSlipApart(text, bareForm(word.level.code)),
    );
    if (!of) continue;
    const certainty = slipCertainty(rare.level.count, of.level.count, text.length, total);
    if (certainty < LEAST_CERTAINTY) continue;
    of.variants.push({ level: rare.level, certainty }, ...rare.variants);
    rare.variants = [];
    gone.add(rare);
  }
}

/** Digits that are read or typed for letters, within a word: "0ak". */
const LOOK_ALIKE: Readonly<Record<string, string>> = { 0: 'o', 1: 'l', 5: 's' };
const MISREAD = 0.9;
const LEAST_WORD = 3;
function misread(text: string): string | null {
  return text.length >= LEAST_WORD &&
    /[015]/.test(text) &&
    !/[2346789]/.test(text) &&
    (text.match(/\p{L}/gu)?.length ?? 0) >= 2
    ? text.replace(/[015]/g, (digit) => LOOK_ALIKE[digit])
    : null;
}

/** The longer the word and the rarer the slip, the surer. A word that stands in one row of a hundred is its own word. */
function slipCertainty(rare: number, frequent: number, length: number, total: number): number {
  if (rare > Math.max(3, total * 0.01)) return 0;
  const length1 = Math.min(0.2, (length - LEAST_SLIP_LENGTH) * 0.05);
  const ratio = Math.min(0.2, Math.log10(frequent / rare) * 0.1);
  return 0.55 + length1 + ratio;
}

/** One letter too many, too few, another, or two near each other swapped; digits must agree. */
export function oneSlipApart(a: string, b: string): boolean {
  if (a === b || Math.abs(a.length - b.length) > 1) return false;
  if (a.replace(/\D/g, '') !== b.replace(/\D/g, '')) return false;
  let start = 0;
  while (start < a.length && start < b.length && a[start] === b[start]) start++;
  let enda = a.length;
  let endb = b.length;
  while (enda > start && endb > start && a[enda - 1] === b[endb - 1]) {
    enda--;
    endb--;
  }
  const left = a.slice(start, enda);
  const right = b.slice(start, endb);
  if (left.length <= 1 && right.length <= 1) return true;
  // Two letters that changed places, next to each other or across a third: "bycicle".
  return (
    left.length === right.length &&
    (left.length === 2 || left.length === 3) &&
    left[0] === right[left.length - 1] &&
    left[left.length - 1] === right[0] &&
    left.slice(1, -1) === right.slice(1, -1)
  );
}
