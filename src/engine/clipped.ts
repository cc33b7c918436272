/** Signs of a text that are shown; what is longer is no code, label or name, but a document in a cell. */
const MOST_SIGNS = 2000;

/**
 * An answer as it is shown: texts of a size that only a page of their own could show are cut short, and say so. What is
 * saved to a file never passes here.
 */
export function clipped<T>(answer: T): T {
  return clip(answer) as T;
}

function clip(value: unknown): unknown {
  if (typeof value === 'string')
    return value.length > MOST_SIGNS
      ? `${value.slice(0, MOST_SIGNS)}… (${value.length - MOST_SIGNS} more characters)`
      : value;
  if (typeof value !== 'object' || value === null || ArrayBuffer.isView(value)) return value;
  if (Array.isArray(value)) return value.map(clip);
  if (value instanceof Map) return new Map([...value].map(([key, one]) => [clip(key), clip(one)]));
  if (value instanceof Set) return new Set([...value].map(clip));
  return Object.fromEntries(Object.entries(value).map(([key, one]) => [key, clip(one)]));
}
