import type { Condition } from './condition';

/** So many codes are named. */
const NAMED = 6;
/** How the label of a code is found. */
export type LabelOf = (variable: string, code: string) => string | null;

/** "age is 16 to 64", "tenure is not 3 Rented", "a is 1, or b is 1": what a condition keeps. */
export function conditionSays(condition: Condition, labelOf: LabelOf = () => null): string {
  if ('any' in condition) return condition.any.map((one) => inner(one, labelOf)).join(', or ');
  if ('not' in condition) return negated(condition.not, labelOf);
  return plain(condition, labelOf, '');
}

const inner = (condition: Condition, labelOf: LabelOf): string =>
  'any' in condition ? `(${conditionSays(condition, labelOf)})` : conditionSays(condition, labelOf);

function negated(condition: Condition, labelOf: LabelOf): string {
  if ('not' in condition) return conditionSays(condition.not, labelOf);
  if ('any' in condition) return `none of: ${conditionSays(condition, labelOf)}`;
  if ('answered' in condition) return plain({ ...condition, answered: !condition.answered }, labelOf, '');
  return plain(condition, labelOf, ' not');
}

function plain(
  condition: Exclude<Condition, { not: Condition } | { any: Condition[] }>,
  labelOf: LabelOf,
  not: string,
): string {
  const { variable } = condition;
  if ('codes' in condition) {
    const named = condition.codes.slice(0, NAMED).map((code) => {
      const label = labelOf(variable, code);
      return label === null ? code : `${code} ${label}`;
    });
    const more = condition.codes.length - named.length;
    return `${variable} is${not} ${more > 0 ? `${named.join(', ')} or ${more} more codes` : listed(named)}`;
  }
  if ('answered' in condition) return `${variable} is ${condition.answered ? '' : 'not '}answered`;
  if ('contains' in condition)
    return `${variable} ${not ? 'does not contain' : 'contains'} “${condition.contains}”`;
  const { from, to } = condition;
  if (from !== undefined && to !== undefined)
    return from === to ? `${variable} is${not} ${from}` : `${variable} is${not} ${from} to ${to}`;
  return from !== undefined
    ? `${variable} is${not} ${from} or more`
    : `${variable} is${not} ${String(to)} or less`;
}

const listed = (items: readonly string[]): string =>
  items.length < 2 ? items.join('') : `${items.slice(0, -1).join(', ')} or ${items[items.length - 1]}`;
