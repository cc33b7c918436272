import type { Universe } from '../flags/between/universe';
import { gatesOf, universeOf } from '../flags/between/gates';
import type { Asked } from './asked';
import type { Inspector } from './inspect';

/** Who was asked a question, as a table of gate against gated that shows whether it holds. */
export interface Skip {
  /** The variable that was asked of some, and the one that says of whom. */
  gated: string;
  gate: string;
  /** A second gate, within whose levels the table is repeated. */
  within: string | null;
  says: string;
  /** Whether a person said so; else the blanks tell. */
  accepted: boolean;
  /** What the codebook says of who was asked. */
  documented: string | null;
  /** Further gates, which the table does not show. */
  more: string[];
  /** Codes of the gate, at each code of the second where there is one, at which nobody was asked. */
  shut: { within: string | null; down: string }[];
}

/** @returns `null` where nothing tells of who was asked */
export function skipOf(inspector: Inspector, name: string): Skip | null {
  const found = universeFor(inspector, name);
  if (!found) return null;
  const { universe, asked } = found;
  const { by, steps = [] } = universe;
  const others = [...new Set(steps.map((step) => step.by))].filter((one) => one !== by && one !== name);
  const [within = null, ...more] = others;
  const codesOf = (variable: string): string[] => [
    ...(inspector.wholly(variable)?.levels.levels.map(({ code }) => code) ?? []),
    'blank',
    'notAsked',
    'unreadable',
  ];
  /** The first test that a row meets settles it. */
  const isShut = (gate: string, second: string | null): boolean => {
    const textOf = (variable: string): string | null => {
      const code = variable === by ? gate : variable === within ? second : null;
      return code === 'blank' ? '' : code;
    };
    for (const step of steps) {
      const text = textOf(step.by);
      if (text !== null && step.codes.includes(text)) return !step.asked;
    }
    return universe.shut.includes(textOf(by) ?? '');
  };
  const seconds: (string | null)[] = within === null ? [null] : codesOf(within);
  return {
    gated: name,
    gate: by,
    within,
    says: asked?.says ?? '',
    accepted: found.accepted,
    documented: inspector.wholly(name)?.entry?.universe ?? null,
    more,
    shut: seconds.flatMap((second) =>
      codesOf(by).flatMap((code) => (isShut(code, second) ? [{ within: second, down: code }] : [])),
    ),
  };
}

function universeFor(
  inspector: Inspector,
  name: string,
): { universe: Universe; accepted: boolean; asked: Asked | null } | null {
  const accepted = inspector.decided.universes.get(name);
  if (accepted) return { universe: accepted, accepted: true, asked: inspector.asked(name) };
  const { subjects } = inspector.whole;
  const gate = gatesOf(inspector.whole).find(({ variable }) => subjects[variable].name === name);
  return gate
    ? { universe: universeOf(gate, subjects), accepted: false, asked: inspector.asked(name) }
    : null;
}
