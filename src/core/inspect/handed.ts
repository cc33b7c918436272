import type { Extract, Handed } from '../extract/extract';
import type { State } from '../log/fold';

/** What documents of a handoff say was decided, under what is decided now. The same state where they say nothing. */
export function overHanded(state: State, { variables }: Extract): State {
  const handed = variables.flatMap(({ name, entry }) =>
    entry?.handed ? [[name, entry.handed] as const] : [],
  );
  if (handed.length === 0) return state;
  const under = <T>(
    of: (one: Handed) => T | undefined,
    over: ReadonlyMap<string, T>,
  ): ReadonlyMap<string, T> =>
    new Map([
      ...handed.flatMap(([name, one]) => {
        const said = of(one);
        return said === undefined ? [] : [[name, said] as const];
      }),
      ...over,
    ]);
  return {
    ...state,
    kinds: under(({ kind }) => kind, state.kinds),
    roles: under(({ role }) => role, state.roles),
    orders: under<readonly string[]>(({ order }) => order, state.orders),
    universes: under(({ gate }) => gate, state.universes),
  };
}
