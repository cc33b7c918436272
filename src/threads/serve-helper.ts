import * as Comlink from 'comlink';
import { HelperAtWork, type Helper } from '../core/intake/helper';

/** What a helper does, told at once. */
type Served = { [K in keyof Helper]: (...args: Parameters<Helper[K]>) => Awaited<ReturnType<Helper[K]>> };

/** Memory of all that a message holds, to be handed on instead of copied: numbers that are not alone in theirs are copied. */
function buffersOf(message: unknown): ArrayBuffer[] {
  const buffers = new Set<ArrayBuffer>();
  const look = (value: unknown): void => {
    if (ArrayBuffer.isView(value)) {
      if (value.buffer instanceof ArrayBuffer && value.byteLength === value.buffer.byteLength)
        buffers.add(value.buffer);
    } else if (typeof value === 'object' && value !== null) Object.values(value).forEach(look);
  };
  look(message);
  return [...buffers];
}

/** Takes columns for another thread. @param endpoint where that one asks */
export function serveHelper(endpoint?: Comlink.Endpoint): void {
  const work = new HelperAtWork();
  const served: Served = {
    start: (holds) => work.start(holds),
    expect: (rows, columns) => work.expect(rows, columns),
    begin: (file, names) => work.begin(file, names),
    take: (cells) => work.take(cells),
    endFile: () => work.endFile(),
    finish: () => {
      const given = work.finish();
      return Comlink.transfer(given, buffersOf(given));
    },
  };
  Comlink.expose(served, endpoint);
}
