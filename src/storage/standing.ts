import { standingRuleSchema, type StandingRule } from '../core/flags/standing-rules';
import { stores } from './stores';

/** Standing rules belong to no extract. Each is kept by itself, so that two windows do not write over each other's. */
export async function keepStanding(
  before: readonly StandingRule[],
  now: readonly StandingRule[],
): Promise<void> {
  const old = new Map(before.map((rule) => [rule.id, rule]));
  const kept = new Set(now.map(({ id }) => id));
  for (const [i, rule] of now.entries())
    if (JSON.stringify(old.get(rule.id)) !== JSON.stringify(rule))
      await stores.standing.setItem(`rule:${rule.id}`, { place: i, rule });
  for (const id of old.keys()) if (!kept.has(id)) await stores.standing.removeItem(`rule:${id}`);
}

/** @returns the rules, and the number of those that cannot be read */
export async function openStanding(): Promise<{ rules: StandingRule[]; unreadable: number }> {
  await splitOld();
  const found: { place: number; rule: StandingRule }[] = [];
  let unreadable = 0;
  await stores.standing.iterate((value: unknown, key) => {
    if (!key.startsWith('rule:')) return;
    const { place, rule } = (value ?? {}) as { place?: unknown; rule?: unknown };
    const read = standingRuleSchema.safeParse(rule);
    if (read.success) found.push({ place: typeof place === 'number' ? place : 0, rule: read.data });
    else unreadable++;
  });
  const order = (a: (typeof found)[number], b: (typeof found)[number]): number =>
    a.place - b.place || a.rule.id.localeCompare(b.rule.id);
  return { rules: found.sort(order).map(({ rule }) => rule), unreadable };
}

/** Rules that were kept as one list before each had a place of its own. */
async function splitOld(): Promise<void> {
  const old: unknown = await stores.standing.getItem('rules');
  if (old === null) return;
  if (Array.isArray(old))
    for (const [place, rule] of old.entries()) {
      const read = standingRuleSchema.safeParse(rule);
      await stores.standing.setItem(`rule:${read.success ? read.data.id : `old-${place}`}`, {
        place,
        rule: rule as unknown,
      });
    }
  await stores.standing.removeItem('rules');
}
