import type { Sievable } from '../../core/inspect/questions';
import { intervalOf } from '../../core/sieve/bounds';
import type { Bound, Condition } from '../../core/sieve/condition';

export const TESTS = {
  codes: 'Codes, picked',
  stretch: 'A stretch of values',
  answered: 'Answered',
  unanswered: 'Not answered',
  contains: 'A text in the cell',
} as const;
export type Test = keyof typeof TESTS;

/** What is filled in. */
export interface ConditionForm {
  test: Test;
  codes: ReadonlySet<string>;
  from: string;
  to: string;
  text: string;
  drop: boolean;
}

/** The condition that a form makes; words where it makes none yet. */
export function conditionOf(
  { test, codes, from, to, text, drop }: ConditionForm,
  { name: variable, storage }: Pick<Sievable, 'name' | 'storage'>,
): { condition: Condition } | { says: string } {
  const made = (condition: Condition): { condition: Condition } => ({
    condition: drop ? { not: condition } : condition,
  });
  switch (test) {
    case 'codes':
      return codes.size ? made({ variable, codes: [...codes] }) : { says: 'Tick at least one code.' };
    case 'answered':
    case 'unanswered':
      return made({ variable, answered: test === 'answered' });
    case 'contains':
      return text ? made({ variable, contains: text }) : { says: 'Type what to look for.' };
    case 'stretch': {
      const numeric = storage === 'integer' || storage === 'decimal';
      const bound = (typed: string): Bound | undefined => {
        const bare = typed.trim();
        if (bare === '') return undefined;
        const number = numeric ? Number(bare.replace(',', '.')) : NaN;
        return Number.isFinite(number) ? number : bare;
      };
      const [low, high] = [bound(from), bound(to)];
      if (low === undefined && high === undefined) return { says: 'Say from where, or to where, or both.' };
      const interval = intervalOf({ from: low, to: high }, storage);
      if (typeof interval === 'string') return { says: `${interval}.` };
      return made({
        variable,
        ...(low === undefined ? {} : { from: low }),
        ...(high === undefined ? {} : { to: high }),
      });
    }
  }
}

/** What a condition of one test was filled in as; `null` for one of several variables. */
export function formOf(condition: Condition): { variable: string; form: ConditionForm } | null {
  const drop = 'not' in condition;
  const inner = 'not' in condition ? condition.not : condition;
  if ('not' in inner || 'any' in inner) return null;
  const none: ConditionForm = { test: 'codes', codes: new Set(), from: '', to: '', text: '', drop };
  const { variable } = inner;
  if ('codes' in inner) return { variable, form: { ...none, codes: new Set(inner.codes) } };
  if ('answered' in inner)
    return { variable, form: { ...none, test: inner.answered ? 'answered' : 'unanswered' } };
  if ('contains' in inner) return { variable, form: { ...none, test: 'contains', text: inner.contains } };
  return {
    variable,
    form: { ...none, test: 'stretch', from: String(inner.from ?? ''), to: String(inner.to ?? '') },
  };
}
