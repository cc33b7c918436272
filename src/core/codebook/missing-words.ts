import type { Reason } from '../extract/words';

/**
 * Words by which labels say that a code is no answer, in English, German, French and Spanish. The order decides:
 * the first list with a hit gives the reason. Matched as whole words after folding case and accents.
 */
const WORDS: readonly (readonly [Reason, readonly string[]])[] = [
  ['not-asked', [
    'not in universe', 'niu', 'not applicable', 'does not apply', 'inapplicable', 'n a', 'iap', 'inap', 'not asked',
    'legitimate skip', 'valid skip', 'filter', 'filtered', 'skipped', 'not eligible', 'trifft nicht zu', 'entfallt', 'nicht gefragt',
    'nicht erhoben', 'sans objet', 'non applicable', 'non concerne', 'ne s applique pas', 'no aplica', 'no procede', 'no aplicable',
  ]],
  ['refused', [
    'refused', 'refusal', 'refuse', 'declined', 'prefer not to say', 'would not say', 'rather not say', 'verweigert', 'verweigerung',
    'refus', 'ne souhaite pas repondre', 'rehusa', 'rehuso', 'rechaza', 'se niega',
  ]],
  ['dont-know', [
    'don t know', 'dont know', 'do not know', 'does not know', 'doesn t know', 'dk', 'not known', 'unknown', 'not sure', 'can t say', 'cannot say', 'unsure',
    'can t remember', 'weiss nicht', 'weiß nicht', 'unbekannt', 'ne sait pas', 'nsp', 'inconnu', 'no sabe', 'ns nc', 'desconocido',
  ]],
  ['suppressed', ['suppressed', 'withheld', 'confidential', 'unterdruckt', 'geheim', 'supprime', 'suprimido', 'confidencial']],
  ['no-answer', [
    'no answer', 'not answered', 'not stated', 'no response', 'non response', 'nonresponse', 'not ascertained', 'not available',
    'not reported', 'no report', 'keine angabe', 'keine antwort', 'k a', 'non declare', 'sans reponse', 'non reponse', 'pas de reponse',
    'no contesta', 'no responde', 'sin respuesta', 'nr', 'na',
  ]],
  ['other', ['missing', 'fehlend', 'fehlt', 'manquant', 'valeur manquante', 'perdido', 'blank', 'not coded', 'interview error', 'not usable']],
];

const fold = (text: string): string =>
  ` ${text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase().replace(/[^\p{L}\p{N}]+/gu, ' ').trim()} `;

/** Why a label's code is no answer, by its words; `null` where the label reads like an answer. */
export function reasonOfLabel(label: string): Reason | null {
  const folded = fold(label);
  for (const [reason, words] of WORDS) {
    for (const word of words) if (folded.includes(` ${fold(word).trim()} `)) return reason;
  }
  return null;
}
