import type { Reason } from '../../core/extract/words';
import { ROW_RULES } from '../../core/flags/registry';
import { MOST_AT, type Flag } from '../../core/flags/rule';
import { decide } from '../../store/session';

/** Whether declaring codes missing can answer the flag. */
export const isAboutCodes = (flag: Flag): boolean =>
  flag.codes.length > 0 && flag.variables.length > 0 && !ROW_RULES.has(flag.rule);
/** Whether its rows can be set aside. A breach of a universe is an answer too many, and the row is one all the same. */
export const isAboutRows = (flag: Flag): boolean =>
  (flag.at?.length ?? 0) > 0 &&
  flag.rule !== 'gate-breach' &&
  (flag.rows <= MOST_AT || flag.at?.length === flag.rows);

const firsts = (flags: readonly Flag[]): string[] => [
  ...new Set(flags.flatMap(({ variables }) => variables.slice(0, 1))),
];
/** A person's own reason; nothing where none is typed. */
const reasoned = (why: string): { why?: string } => (why.trim() ? { why: why.trim() } : {});

/** Flags that one ruling answers: the variables of all, the codes of each. @param reasonOf why a code is missing */
export async function declareMissing(
  flags: readonly Flag[],
  reasonOf: (code: string) => Reason,
  why = '',
): Promise<void> {
  const together = new Map<string, Flag[]>();
  for (const flag of flags)
    together.set(flag.codes.join('\u0001'), [...(together.get(flag.codes.join('\u0001')) ?? []), flag]);
  for (const group of together.values()) {
    await decide({
      type: 'declare-missing',
      variables: firsts(group),
      codes: group[0].codes.map((code) => ({ code, reason: reasonOf(code) })),
      rule: group[0].rule,
      ...reasoned(why),
    });
  }
}

export async function keepValid(flags: readonly Flag[], why = ''): Promise<void> {
  if (flags.length)
    await decide({
      type: 'keep-valid',
      variables: firsts(flags),
      codes: [...new Set(flags.flatMap(({ codes }) => codes))],
      rule: flags[0].rule,
      ...reasoned(why),
    });
}

export async function mergeSpellings(flags: readonly Flag[], why = ''): Promise<void> {
  for (const { variables, into = {}, rule } of flags) {
    const byTarget = new Map<string, string[]>();
    for (const [code, target] of Object.entries(into))
      byTarget.set(target, [...(byTarget.get(target) ?? []), code]);
    for (const [target, codes] of byTarget)
      await decide({
        type: 'merge-codes',
        variables: variables.slice(0, 1),
        codes,
        into: target,
        rule,
        ...reasoned(why),
      });
  }
}

export async function setAside(flags: readonly Flag[], why = ''): Promise<void> {
  const rows = [...new Set(flags.flatMap(({ at = [] }) => at))];
  if (rows.length) await decide({ type: 'set-aside', rows, rule: flags[0].rule, ...reasoned(why) });
}

export async function acceptUniverse(flags: readonly Flag[], why = ''): Promise<void> {
  for (const {
    variables: [variable],
    universe,
  } of flags)
    if (universe) await decide({ type: 'accept-universe', variable, ...universe, ...reasoned(why) });
}

export async function askArchive(flags: readonly Flag[], question: string, why = ''): Promise<void> {
  if (flags.length && question.trim())
    await decide({
      type: 'ask-archive',
      variables: firsts(flags),
      codes: [...new Set(flags.flatMap(({ codes }) => codes))],
      rule: flags[0].rule,
      question: question.trim(),
      ...reasoned(why),
    });
}
