import type { CodebookEntry, CodeRange, Location } from '../extract/extract';
import type { Storage } from '../extract/words';

/** What attributes of elements of a DDI-Codebook document say. */
export type Attributes = Record<string, string>;

export const number = (text: string | undefined): number | null =>
  text === undefined || text.trim() === '' || !Number.isFinite(Number(text)) ? null : Number(text);

/** The name at the end of an address. */
export function nameInUri(uri: string | undefined): string {
  const last = (uri ?? '').split(/[\\/]/).at(-1) ?? '';
  try {
    return decodeURIComponent(last);
  } catch {
    return last;
  }
}

export const rangeOf = ({ min, max, minExclusive, maxExclusive }: Attributes): CodeRange => ({
  min: number(min ?? minExclusive),
  max: number(max ?? maxExclusive),
});

export const NATURES = ['nominal', 'ordinal', 'interval', 'ratio'] as const;

/** One-based columns, from start and end, or start and width, or end and width; `null` where they make no sense. */
export function locationOf(attributes: Attributes): Location | null {
  const whole = (name: 'StartPos' | 'EndPos' | 'width' | 'RecSegNo'): number | null => {
    const value = number(attributes[name]);
    return value !== null && Number.isInteger(value) && value >= 1 ? value : null;
  };
  const [startPos, endPos, width, record] = [
    whole('StartPos'),
    whole('EndPos'),
    whole('width'),
    whole('RecSegNo'),
  ];
  const start = startPos ?? (endPos !== null && width !== null ? endPos - width + 1 : null);
  const end = endPos ?? (start !== null && width !== null ? start + width - 1 : null);
  return start !== null && end !== null && start >= 1 && end >= start && end <= LAST_COLUMN
    ? { start, end, ...(record !== null && record > 1 && record <= MOST_RECORDS ? { record } : {}) }
    : null;
}
/** No case takes more lines. */
const MOST_RECORDS = 1000;
/** No line of a data file is longer. */
const LAST_COLUMN = 1_000_000;

export function storageOf({ type, category }: Attributes, decimals: number | null): Storage | null {
  if (category === 'date') return 'date';
  if (category === 'time') return 'time';
  if (type === 'character') return 'text';
  return type === 'numeric' ? (decimals ? 'decimal' : 'integer') : null;
}

export function publish({ published }: CodebookEntry, type: string | undefined, value: number | null): void {
  if (value === null) return;
  switch (type) {
    case 'vald':
      published.valid = value;
      break;
    case 'invd':
      published.invalid = value;
      break;
    case 'min':
      published.min = value;
      break;
    case 'max':
      published.max = value;
      break;
    case 'mean':
      published.mean = value;
      break;
    case 'stdev':
      published.sd = value;
      break;
    default:
  }
}
