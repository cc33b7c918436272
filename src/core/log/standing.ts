import type { Reason } from '../extract/words';
import { sameRule, type StandingRule } from '../flags/standing-rules';
import type { Entry } from './entries';
import { inForce } from './fold';

/** Codes that were declared in so many variables are taken to hold in all. */
const EVERYWHERE = 3;

/** A name as a standing rule can hold it: signs that part names, or stand for others, may be any. */
const asPattern = (name: string): string => name.replace(/[\s,*]+/g, '*');

/** Standing rules that the rulings of an extract amount to; without those that are there already. @param id makes a new identity */
export function standingFrom(
  log: readonly Entry[],
  rules: readonly StandingRule[],
  id: () => string,
): StandingRule[] {
  const found = new Map<string, { code: string; reason: Reason; variables: Set<string>; note: string }>();
  for (const entry of inForce(log))
    if (entry.type === 'declare-missing')
      for (const { code, reason } of entry.codes) {
        const key = `${code}\n${reason}`;
        const one = found.get(key) ?? { code, reason, variables: new Set<string>(), note: entry.why ?? '' };
        for (const name of entry.variables) one.variables.add(name);
        found.set(key, one);
      }
  return [...found.values()]
    .map(({ code, reason, variables, note }): StandingRule => ({
      id: id(),
      code,
      reason,
      names: variables.size >= EVERYWHERE ? '*' : [...variables].map(asPattern).join(', '),
      note,
    }))
    .filter((rule) => !rules.some((other) => sameRule(rule, other)));
}
