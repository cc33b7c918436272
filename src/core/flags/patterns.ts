import { largest } from '../tally/extent';
import { stemOf } from '../infer/stem';
import { SEVERITIES, type Severity } from '../extract/words';
import { factsOf } from './registry';
import { anyOf, type Flag } from './rule';
import { STANDING_RULE } from './standing-rules';
import { putUnder } from '../extract/put-under';

/** Flags with one cause: the same rule and codes in variables that belong together. One ruling settles them. */
export interface Pattern {
  key: string;
  rule: string;
  /** All codes that a flag of it names; the first flag names most. */
  codes: string[];
  flags: Flag[];
  severity: Severity;
  certainty: number;
  /** Rows touched, added up over the variables. */
  rows: number;
  says: string;
}

/** Items that lack one of 77, 88 and 99 still belong to the others. */
const bySomeCodes = (rule: string): boolean => factsOf(rule)?.pattern === 'some codes';
/** One cause wherever it holds: a person's own word, or a habit of what wrote the file. */
const isEverywhere = (rule: string): boolean =>
  rule === STANDING_RULE || factsOf(rule)?.pattern === 'everywhere';
const MOST_SAID = 4;

/**
 * @param codeLists how variables of the same list of codes know each other, by name
 * @returns patterns, the gravest and surest first, larger before smaller
 */
export function patternsOf(flags: readonly Flag[], codeLists: ReadonlyMap<string, string | null>): Pattern[] {
  const lots = new Map<string, Flag[]>();
  for (const flag of flags) {
    const kin =
      bySomeCodes(flag.rule) && flag.variables.length === 1 && !flag.into
        ? flag.rule
        : factsOf(flag.rule)?.pattern === 'everywhere'
          ? `${flag.rule}\n${flag.severity}`
          : `${flag.rule}\n${codesOf(flag)}`;
    putUnder(lots, kin, flag);
  }
  const order = (severity: Severity): number => SEVERITIES.indexOf(severity);
  return [...lots.values()]
    .flatMap((lot) => families(lot, codeLists))
    .map((group): Pattern => {
      const [first] = group;
      const codes = [...new Set(group.flatMap((flag) => flag.codes))];
      return {
        key: `${first.rule}\n${[...codes].sort().join('\u0001')}\n${first.variables.join('\n')}`,
        rule: first.rule,
        codes,
        flags: group,
        severity: group.map((flag) => flag.severity).sort((a, b) => order(a) - order(b))[0],
        certainty: largest(group.map(({ certainty }) => certainty)),
        rows: group.reduce((sum, { rows }) => sum + rows, 0),
        says:
          group.length === 1
            ? first.says
            : `${codes.length && !first.into ? anyOf(codes.length > MOST_SAID ? [...codes.slice(0, MOST_SAID), 'others'] : codes) : first.rule} in ${group.length} variables: ${first.says}`,
      };
    })
    .sort(
      (a, b) =>
        order(a.severity) - order(b.severity) || b.certainty - a.certainty || b.flags.length - a.flags.length,
    );
}

const codesOf = ({ codes }: Flag): string => [...codes].sort().join('\u0001');

/** What a flag has in common with those of its cause: the codes of items of one battery or one list. A flag about rows or a pair is its own. */
function bondsOf(flag: Flag, codeLists: ReadonlyMap<string, string | null>): string[] {
  if (isEverywhere(flag.rule)) return ['everywhere'];
  if (flag.variables.length !== 1) return [flag.variables.join('\n')];
  const [name] = flag.variables;
  if (flag.into) return [name];
  const [list, stem] = [codeLists.get(name) ?? null, stemOf(name)];
  // Items whose lists differ only because some codes are not documented still share their stem.
  const kin = [
    ...(list === null ? [] : [`list ${list}`]),
    ...(stem === null || (flag.codes.length === 0 && list !== null) ? [] : [`stem ${stem}`]),
  ];
  if (kin.length === 0) return [name];
  return bySomeCodes(flag.rule) ? kin.flatMap((one) => flag.codes.map((code) => `${one}\n${code}`)) : kin;
}

/** Flags parted so that those of one part hang together by what they have in common. */
function families(flags: readonly Flag[], codeLists: ReadonlyMap<string, string | null>): Flag[][] {
  const leader = flags.map((_, i) => i);
  const find = (i: number): number => {
    let at = i;
    while (leader[at] !== at) at = leader[at] = leader[leader[at]];
    return at;
  };
  const firstWith = new Map<string, number>();
  flags.forEach((flag, i) => {
    for (const bond of bondsOf(flag, codeLists)) {
      const known = firstWith.get(bond);
      if (known === undefined) firstWith.set(bond, i);
      else leader[Math.max(find(known), find(i))] = Math.min(find(known), find(i));
    }
  });
  const parts = new Map<number, Flag[]>();
  flags.forEach((flag, i) => putUnder(parts, find(i), flag));
  // The one that names most codes speaks for all.
  return [...parts.values()].map((part) => [...part].sort((a, b) => b.codes.length - a.codes.length));
}
