import { isNumericStorage } from '../extract/words';
import { isBlank } from '../read/looks';
import { placeOfTexts } from '../infer/level-coding';
import { valueOf } from '../infer/read-levels';
import type { RowTest } from '../rows/row-test';
import { intervalOf } from './bounds';
import type { Condition } from './condition';
import { holdingPlaces, type Lookup, type PlainCondition, type Sifted } from './sift';

/**
 * A condition as a test of raw texts, for rows that are not held: what a text counts as is what the levels say of it; a text
 * that none of them has, since only a sample of the rows is held, is read as the others are.
 * @throws Error for a condition that does not fit: ask `misfitOf` first
 */
export function rowTestOf(condition: Condition, lookup: Lookup): RowTest {
  if ('not' in condition) return { not: rowTestOf(condition.not, lookup) };
  if ('any' in condition) return { any: condition.any.map((one) => rowTestOf(one, lookup)) };
  const { variable } = condition;
  const sifted = lookup(variable);
  if (!sifted) throw new Error(`there is no variable ${variable}`);
  const { places } = sifted;
  const holds = holdingPlaces(sifted, condition);
  const place = placeOfTexts(places.levels);
  const unknown = unknownHolds(sifted, condition);
  return {
    variable: sifted.name,
    holds: (text) => {
      const at = place.get(text) ?? (isBlank(text) ? places.blank : undefined);
      return at === undefined ? unknown(text) : holds[at] === 1;
    },
  };
}

/** The same of a text that no level has. */
function unknownHolds({ written }: Sifted, condition: PlainCondition): (text: string) => boolean {
  const value = (text: string): number | null => valueOf(text, written);
  const isText = written.storage === 'text' || written.storage === 'empty';
  if ('codes' in condition) {
    const codes = new Set(condition.codes);
    const numeric = isNumericStorage(written.storage);
    const values = new Set(numeric ? condition.codes.map(value) : []);
    values.delete(null);
    return (text) => codes.has(text) || (numeric && values.has(value(text)));
  }
  if ('answered' in condition) return (text) => (isText || value(text) !== null) === condition.answered;
  if ('contains' in condition) {
    const sought = condition.contains.toLowerCase();
    return (text) => text.toLowerCase().includes(sought);
  }
  const interval = intervalOf(condition, written.storage, written.utc);
  if (typeof interval === 'string') throw new Error(interval);
  return (text) => {
    const found = value(text);
    return found !== null && found >= interval.from && found <= interval.to;
  };
}
