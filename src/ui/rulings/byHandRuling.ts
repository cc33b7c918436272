import type { Reason, Role } from '../../core/extract/words';
import { counted } from '../../core/handoff/words';
import type { CodeHeld } from '../../core/inspect/questions';
import type { Decision } from '../../core/log/entries';

export type What = 'missing' | 'merge' | 'universe' | 'role' | 'ask';

/** What was said so far of a ruling by hand. */
export interface Form {
  what: What;
  picked: ReadonlySet<string>;
  reason: Reason;
  /** The code that others count for. */
  into: string;
  /** The variable on which it hangs who was asked, and its codes at which it was not. */
  gate: string;
  shut: ReadonlySet<string>;
  role: Role;
  question: string;
  why: string;
}
const NONE: ReadonlySet<string> = new Set();
export const emptyForm = (role: Role): Form => ({
  what: 'missing',
  picked: NONE,
  reason: 'no-answer',
  into: '',
  gate: '',
  shut: NONE,
  role,
  question: '',
  why: '',
});

/** The rule under which a question without a flag stands. */
const BY_HAND = 'by-hand';

/** What the form says so far, as decisions; and in words what they do, or what is still needed. */
export function rulingOf(
  { what, picked, reason, into, gate, shut, role, question }: Form,
  {
    names,
    codes,
    gateKnown,
    presumedRole,
  }: { names: string[]; codes: readonly CodeHeld[]; gateKnown: boolean; presumedRole: Role },
): { decisions: Decision[]; says: string } {
  const here = names.length === 1 ? '' : ` in ${counted(names.length, 'variable')}`;
  const holding = codes.reduce((sum, { code, count }) => (picked.has(code) ? sum + count : sum), 0);
  const target = into.trim();
  const nothing = (says: string): { decisions: Decision[]; says: string } => ({ decisions: [], says });
  const list = [...picked];
  switch (what) {
    case 'missing':
      return list.length === 0
        ? nothing('Tick a code first')
        : {
            decisions: [
              {
                type: 'declare-missing',
                variables: names,
                codes: list.map((code) => ({ code, reason })),
                rule: null,
              },
            ],
            says: `Declare ${list.slice(0, 4).join(', ')} missing${here}: ${counted(holding, 'row')}`,
          };
    case 'merge': {
      const others = list.filter((code) => code !== target);
      return others.length === 0
        ? nothing('Tick a code first')
        : !target
          ? nothing('Say which code they stand for')
          : {
              decisions: [{ type: 'merge-codes', variables: names, codes: others, into: target, rule: null }],
              says: `Count ${others.slice(0, 4).join(', ')} for ${target}${here}: ${counted(
                codes.reduce((sum, { code, count }) => (others.includes(code) ? sum + count : sum), 0),
                'row',
              )}`,
            };
    }
    case 'universe':
      return !gateKnown
        ? nothing(gate && names.includes(gate) ? 'It cannot hang on itself' : 'Name the variable it hangs on')
        : shut.size === 0
          ? nothing(`Tick the codes of ${gate} at which it was not asked`)
          : {
              decisions: names.map((variable) => ({
                type: 'accept-universe',
                variable,
                by: gate,
                shut: [...shut],
              })),
              says: `Take blanks for not asked where ${gate} is ${[...shut].slice(0, 4).join(', ')}${here}`,
            };
    case 'role':
      return names.length === 1 && role === presumedRole
        ? nothing(`It has the role ${role}`)
        : {
            decisions: [{ type: 'confirm-role', roles: names.map((variable) => ({ variable, role })) }],
            says: `Give ${names.length === 1 ? 'it' : 'them'} the role ${role}`,
          };
    case 'ask':
      return !question.trim()
        ? nothing('Write the question first')
        : {
            decisions: [
              {
                type: 'ask-archive',
                variables: names,
                codes: list,
                rule: BY_HAND,
                question: question.trim(),
              },
            ],
            says: 'Write it down for the letter',
          };
  }
}
