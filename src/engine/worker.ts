import * as Comlink from 'comlink';
import { answered, type Question } from './answered';
import { Engine } from './engine';

const engine = new Engine();
Comlink.expose({
  ask: (question: Question, args: unknown[], tell?: unknown) =>
    answered(engine, question, tell === undefined ? args : [...args, tell]),
});
