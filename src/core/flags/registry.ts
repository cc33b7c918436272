import type { Extract } from '../extract/extract';
import { pulse } from '../extract/pulse';
import { stemOf } from '../infer/stem';
import { batteryOutlier } from './between/battery-outlier';
import { bottomCode } from './values/bottom-code';
import { codebookMismatch } from './rows/codebook-mismatch';
import { constant } from './variable/constant';
import { documentedUnused } from './values/documented-unused';
import { duplicateIdentifier } from './variable/duplicate-identifier';
import { duplicateRow } from './rows/duplicate-row';
import { encodingDamage } from './writing/encoding-damage';
import { exchangedTitles } from './between/exchanged-titles';
import { farOutValue } from './values/far-out-value';
import { futureDate } from './values/future-date';
import { gateBreach } from './between/gate-breach';
import { gatesOf } from './between/gates';
import { heaping } from './values/heaping';
import { imputationMarker } from './between/imputation-marker';
import { impossibleDate } from './values/impossible-date';
import { leadingZeros } from './writing/leading-zeros';
import { mixedContent } from './writing/mixed-content';
import { mostlyMissing } from './variable/mostly-missing';
import { nonresponseLabel } from './values/nonresponse-label';
import { outOfRange } from './values/out-of-range';
import { partlyLabelled } from './values/partly-labelled';
import { placeholderDate } from './values/placeholder-date';
import { repeatColumn } from './between/repeat-column';
import { repeatedHeader } from './rows/repeated-header';
import type { ExtractRule, Flag, RuleFacts, Subject, VariableRule, Whole } from './rule';
import { sentinelCode } from './values/sentinel-code';
import { spike } from './values/spike';
import { straightLining } from './between/straight-lining';
import { hasStrayBlanks, strayWhitespace } from './writing/stray-whitespace';
import { summaryRow } from './rows/summary-row';
import { topCode } from './values/top-code';
import { undocumentedCode } from './values/undocumented-code';
import { universeGate } from './between/universe-gate';
import { unitMixture } from './variable/unit-mixture';
import { unportableName } from './variable/unportable-name';
import { variantSpelling } from './writing/variant-spelling';
import { waveDrift } from './rows/wave-drift';
import { weightLike } from './between/weight-like';
import { putUnder } from '../extract/put-under';

/** Every rule there is. A new rule is a file of its own and a line here. */
export const RULES: readonly VariableRule[] = [
  sentinelCode,
  nonresponseLabel,
  undocumentedCode,
  documentedUnused,
  partlyLabelled,
  placeholderDate,
  impossibleDate,
  futureDate,
  outOfRange,
  unitMixture,
  farOutValue,
  spike,
  topCode,
  bottomCode,
  heaping,
  variantSpelling,
  mixedContent,
  leadingZeros,
  strayWhitespace,
  encodingDamage,
  constant,
  mostlyMissing,
  weightLike,
  imputationMarker,
];
export const EXTRACT_RULES: readonly ExtractRule[] = [
  repeatedHeader,
  duplicateRow,
  duplicateIdentifier,
  repeatColumn,
  exchangedTitles,
  unportableName,
  summaryRow,
  codebookMismatch,
  waveDrift,
  universeGate,
  gateBreach,
  batteryOutlier,
  straightLining,
];
const FACTS = new Map([...RULES, ...EXTRACT_RULES].map((facts) => [facts.rule, facts as RuleFacts]));

/** What is to be known of a rule; `undefined` for a person's own rule. */
export const factsOf = (rule: string): RuleFacts | undefined => FACTS.get(rule);

/** Rules that need all rows: where only a sample is held they are left out, and said to be. */
export const leftOutOf = (extract: Extract): string[] =>
  EXTRACT_RULES.flatMap(({ rule, needs, countedToo }) =>
    needs === 'rows' && !countedToo?.(extract) ? [rule] : [],
  );

/** Flags of the extract as a whole: of rules that remember what they read, and of those that look again whenever a variable changes. */
export const raiseOfCells = (whole: Whole): Flag[] =>
  EXTRACT_RULES.filter(({ ofCells }) => ofCells).flatMap((rule) => raised(rule, whole));
export const raiseWhole = (whole: Whole): Flag[] =>
  EXTRACT_RULES.filter(({ ofCells }) => !ofCells).flatMap((rule) => raised(rule, whole));

