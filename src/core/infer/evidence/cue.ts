import type { Kind } from '../../extract/words';
import type { Seen } from './seen';

/** One piece of evidence: how far it holds of a variable, and of which kinds it may tell. */
export interface Cue {
  /** Unique; names its line in the table of weights. */
  id: string;
  /** The kinds for or against which it may speak; what it weighs for each is learnt. */
  kinds: readonly Kind[];
  /** How far it holds, 0 to 1: a pure function of what is seen. */
  holds(seen: Seen): number;
  /** Said to a person where it speaks for the kind that was chosen; without it the cue stays in the background. */
  says?(seen: Seen): string;
}

/** 1 where something holds. */
export const is = (holds: boolean): number => (holds ? 1 : 0);
/** Between 0 at `none` and 1 at `full`, on a straight line. */
export const between = (x: number, none: number, full: number): number =>
  Math.min(1, Math.max(0, (x - none) / (full - none)));
