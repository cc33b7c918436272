import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';
import nodeEndpoint from 'comlink/dist/esm/node-adapter.mjs';
import { isWorthHelp } from '../core/intake/helper';
import type { Thread } from '../threads/with-helper';

/** A thread that reads along, where that is worth it and the machine has a processor free for it. @param threads as said; by default as many as help */
export function helperFor(
  files: Parameters<typeof isWorthHelp>[0],
  threads: number | undefined,
): Thread | null {
  if ((threads ?? availableParallelism()) < 2 || !isWorthHelp(files)) return null;
  const worker = new Worker(new URL('./helper-thread.mjs', import.meta.url));
  return {
    endpoint: nodeEndpoint(worker),
    onLost(lost) {
      worker.on('error', ({ message }) => lost(message));
      worker.on('exit', (code) => lost(`it ended with ${code}`));
    },
    end: () => void worker.terminate(),
  };
}
