import * as z from 'zod';
import { REASONS, REASON_NAMES } from '../extract/words';
import type { Level } from '../infer/level-list';
import { spellingsOf, validOf } from '../infer/levels';
import { valueOf } from '../infer/read-levels';
import { rowsHold, type Flag, type Subject } from './rule';

/**
 * What a person knows of an archive's codes, written down once and kept apart from any extract: "−8 is not asked, in every
 * variable". In each extract it is a proposal, one flag for each variable that holds the code.
 */
export const standingRuleSchema = z.object({
  id: z.string().min(1),
  code: z.string().min(1),
  reason: z.enum(REASONS),
  /** Names that it is about, parted by commas or blanks; a star stands for any signs. */
  names: z.string().min(1),
  /** The person's own words. */
  note: z.string(),
});
export type StandingRule = z.infer<typeof standingRuleSchema>;

/** Standing rules as they are exported and imported. */
export const standingRulesSchema = z.object({
  format: z.literal('dig-first-standing-rules'),
  version: z.literal(1),
  rules: z.array(standingRuleSchema),
});
export type StandingRules = z.infer<typeof standingRulesSchema>;

export const STANDING_RULE = 'standing-rule';
const SURE = 0.95;
/** Where the codebook calls the code an answer, or answers run on below and above it, the rule may not be meant for this variable. */
const CONTRADICTED = 0.6;

/** Whether a name fits "warm_*, own_*": a star stands for any signs; capitals are all one. */
export function fits(name: string, names: string): boolean {
  const folded = name.toLowerCase();
  return names
    .split(/[\s,]+/)
    .filter(Boolean)
    .some((pattern) => fitsPattern(folded, pattern.toLowerCase()));
}

/** Each part between stars is taken where it first stands behind the one before, which loses nothing and never goes back. */
function fitsPattern(name: string, pattern: string): boolean {
  const parts = pattern.split('*');
  if (parts.length === 1) return name === pattern;
  const [first, last] = [parts[0], parts[parts.length - 1]];
  if (name.length < first.length + last.length || !name.startsWith(first) || !name.endsWith(last))
    return false;
  const end = name.length - last.length;
  let at = first.length;
  for (const part of parts.slice(1, -1)) {
    const found = name.indexOf(part, at);
    if (found < 0 || found + part.length > end) return false;
    at = found + part.length;
  }
  return true;
}

/** What standing rules propose of variables: codes that count as valid, or could not be read, though a rule knows better. */
export function standingFlags(rules: readonly StandingRule[], subjects: readonly Subject[]): Flag[] {
  const codes = new Set(rules.map(({ code }) => Number(code)));
  return rules.flatMap(({ code, reason, names, note }) =>
    subjects
      .filter(({ name }) => fits(name, names))
      .flatMap((subject): Flag[] => {
        const level = held(subject, code);
        if (!level) return [];
        const claimed =
          subject.entry?.categories.find((category) => category.code === level.code && !category.missing)
            ?.label ?? null;
        const others = validOf(subject.levels).values.filter((value) => !codes.has(value));
        const among =
          claimed === null &&
          level.value !== null &&
          others.length > 0 &&
          others[0] < level.value &&
          others[others.length - 1] > level.value;
        const doubt =
          claimed !== null
            ? `; the codebook calls it “${claimed}”`
            : among
              ? '; here other values lie below it and above'
              : '';
        return [
          {
            rule: STANDING_RULE,
            variables: [subject.name],
            codes: [level.code],
            rows: level.count,
            severity: doubt ? 'low' : 'medium',
            certainty: doubt ? CONTRADICTED : SURE,
            reason,
            says: `${rowsHold(level.count)} ${level.code}, by your standing rule ${REASON_NAMES[reason]}${note ? ` (${note})` : ''}${doubt}`,
          },
        ];
      }),
  );
}

function held({ levels: { levels }, written, kind }: Subject, code: string): Level | undefined {
  if (kind === 'identifier') return undefined;
  const value = valueOf(code, written);
  return levels.find(
    (level) =>
      (level.standing === 'valid' || level.standing === 'unreadable') &&
      level.count > 0 &&
      (spellingsOf(level).includes(code) || (value !== null && level.value === value)),
  );
}

/** Rules about codes make way for a person's own about the same. */
export function givingWay(flags: readonly Flag[], standing: readonly Flag[]): Flag[] {
  const known = new Map<string, Set<string>>();
  for (const {
    variables: [name],
    codes,
  } of standing)
    known.set(name, new Set([...(known.get(name) ?? []), ...codes]));
  return flags.filter(
    ({ variables, codes, into }) =>
      into !== undefined ||
      codes.length === 0 ||
      variables.length !== 1 ||
      !codes.every((code) => known.get(variables[0])?.has(code)),
  );
}

/** Whether two rules say the same of the same variables. */
export const sameRule = (a: StandingRule, b: StandingRule): boolean =>
  a.code === b.code && a.reason === b.reason && a.names === b.names;
