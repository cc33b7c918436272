import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Entry } from '../core/log/entries';
import { foldLog } from '../core/log/fold';
import type { EngineLink } from '../engine/client';
import type { Summary } from '../core/inspect/summary';
import type { Laid, Opened } from '../engine/protocol';
import type { BrowserStorage } from '../storage';
import { GoneError } from '../storage/refusal';
import { decide, flagKey, setRowsAside, undoLast } from './decisions';
import { deskOf } from './desk';
import { foundUnder } from './finding';
import { keepAgain } from './keeping';
import { begin, openAgain, remove } from './opening';
import { connect, type Message } from './outside';
import { planOf, readPlan } from './reading';
import { useSession } from './session';
import { startAgain } from './trouble';
import { heard } from './windows';

const state = (): ReturnType<typeof useSession.getState> => useSession.getState();
const note = (text: string): Promise<void> => decide({ type: 'note', variable: 'rooms', text });
const texts = (entries: readonly Entry[]): string[] =>
  entries.map((entry) => (entry.type === 'note' ? entry.text : entry.type));
/** Lets everything that waits for nothing happen. */
const settle = async (): Promise<void> => {
  for (let i = 0; i < 30; i++) await Promise.resolve();
};

/** Work that a test lets go on when it wants. */
class Gate {
  private open = true;
  private waiting: (() => void)[] = [];
  shut(): void {
    this.open = false;
  }
  async lift(): Promise<void> {
    this.open = true;
    for (const go of this.waiting.splice(0)) go();
    await settle();
  }
  pass(): Promise<void> {
    return this.open ? Promise.resolve() : new Promise((resolve) => this.waiting.push(resolve));
  }
}

/** An engine that lays logs over nothing and tells what it has. */
function madeEngine() {
  const gate = new Gate();
  const reading = new Gate();
  const counting = new Gate();
  let next: Partial<Laid> = {};
  let log: Entry[] = [];
  let serial = 0;
  let lost: (why: string) => void = () => undefined;
  const asked: string[] = [];
  const standing = (): Laid => ({
    version: log.length,
    flags: [],
    aside: [],
    notices: [],
    summaries: [],
    names: null,
    stale: [],
    counts: { all: 3, aside: 0, kept: 3 },
    sieve: [],
    countedAll: false,
  });
  const opened = (name = 'homes'): Opened => ({
    ...standing(),
    flags: [],
    serial,
    log: [...log],
    name,
    rows: 3,
    files: [],
    database: null,
    codebooks: [],
    part: null,
    pass: null,
    marks: null,
    wave: null,
    stands: [],
    earlier: null,
    calledBy: null,
    tells: null,
    proposals: [],
  });
  const engine = {
    gate,
    reading,
    counting,
    /** What the next answers to laying say besides. */
    say: (more: Partial<Laid>): void => {
      next = more;
    },
    asked,
    opened,
    log: (): Entry[] => log,
    die: (why: string): void => {
      log = [];
      serial = 0;
      lost(why);
    },
    link: {
      ask: async (question: string, ...args: unknown[]) => {
        asked.push(question);
        if (question === 'open') {
          await reading.pass();
          log = [...(args[1] as Entry[])];
          serial++;
          return { ok: true, value: opened() };
        }
        if (question === 'read' || question === 'add') {
          const before = [...log];
          await reading.pass();
          // It was begun under the log as it was then.
          log = question === 'read' ? [] : before;
          serial++;
          return { ok: true, value: opened() };
        }
        if (question === 'lay') {
          await gate.pass();
          const [forSerial, base, entries] = args as [number, number, Entry[]];
          if (forSerial !== serial || base > log.length) return { ok: true, value: null };
          log = [...log.slice(0, base), ...entries];
          return { ok: true, value: { ...standing(), ...next } };
        }
        if (question === 'recount') {
          await counting.pass();
          return { ok: true, value: args[1] === log.length ? [{ name: 'rooms', kind: 'count' }] : null };
        }
        if (question === 'flags') return { ok: true, value: args[1] === log.length ? { flags: [] } : null };
        if (question === 'nameRows')
          return {
            ok: true,
            value: (args[0] as number[]).map((row) => ({
              file: 'h.csv',
              row,
              cells: null,
              of: null,
              identifier: null,
            })),
          };
        return { ok: true, value: question === 'follow' ? [] : null };
      },
      stop: () => undefined,
      restart: () => {
        log = [];
        serial = 0;
      },
      onLost: (listener: (why: string) => void) => {
        lost = listener;
        return () => undefined;
      },
    } as unknown as EngineLink,
  };
  return engine;
}

