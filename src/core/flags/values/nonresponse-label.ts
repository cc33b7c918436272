import { isAmbiguous, readsAsNoAnswer, standsForNoWord } from '../../codebook/no-answer';
import { isCategorical, isMeasure } from '../../extract/words';
import type { Level } from '../../infer/level-list';
import { validOf } from '../../infer/levels';
import { round2, rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/**
 * Codes that count as valid though their label reads like the absence of an answer. Words count for their label, and
 * the label must be about it: "Refused" is no answer, "Household refuse" is.
 *
 * Example: 8 is labelled "Can't say" and the codebook does not declare it missing.
 */
export const nonresponseLabel: VariableRule = {
  rule: 'nonresponse-label',
  needs: 'tally',
  answers: 'codes',
  precedence: 10,
  pattern: 'some codes',
  look,
};

/** What is granted or refused, among the other levels: then to be refused is an answer. */
const OUTCOME =
  /(accept|grant|approv|admit|allow|passed|issued|agreed|paid|open|closed|pending|returned|delivered|complete|confirmed|deferred|won|lost)/i;
/** Levels that so large a share of all rows hold are what a variable tells. */
const MOST_UNKNOWN = 0.5;
const LEAST_WORDS = 2;

function look({ name, kind, levels, written, entry }: Subject): Flag[] {
  if (!isCategorical(kind) && !isMeasure(kind) && kind !== 'text') return [];
  const hasLabels = entry?.categories.some(({ label }) => label !== null) === true;
  if (written.storage !== 'text' && !hasLabels) return [];
  const valid = validOf(levels);
  const { levels: all } = valid;
  const reading = all.where((place) => {
    const label = all.label(place);
    return label !== null
      ? readsAsNoAnswer(label)
      : written.storage === 'text' && isNoWord(all.code(place), all.counts[place], valid.rows, hasLabels);
  });
  if (reading.length === 0) return [];
  const found = [...reading];
  const own = new Set(found);
  const others = valid.levels.filter((level) => !own.has(level));
  const isRefusal = ({ code, label }: Level): boolean => /refus|declin/i.test(label ?? code);
  const outcome = found.some(isRefusal) && others.some(({ code, label }) => OUTCOME.test(label ?? code));
  const told = found.filter((level) => !(outcome && isRefusal(level)));
  if (told.length === 0 || (kind === 'text' && others.length < LEAST_WORDS)) return [];
  const rows = told.reduce((sum, { count }) => sum + count, 0);
  return [
    {
      rule: 'nonresponse-label',
      variables: [name],
      codes: told.map(({ code }) => code),
      rows,
      severity: isMeasure(kind) || kind === 'ordinal' ? 'high' : 'medium',
      certainty: round2(told.some(({ label }) => label !== null) ? 0.93 : 0.85),
      says: `${rowsHold(rows)} ${told
        .slice(0, 4)
        .map(({ code, label }) => (label === null ? `“${code}”` : `${code} “${label}”`))
        .join(' or ')}, which reads like no answer and is not declared missing`,
    },
  ];
}

/** Where no codebook gives labels, words are their own; beside labels a word that has none says more. */
function isNoWord(code: string, count: number, rows: number, hasLabels: boolean): boolean {
  if (standsForNoWord(code)) return count <= rows * MOST_UNKNOWN;
  return !hasLabels && code.length > 2 && readsAsNoAnswer(code) && !isAmbiguous(code);
}
