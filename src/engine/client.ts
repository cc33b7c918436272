import * as Comlink from 'comlink';
import type { Engine } from './engine';

let engine: Comlink.Remote<Engine> | null = null;

/** The engine behind its worker; one for the page. */
export function engineOf(): Comlink.Remote<Engine> {
  engine ??= Comlink.wrap<Engine>(
    new Worker(new URL('./worker.ts', import.meta.url), { type: 'module', name: 'engine' }),
  );
  return engine;
}

export const callback = Comlink.proxy;