/** Storage in memory, shared by the windows of a test. */
function madeStorage() {
  const gate = new Gate();
  const logs = new Map<string, Entry[][]>();
  let last: string | null = null;
  let refuse: unknown = null;
  let found: { under: string; opened: Opened } | null = null;
  const storage = {
    /** What was found before, as an engine found it. */
    find: (under: string, opened: Opened): void => {
      found = { under, opened };
    },
    gate,
    kept: (id: string): Entry[] => (logs.get(id) ?? []).flat(),
    batches: (id: string): number => (logs.get(id) ?? []).length,
    refuse: (cause: unknown): void => {
      refuse = cause;
    },
    put: (id: string, ...entries: Entry[]): void => void logs.set(id, [...(logs.get(id) ?? []), entries]),
    last: () => last,
    port: {
      appendEntries: async (id: string, entries: Entry[], next: number) => {
        await gate.pass();
        if (refuse) throw refuse;
        const log = logs.get(id) ?? [];
        const others = log.slice(next).flat();
        if (entries.length) log.push([...entries]);
        logs.set(id, log);
        return { others, next: log.length };
      },
      openLog: async (id: string) => ({ entries: storage.kept(id), next: storage.batches(id), apart: [] }),
      listKept: async () => ({ kept: [...logs.keys()].map((id) => ({ id })), unusable: [] }),
      lastOpen: async () => ({ id: last, damaged: false }),
      setLastOpen: async (id: string) => {
        last = id;
      },
      openFound: async (_: string, under: string) => (found?.under === under ? found.opened : null),
      openView: async () => ({ view: null, damaged: false }),
      openStanding: async () => ({ rules: [], unreadable: 0 }),
      removeKept: async (id: string) => void logs.delete(id),
      takePlace: async (old: string) => void logs.delete(old),
      whileKeeping: (_: string, work: () => Promise<unknown>) => work(),
      sweep: async () => undefined,
      persist: async () => undefined,
      keepView: async () => undefined,
    } as unknown as BrowserStorage,
  };
  return storage;
}

let engine: ReturnType<typeof madeEngine>;
let storage: ReturnType<typeof madeStorage>;
let said: Message[];
const INITIAL = useSession.getInitialState();

beforeEach(() => {
  engine = madeEngine();
  storage = madeStorage();
  said = [];
  let ids = 0;
  useSession.setState(INITIAL, true);
  connect({
    engine: engine.link,
    storage: storage.port,
    windows: { say: (message) => void said.push(message), hear: () => undefined },
    newId: () => `id${++ids}`,
    now: () => new Date(0),
  });
});
const open = async (): Promise<void> => {
  storage.put('a');
  await openAgain('a');
};

describe('a ruling', () => {
  it('is kept and laid side by side: neither waits for the other', async () => {
    await open();
    engine.gate.shut();
    void note('one');
    expect(state().keeping.state).toBe('keeping');
    await settle();
    expect(texts(storage.kept('a'))).toEqual(['one']);
    expect(state()).toMatchObject({ keeping: { state: 'kept' }, laying: true });
    storage.gate.shut();
    await engine.gate.lift();
    void note('two');
    await settle();
    expect(texts(engine.log())).toEqual(['one', 'two']);
    expect(state()).toMatchObject({ keeping: { state: 'keeping' }, laying: false });
    await storage.gate.lift();
    expect(state().keeping.state).toBe('kept');
  });

  it('is called kept only when storage has said so, at any pace', async () => {
    await open();
    storage.gate.shut();
    for (let i = 0; i < 50; i++) void note(`${i}`);
    await settle();
    expect([storage.kept('a').length, state().keeping.state, state().log.length]).toEqual([0, 'keeping', 50]);
    await storage.gate.lift();
    // The first went alone, all that came meanwhile in one write.
    expect([texts(storage.kept('a')).length, storage.batches('a'), state().keeping.state]).toEqual([
      50,
      3,
      'kept',
    ]);
    expect(texts(storage.kept('a'))).toEqual(Array.from({ length: 50 }, (_, i) => `${i}`));
  });

  it('shows at once, and engine and page come to the same state', async () => {
    await open();
    engine.gate.shut();
    void note('one');
    void note('two');
    void undoLast();
    expect(state().state.notes.get('rooms')).toBe('one');
    await engine.gate.lift();
    expect(foldLog(engine.log())).toEqual(state().state);
  });

  it('answers its flags at once, until they are counted anew', async () => {
    await open();
    const flag = {
      rule: 'constant',
      variables: ['rooms'],
      codes: [],
      rows: 1,
      severity: 'low',
      certainty: 1,
      says: '',
    } as const;
    engine.gate.shut();
    void decide({ type: 'keep-valid', variables: ['rooms'], codes: [], rule: 'constant' }, [
      { ...flag, variables: ['rooms'], codes: [] },
    ]);
    expect([...state().answered]).toEqual([flagKey({ ...flag, variables: ['rooms'], codes: [] })]);
    await engine.gate.lift();
    expect(state().answered.size).toBe(0);
  });

  it('that sets rows aside names them', async () => {
    await open();
    await setRowsAside([4], 'duplicate-row', { why: 'twice' });
    expect(state().log).toMatchObject([
      { type: 'set-aside', rows: [{ file: 'h.csv', row: 4 }], why: 'twice' },
    ]);
  });
});

