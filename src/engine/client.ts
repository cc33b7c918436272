import * as Comlink from 'comlink';
import type { Asked, Question, Said } from './answered';
import type { Answer, Tell } from './protocol';

/** The engine as the page knows it. */
export interface EngineLink {
  /** Asks one question. The answer, or what stands in its way; never a rejection. */
  ask<Q extends Question>(question: Q, ...args: Asked<Q>): Promise<Answer<Said<Q>>>;
  /** Stops long work, also in the midst of a loop. */
  stop(): void;
  /** Ends the engine, whatever it is doing, and starts another, in which no extract is open. */
  restart(): void;
  /** @param lost called when the engine died or could not be started @returns ends the listening */
  onLost(lost: (why: string) => void): () => void;
}

interface Remote {
  ask(question: Question, args: unknown[], tell?: Tell): Promise<Answer<unknown>>;
}

const GONE = 'the engine has ended while it worked on this; it is being started again';

/** An engine behind a worker. @param make a new worker */
export function linkTo(make: () => Worker): EngineLink {
  let worker: Worker | null = null;
  let remote: Comlink.Remote<Remote> | null = null;
  const listeners = new Set<(why: string) => void>();
  /** Questions that wait for an answer: they get one too if the engine dies. */
  const waiting = new Set<(answer: Answer<never>) => void>();
  const wish =
    typeof SharedArrayBuffer === 'undefined' || !globalThis.crossOriginIsolated
      ? null
      : new SharedArrayBuffer(4);

  const end = (): void => {
    worker?.terminate();
    worker = null;
    remote = null;
    for (const give of [...waiting]) give({ ok: false, problem: { file: 'the engine', says: GONE } });
    waiting.clear();
  };
  const lose = (why: string): void => {
    end();
    for (const lost of [...listeners]) lost(why);
  };
  const start = (): Comlink.Remote<Remote> => {
    if (remote) return remote;
    const made = make();
    worker = made;
    made.addEventListener('error', (event) => {
      if (worker === made) lose(event.message || 'it could not be loaded');
    });
    made.addEventListener('messageerror', () => {
      if (worker === made) lose('an answer could not be read');
    });
    remote = Comlink.wrap<Remote>(made);
    void remote.ask('hear', [wish]);
    return remote;
  };
  return {
    ask(question, ...args) {
      return new Promise((resolve) => {
        const give = (answer: Answer<never>): void => {
          waiting.delete(give);
          resolve(answer);
        };
        waiting.add(give);
        // Whatever is called back crosses as a proxy; it always stands last.
        const last = args[args.length - 1] as unknown;
        const asked =
          typeof last === 'function'
            ? start().ask(question, args.slice(0, -1), Comlink.proxy(last as Tell))
            : start().ask(question, args);
        asked.then(
          (answer) => give(answer as Answer<never>),
          (cause: unknown) =>
            give({
              ok: false,
              problem: {
                file: 'the engine',
                says: `did not take the question (${String(cause)}); try again`,
              },
            }),
        );
      });
    },
    stop() {
      if (wish) Atomics.add(new Int32Array(wish), 0, 1);
      void remote?.ask('stop', []);
    },
    restart: end,
    onLost(lost) {
      listeners.add(lost);
      return () => void listeners.delete(lost);
    },
  };
}

let link: EngineLink | null = null;
/** The engine of this page. */
export const engineLink = (): EngineLink =>
  (link ??= linkTo(
    () => new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'engine' }),
  ));
