import { MessageChannel } from 'node:worker_threads';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { describe, expect, it } from 'vitest';
import { readExtract } from '../core/intake/receive';
import { sourceOf } from '../core/read/source';
import { serveHelper } from './serve-helper';
import { withHelper, type Thread } from './with-helper';

const homes = {
  source: sourceOf(
    'homes.csv',
    `id,rooms,place\n${Array.from({ length: 2000 }, (_, i) => `H${i},${i % 7},${i / 2}`).join('\n')}\n`,
  ),
};

/** What stands for a thread: the two ends of a channel. @param dies after so many messages */
function thread(dies = Infinity): { thread: Thread; isEnded: () => boolean } {
  const { port1, port2 } = new MessageChannel();
  let ended = false;
  serveHelper(nodeEndpoint(port2));
  return {
    isEnded: () => ended,
    thread: {
      endpoint: nodeEndpoint(port1),
      onLost: (lost) => {
        let came = 0;
        port2.on('message', () => {
          if (++came === dies) {
            port2.close();
            lost('it ran out of memory');
          }
        });
      },
      end: () => {
        ended = true;
        port1.close();
      },
    },
  };
}

describe('reading with a second thread', () => {
  it('gives the same, and ends it', async () => {
    const alone = await readExtract([homes]);
    const { thread: beside, isEnded } = thread();
    const shared = await withHelper(
      () => beside,
      (helper) => {
        expect(helper).not.toBeNull();
        return readExtract([homes], {}, { helper });
      },
    );
    expect(isEnded()).toBe(true);
    expect(shared.variables.map(({ column }) => [column.text(0), column.text(1999)])).toEqual(
      alone.variables.map(({ column }) => [column.text(0), column.text(1999)]),
    );
  });

  it('goes on alone where it is lost, or could not be started', async () => {
    const { thread: beside, isEnded } = thread(2);
    const tries: boolean[] = [];
    const rows = await withHelper(
      () => beside,
      async (helper) => {
        tries.push(helper !== null);
        return (await readExtract([homes], {}, { helper })).rows;
      },
    );
    expect(rows).toBe(2000);
    expect(tries).toEqual([true, false]);
    expect(isEnded()).toBe(true);
    const made = await withHelper(
      () => {
        throw new Error('no more threads');
      },
      (helper) => Promise.resolve(helper),
    );
    expect(made).toBeNull();
  });

  it('passes on what stands in the way of both', async () => {
    const { thread: beside, isEnded } = thread();
    await expect(
      withHelper(
        () => beside,
        () => Promise.reject(new Error('stopped')),
      ),
    ).rejects.toThrow('stopped');
    expect(isEnded()).toBe(true);
  });
});