describe('where other rows count', () => {
  const kept = { all: 3, aside: 0, kept: 1 };
  const rooms = { name: 'rooms' } as unknown as Summary;

  it('no number of before is shown: all are stale until they are counted, flags after them', async () => {
    await open();
    useSession.setState({ summaries: [rooms] });
    engine.counting.shut();
    engine.say({ counts: kept, stale: ['rooms'], flags: null });
    await decide({ type: 'use-sieve', sieve: null });
    await settle();
    const { stale, flagsStale, counts, base } = state();
    expect([[...stale], flagsStale, counts.kept, base]).toEqual([['rooms'], true, 1, 1]);
    await engine.counting.lift();
    expect([state().stale.size, state().flagsStale]).toEqual([0, false]);
    expect(state().summaries).toEqual([{ name: 'rooms', kind: 'count' }]);
  });

  it('what is asked under entries that others followed is not taken for theirs', async () => {
    await open();
    useSession.setState({ summaries: [rooms] });
    engine.counting.shut();
    engine.say({ counts: kept, stale: ['rooms'], flags: null });
    await decide({ type: 'use-sieve', sieve: null });
    engine.say({ counts: { ...kept, kept: 2 } });
    await note('another');
    await settle();
    expect([state().counts.kept, state().stale.size]).toEqual([2, 1]);
    await engine.counting.lift();
    expect(state().stale.size).toBe(0);
  });
});

describe('storage that refuses', () => {
  it('is said, and a later write or trying again keeps everything', async () => {
    await open();
    storage.refuse(new DOMException('no room', 'QuotaExceededError'));
    await note('one');
    await settle();
    expect(state().keeping).toMatchObject({
      state: 'memory',
      again: true,
      says: expect.stringContaining('full') as string,
    });
    storage.refuse(null);
    await keepAgain();
    expect([state().keeping.state, texts(storage.kept('a'))]).toEqual(['kept', ['one']]);
    storage.refuse(new Error('odd'));
    await note('two');
    await settle();
    storage.refuse(null);
    await note('three');
    await settle();
    expect([state().keeping.state, texts(storage.kept('a'))]).toEqual(['kept', ['one', 'two', 'three']]);
  });

  it('or never answers is said after a while, and what comes of it late is kept once', async () => {
    vi.useFakeTimers();
    try {
      await open();
      storage.gate.shut();
      void note('one');
      await vi.advanceTimersByTimeAsync(20_000);
      expect(state().keeping).toMatchObject({
        state: 'memory',
        says: expect.stringContaining('does not answer') as string,
      });
      await storage.gate.lift();
      await keepAgain();
      expect(state().keeping.state).toBe('kept');
      expect(new Set(texts(storage.kept('a')))).toEqual(new Set(['one']));
    } finally {
      vi.useRealTimers();
    }
  });
});

describe('long work', () => {
  it('loses nothing that is decided meanwhile', async () => {
    await open();
    await note('before');
    engine.reading.shut();
    const adding = readPlan(planOf([]), 'added');
    await settle();
    void note('meanwhile');
    await settle();
    expect(texts(storage.kept('a'))).toEqual(['before', 'meanwhile']);
    await engine.reading.lift();
    expect(await adding).toBe(true);
    await settle();
    const { id } = state();
    expect(id).not.toBe('a');
    expect([texts(engine.log()), texts(storage.kept(id ?? ''))]).toEqual([
      ['before', 'meanwhile'],
      ['before', 'meanwhile'],
    ]);
    expect(said.map(({ kind }) => kind)).toContain('replaced');
    expect(state().keeping.state).toBe('kept');
  });

  it('that was overtaken by later shows nothing', async () => {
    storage.put('a');
    storage.put('b');
    engine.reading.shut();
    const first = openAgain('a');
    await settle();
    const second = openAgain('b');
    await settle();
    await engine.reading.lift();
    await Promise.all([first, second]);
    expect(state().id).toBe('b');
    expect(deskOf('a')).toBeNull();
  });
});

