import { isDateStorage, isNumericStorage, type Storage } from '../extract/words';
import { isoText } from '../infer/dates';
import { intervalOf } from '../sieve/bounds';

/** An end of a band as it is written: a number, or an ISO day or time. @param value as a variable of the storage has it */
export function endText(value: number, storage: Storage): string {
  return isDateStorage(storage) ? isoText(value, storage as 'date' | 'time' | 'datetime') : String(value);
}

/** What is typed as an end, as recodes have it; `null` where it is none of the storage. */
export function endTyped(text: string, storage: Storage): number | string | null {
  const said = text.trim();
  if (!isNumericStorage(storage)) return said === '' ? null : said;
  return said !== '' && Number.isFinite(Number(said)) ? Number(said) : null;
}

/** The value that a typed end stands for; `null` where it is none of the storage. */
export function endValue(text: string, end: 'from' | 'to', storage: Storage): number | null {
  const bound = endTyped(text, storage);
  if (bound === null) return null;
  const interval = intervalOf({ [end]: bound }, storage);
  return typeof interval === 'string' ? null : interval[end];
}
