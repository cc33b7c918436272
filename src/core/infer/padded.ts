import { largest } from '../tally/extent';

/** Numbers with leading zeros are codes: read as numbers they would lose their meaning. */
export function paddedCodes(numeric: readonly string[]): string | null {
  const padded = numeric.filter((text) => text.startsWith('0') && /^0\d+(\.\d+)?$/.test(text));
  if (padded.length === 0) return null;
  const plain = new Set(numeric.filter((text) => !/^0\d/.test(text)));
  // The same number written both ways is a slip of the pen, not a code; unless nearly all are padded to one width.
  if (padded.some((text) => plain.has(String(Number(text)))) && !mostlyOneWidth(numeric, padded)) return null;
  return `${padded.length} codes begin with a zero, such as ${padded[0]}`;
}

const LEAST_WIDTH = 3;
const LEAST_PADDED = 10;
function mostlyOneWidth(numeric: readonly string[], padded: readonly string[]): boolean {
  const width = largest(numeric.map(({ length }) => length));
  const full = numeric.filter(({ length }) => length === width).length;
  return (
    width >= LEAST_WIDTH &&
    padded.length >= LEAST_PADDED &&
    padded.filter(({ length }) => length === width).length >= padded.length * 0.9 &&
    full > numeric.length * 0.6
  );
}
