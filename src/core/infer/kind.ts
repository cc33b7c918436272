import { isDateStorage } from '../extract/words';
import { seenOf } from './evidence/seen';
import { weigh } from './evidence/weigh';
import type { InferredKind, Known } from './known';
import { validOf } from './levels';
import { saysNothing } from './nothing';

/** Kind of a variable by weighing all evidence together: what is stored decides where it can, else learnt weights of cues. */
export function inferKind(known: Known): InferredKind {
  const { storage, because } = known.written;
  if (storage === 'empty') return { kind: 'empty', confidence: 0.99, because };
  const { levels: valid } = validOf(known.levels);
  if (valid.length === 0) return { kind: 'empty', confidence: 0.9, because: ['no cell holds a valid value'] };
  if (storage === 'text' && valid.every(({ code }) => saysNothing(code)))
    return { kind: 'empty', confidence: 0.9, because: [`no cell says more than “${valid.code(0)}”`] };
  if (isDateStorage(storage)) return { kind: 'date', confidence: 0.96, because };
  return weigh(seenOf(known));
}
