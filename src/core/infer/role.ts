import type { Role } from '../extract/words';
import type { InferredKind, Known } from './known';
import { moments } from '../tally/moments';
import { bodyOf } from './edges';
import { validOf } from './levels';

export interface InferredRole {
  role: Role;
  because: string[];
}

const WEIGHT_WORDS = /\b(weights?|weighting|gewicht|pondération|peso muestral)\b/i;
const PHYSICAL = /\b(kg|kilogram\w*|grams?|pounds|body|birth ?weight)\b/i;
const WEIGHT_NAME = /^(w|wt|wgt|pw|hw|pwt|hwt|weight)(_|\d|$)|(_|^)(wt|wgt|weight)\d*$/i;
/** "PERWT", "asecwt", "finalwgt": decimals whose names end so; what lives or is sold has another weight. */
const WEIGHT_END = /(?<!birth|body|net|gross|live|dead|dry|wet|pack)w(gh?)?t\d*$/i;
const DESIGN_WORDS = /\b(strat(um|a)|psu|cluster|primary sampling unit|sampling (unit|point)|segment)\b/i;
const WAVE_WORDS = /\b(wave|round of the|sweep|survey year|panel year|year of the survey)\b/i;
const IMPUTATION_WORDS =
  /\b(imput\w+|filled in by|allocat(ed|ion) flag|edit flag|marker of (filled|imput)\w*)\b/i;
const IMPUTATION_NAME = /^(z|imp|impf|flag|q)_/i;
const ADMIN_WORDS =
  /\b(version|release|edition|file date|processing|archive (number|study)|running number|date of (export|release))\b/i;
/** Below so many rows a constant says nothing. */
const FEW_ROWS = 20;
/** A total row leaves a cell blank now and then. */
const FEW_BLANK = 0.001;

/** Nothing but the word "weight", and values as bodies have them: tens of something, narrow about the middle, hardly a decimal. Weights of rows are finer or wider. */
function isMass({ name, label, levels }: Known): boolean {
  if (!/^weight$/i.test(name) || (label !== null && !/^weight$/i.test(label.trim()))) return false;
  const valid = validOf(levels);
  if (valid.values.length !== valid.levels.length) return false;
  const body = bodyOf(valid.levels);
  const { mean, sd } = moments({
    values: Float64Array.from(body, ({ value }) => value as number),
    counts: Float64Array.from(body, ({ count }) => count),
  });
  return (
    mean !== null &&
    sd !== null &&
    mean > 20 &&
    mean < 250 &&
    sd < mean * 0.5 &&
    valid.levels.every(({ code }) => !/[.,]\d{2,}/.test(code))
  );
}

/** What a variable is for, by the codebook's word, its own words, and its values. */
export function inferRole(known: Known, { kind }: InferredKind): InferredRole {
  const { name, label, levels, written, entry } = known;
  const words = `${label ?? ''} ${name.replace(/_/g, ' ')}`;
  const { levels: valid, values } = validOf(levels);
  const is = (role: Role, ...because: string[]): InferredRole => ({ role, because });
  if (kind === 'empty') return is('admin', 'it holds nothing');
  if (entry?.isWeight) return is('weight', 'the codebook says weight');
  const positive = written.storage !== 'text' && values.length === valid.length && !(values[0] < 0);
  if (
    positive &&
    !PHYSICAL.test(words) &&
    !isMass(known) &&
    valid.length > 5 &&
    (WEIGHT_WORDS.test(words) ||
      ((WEIGHT_NAME.test(name) || WEIGHT_END.test(name)) && written.storage === 'decimal'))
  ) {
    return is('weight', 'positive numbers, and its words say weight');
  }
  if (ADMIN_WORDS.test(words) && (valid.length === 1 || kind === 'identifier'))
    return is('admin', 'its words say what the archive left');
  if (kind === 'identifier') return is('identifier', 'it identifies rows');
  const binary = valid.length <= 2 && valid.every(({ code }) => code === '0' || code === '1');
  if (IMPUTATION_WORDS.test(words) || (binary && IMPUTATION_NAME.test(name)))
    return is('imputation', 'it marks values that the producer filled in');
  if (WAVE_WORDS.test(words) && valid.length <= 40) return is('wave', 'its words say wave');
  if (DESIGN_WORDS.test(words)) return is('design', 'its words say how the sample was drawn');
  if (valid.length === 1 && levels.rows >= FEW_ROWS && levels.blank <= levels.rows * FEW_BLANK)
    return is('admin', 'the same value in every row');
  return is('analysis');
}
