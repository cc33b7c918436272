import { describe, expect, it } from 'vitest';
import { pulse } from '../core/extract/pulse';
import { Stopped } from '../core/extract/problem';
import { Turn } from './turn';

describe('a turn', () => {
  it('that was stopped in the middle of a loop leaves nothing behind that stops other work', async () => {
    const turn = new Turn();
    const stopped = turn.take(async () => {
      await Promise.resolve();
      turn.stop();
      pulse();
    });
    await expect(stopped).rejects.toBeInstanceOf(Stopped);
    expect(() => pulse()).not.toThrow();
  });
  it('that is overtaken stops, and the other goes on', async () => {
    const turn = new Turn();
    const first = turn.take(async (breathe) => {
      for (;;) await breathe();
    });
    const second = turn.take(async (breathe) => {
      await breathe();
      pulse();
      await breathe();
      return 'done';
    });
    await expect(first).rejects.toBeInstanceOf(Stopped);
    await expect(second).resolves.toBe('done');
    expect(() => pulse()).not.toThrow();
  });
  it('is stopped by what the page counts up', async () => {
    const turn = new Turn();
    const shared = new SharedArrayBuffer(4);
    turn.hear(shared);
    const work = turn.take(async (breathe) => {
      await breathe();
      Atomics.add(new Int32Array(shared), 0, 1);
      pulse();
    });
    await expect(work).rejects.toBeInstanceOf(Stopped);
    expect(() => pulse()).not.toThrow();
  });
});
