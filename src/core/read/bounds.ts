import { InputError } from '../extract/problem';

/** Packed files up to this size may unpack to anything up to it. */
const SMALL = 256 << 20;
/** Beyond, bytes unpacked per byte delivered: real tables stay far below, files made to exhaust a machine far above. */
const MOST_RATIO = 200;
/** No file unpacks to more than this. */
const MOST = 8 * 2 ** 30;

/**
 * Counts bytes as they are unpacked. @returns a function to be told of each piece
 * @throws InputError where they become more than any table of that size holds
 */
export function bounded(file: string, delivered: number): (bytes: number) => void {
  const most = Math.min(MOST, Math.max(SMALL, delivered * MOST_RATIO));
  let sum = 0;
  return (bytes) => {
    sum += bytes;
    if (sum > most) {
      throw new InputError({
        file,
        says: `${Math.round(delivered / 1000)} kB unpack to more than ${Math.round(most / 1e6)} MB, as files made to exhaust a machine do; unpack it yourself if you trust it`,
      });
    }
  };
}
