import { validOf } from '../../infer/levels';
import { rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/** Blanks that do not show: leading, trailing, doubled, non-breaking. They part what belongs together. */
export const strayWhitespace: VariableRule = {
  rule: 'stray-whitespace',
  needs: 'tally',
  answers: 'codes',
  pattern: 'everywhere',
  look,
};

const bare = (text: string): string =>
  text.replace(/[\s\u00a0\u2000-\u200b\u202f\u205f\u3000\ufeff]+/gu, ' ').trim();
export const hasStrayBlanks = (text: string): boolean => bare(text) !== text;

function look({ name, kind, written, levels }: Subject): Flag[] {
  if (written.storage !== 'text') return [];
  const valid = validOf(levels).levels;
  // In free text a doubled blank or a line break is nothing; at the ends and among codes it is.
  const odd = valid.filter(({ code }) =>
    kind === 'text' ? code.trim() !== code || /\u00a0/.test(code) : hasStrayBlanks(code),
  );
  if (odd.length === 0) return [];
  const rows = odd.reduce((sum, { count }) => sum + count, 0);
  const known = new Set(valid.map(({ code }) => code));
  const parts = odd.some(({ code }) => known.has(bare(code)));
  const shown = (text: string): string =>
    `“${text
      .replace(/\u00a0/g, '⍽')
      .replace(/^\s+|\s+$/g, (blanks) => '␣'.repeat(blanks.length))
      .replace(/ {2,}/g, (blanks) => '␣'.repeat(blanks.length))}”`;
  return [
    {
      rule: 'stray-whitespace',
      variables: [name],
      codes: kind === 'text' ? [] : odd.slice(0, 50).map(({ code }) => code),
      rows,
      severity: parts ? 'medium' : 'low',
      certainty: 0.96,
      ...(kind === 'text'
        ? {}
        : { into: Object.fromEntries(odd.slice(0, 50).map(({ code }) => [code, bare(code)])) }),
      says: `${rowsHold(rows)} blanks that do not show: ${odd
        .slice(0, 3)
        .map(({ code }) => shown(code.slice(0, 40)))
        .join(', ')}${parts ? ', beside the same without them' : ''}`,
    },
  ];
}
