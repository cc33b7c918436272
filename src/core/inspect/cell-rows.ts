import { isNumericStorage } from '../extract/words';
import { binned } from '../recode/bins';
import type { Condition } from '../sieve/condition';
import type { CrossAsk } from './crossing';
import type { Inspector } from './inspect';
import { needed, sideOf, type Side } from './sides';
import { levelAt } from '../infer/level-list';
import { largest, smallest } from '../tally/extent';

/** A cell of a table by the codes that it stands at; `null` where the whole line, column or all levels are meant. */
export interface CellAt {
  down: string | null;
  across: string | null;
  within: string | null;
}

/** Conditions that keep the rows of a cell, and no others of the base. */
export function conditionsOfCell(
  inspector: Inspector,
  ask: Pick<CrossAsk, 'down' | 'across' | 'within' | 'withMissing' | 'bins'>,
  at: CellAt,
): Condition[] {
  const how = { withMissing: ask.withMissing, binned: true, bins: ask.bins };
  return (['down', 'across', 'within'] as const).flatMap((side) => {
    const name = ask[side];
    if (name === null) return [];
    const code = at[side];
    // A margin is of the rows that stand in some line and some column.
    if (code === null) return ask.withMissing ? [] : [{ variable: name, answered: true }];
    return conditionsOfCode(inspector, sideOf(inspector, name, how), code);
  });
}

function conditionsOfCode(inspector: Inspector, side: Side, code: string): Condition[] {
  const { variable } = side;
  const { base, written } = needed(inspector, variable);
  const state = side.codes.find((one) => one.code === code)?.state ?? 'valid';
  const codesIn = (wanted: string): string[] =>
    base.levels.flatMap((level) => (level.standing === wanted ? [level.code] : []));
  if (side.bins && state === 'valid' && isNumericStorage(written.storage)) {
    const values = [...binned(side.bins, base.levels)].flatMap(([place, bin]) =>
      bin.code === code ? [levelAt(base.levels, place).value ?? 0] : [],
    );
    return [{ variable, from: smallest(values), to: largest(values) }];
  }
  if (state === 'unreadable') return [{ variable, codes: codesIn('unreadable') }];
  const isState = (state === 'blank' || state === 'notAsked') && code === state;
  if (!isState) return [{ variable, codes: [code] }];
  // Neither answered nor a code for why not: what is left is blank.
  const others = [...codesIn('missing'), ...codesIn('not-asked'), ...codesIn('unreadable')];
  return [{ variable, answered: false }, ...(others.length ? [{ not: { variable, codes: others } }] : [])];
}