/** Where only a sample of the rows is held, what holds one variable against another sees all variables as the sample has them. */
function raised({ needs, countedToo, look }: ExtractRule, whole: Whole): Flag[] {
  pulse();
  const { sample } = whole;
  if (!sample) return look(whole);
  if (needs === 'rows') return countedToo ? look(whole) : [];
  return needs === 'pairs' ? look(sample).map((flag) => ofSample(flag, whole.extract)) : look(whole);
}

/** A flag that only a sample of the rows tells, which says so. */
export const ofSample = (flag: Flag, { rows, pass }: Whole['extract']): Flag =>
  pass ? { ...flag, says: `${flag.says} (in a sample of ${rows} of ${pass.rows} rows)` } : flag;

/** For each of some variables those of the same stem, itself among them; one array for all of a family. */
export function familiesOf(subjects: readonly Subject[]): (subject: Subject) => readonly Subject[] {
  const families = new Map<string, Subject[]>();
  for (const subject of subjects) {
    const stem = stemOf(subject.name);
    if (stem === null) continue;
    putUnder(families, stem, subject);
  }
  return ({ name }) => families.get(stemOf(name) ?? '') ?? NOBODY;
}
const NOBODY: readonly Subject[] = [];

/** The flags of one variable beside its siblings, the surest first. */
export function raiseOf(subject: Subject, siblings: readonly Subject[]): Flag[] {
  const flags = RULES.flatMap(({ look }) => {
    pulse();
    return look(subject, siblings);
  });
  return oneCauseOneFlag(flags).sort((a, b) => b.certainty - a.certainty);
}

/**
 * Of several rules that see the same code, the one that names the cause speaks: a code labelled as no answer is that, and
 * not also one that stands apart; a sentinel is no top code, no value out of range and none that is far out.
 */
function oneCauseOneFlag(flags: readonly Flag[]): Flag[] {
  const explained = new Set(flags.flatMap(({ rule }) => factsOf(rule)?.explains ?? []));
  const claimed = new Set<string>();
  const kept: Flag[] = [];
  for (const flag of [...flags].sort((a, b) => precedenceOf(a) - precedenceOf(b))) {
    if (explained.has(flag.rule)) continue;
    // Spellings that differ in nothing but blanks are a matter of blanks.
    if (flag.rule === 'variant-spelling' && flag.codes.every((code) => hasStrayBlanks(code))) continue;
    if (factsOf(flag.rule)?.precedence === undefined) {
      kept.push(flag);
      continue;
    }
    const codes = flag.codes.filter((code) => !claimed.has(code));
    if (flag.codes.length > 0 && codes.length === 0) continue;
    for (const code of codes) claimed.add(code);
    kept.push(codes.length === flag.codes.length ? flag : { ...flag, codes });
  }
  // Blanks that a variant spelling names already are not named twice.
  const spelt = new Set(kept.filter(({ rule }) => rule === 'variant-spelling').flatMap(({ codes }) => codes));
  return kept.flatMap((flag) => {
    if (flag.rule !== 'stray-whitespace' || flag.codes.length === 0) return [flag];
    const codes = flag.codes.filter((code) => !spelt.has(code));
    return codes.length ? [{ ...flag, codes }] : [];
  });
}

/** Rules without a precedence come first: they give way to none. */
function precedenceOf({ rule, certainty }: Flag): number {
  const { precedence = 0, unsure } = factsOf(rule) ?? {};
  return unsure && certainty < unsure.below ? unsure.precedence : precedence;
}

/** Flags that others explain once the extract is known as a whole: blanks of those who were not asked are not missing. */
export function explained(flags: readonly Flag[], whole: Whole): Flag[] {
  const seen = whole.sample ?? whole;
  const gated = new Map(gatesOf(seen).map((gate) => [seen.subjects[gate.variable].name, gate]));
  // Rows of the sample for each row that was counted.
  const held = whole.extract.pass ? whole.extract.rows / whole.extract.pass.rows : 1;
  const drifting = new Map(
    flags
      .filter(({ rule }) => rule === 'wave-drift')
      .map(({ variables: [name], codes }) => [name, new Set(codes)] as const),
  );
  return flags.filter(({ rule, variables, rows, codes }) => {
    const gate = gated.get(variables[0]);
    if (rule === 'mostly-missing' && gate)
      return rows * held - gate.notAsked > (whole.extract.rows - gate.notAsked) / 2;
    // A scale that is shifted in one wave is what makes the item odd, and its codes unknown to the codebook.
    if (rule === 'undocumented-code' && codes.every((code) => drifting.get(variables[0])?.has(code)))
      return false;
    return !(rule === 'battery-outlier' && drifting.has(variables[0]));
  });
}
