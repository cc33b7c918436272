import * as z from 'zod';

/** What one condition on rows asks. @see conditionSchema */
export type Condition =
  | { variable: string; codes: string[] }
  | { variable: string; from?: Bound | undefined; to?: Bound | undefined }
  | { variable: string; answered: boolean }
  | { variable: string; contains: string }
  | { not: Condition }
  | { any: Condition[] };
/** A number, or an ISO 8601 day, month, moment or time of day as a text. */
export type Bound = number | string;

const variable = z.string().min(1);
const bound = z.union([z.number(), z.string().min(1)]);

/** One condition, with one test. */
export const conditionSchema: z.ZodType<Condition> = z.lazy(() =>
  z.union([
    z.strictObject({ variable, codes: z.array(z.string()).min(1) }),
    z.strictObject({ variable, from: bound, to: bound.optional() }),
    z.strictObject({ variable, to: bound }),
    z.strictObject({ variable, answered: z.boolean() }),
    z.strictObject({ variable, contains: z.string().min(1) }),
    z.strictObject({ not: conditionSchema }),
    z.strictObject({ any: z.array(conditionSchema).min(1) }),
  ]),
);

/** A sieve as it is saved and exchanged: a row is kept where all conditions hold. */
export const sieveSchema = z.object({
  format: z.literal('dig-first-sieve'),
  version: z.literal(1),
  name: z.string().default(''),
  conditions: z.array(conditionSchema).min(1),
});
export type SieveFile = z.infer<typeof sieveSchema>;

/** A condition of a sieve that a person makes: it can be switched off for a moment. */
export const partSchema = z.object({ id: z.string().min(1), condition: conditionSchema, on: z.boolean() });
export type Part = z.infer<typeof partSchema>;

/** A sieve that a person made. */
export interface Sieve {
  id: string;
  name: string;
  parts: readonly Part[];
}

/** Names of the variables that a condition asks about, each once. */
export function variablesOf(condition: Condition): string[] {
  if ('not' in condition) return variablesOf(condition.not);
  if ('any' in condition) return [...new Set(condition.any.flatMap(variablesOf))];
  return [condition.variable];
}

/** Conditions within conditions deeper than this are no one's wish. */
const MOST_DEEP = 40;
const TESTS = ['codes', 'answered', 'contains', 'not', 'any'] as const;

/** Where a document is no sieve, and why; or the sieve. */
export function readSieve(found: unknown): { sieve: SieveFile } | { element: string; says: string } {
  if (
    typeof found === 'object' &&
    found !== null &&
    'conditions' in found &&
    Array.isArray(found.conditions)
  ) {
    for (const [i, one] of found.conditions.entries()) {
      const wrong = wrongIn(one, `conditions.${i}`, 0);
      if (wrong) return wrong;
    }
  }
  const read = sieveSchema.safeParse(found);
  if (read.success) return { sieve: read.data };
  const [{ path, message }] = read.error.issues;
  return path[0] === 'conditions'
    ? { element: 'conditions', says: 'at least one condition is needed, in a list' }
    : { element: path.join('.') || 'the document', says: `this is no sieve that is known here (${message})` };
}

/** What is wrong with a condition, said of the innermost place. */
function wrongIn(found: unknown, element: string, depth: number): { element: string; says: string } | null {
  if (depth > MOST_DEEP)
    return { element, says: `conditions stand more than ${MOST_DEEP} deep in one another` };
  if (typeof found !== 'object' || found === null || Array.isArray(found))
    return { element, says: 'a condition is an object such as { "variable": "age", "from": 16 }' };
  const tests = [
    ...TESTS.filter((test) => test in found),
    ...('from' in found || 'to' in found ? ['from or to'] : []),
  ];
  if (tests.length !== 1)
    return {
      element,
      says: tests.length
        ? `a condition has one test, not several (${tests.join(', ')}); put each into a condition of its own`
        : 'a condition has one test: codes, from or to, answered, contains, not, or any',
    };
  if ('not' in found)
    return wrongIn(found.not, `${element}.not`, depth + 1) ?? strange(found, ['not'], element);
  if ('any' in found) {
    if (!Array.isArray(found.any) || found.any.length === 0)
      return { element: `${element}.any`, says: 'any is a list of at least one condition' };
    for (const [i, one] of found.any.entries()) {
      const wrong = wrongIn(one, `${element}.any.${i}`, depth + 1);
      if (wrong) return wrong;
    }
    return strange(found, ['any'], element);
  }
  if (!('variable' in found) || typeof found.variable !== 'string' || found.variable === '')
    return { element, says: 'a condition names its variable' };
  if ('codes' in found && (!Array.isArray(found.codes) || found.codes.length === 0))
    return { element: `${element}.codes`, says: 'codes is a list of at least one code' };
  if ('contains' in found && found.contains === '')
    return { element: `${element}.contains`, says: 'there is nothing to look for' };
  const read = conditionSchema.safeParse(found);
  return read.success
    ? null
    : (strange(found, ['variable', 'codes', 'from', 'to', 'answered', 'contains'], element) ?? {
        element,
        says: 'codes are texts, answered is true or false, contains is a text, from and to are numbers or ISO days and times as texts',
      });
}

/** A member that no condition has. */
function strange(
  found: object,
  known: readonly string[],
  element: string,
): { element: string; says: string } | null {
  const name = Object.keys(found).find((key) => !known.includes(key));
  return name === undefined
    ? null
    : { element: `${element}.${name}`, says: `no condition of this form has ${name}` };
}
