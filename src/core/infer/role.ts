import type { Role } from '../extract/words';
import type { InferredKind, Known } from './known';
import { moments } from '../tally/moments';
import { bodyOf } from './edges';
import { validOf, type Valid } from './levels';
import { kindsByName } from './vocabulary';
import { countsIn, valuesIn } from './level-list';

export interface InferredRole {
  role: Role;
  because: string[];
}

/** What a role is told by. */
interface Facts extends Known {
  kind: InferredKind['kind'];
  valid: Valid;
  /** Label and name as words. */
  words: string;
}

/** One piece of evidence for or against a role, in log odds. */
interface RoleCue {
  weight: number;
  holds(facts: Facts): boolean;
  says?: string;
}

const either = (...words: string[]): RegExp =>
  new RegExp(`(?<![\\p{L}\\d])(${words.join('|')})(?![\\p{L}])`, 'iu');

/** Words that weights of rows have and nothing else. */
const WEIGHTING = either(
  '(survey|sampl\\w+|person|household|individual|final|base|design|analysis|population|post-?stratif\\w+|calibrat\\w+|longitudinal|cross-?sectional|non-?response|replicate|bootstrap|jackknife|respondent|panel|school|student|trip|adult|child|family) weights?',
  'weight(ing|ed)?( factor| variable)?s? (for|to|of) (the )?(sample|population|person|household|respondent)\\w*',
  'weighting\\w*',
  '(gross(ing)?(-| )?(up)?|expansion|inflation|raising|extrapolation|blow-?up) (factor|weight)s?',
  'gewichtung\\w*',
  'hochrechnung\\w*',
  '(personen|haushalts|design|kalibrierungs)gewicht\\w*',
  'pondération',
  'poids (de sondage|d.échantillon\\w*|d.extrapolation|individuel|ménage|final)',
  '(coefficient|facteur) d.(extrapolation|expansion)',
  'factor de (expansión|ponderación|elevación)',
  'ponderación',
  'peso (muestral|campionario|amostral)',
  'fator de expansão',
  'wegingsfactor',
);
const WEIGHT_WORD = either('weights?', 'gewicht', 'poids', 'peso', 'vikt', 'vekt');
const WEIGHT_NAME =
  /^(w|wt|wgt|pw|hw|iw|pwt|hwt|weight|poids|gewicht|pond|peso|fex|facexp|fac_exp|factor_?exp|gf|hrf|expf|expfac|gross_?f)(_|\d|$)|(_|^)(wt|wgt|weight|gewicht|poids|fex)\d*$|^(rep|br|bs|jk|repl)_?w(gt|t)?_?\d+$|^(wt|wgt)(samp|hh|per|pers|pop|ind|fin|des|base|adj|cal|sch|stu|adult)/i;
/** "PERWT", "asecwt", "finalwgt": decimals whose names end so; what lives or is sold has another weight. */
const WEIGHT_END = /(?<!birth|body|net|gross|live|dead|dry|wet|pack)w(gh?)?t\d*$/i;
/** What is put on scales. */
const PHYSICAL =
  /(?<![\p{L}])(kgs?|kilos?|kilogram\w*|grams?|g|gr|lbs?|pounds?|oz|ounces?|tons?|tonnes?|stones?|mg|body|birth ?weight|loaf|loaves|carcass|fish|live|newborn|baby|infant|parcel|package|load|fresh|dry|wet|net|gross weight)(?![\p{L}])/iu;

const DESIGN_WORDS = either(
  'strat(um|a|ification)',
  'v?psu',
  'ssu',
  'cluster',
  '(primary|secondary|ultimate) sampling units?',
  'sampling (unit|point|area|stratum)',
  'sample (point|area|cluster)',
  'enumeration (area|district)',
  'segment',
  'estrato',
  'upm',
  'unidad primaria',
  'conglomerado',
  'schicht',
  'klumpen',
  'strate',
  'grappe',
  'unité primaire',
);
const DESIGN_NAME =
  /^(v?strat\w{0,3}|v?psu\w?|ssu|usu|ea(_?(no|id|nr))?|clust(er)?(_?(no|id|nr))?|segm?|upm|estrato|schicht)\d*$/i;
const WAVE_WORDS = /\b(wave|round of the|sweep|survey year|panel year|year of the survey|welle|vague|ola)\b/i;

