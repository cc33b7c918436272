import type { Reason } from '../extract/words';

/**
 * Words by which labels say that a code is no answer, in English, German, French and Spanish. The order decides:
 * the first list with a hit gives the reason. Matched as whole words after folding case and accents.
 */
const WORDS: readonly (readonly [Reason, readonly string[]])[] = [
  ['not-asked', [
    'not in universe', 'niu', 'not applicable', 'does not apply', 'inapplicable', 'n a', 'iap', 'inap', 'not asked',
    'legitimate skip', 'valid skip', 'logical skip', 'question skipped', 'trifft nicht zu filter', 'filter', 'filtered', 'skipped', 'not eligible', 'not administered', 'not surveyed', 'missing by design', 'nap',
    'trifft nicht zu', 'nicht zutreffend', 'entfallt', 'nicht gefragt', 'nicht befragt', 'nicht erhoben', 'niet van toepassing', 'ikke aktuelt', 'sans objet', 'non applicable', 'non concerne', 'ne s applique pas', 'no aplica', 'no procede', 'no aplicable',
  ]],
  ['refused', [
    'refused', 'refusal', 'refuse', 'declined', 'prefer not to say', 'prefer not to answer', 'prefers not to say', 'would not say', 'rather not say', 'verweigert', 'verweigerung',
    'refus', 'ne souhaite pas repondre', 'rehusa', 'rehuso', 'rechaza', 'se niega',
  ]],
  ['dont-know', [
    'don t know', 'dont know', 'do not know', 'does not know', 'doesn t know', 'dk', 'not known', 'unknown', 'not sure', 'can t say', 'cannot say', 'unsure',
    'can t choose', 'cannot choose', 'unable to say', 'hard to say', 'no opinion', 'can t remember', 'weiss nicht', 'weiß nicht', 'weiss ich nicht', 'weiß ich nicht', 'unbekannt', 'weet niet', 'vet ikke', 'vet ej', 'vet inte', 'non sa', 'no lo sabe', 'ne sait pas', 'nsp', 'inconnu', 'no sabe', 'ns nc', 'desconocido',
  ]],
  ['suppressed', ['suppressed', 'withheld', 'confidential', 'not disclosed', 'undisclosed', 'unterdruckt', 'geheim', 'supprime', 'suprimido', 'confidencial']],
  ['no-answer', [
    'no answer', 'not answered', 'not stated', 'no response', 'non response', 'nonresponse', 'not ascertained', 'not available',
    'not reported', 'no report', 'not recorded', 'not provided', 'not given', 'not specified', 'unspecified', 'no information', 'no data', 'not determined', 'undetermined',
    'unable to determine', 'keine angabe', 'ohne angabe', 'keine antwort', 'k a', 'ka', 'geen antwoord', 'nessuna risposta', 'ei vastausta', 'ingen svar', 'inget svar', 'non renseigne', 'sin dato', 'sin informacion', 'non declare', 'sans reponse', 'non reponse', 'pas de reponse',
    'no contesta', 'no responde', 'sin respuesta', 'nr', 'na',
  ]],
  ['other', ['missing', 'fehlend', 'fehlt', 'manquant', 'valeur manquante', 'missing data', 'missing value', 'system missing', 'donnee manquante', 'perdido', 'blank', 'blank but applicable', 'sysmis', 'not coded', 'not codeable', 'not codable',
    'uncodeable', 'uncodable', 'unclassifiable', 'not classifiable', 'illegible', 'invalid', 'multiple response error', 'interview error', 'interview breakoff', 'breakoff', 'break off', 'not usable']],
];

/** Words that mean something else as well, such as household refuse: they count only where they are the whole label. */
const AMBIGUOUS: ReadonlySet<string> = new Set(['refuse', 'refus', 'filter', 'filtered', 'skipped', 'blank', 'missing', 'unknown', 'unbekannt', 'inconnu', 'desconocido', 'perdido', 'fehlt', 'fehlend', 'manquant',
  'not available', 'not known', 'not sure', 'unsure', 'not eligible', 'not given', 'not provided', 'no report', 'confidential', 'confidencial', 'geheim', 'suprimido', 'supprime', 'undisclosed', 'invalid', 'nap', 'na', 'nr', 'n a', 'ka', 'k a',
  'trifft nicht zu', 'no data', 'non sa', 'rechaza', 'break off', 'breakoff', 'no procede', 'unspecified', 'not specified', 'undetermined', 'not determined', 'not classifiable', 'not recorded', 'hard to say']);
/** Longer labels than this talk of something else too. */
const MOST_WORDS = 6;

const fold = (text: string): string =>
  ` ${text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ').trim()} `;

/** Why a label's code is no answer, by its words, where it is known to be none; `null` where no word says so. */
export function reasonOfLabel(label: string): Reason | null {
  const folded = fold(label);
  for (const [reason, words] of WORDS) {
    for (const word of words) if (folded.includes(` ${word} `)) return reason;
  }
  return null;
}

/** Whether a label reads like the absence of an answer, though nobody says that it is one. */
export function readsAsNoAnswer(label: string): boolean {
  const folded = fold(label);
  if (AMBIGUOUS.has(folded.trim())) return true;
  return folded.trim().split(' ').length <= MOST_WORDS && WORDS.some(([, words]) => words.some((word) => !AMBIGUOUS.has(word) && folded.includes(` ${word} `)));
}

/** Whether it is only one of those words that mean something else as well. */
export const isAmbiguous = (label: string): boolean => AMBIGUOUS.has(fold(label).trim());
