import type { Reason } from '../../core/extract/words';
import { factsOf } from '../../core/flags/registry';
import type { Flag } from '../../core/flags/rule';
import { decide, setFlaggedAside, setRowsAside } from '../../store/decisions';
import { putUnder } from '../../core/extract/put-under';

/** Whether declaring codes missing can answer the flag. */
export const isAboutCodes = (flag: Flag): boolean =>
  flag.codes.length > 0 && flag.variables.length > 0 && (factsOf(flag.rule)?.answers ?? 'codes') === 'codes';
/** Whether its rows can be set aside. A breach of a universe is an answer too many, and the row is one all the same. */
export const isAboutRows = (flag: Flag): boolean => (flag.at?.length ?? 0) > 0 && flag.rule !== 'gate-breach';

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
  for (const flag of flags) putUnder(together, flag.codes.join('\u0001'), flag);
  await Promise.all(
    [...together.values()].map((group) =>
      decide(
        {
          type: 'declare-missing',
          variables: firsts(group),
          codes: group[0].codes.map((code) => ({ code, reason: reasonOf(code) })),
          rule: group[0].rule,
          ...reasoned(why),
        },
        group,
      ),
    ),
  );
}

export async function keepValid(flags: readonly Flag[], why = ''): Promise<void> {
  if (flags.length)
    await decide(
      {
        type: 'keep-valid',
        variables: firsts(flags),
        codes: [...new Set(flags.flatMap(({ codes }) => codes))],
        rule: flags[0].rule,
        ...reasoned(why),
      },
      flags,
    );
}

export async function mergeSpellings(flags: readonly Flag[], why = ''): Promise<void> {
  await Promise.all(
    flags.flatMap((flag) => {
      const byTarget = new Map<string, string[]>();
      for (const [code, target] of Object.entries(flag.into ?? {})) putUnder(byTarget, target, code);
      const variables = flag.variables.slice(0, 1);
      return [...byTarget].map(([into, codes]) =>
        decide({ type: 'merge-codes', variables, codes, into, rule: flag.rule, ...reasoned(why) }, [flag]),
      );
    }),
  );
}

export async function setAside(flags: readonly Flag[], why = ''): Promise<void> {
  // Of very many rows only the first came with the flag.
  if (flags.some(({ atAll }) => atAll !== undefined))
    return setFlaggedAside(flags, { ...reasoned(why), answers: flags });
  const rows = [...new Set(flags.flatMap(({ at = [] }) => at))];
  if (rows.length) await setRowsAside(rows, flags[0].rule, { ...reasoned(why), answers: flags });
}

export async function acceptUniverse(flags: readonly Flag[], why = ''): Promise<void> {
  await Promise.all(
    flags.flatMap((flag) =>
      flag.universe
        ? [
            decide(
              {
                type: 'accept-universe',
                variable: flag.variables[0],
                ...flag.universe,
                ...reasoned(why),
              },
              [flag],
            ),
          ]
        : [],
    ),
  );
}

export async function askArchive(flags: readonly Flag[], question: string, why = ''): Promise<void> {
  if (flags.length && question.trim())
    await decide(
      {
        type: 'ask-archive',
        variables: firsts(flags),
        codes: [...new Set(flags.flatMap(({ codes }) => codes))],
        rule: flags[0].rule,
        question: question.trim(),
        ...reasoned(why),
      },
      flags,
    );
}
