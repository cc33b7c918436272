import { entryOf, type Entry } from '../core/log/entries';
import type { Condition } from '../core/sieve/condition';

let id = 0;

/** A decision, made long ago. */
export const entry = (change: object): Entry => entryOf(change as never, `made ${id++}`, new Date(0));

/** A sieve of some conditions, in force. */
export const sieve = (...conditions: Condition[]): Entry =>
  entry({
    type: 'make-sieve',
    sieve: 's',
    name: '',
    parts: conditions.map((condition, i) => ({ id: String(i), condition, on: true })),
    use: true,
    why: null,
  });
