import * as Comlink from 'comlink';
import { HelperLost, type Helper } from '../core/intake/helper';

/** A thread that serves a helper. */
export interface Thread {
  endpoint: Comlink.Endpoint;
  /** Calls back where it ends of itself. */
  onLost(lost: (why: string) => void): void;
  end(): void;
}

/**
 * Reads with a helper beside, and alone where there is none or where it is lost on the way: what it took is read once more.
 * @param make starts the thread; `null` where reading alone is as fast
 */
export async function withHelper<T>(
  make: () => Thread | null,
  read: (helper: Helper | null) => Promise<T>,
): Promise<T> {
  const thread = startOf(make);
  if (!thread) return read(null);
  try {
    return await read(linked(thread));
  } catch (cause) {
    if (!(cause instanceof HelperLost)) throw cause;
  } finally {
    thread.end();
  }
  return read(null);
}

/** A thread that cannot be started is none. */
function startOf(make: () => Thread | null): Thread | null {
  try {
    return make();
  } catch {
    return null;
  }
}

function linked({ endpoint, onLost }: Thread): Helper {
  const lost = new Promise<never>((_, reject) => onLost((why) => reject(new HelperLost(why))));
  // Whoever waits is told; else nobody has to be.
  lost.catch(() => undefined);
  const remote = Comlink.wrap<Helper>(endpoint);
  const or = <A>(answer: Promise<A>): Promise<A> => Promise.race([answer, lost]);
  return {
    start: (holds) => or(remote.start(holds)),
    expect: (rows, columns) => or(remote.expect(rows, columns)),
    begin: (file, names) => or(remote.begin(file, names)),
    take: (cells) => or(remote.take(cells)),
    endFile: () => or(remote.endFile()),
    finish: () => or(remote.finish()),
  };
}
