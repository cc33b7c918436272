import { WordSet } from '../read/word-set';
import { AMBIGUOUS, fold, WORDS } from './missing-words';
import { putUnder } from '../extract/put-under';

/** Longer labels than this talk of something else too. */
const MOST_WORDS = 6;

/** Words that tell what became of an answer, and of many other things too: they count where hardly anything else is said. */
const OF_OTHER_THINGS: ReadonlySet<string> = new Set([
  'refused',
  'refusal',
  'declined',
  'verweigert',
  'verweigerung',
  'withheld',
  'suppressed',
  'unterdruckt',
  'no response',
  'non response',
  'not reported',
  'not stated',
  'not asked',
  'not surveyed',
  'not answered',
  'illegible',
  'not usable',
  'unable to say',
  'rehusa',
  'rehuso',
  'se niega',
]);
/** What may stand beside them. */
const BESIDE: ReadonlySet<string> = new Set(
  'to of or and the a an at all by in on it he she they i r respondent respondents interviewee interviewer person proxy item question questions survey interview answer answers answered say said tell code coded reason information data value values not no don t know dk applicable because yet other codes ausgesagt angabe antwort frage befragte befragter zu der die das de la le el of reponse respuesta pregunta item explicit'.split(
    ' ',
  ),
);

/** Whether a label reads like the absence of an answer, though nobody says that it is one. */
export function readsAsNoAnswer(label: string): boolean {
  if (!mayRead(label)) return false;
  const folded = fold(label);
  if (AMBIGUOUS.has(folded.trim())) return true;
  if (folded.trim().split(' ').length > MOST_WORDS) return false;
  // Only what begins with one of its words can be in it.
  return folded
    .trim()
    .split(' ')
    .some((first) =>
      BY_FIRST.get(first)?.some(
        (word) =>
          folded.includes(` ${word} `) &&
          ((!OF_OTHER_THINGS.has(word) && word.length > SHORT) || isAllOf(label, folded, word)),
      ),
    );
}

/** Words for no answer that mean nothing else, by the first word of each. */
const BY_FIRST = new Map<string, string[]>();
for (const [, words] of WORDS)
  for (const word of words) {
    if (AMBIGUOUS.has(word)) continue;
    const [first] = word.split(' ');
    putUnder(BY_FIRST, first, word);
  }

const BEGINNINGS = new WordSet([...BY_FIRST.keys(), ...[...AMBIGUOUS].map((word) => word.split(' ')[0])]);
/** Whether a text holds a word with which any of them begins; taken for granted of letters with accents. */
function mayRead(label: string): boolean {
  let begin = 0;
  for (let at = 0; at <= label.length; at++) {
    const unit = at < label.length ? label.charCodeAt(at) : 0x20;
    if (unit < 0x20 || unit > 0x7e) return true;
    const letter = unit | 0x20;
    if ((letter >= 0x61 && letter <= 0x7a) || (unit >= 0x30 && unit <= 0x39)) continue;
    if (at > begin && BEGINNINGS.has(label, begin, at)) return true;
    begin = at + 1;
  }
  return false;
}

/** Letters that are short for no answer are on number plates too. */
const SHORT = 4;

/** Whether words of other things, too, are all that a label says, or stand first and are parted from the rest. */
function isAllOf(label: string, folded: string, word: string): boolean {
  const rest = folded.replace(` ${word} `, ' ').trim();
  if (
    rest === '' ||
    rest.split(' ').every((one) => BESIDE.has(one) || (/^\d+$/.test(one) && /^\W*\d/.test(label)))
  )
    return true;
  const [first] = label.split(/[,:;/(–—-]/);
  return first !== label && fold(first).trim() === word;
}

/** Whether it is only one of those words that mean something else as well. */
export const isAmbiguous = (label: string): boolean => AMBIGUOUS.has(fold(label).trim());

/** Levels among words that stand for no word, as people write them where no codebook says so. */
const AMONG_WORDS =
  /^(unknown|not known|n\/?k|n\.k\.|unbekannt|inconnue?|desconocid[oa]|sconosciut[oa]|onbekend|okänd|ukendt|not (available|given|provided|recorded|specified|determined|stated|reported|disclosed|entered)|unspecified|undetermined|undisclosed|unstated|no data|no info(rmation)?|n\/?a|n\.a\.|#n\/a|null|nan|<na>|none given|k\.?\s?a\.?|s\/d|s\.d\.|n\.c\.|tbc|\?{1,3}|\.{1,3}|-{1,3}|–|—)$/i;
export const standsForNoWord = (text: string): boolean => AMONG_WORDS.test(text.trim());
