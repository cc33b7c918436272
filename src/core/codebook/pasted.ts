import type { Reason } from '../extract/words';
import { reasonOfLabel } from './missing-words';
import { readsAsNoAnswer } from './no-answer';

/** What one line of a pasted list of codes was understood to say. */
export interface PastedLine {
  text: string;
  /** Absent where the line is not understood. */
  code?: string;
  /** Absent where a code stands alone. */
  label?: string;
  /** Set where the line marks the code as no answer, or its label reads so. */
  missing?: Reason | null;
  /** Why the line is not understood, or what is odd about it. */
  says?: string;
}

const CODE = String.raw`[-+−]?\d+(?:[.,]\d+)?|[A-Za-z]{1,3}\d{0,3}|\.[a-z]?|\d+[A-Za-z]`;
/** "1 Owned", "1. Owned", "1) Owned", "1 = Owned", "1: Owned", "1 - Owned", "[1] Owned", "(1) Owned", "1<tab>Owned". */
const CODE_FIRST = new RegExp(
  String.raw`^[\[("'“”]?\s*(${CODE})\s*[\])"'”]?\s*(?:\t+|\s*(?:=>?|:|→|–|—)\s*|\s*[.)]\s+|\s+-\s+|\s+)\s*["'“]?(.*?\p{L}.*?)["'”]?$`,
  'u',
);
/** "Owned outright (1)", "Owned outright = 1", "Owned outright .... 1", "Owned outright<tab>1". */
const CODE_LAST = new RegExp(
  String.raw`^["'“]?(.*?\p{L}.*?)["'”]?\s*(?:[\[(]\s*(${CODE})\s*[\])]|(?:=|:|\t|\.{2,}|…+|_{2,})\s*(${CODE}))$`,
  'u',
);
/** A count, a share, or both, as codebooks print them at the end of a line. */
const COUNTS = /(?:[\s|]+\d[\d,.\u00a0\u202f]*\s*%?)+\s*$/;
const MARKED = /[\s,;*]*(?:\((?:m|missing|mv|no answer code)\)|\[(?:m|missing|mv)\]|\*m|<missing>)\s*$/i;

/**
 * Reads a list of codes and labels as people copy it out of documents: one to a line, or several in one line parted by
 * ` / `, `;`, `|` or line breaks, code before label or after it, with counts behind that are left out.
 */
export function readPasted(text: string): PastedLine[] {
  const lines = text
    .split(/\r\n|\n|\r/)
    .map((line) => line.trim())
    .filter((line) => line !== '');
  const pieces = lines.flatMap(cutLine);
  const counted = pieces.filter(
    (piece) =>
      CODE_FIRST.test(piece) &&
      COUNTS.test(piece.replace(CODE_FIRST, '$2')) &&
      /\p{L}/u.test(piece.replace(COUNTS, '')),
  ).length;
  // Numbers at the end are counts only where nearly all lines have them: "2 Under 30" stays as it is.
  const strip = pieces.length > 1 && counted >= pieces.length * 0.8;
  const seen = new Set<string>();
  const unique = (line: PastedLine & { code: string }): PastedLine => {
    if (seen.has(line.code)) return { text: line.text, says: `the code ${line.code} stands above already` };
    seen.add(line.code);
    return line;
  };
  return pieces.map((piece): PastedLine => {
    const marked = MARKED.test(piece);
    const bare = piece.replace(MARKED, '').trim();
    const first = CODE_FIRST.exec(bare);
    const last = CODE_LAST.exec(bare);
    // A word of up to three letters is a code only if it looks like one: "A Owned", not "Do you".
    const wordCode = first && /^[a-z]/i.test(first[1]) && !/^[A-Z]{1,3}\d*$|^[a-z]$/.test(first[1]);
    const found =
      last && (!first || wordCode || /[([]/.test(bare)) && (!first || wordCode)
        ? { code: last[2] ?? last[3], label: last[1] }
        : first && !wordCode
          ? { code: first[1], label: first[2] }
          : null;
    if (!found && /^[-+−]?\d+(?:[.,]\d+)?$/.test(bare))
      return unique({ text: piece, code: bare.replace('−', '-'), says: 'no label' });
    if (!found)
      return {
        text: piece,
        says: /^\s*[-+]?\d+\s*(?:-|–|to)\s*\d+/.test(bare)
          ? 'a range of codes; write each code on a line of its own'
          : 'no code found at the beginning or the end',
      };
    const code = found.code.replace('−', '-');
    const label = (strip ? found.label.replace(COUNTS, '') : found.label)
      .replace(/\s*[.…_]{3,}\s*$/, '')
      .replace(/\s+/g, ' ')
      .trim();
    return unique({
      text: piece,
      code,
      label,
      missing: readsAsNoAnswer(label) ? (reasonOfLabel(label) ?? 'other') : marked ? 'other' : null,
    });
  });
}

/** Several codes in one line are parted; one in a line stays whole. */
function cutLine(line: string): string[] {
  for (const sign of [
    /\s+\/\s+/,
    /\s*;\s*/,
    /\s*\|\s*(?=[-+]?\d)/,
    /\s*,\s+(?=[-+]?\d+\s*[=:.)\s])/,
    /\s{3,}(?=[-+]?\d+\s*[=:.)\s])/,
  ]) {
    const parts = line
      .split(sign)
      .map((part) => part.trim())
      .filter((part) => part !== '');
    if (parts.length > 1 && parts.every((part) => CODE_FIRST.test(part) || CODE_LAST.test(part)))
      return parts;
  }
  return [line];
}