describe('two windows', () => {
  it('have the entries of both in one order, that of storage', async () => {
    await open();
    storage.gate.shut();
    void note('mine');
    await settle();
    // The other window was first.
    const other = { id: 'o', type: 'note', variable: 'rooms', text: 'other', at: '', why: null } as const;
    const mine = state().log[0];
    storage.put('a', other);
    await storage.gate.lift();
    expect(texts(storage.kept('a'))).toEqual(['other', 'mine']);
    expect([texts(state().log), texts(engine.log())]).toEqual([
      ['other', 'mine'],
      ['other', 'mine'],
    ]);
    expect(state().log[1]).toEqual(mine);
  });

  it('see what the other does at once', async () => {
    await open();
    const other = { id: 'o', type: 'note', variable: 'rooms', text: 'other', at: '', why: null } as const;
    storage.put('a', other);
    await heard({ kind: 'entries', id: 'a', entries: [other], next: 2 });
    await settle();
    expect([texts(state().log), texts(engine.log()), state().keeping.state]).toEqual([
      ['other'],
      ['other'],
      'kept',
    ]);
    // A message that was missed is made up for from storage.
    storage.put('a', { ...other, id: 'o2', text: 'missed' });
    storage.put('a', { ...other, id: 'o3', text: 'next' });
    await heard({ kind: 'entries', id: 'a', entries: [{ ...other, id: 'o3', text: 'next' }], next: 4 });
    await settle();
    expect(texts(engine.log())).toEqual(['other', 'missed', 'next']);
  });

  it('miss nothing that one keeps while the other opens', async () => {
    await open();
    const other = { id: 'o', type: 'note', variable: 'rooms', text: 'other', at: '', why: null } as const;
    engine.reading.shut();
    const opening = openAgain('a');
    await settle();
    storage.put('a', other);
    await engine.reading.lift();
    await opening;
    await settle();
    expect([texts(state().log), texts(engine.log())]).toEqual([['other'], ['other']]);
  });

  it('say so where one removes what is open in the other; it can be kept anew', async () => {
    await open();
    await note('one');
    await storage.port.removeKept('a');
    await heard({ kind: 'removed', id: 'a' });
    expect(state().keeping).toMatchObject({
      state: 'memory',
      says: expect.stringContaining('removed in another window') as string,
    });
    await note('two');
    await keepAgain();
    expect([state().keeping.state, texts(storage.kept('a'))]).toEqual(['kept', ['one', 'two']]);
  });

  it('follow where one puts another extract in the place of what is open, with what was decided last', async () => {
    await open();
    storage.put('b');
    storage.refuse(new GoneError('b'));
    void note('late');
    await settle();
    storage.refuse(null);
    await heard({ kind: 'replaced', id: 'a', by: 'b' });
    await settle();
    expect([state().id, texts(state().log), texts(storage.kept('b'))]).toEqual(['b', ['late'], ['late']]);
  });
});

describe('the engine', () => {
  it('that died is started again with everything that was decided', async () => {
    await open();
    await note('one');
    engine.die('out of memory');
    void note('two');
    await startAgain('out of memory');
    await settle();
    expect(texts(engine.log())).toEqual(['one', 'two']);
    expect(state()).toMatchObject({
      trouble: null,
      problem: { file: 'the engine', says: expect.stringContaining('nothing is lost') as string },
    });
  });
});

describe('the start', () => {
  it('opens what was open last, and says what is damaged', async () => {
    storage.put('a');
    await storage.port.setLastOpen('a');
    storage.port.openView = async () => ({ view: null, damaged: true });
    storage.port.openLog = async () => ({ entries: [], next: 1, apart: [{}] });
    await begin();
    expect(state().id).toBe('a');
    expect(state().problem?.says).toMatch(
      /1 of its 1 decisions cannot be read.*how its screen was left cannot be read/,
    );
  });

  it('does not open a log that cannot be read as an empty one', async () => {
    storage.put('a');
    storage.port.openLog = () => Promise.reject(new Error('broken'));
    await openAgain('a');
    expect(state()).toMatchObject({
      id: null,
      problem: { says: expect.stringContaining('its dig log cannot be opened (broken)') as string },
    });
  });

  it('works where the browser keeps nothing', async () => {
    const blocked = (): Promise<never> => Promise.reject(new DOMException('blocked', 'SecurityError'));
    for (const name of Object.keys(storage.port))
      (storage.port as unknown as Record<string, unknown>)[name] = blocked;
    await begin();
    expect(await readPlan(planOf([]))).toBe(true);
    await note('one');
    await settle();
    expect(state().keeping).toMatchObject({ state: 'memory', again: false });
    expect(texts(engine.log())).toEqual(['one']);
  });
});

