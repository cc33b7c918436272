import { BETWEEN_PULSES, pulse } from '../extract/pulse';
/**
 * How a column writes its numbers. Adornments that change no value (a sign, a currency, a percent sign, accounting
 * brackets, an exponent) are read under any form; which sign is the decimal mark has to be known.
 */
export interface NumberForm {
  decimal: '.' | ',';
  /** What stands between groups of three digits; `''` for nothing. A blank stands for every blank that is used so. */
  thousands: '' | ',' | '.' | ' ' | "'";
  /** Digits after a decimal point that is left out, as fixed-width files do; 0 where nothing is left out. */
  implied: number;
}

export const PLAIN: NumberForm = { decimal: '.', thousands: '', implied: 0 };

/** A number as programs write it: sign, digits, point, exponent; white space around it allowed. */
const BARE = /^\s*[+-]?(\d+\.?\d*|\.\d+)([eE][+-]?\d{1,3})?\s*$/;
/** What may stand around the digits: blanks, signs, brackets, currencies, percent. */
const CURRENCY = '(?:\\p{Sc}|EUR|USD|GBP|CHF|SEK|NOK|DKK|JPY|kr\\.?)';
const ADORNED_SOURCE = `^(\\()?\\s*([+\\-\u2212])?\\s*(?:${CURRENCY})?\\s*([+\\-\u2212])?\\s*(\\d[\\d.,'\u2019\\s\u00a0\u202f\u2009]*|[.,]\\d+)([eE][+-]?\\d{1,3})?\\s*([-\u2212])?\\s*(%|${CURRENCY})?\\s*(\\))?$`;
const ADORNED = new RegExp(ADORNED_SOURCE, 'u');
/**
 * The same for programs in other languages: without classes that not all of them know. Its parts are: opening bracket, sign,
 * sign, digits with what stands between, exponent, sign, currency or percent, closing bracket.
 */
