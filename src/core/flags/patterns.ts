import { stemOf } from '../infer/stem';
import { SEVERITIES, type Severity } from '../extract/words';
import type { Flag } from './rule';
import { STANDING_RULE } from './standing-rules';

/** Flags with one cause: the same rule and codes in variables that belong together. One ruling settles them. */
export interface Pattern {
  key: string;
  rule: string;
  codes: string[];
  flags: Flag[];
  severity: Severity;
  certainty: number;
  /** Rows touched, added up over the variables. */
  rows: number;
  says: string;
}

/**
 * @param codeLists how variables of the same list of codes know each other, by name
 * @returns patterns, the gravest and surest first, larger before smaller
 */
export function patternsOf(flags: readonly Flag[], codeLists: ReadonlyMap<string, string | null>): Pattern[] {
  const groups = new Map<string, Flag[]>();
  for (const flag of flags) {
    const [name = ''] = flag.variables;
    // The same codes in items of one battery or one list are one pattern; a flag about rows or a pair is its own.
    // A standing rule is one cause wherever it holds.
    const family = flag.rule === STANDING_RULE ? '' : flag.variables.length === 1 ? (codeLists.get(name) ?? stemOf(name) ?? name) : flag.variables.join('\n');
    const key = `${flag.rule}\n${[...flag.codes].sort().join('\u0001')}\n${flag.into ? name : family}`;
    groups.set(key, [...(groups.get(key) ?? []), flag]);
  }
  const joined = new Map<string, Flag[]>();
  for (const [key, group] of groups) {
    // Items whose lists differ only because some codes are not documented still share their stem.
    const stem = stemOf(group[0].variables[0] ?? '');
    const wider = group[0].codes.length > 0 && group[0].rule !== STANDING_RULE && !group[0].into && stem && group[0].variables.length === 1 ? `${group[0].rule}\n${[...group[0].codes].sort().join('\u0001')}\n${stem}` : key;
    joined.set(wider, [...(joined.get(wider) ?? []), ...group]);
  }
  const order = (severity: Severity): number => SEVERITIES.indexOf(severity);
  return [...joined].map(([key, group]): Pattern => {
    const severity = group.map((flag) => flag.severity).sort((a, b) => order(a) - order(b))[0];
    const [first] = group;
    return {
      key, rule: first.rule, codes: first.codes, flags: group, severity,
      certainty: Math.max(...group.map(({ certainty }) => certainty)),
      rows: group.reduce((sum, { rows }) => sum + rows, 0),
      says: group.length === 1 ? first.says : `${first.codes.length ? first.codes.slice(0, 4).join(' or ') : first.rule} in ${group.length} variables: ${first.says}`,
    };
  }).sort((a, b) => order(a.severity) - order(b.severity) || b.certainty - a.certainty || b.flags.length - a.flags.length);
}
