import * as Comlink from 'comlink';
import { answered } from './answered';
import { Engine } from './engine';

const engine = new Engine();
Comlink.expose({
  ask: (question: keyof Engine, args: unknown[], tell?: unknown) =>
    answered(engine, question, tell === undefined ? args : [...args, tell]),
});
