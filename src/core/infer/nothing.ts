/** Texts by which people write that there is nothing; they say nothing about how the rest is written. */
const MARKERS = new Set([
  'na',
  'n/a',
  '#n/a',
  '#null!',
  'n.a.',
  '.',
  '..',
  '...',
  '-',
  '--',
  '—',
  '–',
  '*',
  '?',
  'null',
  '(null)',
  'none',
  'nan',
  'nil',
  'unknown',
  'missing',
  'n/k',
  'nk',
  'dk',
  'nr',
  'x',
  '<na>',
  '\\n',
  '**',
  '***',
  '---',
  'tbd',
  'inf',
  '-inf',
]);
/** What spreadsheets write for an error, and points with a letter, which tell one reason for nothing from another. */
const ERROR_OR_POINT = /^(#(div\/0!|ref!|value!|name\?|num!)|\.[a-z])$/;

/** Of the markers, those that nobody writes for an answer or a tick. */
const NOTHING = /^(n\/?a|#n\/a|n\.a\.|null|\(null\)|nan|nil|<na>|\.{1,3}|-{1,3}|[—–]|\?)$/i;
export const saysNothing = (text: string): boolean => NOTHING.test(text.trim());

/** None of them is longer. */
const LONGEST_MARKER = 7;

/** Whether a sign is one that shows. */
function isSolid(text: string, at: number): boolean {
  const unit = text.charCodeAt(at);
  return unit > 0x20 && unit < 0x7f;
}

export function isMarker(text: string): boolean {
  // Long texts are none, unless there are blanks around them.
  if (text.length > LONGEST_MARKER && isSolid(text, 0) && isSolid(text, text.length - 1)) return false;
  const bare = text.trim();
  if (bare.length > LONGEST_MARKER) return false;
  const folded = bare.toLowerCase();
  return MARKERS.has(folded) || ERROR_OR_POINT.test(folded);
}