it('an extract that is removed here is closed', async () => {
  await open();
  await remove('a');
  expect(state()).toMatchObject({ id: null, opened: null, station: 'intake' });
  expect(said).toContainEqual({ kind: 'removed', id: 'a' });
});

describe('an extract whose figures were found before', () => {
  const name = (): string =>
    `${state().opened?.name} ${state()
      .summaries.map((one) => one.kind)
      .join()}`;
  const foundAs = (kind: string): void => {
    const opened = engine.opened('as found');
    storage.find(foundUnder(storage.kept('a')), {
      ...opened,
      summaries: [{ name: 'rooms', kind } as Summary],
    });
  };

  it('is there at once, and what is decided meanwhile is kept, and laid when the engine has it', async () => {
    storage.put('a');
    foundAs('count');
    engine.reading.shut();
    await openAgain('a');
    expect([name(), state().reading, engine.log()]).toEqual(['as found count', null, []]);
    await note('one');
    await settle();
    expect([texts(storage.kept('a')), texts(engine.log()), state().keeping.state]).toEqual([
      ['one'],
      [],
      'kept',
    ]);
    expect(engine.asked).not.toContain('lay');
    await engine.reading.lift();
    await settle();
    expect(texts(engine.log())).toEqual(['one']);
    expect(deskOf('a')?.serial).toBe(1);
  });

  it('is there before the engine has loaded', async () => {
    storage.put('a');
    await storage.port.setLastOpen('a');
    foundAs('count');
    const { ask } = engine.link;
    const loading = new Gate();
    loading.shut();
    engine.link.ask = (async (question: string, ...args: unknown[]) => {
      await loading.pass();
      return (ask as (...all: unknown[]) => unknown)(question, ...args);
    }) as EngineLink['ask'];
    await begin();
    expect([name(), engine.asked]).toEqual(['as found count', []]);
    await loading.lift();
    await settle();
    // Standing rules are there before what is opened under them.
    expect([engine.asked.slice(0, 2), deskOf('a')?.serial]).toEqual([['follow', 'open'], 1]);
  });

  it('is shown as the engine finds it, where that is something else', async () => {
    storage.put('a');
    foundAs('nominal');
    await openAgain('a');
    await settle();
    expect(name()).toBe('homes ');
    expect(state().base).toBe(1);
  });

  it('is not shown where it was found under another log', async () => {
    storage.put('a');
    foundAs('count');
    storage.put('a', { ...state().log[0], id: 'x', type: 'note', variable: 'rooms', text: 'x' } as Entry);
    engine.reading.shut();
    void openAgain('a');
    await settle();
    expect([state().opened, state().reading?.says]).toEqual([null, 'Opening']);
    await engine.reading.lift();
    expect(name()).toBe('homes ');
  });

  it('stays where the engine dies meanwhile, and is opened in the next', async () => {
    storage.put('a');
    foundAs('count');
    const { ask } = engine.link;
    let dead = true;
    engine.link.ask = ((question: string, ...args: unknown[]) =>
      question === 'open' && dead
        ? Promise.resolve({ ok: false, problem: { file: 'the engine', says: 'it has ended' } })
        : (ask as (...all: unknown[]) => unknown)(question, ...args)) as EngineLink['ask'];
    await openAgain('a');
    await settle();
    expect([state().id, name()]).toEqual(['a', 'as found count']);
    dead = false;
    await startAgain('it ran out of memory');
    await settle();
    expect([state().id, deskOf('a')?.serial, state().trouble]).toEqual(['a', 1, null]);
  });

  it('closes with its reason where its columns cannot be opened after all', async () => {
    storage.put('a');
    foundAs('count');
    const { ask } = engine.link;
    engine.link.ask = ((question: string, ...args: unknown[]) =>
      question === 'open'
        ? Promise.resolve({ ok: false, problem: { file: 'the kept extract', says: 'damaged' } })
        : (ask as (...all: unknown[]) => unknown)(question, ...args)) as EngineLink['ask'];
    await openAgain('a');
    await settle();
    expect([state().id, state().problem?.says]).toEqual([null, 'damaged']);
  });
});
