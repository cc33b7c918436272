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

export function isMarker(text: string): boolean {
  const bare = text.trim();
  if (bare.length > LONGEST_MARKER) return false;
  const folded = bare.toLowerCase();
  return MARKERS.has(folded) || ERROR_OR_POINT.test(folded);
}