export const adornedFor = (currencies: string): string =>
  ADORNED_SOURCE.replaceAll('\\p{Sc}', `[${currencies}]`)
    .replaceAll('\\d', '0-9')
    .replace(/(?<!\[)0-9(?![^[]*\])/g, '[0-9]');
/** How whole digits may be grouped under a form, for them. */
export const groupedFor = ({ thousands }: NumberForm): string =>
  GROUPED[thousands].source
    .replaceAll('\\d', '[0-9]')
    .replace(/\\u([0-9a-f]{4})/g, (_, code: string) => String.fromCharCode(Number.parseInt(code, 16)));

/** The only letters with which a number begins, and the first of each. */
const CURRENCY_FIRST = /^(?:EUR|USD|GBP|CHF|SEK|NOK|DKK|JPY|kr)/;
const FIRST_OF_CURRENCIES = 'EUGCSNDJk';
/** Whether a text begins with a letter, and with no currency: then it is no number, as most words show at once. */
export function beginsAsWord(text: string): boolean {
  const letter = text.charCodeAt(0) | 0x20;
  if (!(letter >= 0x61 && letter <= 0x7a)) return false;
  return !FIRST_OF_CURRENCIES.includes(text[0]) || !CURRENCY_FIRST.test(text);
}

export const readsAsBareNumber = (text: string): boolean => BARE.test(text);

interface Parts {
  digits: string;
  exponent: string;
  negative: boolean;
}

/** Parts of a text that may be a number under some form; `null` where no form can make it one. */
function partsOf(text: string): Parts | null {
  const found = ADORNED.exec(text.trim());
  if (!found) return null;
  const [, open, sign, inner, digits, exponent = '', after, , close] = found;
  if ((open === undefined) !== (close === undefined)) return null;
  const signs = [open, sign, inner, after].filter((part) => part !== undefined);
  if (signs.length > 1) return null;
  return { digits: digits.trim(), exponent, negative: signs.length === 1 && signs[0] !== '+' };
}

/** Whether a text could be a number under one form or another. */
export const couldBeNumber = (text: string): boolean =>
  BARE.test(text) || FORMS.some((form) => readNumber(text, form) !== null);

const GROUPED: Record<NumberForm['thousands'], RegExp> = {
  '': /^\d*$/,
  ',': /^([1-9]\d{0,2}(,\d{3})+|\d*)$/,
  '.': /^([1-9]\d{0,2}(\.\d{3})+|\d*)$/,
  ' ': /^([1-9]\d{0,2}([\s\u00a0\u202f\u2009]\d{3})+|\d*)$/,
  "'": /^([1-9]\d{0,2}(['\u2019]\d{3})+|\d*)$/,
};

/** The number that a text stands for under a form; `null` where it stands for none. */
export function readNumber(text: string, form: NumberForm = PLAIN): number | null {
  if (beginsAsWord(text)) return null;
  if (form.decimal === '.' && BARE.test(text)) return bareNumber(text, form);
  const parts = partsOf(text);
  return parts && numberOfParts(parts, form);
}

/**
 * The number that a text stands for under a form, written plainly and with all its digits: a sign where it is negative, a point
 * before decimals, an exponent only where it is needed. `null` where it stands for none.
 *
 * Example: `(€ 1.234,50)` with commas before decimals → `-1234.50`
 */
export function plainNumberText(text: string, form: NumberForm = PLAIN): string | null {
  const value = readNumber(text, form);
  if (value === null) return null;
  const parts = partsOf(text);
  if (!parts) return String(value);
  const { digits, exponent, negative } = parts;
  const at = digits.lastIndexOf(form.decimal);
  let whole = (at < 0 ? digits : digits.slice(0, at)).replace(/\D/g, '');
  let fraction = at < 0 ? '' : digits.slice(at + 1);
  if (form.implied > 0 && at < 0) {
    const padded = whole.padStart(form.implied + 1, '0');
    whole = padded.slice(0, -form.implied);
    fraction = padded.slice(-form.implied);
  }
  const plain = `${whole.replace(/^0+(?=\d)/, '') || '0'}${fraction ? `.${fraction}` : ''}`;
  if (exponent && Number.isSafeInteger(value)) return String(value);
  return `${negative ? '-' : ''}${plain}${exponent}`;
}

function bareNumber(text: string, form: NumberForm): number | null {
  const value = Number(text);
  return Number.isFinite(value) ? scaled(value, text, form) : null;
}

function numberOfParts(parts: Parts, form: NumberForm): number | null {
  const at = parts.digits.lastIndexOf(form.decimal);
  const whole = at < 0 ? parts.digits : parts.digits.slice(0, at);
  const fraction = at < 0 ? '' : parts.digits.slice(at + 1);
  if (!/^\d*$/.test(fraction) || !GROUPED[form.thousands].test(whole) || whole + fraction === '') return null;
  const value = Number(`${whole.replace(/\D/g, '')}.${fraction}${parts.exponent}`);
  return Number.isFinite(value) ? scaled(parts.negative ? -value : value, parts.digits, form) : null;
}

const scaled = (value: number, digits: string, { implied, decimal }: NumberForm): number =>
  implied === 0 || digits.includes(decimal) ? value : Number(`${value}e-${implied}`);

/** Forms to choose from, the more usual first; of those that read equally much the first is taken. */
const FORMS: readonly NumberForm[] = [
  PLAIN,
  { decimal: '.', thousands: ',', implied: 0 },
  { decimal: ',', thousands: '', implied: 0 },
  { decimal: ',', thousands: '.', implied: 0 },
  { decimal: ',', thousands: ' ', implied: 0 },
  { decimal: '.', thousands: ' ', implied: 0 },
  { decimal: '.', thousands: "'", implied: 0 },
];

export interface GuessedForm {
  form: NumberForm;
  /** Cells that the form reads. */
  cells: number;
  because: string;
  /** Whether other cells than these would have to say what the decimal mark is. */
  open: boolean;
}

/**
 * The form that reads most cells.
 * @param texts distinct texts @param counts the rows of each
 * @param mark the decimal mark that the person or the rest of the extract says, where the texts leave it open
 * @param marksBeside whether other texts of the column, which no form reads, hold a point or a comma
 */
export function guessNumberForm(
  texts: readonly string[],
  counts: ArrayLike<number>,
  mark: '.' | ',' | null,
  marksBeside = false,
): GuessedForm {
  const tried = FORMS.map((form) => ({ form, cells: 0 }));
  for (let i = 0; i < texts.length; i++) {
    const text = texts[i];
    if ((i & (BETWEEN_PULSES - 1)) === 0) pulse();
    if (beginsAsWord(text)) continue;
    // A text is taken apart once, whatever the forms make of its parts.
    const bare = BARE.test(text);
    const parts = partsOf(text);
    if (!bare && !parts) continue;
    for (const one of tried) {
      const { form } = one;
      const value =
        bare && form.decimal === '.' ? bareNumber(text, form) : parts && numberOfParts(parts, form);
      if (value !== null) one.cells += counts[i];
    }
  }
  const most = Math.max(...tried.map(({ cells }) => cells));
  const best = tried.filter(({ cells }) => cells === most);
  const decimals = new Set(best.map(({ form }) => form.decimal));
  // Both marks read all, and it matters: "1,234" may be a thousand or a little more than one.
  const open = decimals.size > 1 && (marksBeside || texts.some((text) => /[.,]/.test(text)));
  const chosen = (open && mark ? best.find(({ form }) => form.decimal === mark) : undefined) ?? best[0];
  const { form } = chosen;
  const example = texts.find((text) => /[^\d\s+-]/.test(text) && readNumber(text, form) !== null)?.trim();
  const reading = form.thousands
    ? `“${form.decimal}” before decimals and “${form.thousands === ' ' ? 'a blank' : form.thousands}” between thousands`
    : `“${form.decimal}” before decimals`;
  return {
    form,
    cells: most,
    open,
    because: open
      ? `numbers with ${reading}, which ${mark ? 'the rest of the extract says' : 'no cell here decides'}${example ? `: ${example}` : ''}`
      : `numbers with ${reading}${example ? `, such as ${example}` : ''}`,
  };
}
