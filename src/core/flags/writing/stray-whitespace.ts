import { validOf } from '../../infer/levels';
import { rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/** Blanks that do not show: leading, trailing, doubled, non-breaking. They part what belongs together. */
export const strayWhitespace: VariableRule = {
  rule: 'stray-whitespace',
  needs: 'tally',
  answers: 'codes',
  pattern: 'everywhere',
  look: (subject) => (subject.written.storage === 'text' ? inTexts(subject) : besideNumbers(subject)),
};

const bare = (text: string): string =>
  text.replace(/[\s\u00a0\u2000-\u200b\u202f\u205f\u3000\ufeff]+/gu, ' ').trim();
export const hasStrayBlanks = (text: string): boolean => bare(text) !== text;

/** Names are short, and hardly any has a doubled blank; prose has them as it likes. */
const NAME = 60;
const FEW = 0.1;

function inTexts({ name, kind, levels }: Subject): Flag[] {
  const valid = validOf(levels).levels;
  const doubled = valid.filter(({ code }) => hasStrayBlanks(code));
  const isNames =
    doubled.length <= valid.length * FEW &&
    valid.every(({ code }) => code.length <= NAME && !/[\n\t]/.test(code));
  // In free text a doubled blank or a line break is nothing; at the ends and among codes it is.
  const odd =
    kind === 'text' && !isNames
      ? valid.filter(({ code }) => code.trim() !== code || /\u00a0/.test(code))
      : doubled;
  if (odd.length === 0) return [];
  const rows = odd.reduce((sum, { count }) => sum + count, 0);
  const known = new Set(valid.map(({ code }) => code));
  const parts = odd.some(({ code }) => known.has(bare(code)));
  return [
    {
      rule: 'stray-whitespace',
      variables: [name],
      codes: kind === 'text' && !isNames ? [] : odd.slice(0, 50).map(({ code }) => code),
      rows,
      severity: parts ? 'medium' : 'low',
      certainty: 0.96,
      ...(kind === 'text' && !isNames
        ? {}
        : { into: Object.fromEntries(odd.slice(0, 50).map(({ code }) => [code, bare(code)])) }),
      says: `${rowsHold(rows)} blanks that do not show: ${odd
        .slice(0, 3)
        .map(({ code }) => shown(code.slice(0, 40)))
        .join(', ')}${parts ? ', beside the same without them' : ''}`,
    },
  ];
}

const shown = (text: string): string =>
  `“${text
    .replace(/\u00a0/g, '⍽')
    .replace(/^\s+|\s+$/g, (blanks) => '␣'.repeat(blanks.length))
    .replace(/ {2,}/g, (blanks) => '␣'.repeat(blanks.length))}”`;

const isPadded = (text: string): boolean => /^\s|\s$/.test(text);

/** Where more cells have them, the file pads its columns. */
const MOST_PADDED = 0.2;

/** Numbers and dates with a blank before or after them, where most have none: some programs read them as words. */
function besideNumbers({ name, levels, rowsWith }: Subject): Flag[] {
  const odd: string[] = [];
  for (const { code, spellings } of validOf(levels).levels) {
    if (isPadded(code) && spellings.length === 0) odd.push(code);
    for (const text of spellings) if (isPadded(text)) odd.push(text);
  }
  if (odd.length === 0) return [];
  const rows = rowsWith?.(odd) ?? odd.length;
  if (rows > (levels.rows - levels.blank) * MOST_PADDED) return [];
  return [
    {
      rule: 'stray-whitespace',
      variables: [name],
      codes: odd.slice(0, 50),
      rows,
      severity: 'low',
      certainty: 0.96,
      says: `${rowsHold(rows)} a number with a blank beside it that does not show: ${odd.slice(0, 3).map(shown).join(', ')}`,
    },
  ];
}
