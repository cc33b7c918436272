import { rowsOf, validOf } from '../../infer/levels';
import { LOOK, looksOf } from '../../read/text-looks';
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
/** Where they are sought: spaced texts have no needless blank, as most do. */
const UNSPACED = { none: LOOK.spaced };

/** Names are short, and hardly any has a doubled blank; prose has them as it likes. */
const NAME = 60;
const FEW = 0.1;

function inTexts({ name, kind, levels }: Subject): Flag[] {
  const valid = validOf(levels).levels;
  const doubled = valid.whereCode(hasStrayBlanks, UNSPACED);
  const isNames =
    doubled.length <= valid.length * FEW &&
    valid.whereCode((code) => /[\n\t]/.test(code), { none: LOOK.plain }).length === 0 &&
    valid.hasCodesWithin(NAME);
  // In free text a doubled blank or a line break is nothing; at the ends and among codes it is.
  const odd =
    kind === 'text' && !isNames
      ? valid.whereCode((code) => code.trim() !== code || /\u00a0/.test(code), UNSPACED)
      : doubled;
  if (odd.length === 0) return [];
  const rows = rowsOf(odd);
  const known = new Set(valid.codes);
  const codes = odd.codes;
  const parts = codes.some((code) => known.has(bare(code)));
  const named = kind === 'text' && !isNames ? [] : codes.slice(0, 50);
  return [
    {
      rule: 'stray-whitespace',
      variables: [name],
      codes: named,
      rows,
      severity: parts ? 'medium' : 'low',
      certainty: 0.96,
      ...(named.length === 0 ? {} : { into: Object.fromEntries(named.map((code) => [code, bare(code)])) }),
      says: `${rowsHold(rows)} blanks that do not show: ${codes
        .slice(0, 3)
        .map((code) => shown(code.slice(0, 40)))
        .join(', ')}${parts ? ', beside the same without them' : ''}`,
    },
  ];
}

const shown = (text: string): string =>
  `“${text
    .replace(/\u00a0/g, '⍽')
    .replace(/^\s+|\s+$/g, (blanks) => '␣'.repeat(blanks.length))
    .replace(/ {2,}/g, (blanks) => '␣'.repeat(blanks.length))}”`;

const isWhite = (text: string, at: number): boolean => {
  const unit = text.charCodeAt(at);
  return unit <= 0x20 || unit >= 0x7f ? /\s/.test(text[at]) : false;
};
const isPadded = (text: string): boolean => isWhite(text, 0) || isWhite(text, text.length - 1);

/** Where more cells have them, the file pads its columns. */
const MOST_PADDED = 0.2;

/** Numbers and dates with a blank before or after them, where most have none: some programs read them as words. */
function besideNumbers({ name, levels, rowsWith }: Subject): Flag[] {
  const odd: string[] = [];
  if (!(looksOf(levels.levels.texts).any & LOOK.padded) && levels.levels.respelt.length === 0) return [];
  const { levels: valid } = validOf(levels);
  for (let i = 0; i < valid.length; i++) {
    const spellings = valid.spellings(i);
    if (spellings.length === 0) {
      if (isPadded(valid.code(i))) odd.push(valid.code(i));
    } else for (const text of spellings) if (isPadded(text)) odd.push(text);
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
