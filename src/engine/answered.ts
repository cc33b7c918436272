import { InputError, Stopped } from '../core/extract/problem';
import { clipped } from './clipped';
import type { Engine } from './engine';
import type { Answer } from './protocol';

/** What can be asked of the engine. */
export type Question = {
  [K in keyof Engine]: Engine[K] extends (...args: never[]) => unknown ? K : never;
}[keyof Engine];
export type Asked<Q extends Question> = Parameters<Engine[Q]>;
export type Said<Q extends Question> = Awaited<ReturnType<Engine[Q]>>;

/** Asks the engine, and makes whatever goes wrong an answer in words: nothing is thrown across messages. */
export async function answered(
  engine: Engine,
  question: Question,
  args: readonly unknown[],
): Promise<Answer<unknown>> {
  try {
    if (!AT_ONCE.has(question)) await engine.ready;
    const method = engine[question] as (...given: readonly unknown[]) => unknown;
    const value = await method.apply(engine, args as unknown[]);
    return { ok: true, value: FILES.has(question) ? value : clipped(value) };
  } catch (cause) {
    if (cause instanceof Stopped) return { ok: false, problem: null };
    if (cause instanceof InputError) return { ok: false, problem: cause.problem };
    const message = cause instanceof Error ? `${cause.name}: ${cause.message}` : String(cause);
    const says = `${WORDS[question] ?? 'it could not be answered'} (${message}); what you decided is kept. Try again, or open the extract anew at the intake`;
    return { ok: false, problem: { file: 'a defect of ours', says } };
  }
}

/** What is answered, or begun, whatever is being opened. */
const AT_ONCE: ReadonlySet<Question> = new Set([
  'hear',
  'ping',
  'stop',
  'follow',
  'look',
  'read',
  'open',
  'database',
  'tables',
  'readTable',
]);

/** What is saved as it is, or laid by as it is: nothing of it is cut short. */
const FILES: ReadonlySet<Question> = new Set([
  'inventory',
  'inspection',
  'report',
  'chart',
  'handoff',
  'tableFile',
  'tableTexts',
  'conditionsOfCell',
  'nameRows',
  'rowsOfFlag',
  'wholeCells',
  'cellAt',
  'asideBy',
  'proposals',
  'open',
  'read',
  'add',
  'leaveOut',
  'callWaves',
  'lay',
  'countAll',
  'listWhole',
  'findWhole',
  'readTable',
]);

/** What failed, where it can be said better than that it did. */
const WORDS: Partial<Record<Question, string>> = {
  profile: 'this profile could not be made',
  lay: 'the ruling could not be counted',
  read: 'the files could not be read',
  add: 'the files could not be added',
  open: 'the extract could not be opened',
  readTable: 'the table could not be opened',
  countAll: 'the rows could not be gone through',
  listWhole: 'the rows could not be listed',
  findWhole: 'the rows could not be looked through',
  listedRows: 'the rows could not be read',
  report: 'the report could not be made',
  inspection: 'the inspection could not be made',
  inventory: 'the inventory could not be made',
  record: 'the row could not be shown',
  handoff: 'the handoff could not be written',
  cross: 'the table could not be made',
  beside: 'the two extracts could not be held beside each other',
};
