import type { State } from '../log/fold';
import type { CellCounting, RowsAsked } from '../rows/all-rows';
import type { Categories, Numbers } from '../rows/records';
import type { RowTest } from '../rows/row-test';
import { rowTestOf } from '../sieve/row-tests';
import type { Laid } from './laid';
import type { Sieving } from './sieving';

/** An extract under inspection, with the sieve in force. */
type Sieved = Laid & { sifted: Sieving | null };

/**
 * Which of all rows count, where only a sample of them is held.
 * @returns `null` where all are held, and where cells were corrected or rows added, which all rows know nothing of
 */
export function rowsAsked(inspector: Sieved): RowsAsked | null {
  const { received, extract, sifted, setAside, decided, lookup } = inspector;
  const { pass } = received;
  if (!pass || decided.corrections.length > 0 || decided.added.length > 0) return null;
  const raw = rawOf(inspector);
  const aside = [...setAside].filter((row) => row < extract.rows);
  return {
    tests: (sifted?.conditions ?? []).map((condition) => onRaw(rowTestOf(condition, lookup), raw)),
    aside: new Set(aside.map((row) => pass.places?.[row] ?? row)),
  };
}

/** The same decisions where rows that were set aside are not there, and a sieve has done its work. */
export const withoutRows = (state: State): State => ({ ...state, sieve: null, aside: [] });

/** Counting by what variables are made of: trial recodes stand in no file. */
export function countingOf(counting: CellCounting, inspector: Laid): CellCounting {
  // Trial recodes come and go meanwhile.
  const raw: Raw = (name) => rawOf(inspector)(name);
  const categories = (by: readonly Categories[]): Categories[] =>
    by.map(({ variable, size, of }) => {
      if (variable === null) return { variable, size, of };
      const { name, text } = raw(variable);
      return { variable: name, size, of: (one) => of(text(one)) };
    });
  const numbers = <N extends Numbers | null>(one: N): N => {
    if (one === null) return one;
    const { name, text } = raw(one.variable);
    return { ...one, variable: name, of: (of: string) => one.of(text(of)), lifted: undefined };
  };
  return {
    cross: (by, within, weight = null) => counting.cross(categories(by), within, numbers(weight)),
    measured: (by, measure, within, weight = null) =>
      counting.measured(categories(by), numbers(measure), within, numbers(weight)),
  };
}

/** The variables that others are made of in the end, and what becomes of their texts. */
export const rawIn = (inspector: Laid): Raw => rawOf(inspector);

type Raw = (name: string) => { name: string; text: (raw: string) => string };

/** The received variable that another is made of in the end, and what becomes of its texts. */
function rawOf({ extract }: Laid): Raw {
  const byName = new Map(extract.variables.map((variable) => [variable.name, variable]));
  const raw: Raw = (name) => {
    const trial = byName.get(name)?.trial;
    if (!trial) return { name, text: (text) => text };
    const below = raw(trial.of);
    return { name: below.name, text: (text) => trial.text(below.text(text)) };
  };
  return raw;
}

function onRaw(test: RowTest, raw: Raw): RowTest {
  if ('not' in test) return { not: onRaw(test.not, raw) };
  if ('any' in test) return { any: test.any.map((one) => onRaw(one, raw)) };
  const { name, text } = raw(test.variable);
  if (name === test.variable) return test;
  return { variable: name, holds: (one) => test.holds(text(one)) };
}
