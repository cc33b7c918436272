import { patternsOf, type Pattern } from '../../core/flags/patterns';
import type { Flag } from '../../core/flags/rule';
import type { Summary } from '../../core/inspect/summary';
import type { State } from '../../core/log/fold';
import { inView } from '../../core/sets/view';

export type Order = 'pattern' | 'variable' | 'rule';
export const ORDERS: Record<Order, string> = {
  pattern: 'the gravest first',
  variable: 'variable',
  rule: 'rule',
};

/** Patterns to rule on and remarks, of the variables in view, and the number of flags on others. */
export function patternsInView(
  flags: readonly Flag[],
  summaries: readonly Summary[],
  state: State,
  order: Order,
): { open: Pattern[]; remarks: Pattern[]; elsewhere: number } {
  const shown = new Set(inView(summaries, state).map(({ name }) => name));
  const inScope = flags.filter(
    ({ variables }) => variables.length === 0 || variables.some((name) => shown.has(name)),
  );
  const codeLists = new Map(summaries.map(({ name, codeList }) => [name, codeList]));
  const patterns = patternsOf(
    inScope.filter(({ severity }) => severity !== 'note'),
    codeLists,
  );
  const position = new Map(summaries.map(({ name, position: place }) => [name, place]));
  if (order === 'variable')
    patterns.sort(
      (a, b) => (position.get(a.flags[0].variables[0]) ?? 0) - (position.get(b.flags[0].variables[0]) ?? 0),
    );
  if (order === 'rule') patterns.sort((a, b) => a.rule.localeCompare(b.rule));
  // A remark is no work: it stands apart.
  return {
    open: patterns,
    remarks: patternsOf(
      inScope.filter(({ severity }) => severity === 'note'),
      codeLists,
    ),
    elsewhere: flags.length - inScope.length,
  };
}
