import { gzipSync } from 'node:zlib';
import { beforeEach, describe, expect, it } from 'vitest';
import { atPlace } from '../core/extract/row-names';
import { entryOf, type Entry } from '../core/log/entries';
import type { ListAsk } from '../core/inspect/listing';
import { inspectionSchema } from '../core/inspect/schema';
import { answered, type Asked, type Question, type Said } from './answered';
import { Engine } from './engine';
import { mustFit } from './handing-off';
import type { Answer, Found, HandedFile, Laid, Opened, Plan, Progress } from './protocol';

const file = (name: string, content: string | Uint8Array): File => new File([content as BlobPart], name);
const handed = (...files: File[]): HandedFile[] => files.map((one) => ({ key: one.name, file: one }));
const plan = (...files: File[]): Plan => ({
  handed: handed(...files),
  chosen: {},
  left: [],
  waves: {},
  waveFrom: 'found',
  part: null,
  marks: {},
  steps: null,
  hold: null,
});
const ROWS = Array.from(
  { length: 80 },
  (_, i) => `${i + 1},${i % 9 === 8 ? 99 : 1 + (i % 8)},${['Fenwater', 'Marlhope'][i % 2]}`,
).join('\n');
const DATA = file('homes.csv', `id,rooms,town\n${ROWS}\n`);
const BOOK = file(
  'homes.xml',
  '<codeBook><dataDscr><var name="rooms"><labl>Number of rooms</labl></var></dataDscr></codeBook>',
);
const declare = entryOf(
  {
    type: 'declare-missing',
    variables: ['rooms'],
    codes: [{ code: '99', reason: 'refused' }],
    rule: 'sentinel-code',
  },
  'e1',
  new Date(0),
);