const MARKS = either(
  'imput\\w+',
  'filled[- ]in',
  'filled (up )?(by|with|from)',
  'fill(ed)? in',
  '(allocation|edit|edited|quality|estimation) (flag|status|mark|code|indicator)',
  'allocated',
  '(carried|brought) (forward|over)',
  'taken over from',
  'interpolat\\w+',
  'hot ?-?deck',
  'cold ?-?deck',
  '(estimated|edited|corrected|adjusted|replaced|supplied) by',
  'marker of',
  'source of (the )?(value|figure|amount|answer)',
  'imputiert',
  'geschätzt',
  'ergänzt',
  'estimé\\w*',
  'imputé\\w*',
  'estimado',
  'imputado',
);
/** What people fill in themselves. */
const PAPER = either('questionnaires?', 'forms?', 'interviews?', 'diary', 'sheets?', 'fragebogen');
const IMPUTED = /\bimput/i;
/** What a code of a marker means: the value was made, or it came as it is. */
const MADE =
  /\b(imput\w+|estimated?|filled|edited|edit|allocated|carried|interpolated|hot ?deck|donor|predicted|modelled|derived|substituted|corrected|replaced|geschätzt|imputiert|estimé\w*|imputé\w*)\b/i;
const CAME =
  /\b(as (reported|given|received|stated|measured|recorded|is)|reported|observed|measured|original|given|stated|recorded|from (papers?|records?|the)|not (imputed|edited|estimated)|unedited|no|none|genuine|actual|true)\b/i;
const ADMIN_WORDS =
  /\b(version|release|edition|file date|processing|archive (number|study)|running number|date of (export|release)|stamp)\b/i;
/** Below so many rows a constant says nothing. */
const FEW_ROWS = 20;
/** A total row leaves a cell blank now and then. */
const FEW_BLANK = 0.001;
const LINK = /^(https?:\/\/|www\.)/i;

const isPositive = ({ valid }: Facts): boolean =>
  valid.values.length === valid.levels.length && valid.values[0] >= 0 && valid.levels.length > 5;
const isDecimal = ({ written }: Known): boolean => written.storage === 'decimal';
type Middle = { mean: number; sd: number } | null;
const middles = new WeakMap<Valid, Middle>();
/** Mean and spread of the body of the values, worked out once. */
function figures(valid: Valid): Middle {
  const known = middles.get(valid);
  if (known !== undefined) return known;
  const body = bodyOf(valid.levels);
  const { mean, sd } = moments({ values: valuesIn(body), counts: countsIn(body) });
  const found = mean === null || sd === null ? null : { mean, sd };
  middles.set(valid, found);
  return found;
}
/** Values as bodies have them: tens of something, narrow about the middle, hardly a decimal. Weights of rows are finer or wider. */
function isMass({ valid }: Facts): boolean {
  const found = figures(valid);
  return (
    found !== null &&
    found.mean > 20 &&
    found.mean < 250 &&
    found.sd < found.mean * 0.5 &&
    valid.levels.every(({ code }) => !/[.,]\d{2,}/.test(code))
  );
}
/** Weights that were made to average one do so to the third digit. */
function averagesOne({ valid }: Facts): boolean {
  const found = figures(valid);
  return (
    found !== null &&
    Math.abs(found.mean - 1) < 0.004 &&
    found.sd > 0.03 &&
    found.sd < 1.5 &&
    valid.values[0] > 0 &&
    valid.levels.length >= 20 &&
    valid.levels.filter(({ code }) => /[.,]\d{3,}$/.test(code)).length > valid.levels.length / 2
  );
}

const MOST_MARKS = 6;
/** Most values came as they are. */
const MOSTLY = 0.5;
const mostlyOne = ({ valid }: Facts): boolean =>
  valid.levels.some(({ count }) => count > valid.rows * MOSTLY) && valid.levels.length <= MOST_MARKS;

const labelsOf = ({ entry }: Facts): string[] =>
  (entry?.categories ?? []).flatMap(({ label }) => label ?? []);
/** Whether one code is a value that was made, and another one that came as it is. */
function codesTell(facts: Facts): boolean {
  const labels = labelsOf(facts);
  return (
    labels.some((label) => MADE.test(label)) &&
    (labels.length === 1 || labels.some((label) => CAME.test(label) && !MADE.test(label)))
  );
}

