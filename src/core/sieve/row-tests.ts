import { isNumericStorage } from '../extract/words';
import { isBlank } from '../read/looks';
import { placeOfTexts } from '../infer/level-coding';
import { valueOf } from '../infer/read-levels';
import type { RowTest, UnreadTest } from '../rows/row-test';
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
  const unread = unreadOf(sifted, condition);
  const unknown = unreadHolds(sifted, unread);
  return {
    variable: sifted.name,
    unread,
    holds: (text) => {
      const at = place.get(text) ?? (isBlank(text) ? places.blank : undefined);
      return at === undefined ? unknown(text) : holds[at] === 1;
    },
  };
}

/** What the condition asks of a text that no level has. */
function unreadOf({ written }: Sifted, condition: PlainCondition): UnreadTest {
  const { storage } = written;
  const numeric = isNumericStorage(storage);
  if ('codes' in condition)
    return {
      codes: condition.codes,
      numbers: numeric ? condition.codes.flatMap((code) => valueOf(code, written) ?? []) : [],
    };
  if ('answered' in condition)
    return { answered: condition.answered, numeric: storage !== 'text' && storage !== 'empty' };
  if ('contains' in condition) return { contains: condition.contains.toLowerCase() };
  const interval = intervalOf(condition, storage, written.utc);
  if (typeof interval === 'string') throw new Error(interval);
  return { ...interval, storage };
}

function unreadHolds({ written }: Sifted, asked: UnreadTest): (text: string) => boolean {
  const value = (text: string): number | null => valueOf(text, written);
  if ('codes' in asked) {
    const [codes, numbers] = [new Set(asked.codes), new Set(asked.numbers)];
    return (text) => codes.has(text) || (numbers.size > 0 && numbers.has(value(text) ?? NaN));
  }
  if ('answered' in asked) return (text) => (!asked.numeric || value(text) !== null) === asked.answered;
  if ('contains' in asked) return (text) => text.toLowerCase().includes(asked.contains);
  return (text) => {
    const found = value(text);
    return found !== null && found >= asked.from && found <= asked.to;
  };
}
