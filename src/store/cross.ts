import { SIDES, type Everything, type Side } from './cross-words';
import { ranked } from '../core/cross/ranked';
import type { KeptTable } from '../core/cross/kept-table';
import { isCategorical, isMeasure } from '../core/extract/words';
import type { CellAt } from '../core/inspect/cell-rows';
import { inView } from '../core/sets/view';
import type { Part } from '../core/sieve/condition';
import { askOrSay } from './asking';
import { decide } from './decisions';
import { outside } from './outside';
import { lookAtRows, useSession, type CrossView } from './session';
import { addCondition, partsAtHand } from './sieve';

const { getState: get, setState: set } = useSession;

/** Changes what the station shows. */
export const changeCross = (change: Partial<CrossView>): void =>
  set((now) => ({ crossing: { ...now.crossing, ...change } }));

/** The table that is asked for; `null` while nothing stands down. */
export function tableAsked(crossing: CrossView = get().crossing): KeptTable | null {
  const { down, across, within, measure, withMissing, small, blank, bins, shows, measured } = crossing;
  return down === null
    ? null
    : {
        down,
        across,
        within,
        measure,
        withMissing,
        small,
        blank,
        bins,
        shows: [...shows],
        measured: [...measured],
      };
}

/** Another variable on a side, or none; one that stood on another side changes places. */
export function fill(side: Side, name: string | null): void {
  const { crossing } = get();
  const before = crossing[side];
  const other = SIDES.find((one) => one !== side && name !== null && crossing[one] === name);
  // A measure stays what is summarised: it may stand on a side as well.
  const moved = other && side !== 'measure' && other !== 'measure' ? { [other]: before } : {};
  const next = { ...crossing, ...moved, [side]: name };
  // What stands across or within a table that has nothing down stands down.
  if (next.down === null) {
    if (next.across !== null) [next.down, next.across] = [next.across, null];
    else if (next.within !== null) [next.down, next.within] = [next.within, null];
  }
  changeCross({ ...next, skip: null, view: 'table', at: null });
}

/** What stood down stands across, and the other way round. */
export function turnRound(): void {
  const { crossing } = get();
  if (crossing.across === null) return;
  changeCross({ down: crossing.across, across: crossing.down, at: null });
}

/** More distinct values than this make a measure one that is summarised, and no side. */
const FEW = 12;

/** Holds variables against each other: the first down, the next across, the third within; a measure beside a category is summarised. */
export function holdAgainst(names: readonly string[]): void {
  const { summaries } = get();
  const known = names.slice(0, 4).flatMap((name) => summaries.find((one) => one.name === name) ?? []);
  const isSummed = ({ kind, counts }: (typeof known)[number]): boolean =>
    isMeasure(kind) && counts.distinct > FEW;
  const sides = known.filter((one) => !isSummed(one));
  const measure = sides.length > 0 ? (known.find(isSummed) ?? null) : null;
  const [down = null, across = null, within = null] = [...sides, ...(sides.length === 0 ? known : [])].map(
    ({ name }) => name,
  );
  changeCross({
    down,
    across,
    within,
    measure: measure?.name ?? null,
    skip: null,
    view: 'table',
    at: null,
  });
  set({ station: 'cross', wide: false });
}

/** Opens a table that was kept. */
export function openTable(asked: KeptTable): void {
  changeCross({ ...asked, skip: null, view: 'table', at: null });
  set({ station: 'cross', wide: false });
}

/** Gate against gated, with states as lines. */
export async function showSkip(name: string): Promise<void> {
  const skip = await askOrSay('skip', name);
  if (!skip) {
    set({
      problem: {
        file: name,
        says: 'neither its blanks nor a ruling tell of whom it was asked; say it by a ruling, or hold it against the variable that you think of',
      },
    });
    return;
  }
  changeCross({
    down: skip.gate,
    across: skip.gated,
    within: skip.within,
    measure: null,
    withMissing: true,
    skip,
    view: 'table',
    at: null,
  });
  set({ station: 'cross', wide: false });
}

/** Keeps the table for the report, or takes it out again. */
export async function keepTable(): Promise<void> {
  const asked = tableAsked();
  if (!asked) return;
  const known = keptAs(asked);
  if (known !== null) await decide({ type: 'drop-table', table: known });
  else await decide({ type: 'keep-table', table: outside().newId(), asked });
}

/** The id under which a table is kept, whatever figures it shows; `null` where it is not. */
export function keptAs(asked: KeptTable): string | null {
  const same = (one: KeptTable): boolean =>
    one.down === asked.down &&
    one.across === asked.across &&
    one.within === asked.within &&
    one.measure === asked.measure &&
    one.withMissing === asked.withMissing;
  return [...get().state.tables].find(([, one]) => same(one))?.[0] ?? null;
}

/** Shows the rows of a cell: the sieve in force and what keeps them, not in force. A look takes the place of the look before. */
export async function lookAtCell(at: CellAt): Promise<void> {
  const asked = tableAsked();
  const conditions = asked && (await askOrSay('conditionsOfCell', asked, at));
  if (!conditions) return;
  const { draft, looked } = get();
  const before = (draft?.parts ?? partsAtHand().parts).filter(({ id }) => !looked.includes(id));
  const parts: Part[] = conditions.map((condition) => ({ id: outside().newId(), condition, on: true }));
  set({
    looked: parts.map(({ id }) => id),
    draft: { sieve: draft?.sieve ?? null, name: draft?.name ?? '', parts: [...before, ...parts] },
  });
  lookAtRows({ which: 'kept', flag: null });
}

/** Makes a condition of a cell: its rows are kept, or dropped. */
export async function conditionOfCell(at: CellAt, drop: boolean): Promise<void> {
  const asked = tableAsked();
  const conditions = asked && (await askOrSay('conditionsOfCell', asked, at));
  if (!conditions) return;
  // Rows that hold all of it are dropped where any one of its opposites is enough to be kept.
  if (!drop) for (const condition of conditions) addCondition(condition);
  else if (conditions.length === 1) addCondition({ not: conditions[0] });
  else
    addCondition({
      any: conditions.map((condition) => ('not' in condition ? condition.not : { not: condition })),
    });
}

let run = 0;

/** Holds a variable against every other in view: what is found stands there at once, ranked. */
export async function againstAll(of: string): Promise<void> {
  const mine = ++run;
  const { summaries, state, id, base } = get();
  const names = inView(summaries, state)
    .filter(({ name, kind }) => name !== of && (isCategorical(kind) || isMeasure(kind)))
    .map(({ name }) => name);
  let found: Everything = { of, pairs: [], done: 0, whole: names.length, running: true };
  changeCross({ view: 'everything' });
  set({ station: 'cross', wide: false, everything: found });
  while (found.done < names.length) {
    const answer = await outside().engine.ask('against', of, names.slice(found.done, found.done + MOST));
    const now = get();
    if (run !== mine || now.id !== id) return;
    if (!answer.ok || now.base !== base) {
      set({
        everything: { ...found, running: false },
        ...(answer.ok ? {} : { problem: answer.problem }),
      });
      return;
    }
    const { pairs, done } = answer.value;
    found = { ...found, pairs: ranked([...found.pairs, ...pairs]), done: found.done + done };
    found.running = found.done < names.length;
    set({ everything: found });
  }
  set({ everything: { ...found, running: false } });
}
const MOST = 200;

/** Ends it; what was found stays. */
export function stopAgainst(): void {
  run++;
  const { everything } = get();
  if (everything) set({ everything: { ...everything, running: false } });
}