/** Roles that are weighed; each is given from `LEAST` on, and never where `needs` does not hold. */
const WEIGHED: readonly {
  role: Role;
  needs(facts: Facts): boolean;
  cues: readonly RoleCue[];
}[] = [
  {
    role: 'weight',
    needs: isPositive,
    cues: [
      {
        weight: 4,
        holds: ({ words }) => WEIGHTING.test(words),
        says: 'positive numbers, and its words say weight',
      },
      {
        weight: 2,
        holds: ({ words }) => WEIGHT_WORD.test(words) && !WEIGHTING.test(words),
        says: 'positive numbers, and its words say weight',
      },
      {
        weight: 2,
        holds: (facts) => WEIGHT_NAME.test(facts.name) || (isDecimal(facts) && WEIGHT_END.test(facts.name)),
        says: 'positive numbers, and its name says weight',
      },
      { weight: 1, holds: isDecimal },
      { weight: 3, holds: averagesOne, says: 'it averages one, as weights do that were made to' },
      { weight: -5, holds: ({ words }) => PHYSICAL.test(words) },
      { weight: -3, holds: isMass },
      // What a label calls something else is that.
      {
        weight: -1,
        holds: ({ label, words }) => label !== null && !WEIGHTING.test(words) && !WEIGHT_WORD.test(words),
      },
    ],
  },
  {
    role: 'imputation',
    needs: ({ valid, kind }) => valid.levels.length <= MOST_MARKS && kind !== 'date' && kind !== 'text',
    cues: [
      { weight: 2.5, holds: ({ words }) => MARKS.test(words), says: 'its words say filled in' },
      { weight: -2, holds: ({ words }) => PAPER.test(words) },
      { weight: 1.5, holds: ({ words }) => IMPUTED.test(words), says: 'its words say imputed' },
      {
        weight: 2,
        holds: codesTell,
        says: 'its codes tell values that were made from those that came as they are',
      },
      {
        weight: 1,
        holds: (facts) => codesTell(facts) && labelsOf(facts).some((label) => MARKS.test(label)),
      },
      {
        weight: 2,
        holds: ({ marking = null }) => marking !== null && (marking.of !== null || marking.surely === 1),
        says: 'its name marks another variable',
      },
      { weight: 0.5, holds: ({ marking }) => (marking?.of ?? null) !== null },
      { weight: 0.5, holds: ({ marking }) => marking?.surely === 1 },
      { weight: 0.5, holds: mostlyOne },
      // A label of another matter.
      {
        weight: -1.5,
        holds: (facts) =>
          facts.label !== null &&
          !codesTell(facts) &&
          !MARKS.test(facts.words) &&
          !/\b(flag|marker|source|edit)/i.test(facts.words),
      },
    ],
  },
];
const LEAST = 3;

/** What a variable is for, by the codebook's word, its own words, its neighbours' names and its values. */
export function inferRole(known: Known, { kind }: Pick<InferredKind, 'kind'>): InferredRole {
  const { name, label, levels, entry } = known;
  const valid = validOf(levels);
  const words = `${label ?? ''} ${name.replace(/([a-z])([A-Z])/g, '$1 $2').replace(/[_.]/g, ' ')}`;
  const facts: Facts = { ...known, kind, valid, words };
  const is = (role: Role, ...because: string[]): InferredRole => ({ role, because });
  if (kind === 'empty') return is('admin', 'it holds nothing');
  if (entry?.isWeight) return is('weight', 'the codebook says weight');
  for (const { role, needs, cues } of WEIGHED) {
    if (!needs(facts)) continue;
    const held = cues.filter((cue) => cue.holds(facts));
    if (held.reduce((sum, { weight }) => sum + weight, 0) < LEAST) continue;
    const told = held.filter(({ says, weight }) => says !== undefined && weight > 0);
    return is(role, ...told.map(({ says }) => says as string));
  }
  if (ADMIN_WORDS.test(words) && (valid.levels.length === 1 || kind === 'identifier'))
    return is('admin', 'its words say what the archive left');
  if (kind === 'identifier') return is('identifier', 'it identifies rows');
  if (kind === 'text' && valid.levels.slice(0, 100).every(({ code }) => LINK.test(code)))
    return is('admin', 'it leads to a page for each row');
  if (WAVE_WORDS.test(words) && valid.levels.length <= 40) return is('wave', 'its words say wave');
  if (
    (DESIGN_WORDS.test(words) || DESIGN_NAME.test(name)) &&
    kind !== 'text' &&
    kind !== 'date' &&
    !isDecimal(known)
  )
    return is('design', 'its words say how the sample was drawn');
  if (
    valid.levels.length === 1 &&
    levels.rows >= FEW_ROWS &&
    levels.blank <= levels.rows * FEW_BLANK &&
    // Nothing but zero of what is counted or paid is an answer all the same.
    !kindsByName(name).some((one) => one.kind === 'count' || one.kind === 'continuous')
  )
    return is('admin', 'the same value in every row');
  return is('analysis');
}
