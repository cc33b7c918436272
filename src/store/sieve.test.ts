import { beforeEach, describe, expect, it } from 'vitest';
import { foldLog } from '../core/log/fold';
import { connect, type Outside } from './outside';
import { NOTHING, useSession } from './session';
import {
  addCondition,
  changeParts,
  groupParts,
  movePart,
  partsAtHand,
  removeParts,
  switchPart,
  turnPart,
} from './sieve';

const a = { variable: 'a', codes: ['1'] };
const b = { variable: 'b', from: 3 };
const now = (): unknown[] =>
  partsAtHand().parts.map(({ condition, on }) => (on ? condition : { off: condition }));
const idOf = (i: number): string => partsAtHand().parts[i].id;

describe('the conditions at hand', () => {
  beforeEach(() => {
    let n = 0;
    connect({ newId: () => `p${n++}`, now: () => new Date(0) } as unknown as Outside);
    useSession.setState({ ...NOTHING });
    addCondition(a);
    addCondition(b);
  });

  it('are added once, switched, turned, moved, grouped and parted, and nothing is in force by it', () => {
    addCondition(a);
    expect(now()).toEqual([a, b]);
    switchPart(idOf(0));
    expect(now()).toEqual([{ off: a }, b]);
    switchPart(idOf(0));
    turnPart(idOf(1));
    expect(now()).toEqual([a, { not: b }]);
    turnPart(idOf(1));
    movePart(idOf(1), -1);
    expect(now()).toEqual([b, a]);
    groupParts([idOf(0), idOf(1)]);
    expect(now()).toEqual([{ any: [b, a] }]);
    groupParts([idOf(0)]);
    expect(now()).toEqual([b, a]);
    expect(partsAtHand().inForce).toBe(false);
    removeParts([idOf(0), idOf(1)]);
    expect(useSession.getState().draft).toBe(null);
  });

  it('are those in force where none is being made; what comes out as it was is no draft', () => {
    const parts = [{ id: 'x', condition: a, on: true }];
    const made = {
      id: 'e',
      at: '',
      why: null,
      type: 'make-sieve' as const,
      sieve: 's',
      name: 'own',
      parts,
      use: true,
    };
    useSession.setState({ draft: null, state: foldLog([made]) });
    expect(partsAtHand()).toEqual({ parts, inForce: true });
    turnPart('x');
    expect(useSession.getState().draft).toMatchObject({ sieve: 's', name: 'own' });
    turnPart('x');
    expect(useSession.getState().draft).toBe(null);
    changeParts(() => []);
    expect(useSession.getState().draft).toMatchObject({ parts: [] });
  });
});
