import type { Reason } from '../extract/words';

/**
 * Words by which labels say that a code is no answer, in English, German, French and Spanish. The order decides:
 * the first list with a hit gives the reason. Matched as whole words after folding case and accents.
 */
const WORDS: readonly (readonly [Reason, readonly string[]])[] = [
  [
    'not-asked',
    [
      'not in universe',
      'niu',
      'not applicable',
      'does not apply',
      'inapplicable',
      'n a',
      'iap',
      'inap',
      'not asked',
      'legitimate skip',
      'valid skip',
      'logical skip',
      'question skipped',
      'trifft nicht zu filter',
      'filter',
      'filtered',
      'skipped',
      'not eligible',
      'not administered',
      'not surveyed',
      'missing by design',
      'nap',
      'trifft nicht zu',
      'nicht zutreffend',
      'entfallt',
      'nicht gefragt',
      'nicht befragt',
      'nicht erhoben',
      'niet van toepassing',
      'ikke aktuelt',
      'sans objet',
      'non applicable',
      'non concerne',
      'ne s applique pas',
      'no aplica',
      'no procede',
      'no aplicable',
    ],
  ],
  [
    'refused',
    [
      'refused',
      'refusal',
      'refuse',
      'declined',
      'prefer not to say',
      'prefer not to answer',
      'prefers not to say',
      'would not say',
      'rather not say',
      'verweigert',
      'verweigerung',
      'refus',
      'ne souhaite pas repondre',
      'rehusa',
      'rehuso',
      'rechaza',
      'se niega',
    ],
  ],
  [
    'dont-know',
    [
      'don t know',
      'dont know',
      'do not know',
      'does not know',
      'doesn t know',
      'dk',
      'not known',
      'unknown',
      'not sure',
      'can t say',
      'cannot say',
      'unsure',
      'can t choose',
      'cannot choose',
      'unable to say',
      'hard to say',
      'no opinion',
      'can t remember',
      'weiss nicht',
      'weiß nicht',
      'weiss ich nicht',
      'weiß ich nicht',
      'unbekannt',
      'weet niet',
      'vet ikke',
      'vet ej',
      'vet inte',
      'non sa',
      'no lo sabe',
      'ne sait pas',
      'nsp',
      'inconnu',
      'no sabe',
      'ns nc',
      'desconocido',
    ],
  ],
  [
    'suppressed',
    [
      'suppressed',
      'withheld',
      'confidential',
      'not disclosed',
      'undisclosed',
      'unterdruckt',
      'geheim',
      'supprime',
      'suprimido',
      'confidencial',
    ],
  ],
  [
    'no-answer',
    [
      'no answer',
      'not answered',
      'not stated',
      'no response',
      'non response',
      'nonresponse',
      'not ascertained',
      'not available',
      'not reported',
      'no report',
      'not recorded',
      'not provided',
      'not given',
      'not specified',
      'unspecified',
      'no information',
      'no data',
      'not determined',
      'undetermined',
      'unable to determine',
      'keine angabe',
      'ohne angabe',
      'keine antwort',
      'k a',
      'ka',
      'geen antwoord',
      'nessuna risposta',
      'ei vastausta',
      'ingen svar',
      'inget svar',
      'non renseigne',
      'sin dato',
      'sin informacion',
      'non declare',
      'sans reponse',
      'non reponse',
      'pas de reponse',
      'no contesta',
      'no responde',
      'sin respuesta',
      'nr',
      'na',
    ],
  ],
  [
    'other',
    [
      'missing',
      'fehlend',
      'fehlt',
      'manquant',
      'valeur manquante',
      'missing data',
      'missing value',
      'system missing',
      'donnee manquante',
      'perdido',
      'blank',
      'blank but applicable',
      'sysmis',
      'not coded',
      'not codeable',
      'not codable',
      'uncodeable',
      'uncodable',
      'unclassifiable',
      'not classifiable',
      'illegible',
      'invalid',
      'multiple response error',
      'interview error',
      'interview breakoff',
      'breakoff',
      'break off',
      'not usable',
    ],
  ],
];

/** Words that mean something else as well, such as household refuse: they count only where they are the whole label. */
const AMBIGUOUS: ReadonlySet<string> = new Set([
  'refuse',
  'refus',
  'filter',
  'filtered',
  'skipped',
  'blank',
  'missing',
  'unknown',
  'unbekannt',
  'inconnu',
  'desconocido',
  'perdido',
  'fehlt',
  'fehlend',
  'manquant',
  'not available',
  'not known',
  'not sure',
  'unsure',
  'not eligible',
  'not given',
  'not provided',
  'no report',
  'confidential',
  'confidencial',
  'geheim',
  'suprimido',
  'supprime',
  'undisclosed',
  'invalid',
  'nap',
  'na',
  'nr',
  'n a',
  'ka',
  'k a',
  'trifft nicht zu',
  'no data',
  'non sa',
  'rechaza',
  'break off',
  'breakoff',
  'no procede',
  'unspecified',
  'not specified',
  'undetermined',
  'not determined',
  'not classifiable',
  'not recorded',
  'hard to say',
]);
/** Longer labels than this talk of something else too. */
const MOST_WORDS = 6;

const fold = (text: string): string =>
  ` ${text
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()} `;

/** Why a label's code is no answer, by its words, where it is known to be none; `null` where no word says so. */
export function reasonOfLabel(label: string): Reason | null {
  const folded = fold(label);
  for (const [reason, words] of WORDS) {
    for (const word of words) if (folded.includes(` ${word} `)) return reason;
  }
  return null;
}

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
  const folded = fold(label);
  if (AMBIGUOUS.has(folded.trim())) return true;
  if (folded.trim().split(' ').length > MOST_WORDS) return false;
  return WORDS.some(([, words]) =>
    words.some(
      (word) =>
        !AMBIGUOUS.has(word) &&
        folded.includes(` ${word} `) &&
        (!OF_OTHER_THINGS.has(word) || isAllOf(label, folded, word)),
    ),
  );
}

/** Whether words of other things, too, are all that a label says, or stand first and are parted from the rest. */
function isAllOf(label: string, folded: string, word: string): boolean {
  const rest = folded.replace(` ${word} `, ' ').trim();
  if (rest === '' || rest.split(' ').every((one) => BESIDE.has(one) || /^\d+$/.test(one))) return true;
  const [first] = label.split(/[,:;/(–—-]/);
  return first !== label && fold(first).trim() === word;
}

/** Whether it is only one of those words that mean something else as well. */
export const isAmbiguous = (label: string): boolean => AMBIGUOUS.has(fold(label).trim());

/** Levels among words that stand for no word, as people write them where no codebook says so. */
const AMONG_WORDS =
  /^(unknown|not known|n\/?k|n\.k\.|unbekannt|inconnue?|desconocid[oa]|sconosciut[oa]|onbekend|okänd|ukendt|not (available|given|provided|recorded|specified|determined|stated|reported|disclosed|entered)|unspecified|undetermined|undisclosed|unstated|no data|no info(rmation)?|n\/?a|n\.a\.|#n\/a|null|nan|<na>|none given|k\.?\s?a\.?|s\/d|s\.d\.|n\.c\.|tbc|\?{1,3}|\.{1,3}|-{1,3}|–|—)$/i;
export const standsForNoWord = (text: string): boolean => AMONG_WORDS.test(text.trim());
