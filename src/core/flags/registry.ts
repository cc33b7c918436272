import { stemOf } from '../infer/stem';
import { batteryOutlier } from './battery-outlier';
import { bottomCode } from './bottom-code';
import { codebookMismatch } from './codebook-mismatch';
import { constant } from './constant';
import { documentedUnused } from './documented-unused';
import { duplicateIdentifier } from './duplicate-identifier';
import { duplicateRow } from './duplicate-row';
import { encodingDamage } from './encoding-damage';
import { farOutValue } from './far-out-value';
import { futureDate } from './future-date';
import { gateBreach } from './gate-breach';
import { gatesOf } from './gates';
import { heaping } from './heaping';
import { imputationMarker } from './imputation-marker';
import { impossibleDate } from './impossible-date';
import { leadingZeros } from './leading-zeros';
import { mixedContent } from './mixed-content';
import { mostlyMissing } from './mostly-missing';
import { nonresponseLabel } from './nonresponse-label';
import { outOfRange } from './out-of-range';
import { partlyLabelled } from './partly-labelled';
import { placeholderDate } from './placeholder-date';
import { repeatColumn } from './repeat-column';
import { repeatedHeader } from './repeated-header';
import type { ExtractRule, Flag, Subject, VariableRule, Whole } from './rule';
import { sentinelCode } from './sentinel-code';
import { spike } from './spike';
import { straightLining } from './straight-lining';
import { hasStrayBlanks, strayWhitespace } from './stray-whitespace';
import { summaryRow } from './summary-row';
import { topCode } from './top-code';
import { undocumentedCode } from './undocumented-code';
import { universeGate } from './universe-gate';
import { unitMixture } from './unit-mixture';
import { unportableName } from './unportable-name';
import { variantSpelling } from './variant-spelling';
import { waveDrift } from './wave-drift';
import { weightLike } from './weight-like';

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
/** Rules that look at cells and names alone: what is ruled of codes does not change them. */
const OF_CELLS: readonly ExtractRule[] = [
  repeatedHeader,
  duplicateRow,
  duplicateIdentifier,
  repeatColumn,
  unportableName,
];
const OF_LEVELS: readonly ExtractRule[] = [
  summaryRow,
  codebookMismatch,
  waveDrift,
  universeGate,
  gateBreach,
  batteryOutlier,
  straightLining,
];
export const EXTRACT_RULES: readonly ExtractRule[] = [...OF_CELLS, ...OF_LEVELS];

/** Rules whose flags are about rows or the whole, so that declaring a code missing answers nothing. */
export const ROW_RULES: ReadonlySet<string> = new Set([
  ...EXTRACT_RULES.map(({ rule }) => rule),
  'documented-unused',
  'partly-labelled',
  'top-code',
  'bottom-code',
  'heaping',
  'leading-zeros',
  'encoding-damage',
  'constant',
  'mostly-missing',
  'weight-like',
  'imputation-marker',
  'unit-mixture',
]);

/** Flags of the extract as a whole that no ruling but setting rows aside changes, and those that rulings may change. */
export const raiseOfCells = (whole: Whole): Flag[] => OF_CELLS.flatMap(({ look }) => look(whole));
export const raiseWhole = (whole: Whole): Flag[] => OF_LEVELS.flatMap(({ look }) => look(whole));

/** All flags of an extract's variables, in file order, the surest first within a variable. */
export function raiseFlags(subjects: readonly Subject[], only?: ReadonlySet<string>): Flag[] {
  const families = new Map<string, Subject[]>();
  for (const subject of subjects) {
    const stem = stemOf(subject.name);
    if (stem) families.set(stem, [...(families.get(stem) ?? []), subject]);
  }
  return subjects
    .filter(({ name }) => !only || only.has(name))
    .flatMap((subject) => {
      const family = families.get(stemOf(subject.name) ?? '') ?? [];
      const siblings = family.filter((other) => other !== subject);
      return oneCauseOneFlag(RULES.flatMap(({ look }) => look(subject, siblings))).sort(
        (a, b) => b.certainty - a.certainty,
      );
    });
}

/**
 * Of several rules that see the same code, the one that names the cause speaks: a code labelled as no answer is that, and
 * not also one that stands apart; a sentinel is no top code, no value out of range and none that is far out.
 */
const ORDER: readonly string[] = [
  'nonresponse-label',
  'placeholder-date',
  'future-date',
  'impossible-date',
  'sentinel-code',
  'undocumented-code',
  'partly-labelled',
  'unit-mixture',
  'out-of-range',
  'far-out-value',
  'top-code',
  'bottom-code',
  'spike',
];
/** Below this, what stands apart gives way to what the codebook says. */
const SURE = 0.8;

function oneCauseOneFlag(flags: readonly Flag[]): Flag[] {
  const rank = ({ rule, certainty }: Flag): number =>
    rule === 'sentinel-code' && certainty < SURE ? ORDER.indexOf('out-of-range') + 0.5 : ORDER.indexOf(rule);
  const claimed = new Set<string>();
  const units = flags.some(({ rule }) => rule === 'unit-mixture');
  const kept: Flag[] = [];
  for (const flag of [...flags].sort((a, b) => rank(a) - rank(b))) {
    // Two clusters of values explain what is far out, piled up, or beyond a range.
    if (units && ['far-out-value', 'sentinel-code', 'top-code', 'out-of-range'].includes(flag.rule)) continue;
    // Spellings that differ in nothing but blanks are a matter of blanks.
    if (flag.rule === 'variant-spelling' && flag.codes.every(hasStrayBlanks)) continue;
    if (!ORDER.includes(flag.rule)) {
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

/** Flags that others explain once the extract is known as a whole: blanks of those who were not asked are not missing. */
export function explained(flags: readonly Flag[], whole: Whole): Flag[] {
  const gated = new Map(gatesOf(whole).map((gate) => [whole.subjects[gate.variable].name, gate]));
  const drifting = new Map(
    flags
      .filter(({ rule }) => rule === 'wave-drift')
      .map(({ variables: [name], codes }) => [name, new Set(codes)] as const),
  );
  return flags.filter(({ rule, variables, rows, codes }) => {
    const gate = gated.get(variables[0]);
    if (rule === 'mostly-missing' && gate)
      return rows - gate.notAsked > (whole.extract.rows - gate.notAsked) / 2;
    // A scale that is shifted in one wave is what makes the item odd, and its codes unknown to the codebook.
    if (rule === 'undocumented-code' && codes.every((code) => drifting.get(variables[0])?.has(code)))
      return false;
    return !(rule === 'battery-outlier' && drifting.has(variables[0]));
  });
}