describe('the engine', () => {
  let engine: Engine;
  beforeEach(() => {
    engine = new Engine();
  });
  /** Asks as the page does, across messages. */
  const ask = async <Q extends Question>(question: Q, ...args: Asked<Q>): Promise<Answer<Said<Q>>> =>
    structuredClone((await answered(engine, question, args)) as Answer<Said<Q>>);
  const none = (): void => undefined;
  const open = (...files: File[]): Promise<Opened> => engine.read(plan(...files, BOOK), false, none);
  /** Lays entries behind those that are laid already. */
  const lay = (opened: { serial: number; version: number }, entries: Entry[]): Laid => {
    const laid = engine.lay(opened.serial, opened.version, entries);
    if (!laid) throw new Error('it was not for this opening');
    return laid;
  };
  const lookAt = async (one: File, chosen = {}): Promise<Found> =>
    (await engine.look(handed(one), { [one.name]: chosen })).found[0];

  it('holds a sample where that is said, tells how much, and refuses what takes all rows, in words', async () => {
    const sampled = await engine.read({ ...plan(DATA, BOOK), hold: 'sample' }, false, none);
    expect(sampled).toMatchObject({ rows: 80, pass: { rows: 80, held: 80 }, files: [{ rows: 80 }] });
    expect((await open(DATA)).pass).toBeNull();
    await engine.read({ ...plan(DATA, BOOK), hold: 'sample' }, false, none);
    const refused = async (answer: Promise<Answer<unknown>>): Promise<string> => {
      const given = await answer;
      return given.ok ? 'answered' : (given.problem?.says ?? '');
    };
    expect(await refused(ask('add', plan(file('more.csv', 'id,rooms\n81,2\n')), none))).toMatch(
      /only a sample of 80 of its 80 rows is held, so more files cannot join it/,
    );
    expect(await refused(ask('leaveOut', 0, none))).toMatch(/no file can be taken out/);
    const asked = {
      variables: null,
      cells: 'codes',
      missing: 'keep',
      harmless: false,
      alone: false,
    } as const;
    expect(
      await refused(
        ask(
          'handoff',
          asked as unknown as Asked<'handoff'>[0],
          ['delimited'],
          new Date(0).toISOString(),
          null,
          none,
        ),
      ),
    ).toMatch(/its data cannot be handed off from here/);
  });

  it('lists all rows where they stand, until something else is decided', async () => {
    const sampled = { ...plan(DATA, BOOK), hold: 'sample' as const };
    const opened = await engine.read(sampled, false, none);
    const list = (version: number, sort: Asked<'listWhole'>[3] = []): Promise<Answer<Said<'listWhole'>>> =>
      ask('listWhole', opened.serial, version, sampled, sort, none);
    const whole = (number: number): ListAsk => ({
      which: 'whole',
      whole: number,
      parts: null,
      flag: null,
      sort: [],
    });
    expect(await list(opened.version)).toEqual({ ok: true, value: { whole: 1, rows: 80 } });
    expect(engine.listed(whole(1))).toBe(80);
    const [row] = await engine.listedRows(whole(1), 79, 5, ['rooms', 'town']);
    expect(row).toMatchObject({ row: 80, place: 80, line: 81, held: true, aside: false });
    expect(row.cells.map(({ raw }) => raw)).toEqual(['8', 'Marlhope']);
    expect([engine.placeIn(whole(1), '80'), engine.placeIn(whole(1), '81')]).toEqual([79, null]);
    expect(await engine.cellAt(whole(1), 79, 'town')).toMatchObject({ code: 'Marlhope', state: 'valid' });
    expect(await engine.cellAt(whole(1), 80, 'town')).toBeNull();
    const { cells, ...card } = (await engine.record({ whole: 1, place: 79 })) ?? { cells: [] };
    expect(card).toEqual({
      ...{ row: 79, at: 79, of: 80, place: 80, all: 80 },
      ...{ file: DATA.name, rowInFile: 79, line: 81 },
    });
    expect(cells).toEqual((await engine.record(79))?.cells);
    expect(await engine.record({ whole: 1, place: 80 })).toBeNull();
    const find = (number: number, text: string, names: string[]): Promise<Answer<number | null>> =>
      ask('findWhole', opened.serial, opened.version, number, text, names, none);
    // Every second row, from the second on.
    const names = ['rooms', 'town'];
    const next = (from: number, back = false, at = 1): Promise<unknown> =>
      engine.nextFound(whole(at), 'MARL', names, from, back);
    expect([engine.found(whole(1), 'MARL', names), await next(0)]).toEqual([null, null]);
    expect(await find(1, 'MARL', names)).toEqual({ ok: true, value: 40 });
    expect(engine.found(whole(1), 'MARL', names)).toBe(40);
    expect(await next(1)).toEqual({ place: 3, number: 2, variable: 'town' });
    expect(await next(1, true)).toEqual({ place: 79, number: 40, variable: 'town' });
    expect(await next(79)).toEqual({ place: 1, number: 1, variable: 'town' });
    expect(await find(1, 'nowhere', names)).toEqual({ ok: true, value: 0 });
    expect(await next(0)).toBeNull();
    const { version } = lay(opened, [declare]);
    expect(await find(1, 'nowhere', ['town'])).toEqual({ ok: true, value: null });
    expect([engine.listed(whole(1)), await engine.listedRows(whole(1), 0, 5, ['rooms'])]).toEqual([0, []]);
    expect(await engine.record({ whole: 1, place: 0 })).toBeNull();
    // It is asked for under what is laid now, and is numbered anew.
    expect(await list(opened.version)).toEqual({ ok: true, value: null });
    expect(await list(version, [{ variable: 'id', down: true }])).toEqual({
      ok: true,
      value: { whole: 2, rows: 80 },
    });
    expect([engine.listed(whole(1)), engine.listed(whole(2))]).toEqual([0, 80]);
    expect((await engine.listedRows(whole(2), 0, 1, ['id']))[0].place).toBe(80);
    // Sorted it stands elsewhere.
    await ask('findWhole', opened.serial, version, 2, 'marl', names, none);
    expect(await next(0, false, 2)).toEqual({ place: 2, number: 2, variable: 'town' });
    await open(DATA);
    expect(engine.listed(whole(2))).toBe(0);
  });

  it('lets what is asked of an extract wait until it is opened', async () => {
    let done: () => void = none;
    engine.ready = new Promise((resolve) => {
      done = resolve;
    });
    const order: string[] = [];
    const waits = ask('profile', 'rooms', null, false).then(() => order.push('profile'));
    await ask('ping').then(() => order.push('ping'));
    await open(DATA);
    order.push('opened');
    done();
    await waits;
    expect(order).toEqual(['ping', 'opened', 'profile']);
  });

  it('tells what a file is before reading it', async () => {
    expect(await lookAt(DATA)).toMatchObject({
      what: 'data',
      look: { names: ['id', 'rooms', 'town'], packed: false, all: 80 },
    });
    expect(await lookAt(BOOK)).toEqual({
      key: 'homes.xml',
      name: 'homes.xml',
      bytes: BOOK.size,
      archive: null,
      what: 'codebook',
      form: 'ddi-codebook',
      title: null,
      variables: 1,
    });
    expect(await lookAt(file('homes.csv.gz', new Uint8Array(gzipSync('a,b\n1,2\n'))))).toMatchObject({
      what: 'data',
      look: { packed: true, names: ['a', 'b'] },
    });
    expect(await lookAt(file('none.csv', ''))).toMatchObject({
      what: 'problem',
      problem: { file: 'none.csv' },
    });
    expect(await lookAt(DATA, { delimiter: ';', header: true })).toMatchObject({
      look: { names: ['id,rooms,town'] },
    });
  });

  it('opens files with their codebook, with progress', async () => {
    const steps: Progress[] = [];
    const answer = await ask('read', plan(DATA, BOOK), false, (now) => steps.push(now));
    expect(answer).toMatchObject({
      ok: true,
      value: {
        name: 'homes',
        rows: 80,
        codebooks: [{ name: 'homes.xml', form: 'ddi-codebook', variables: 1 }],
        tells: 'id',
        files: [{ first: '1', last: '80' }],
      },
    });
    expect(steps.filter(({ says }) => says.startsWith('Reading')).at(-1)).toMatchObject({
      done: DATA.size,
      whole: DATA.size,
      rows: 80,
    });
    expect((await open(DATA)).summaries.map(({ name, label }) => [name, label])).toEqual([
      ['id', null],
      ['rooms', 'Number of rooms'],
      ['town', null],
    ]);
  });

  it('answers bad input with its place, and what was open stays open', async () => {
    await open(DATA);
    expect(await ask('read', plan(file('cut.csv', 'a,b\n1,"2\n')), false, () => undefined)).toMatchObject({
      ok: false,
      problem: { file: 'cut.csv', line: 2 },
    });
    expect(await ask('read', plan(BOOK), false, () => undefined)).toMatchObject({
      ok: false,
      problem: { file: 'homes.xml', says: expect.stringContaining('no data among the files') as string },
    });
    expect((await engine.profile('rooms'))?.variable.label).toBe('Number of rooms');
  });

  it('reads in part, and whole afterwards under the same rulings and name', async () => {
    const first = await ask(
      'read',
      { ...plan(DATA), part: { rows: 10, names: ['rooms', 'town'] } },
      false,
      () => undefined,
    );
    if (first.ok) lay(first.value, [declare]);
    expect(first).toMatchObject({
      ok: true,
      value: { rows: 10, part: { rows: 10, names: ['rooms', 'town'] }, files: [{ partial: true }] },
    });
    engine.callIt('my homes');
    const whole = await engine.read(plan(DATA), true, none);
    expect(whole).toMatchObject({ name: 'my homes', rows: 80, part: null, flags: [], log: [declare] });
    expect((await engine.profile('rooms'))?.variable.counts.missing).toBe(8);
  });

  it('adds a codebook and files later, leaves a file out, and calls waves by a name', async () => {
    await ask('read', plan(file('homes_2020.csv', 'id,rooms\n1,2\n2,3\n')), false, () => undefined);
    expect(await engine.add(plan(BOOK), none)).toMatchObject({
      rows: 2,
      codebooks: [{ name: 'homes.xml' }],
    });
    expect((await engine.profile('rooms'))?.variable.label).toBe('Number of rooms');
    const more = await engine.add(plan(file('homes_2021.csv', 'ROOMS,id,town\n4,3,Fenwater\n')), none);
    expect(more).toMatchObject({
      name: 'homes',
      rows: 3,
      files: [
        { wave: '2020', first: '1', last: '2' },
        { wave: '2021', first: '3', last: '3' },
      ],
    });
    expect((await engine.profile('rooms'))?.variable).toMatchObject({
      label: 'Number of rooms',
      counts: { valid: 3 },
    });
    expect(await engine.callWaves(['first', 'second'], none)).toMatchObject({
      files: [{ wave: 'first' }, { wave: 'second' }],
    });
    expect(await engine.leaveOut(0, none)).toMatchObject({ rows: 1, files: [{ name: 'homes_2021.csv' }] });
  });

  it('lists records, finds and goes to them; what is decided of a cell is decided of all of it, however long', async () => {
    const long = 'q'.repeat(5000);
    const said = [long, 'no', `${long}z`, ...Array<string>(37).fill('no')];
    await open(
      file('long.csv', `id,said,n\n${said.map((text, i) => `A${i + 1},${text},${i + 1}`).join('\n')}\n`),
    );
    const ask = { which: 'kept' as const, parts: null, flag: null, sort: [{ variable: 'n', down: true }] };
    expect(engine.listed(ask)).toBe(40);
    const shown = await answered(engine, 'listedRows', [ask, 37, 2, ['id', 'said']]);
    expect(shown).toMatchObject({
      ok: true,
      value: [
        { row: 3, line: 4, aside: false },
        { row: 2, line: 3 },
      ],
    });
    expect(JSON.stringify(shown)).not.toContain(long);
    const whole = await answered(engine, 'wholeCells', [[{ row: 0, variable: 'said' }]]);
    expect(whole).toMatchObject({ ok: true, value: [{ raw: long, code: long }] });
    const kept: ListAsk = { which: 'kept', parts: null, flag: null, sort: [] };
    expect(await answered(engine, 'cellAt', [kept, 0, 'said'])).toMatchObject({
      ok: true,
      value: { code: long },
    });
    const condition = { variable: 'said', codes: [long] };
    expect(engine.preview([{ id: 'p', condition, on: true }]).rows.kept).toBe(1);
    expect(engine.found(ask, 'QQQ', ['said'])).toBe(2);
    expect(await engine.nextFound(ask, 'qqq', ['id', 'said'], 0, false)).toEqual({
      place: 37,
      variable: 'said',
      number: 1,
    });
    expect(await engine.nextFound(ask, 'none', ['said'], 0, true)).toBe(null);
    expect([engine.placeIn(ask, 'A1'), engine.placeIn(ask, '2'), engine.placeIn(ask, '99')]).toEqual([
      39,
      38,
      null,
    ]);
  });

  it('puts what rows came to count at the end of a queue: summaries in stretches, then flags, for the log that is laid', async () => {
    const names = Array.from({ length: 70 }, (_, i) => `v${i}`);
    const rows = Array.from({ length: 30 }, (_, i) => names.map((_name, k) => (i * (k + 1)) % 5).join(','));
    const opened = await open(file('wide.csv', `${names.join(',')}\n${rows.join('\n')}\n`));
    const condition = { variable: 'v0', codes: ['1'] };
    const sieve = entryOf(
      { type: 'make-sieve', sieve: 's', name: '', parts: [{ id: 'p', condition, on: true }], use: true },
      's',
      new Date(0),
    );
    const laid = lay(opened, [sieve]);
    expect(laid).toMatchObject({
      flags: null,
      summaries: [],
      counts: { all: 30, kept: 6 },
      sieve: [{ drops: 24 }],
    });
    expect(laid.stale).toEqual(names);
    const made = engine.recount(opened.serial, 1, ['v3', 'v4']);
    expect(made?.[0]).toMatchObject({ name: 'v3', counts: { all: 6 } });
    expect([engine.recount(opened.serial, 2, ['v3']), engine.flags(opened.serial, 0)]).toEqual([null, null]);
    let flags = engine.flags(opened.serial, 1);
    for (let i = 0; i < 200 && flags?.flags === null; i++) flags = engine.flags(opened.serial, 1);
    expect(flags?.flags).toEqual(expect.any(Array));
  });

  it('sets the same observation aside whatever files there are, also where a log knew it by place alone', async () => {
    const opened = await open(
      file('h_2020.csv', 'id,rooms\n1,2\n2,3\n'),
      file('h_2021.csv', 'id,rooms\n1,4\n2,7\n'),
    );
    const [row] = engine.nameRows([3]);
    expect(row).toMatchObject({ file: 'h_2021.csv', row: 1 });
    const aside = entryOf({ type: 'set-aside', rows: [atPlace(3)], rule: null }, 'a', new Date(0));
    expect(lay(opened, [aside]).aside).toEqual([3]);
    const without = await engine.leaveOut(0, none);
    expect(without.aside).toEqual([1]);
    expect(without.log).toMatchObject([{ rows: [row] }]);
    expect(engine.asideBy([1])).toMatchObject([{ entry: { id: 'a' }, own: [{}], others: 0 }]);
    const back = await engine.add(plan(file('h_2019.csv', 'id,rooms\n1,4\n2,7\n')), none);
    expect(back.aside).toEqual([1]);
    const gone = await engine.leaveOut(0, none);
    expect([gone.aside, gone.notices.map(({ says }) => says).join()]).toEqual([
      [],
      expect.stringContaining('h_2021.csv is not among the files'),
    ]);
  });

  it('lays what was decided while files were being added', async () => {
    const opened = await open(DATA);
    let during: Laid | null = null;
    const more = await engine.add(plan(file('more.csv', 'id,rooms,town\n900,99,Fenwater\n')), () => {
      during ??= engine.lay(opened.serial, 0, [declare]);
    });
    if (!during) during = engine.lay(opened.serial, 0, [declare]);
    const now = during === null ? engine.lay(more.serial, more.version, [declare]) : null;
    expect(more.version + (now ? 1 : 0)).toBe(1);
    expect((await engine.profile('rooms'))?.variable.counts.missing).toBe(9);
  });

  it('takes nothing that is meant for another opening, and the whole log in place of its end', async () => {
    const first = await open(DATA);
    const second = await open(DATA);
    expect(engine.lay(first.serial, 0, [declare])).toBeNull();
    expect(engine.lay(second.serial, 3, [declare])).toBeNull();
    expect(lay(second, [declare]).version).toBe(1);
    const note = entryOf({ type: 'note', variable: 'rooms', text: 'x' }, 'n', new Date(0));
    expect(engine.lay(second.serial, 0, [note])).toMatchObject({ version: 1, flags: [{ codes: ['99'] }] });
  });

  it('understands pasted labels beside what the variables hold', async () => {
    await open(DATA);
    expect(engine.understood('1 One room\n99 Refused\n55\nwhatever this is', ['rooms'])).toMatchObject([
      { code: '1', label: 'One room', rows: 9, known: null, declared: null, missing: null },
      { code: '99', label: 'Refused', rows: 8, missing: 'refused' },
      { code: '55', rows: 0, says: 'no label' },
      { text: 'whatever this is', rows: 0 },
    ]);
    expect(engine.holding(['99', 'Fenwater'])).toEqual([
      ['99', ['rooms']],
      ['Fenwater', ['town']],
    ]);
  });

  it('tells what a variable would be of another kind, without deciding it', async () => {
    await open(DATA);
    expect(engine.effects(['rooms'], 'nominal')).toMatchObject([
      { name: 'rooms', kind: 'nominal', unreadable: 0, statistics: { mean: null } },
    ]);
    expect(engine.effects(['rooms', 'town'], 'continuous')).toMatchObject([
      { name: 'rooms', statistics: { max: 99 } },
      { name: 'town', storage: 'text', cells: 80, valid: 80 },
    ]);
    expect(engine.effects(['nobody'], 'count')).toEqual([]);
    expect((await engine.profile('rooms'))?.variable.confirmed).toBe(false);
  });

  it('finds variables like one, by codes, stem and group of the codebook', async () => {
    const rows = Array.from(
      { length: 60 },
      (_, i) => `${1 + (i % 4)},${1 + ((i * 3) % 4)},${i % 50},${i % 9}`,
    ).join('\n');
    const group = file(
      'g.xml',
      '<codeBook><dataDscr><varGrp ID="G" var="V1 V3"><labl>Mending</labl></varGrp><var ID="V1" name="oft_a"/><var ID="V2" name="oft_b"/><var ID="V3" name="size"/></dataDscr></codeBook>',
    );
    await ask(
      'read',
      plan(file('g.csv', `oft_a,oft_b,size,other\n${rows}\n`), group),
      false,
      () => undefined,
    );
    expect(engine.like('oft_a').map(({ by, names }) => [by, names])).toEqual([
      ['codes', ['oft_a', 'oft_b']],
      ['stem', ['oft_a', 'oft_b']],
      ['group', ['oft_a', 'size']],
    ]);
    expect(engine.like('nobody')).toEqual([]);
    expect(engine.battery(['oft_a', 'oft_b'])?.items).toHaveLength(2);
    expect(engine.documented(['size', 'gone']).map(({ name }) => name)).toEqual(['size']);
  });

  it('gives a record card with its place, cells with labels, and how they count', async () => {
    lay(await open(DATA), [
      declare,
      entryOf(
        { type: 'label-codes', variables: ['rooms'], labels: [{ code: '99', label: 'Refused' }] },
        'l',
        new Date(0),
      ),
    ]);
    expect(await engine.record(8)).toMatchObject({
      row: 8,
      at: 8,
      of: 80,
      file: 'homes.csv',
      rowInFile: 8,
      line: 10,
      cells: [
        { name: 'id', text: '9' },
        { name: 'rooms', text: '99', label: 'Refused', standing: 'missing' },
        { name: 'town', text: 'Fenwater', standing: 'valid' },
      ],
    });
  });

  it('gives the most frequent codes, groups, and a chart as a file', async () => {
    await open(DATA);
    expect(engine.peek('town')).toEqual([
      { code: 'Fenwater', label: null, share: 0.5, missing: false },
      { code: 'Marlhope', label: null, share: 0.5, missing: false },
    ]);
    expect(engine.peek('id')).toEqual([]);
    expect(
      (await engine.grouped('rooms', 'town'))?.groups.map(({ code, rows, valid }) => [code, rows, valid]),
    ).toEqual([
      ['Fenwater', 40, 40],
      ['Marlhope', 40, 40],
    ]);
    expect(await engine.grouped('rooms', 'nobody')).toBeNull();
    expect(await engine.chart('rooms', null)).toMatch(/^<svg[\s\S]*<style>[\s\S]*<rect/);
  });

  it('calls the open extract otherwise, also where it is kept and handed off', async () => {
    await open(DATA);
    engine.callIt('Homes of Ostrey');
    expect(inspectionSchema.parse(JSON.parse(await engine.inspection(['rooms']).text())).source.name).toBe(
      'Homes of Ostrey',
    );
  });

  it('stops when told to, and says so', async () => {
    const long = file('long.csv', `a,b\n${'1,two words here\n'.repeat(400_000)}`);
    expect(await ask('read', plan(long), false, () => engine.stop())).toEqual({ ok: false, problem: null });
    // In the midst of a loop the wish is heard where memory is shared.
    const flag = new SharedArrayBuffer(4);
    engine.hear(flag);
    const wish = (): void => void Atomics.add(new Int32Array(flag), 0, 1);
    expect(await ask('read', plan(long), false, wish)).toEqual({ ok: false, problem: null });
  });

  it('stops earlier long work for later', async () => {
    const long = file('long.csv', `a,b\n${'1,two words here\n'.repeat(200_000)}`);
    const [first, second] = await Promise.all([
      ask('read', plan(long), false, none),
      ask('read', plan(DATA), false, none),
    ]);
    expect([first, second]).toMatchObject([
      { ok: false, problem: null },
      { ok: true, value: { name: 'homes' } },
    ]);
  });

  it('cuts short what no screen could show, and nothing that is saved', async () => {
    const long = `x${'y '.repeat(200_000)}`;
    await engine.read(plan(file('long.csv', `id,remark\n1,${long}\n2,short\n`)), false, none);
    const card = await ask('record', 0);
    expect(card.ok && card.value?.cells[1].text).toMatch(/^xy y .*… \(398001 more characters\)$/);
    const profile = await ask('profile', 'remark');
    expect(JSON.stringify(profile).length).toBeLessThan(20_000);
    expect((await ask('inspection', ['remark'])).ok).toBe(true);
    expect(await engine.inspection(['remark']).text()).toContain(long.trim());
  });

  it('answers what goes wrong in words', async () => {
    expect(await ask('profile', 'rooms')).toMatchObject({
      ok: false,
      problem: { file: 'the engine', says: expect.stringContaining('no extract is open') as string },
    });
    await open(DATA);
    expect(await ask('documented', null as never)).toMatchObject({
      ok: false,
      problem: { file: 'a defect of ours' },
    });
  });

  it('shows many variables before it looks for flags, and has those when they are asked for', async () => {
    const names = Array.from({ length: 401 }, (_, i) => `v${i}`);
    const row = names.map(() => 1).join(',');
    const opened = await open(file('wide.csv', `${names.join(',')}\n${`${row}\n`.repeat(50)}`));
    expect([opened.flags, opened.summaries.length]).toEqual([null, 401]);
    let raised = null;
    while (!raised) raised = engine.flags(opened.serial, 0)?.flags;
    expect(raised.filter(({ rule }) => rule === 'constant')).toHaveLength(401);
  });

  it('lays a log over the extract: what changed comes back, and so do the flags', async () => {
    const opened = await open(DATA);
    expect(opened.flags?.map(({ codes }) => codes)).toEqual([['99']]);
    const after = lay(opened, [declare]);
    expect(after.summaries.map(({ name, counts }) => [name, counts.missing])).toEqual([['rooms', 8]]);
    expect(after.flags).toEqual([]);
    expect(
      engine.lay(opened.serial, 1, [entryOf({ type: 'undo', entry: 'e1' }, 'u', new Date(0))])?.flags,
    ).toHaveLength(1);
  });

  it('refuses what is longer than a zip has room for, before anything else is written', () => {
    expect(() => mustFit('homes.csv', 2 ** 32 - 2)).not.toThrow();
    expect(() => mustFit('homes.csv', 2 ** 32 - 1)).toThrow(/4 GB that a zip has room for/);
  });

  it('hands off under the rulings in force', async () => {
    lay(await open(DATA), [declare]);
    expect(engine.inventory(['rooms'])).toContain('99 refused (8)');
    const { variables } = inspectionSchema.parse(JSON.parse(await engine.inspection(['rooms']).text()));
    expect(variables.map(({ name, counts }) => [name, counts.missing])).toEqual([['rooms', 8]]);
    expect(await engine.report(['rooms'], '2026-01-05T10:00:00Z')).toContain('2026-01-05 10:00 UTC');
    expect(await engine.profile('nobody')).toBeNull();
  });

  it('says when nothing can be kept, as where there is no storage', async () => {
    const { serial } = await open(DATA);
    expect(await engine.announce('x', serial, null)).toMatchObject({ why: 'blocked' });
    expect(await engine.announce('x', serial + 1, null)).toMatchObject({ why: 'other' });
  });
});
