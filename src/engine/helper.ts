import { isWorthHelp } from '../core/intake/helper';
import type { Thread } from '../threads/with-helper';

/** A worker that reads along, where that is worth it and memory can be shared with it. */
export function helperFor(files: Parameters<typeof isWorthHelp>[0]): Thread | null {
  const isShared = typeof SharedArrayBuffer !== 'undefined' && globalThis.crossOriginIsolated;
  const processors = globalThis.navigator?.hardwareConcurrency ?? 1;
  if (!isShared || processors < 2 || typeof Worker === 'undefined' || !isWorthHelp(files)) return null;
  const worker = new Worker(new URL('./helper-worker.ts', import.meta.url), {
    type: 'module',
    name: 'helper',
  });
  return {
    endpoint: worker,
    onLost(lost) {
      worker.addEventListener('error', ({ message }) => lost(message || 'it could not be loaded'));
      worker.addEventListener('messageerror', () => lost('an answer could not be read'));
    },
    end: () => worker.terminate(),
  };
}
