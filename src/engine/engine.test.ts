import { gzipSync } from 'node:zlib';
import { beforeEach, describe, expect, it } from 'vitest';
import { entryOf } from '../core/log/entries';
import { inspectionSchema } from '../core/inspect/schema';
import { Engine, type Found, type HandedFile, type Plan, type Progress } from './engine';

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
  const open = async (...files: File[]) => {
    const answer = await engine.read(plan(...files, BOOK), [], null, () => undefined);
    if (!answer.ok) throw new Error(answer.problem?.says);
    return answer.value;
  };
  const lookAt = async (one: File, chosen = {}): Promise<Found> =>
    (await engine.look(handed(one), { [one.name]: chosen })).found[0];

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
    const answer = await engine.read(plan(DATA, BOOK), [], null, (now) => steps.push(now));
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
    expect(await engine.read(plan(file('cut.csv', 'a,b\n1,"2\n')), [], null, () => undefined)).toMatchObject({
      ok: false,
      problem: { file: 'cut.csv', line: 2 },
    });
    expect(await engine.read(plan(BOOK), [], null, () => undefined)).toMatchObject({
      ok: false,
      problem: { file: 'homes.xml', says: expect.stringContaining('no data among the files') as string },
    });
    expect(engine.profile('rooms')?.variable.label).toBe('Number of rooms');
  });

  it('reads in part, and whole afterwards under the same rulings and name', async () => {
    const first = await engine.read(
      { ...plan(DATA), part: { rows: 10, names: ['rooms', 'town'] } },
      [],
      null,
      () => undefined,
    );
    expect(first).toMatchObject({
      ok: true,
      value: { rows: 10, part: { rows: 10, names: ['rooms', 'town'] }, files: [{ partial: true }] },
    });
    const whole = await engine.read(plan(DATA), [declare], 'my homes', () => undefined);
    expect(whole).toMatchObject({ ok: true, value: { name: 'my homes', rows: 80, part: null, flags: [] } });
    expect(engine.profile('rooms')?.variable.counts.missing).toBe(8);
  });

  it('adds a codebook and files later, leaves a file out, and calls waves by a name', async () => {
    await engine.read(plan(file('homes_2020.csv', 'id,rooms\n1,2\n2,3\n')), [], null, () => undefined);
    expect(await engine.add(plan(BOOK), [], () => undefined)).toMatchObject({
      ok: true,
      value: { rows: 2, codebooks: [{ name: 'homes.xml' }] },
    });
    expect(engine.profile('rooms')?.variable.label).toBe('Number of rooms');
    const more = await engine.add(
      plan(file('homes_2021.csv', 'rooms,id,town\n4,3,Fenwater\n')),
      [],
      () => undefined,
    );
    expect(more).toMatchObject({
      ok: true,
      value: {
        name: 'homes',
        rows: 3,
        files: [
          { wave: '2020', first: '1', last: '2' },
          { wave: '2021', first: '3', last: '3' },
        ],
      },
    });
    expect(engine.profile('rooms')?.variable).toMatchObject({
      label: 'Number of rooms',
      counts: { valid: 3 },
    });
    expect(await engine.callWaves(['first', 'second'], [], () => undefined)).toMatchObject({
      ok: true,
      value: { files: [{ wave: 'first' }, { wave: 'second' }] },
    });
    expect(await engine.leaveOut(0, [], () => undefined)).toMatchObject({
      ok: true,
      value: { rows: 1, files: [{ name: 'homes_2021.csv' }] },
    });
  });

  it('understands pasted labels beside what the variables hold', async () => {
    await open(DATA);
    expect(engine.understood('1 One room\n99 Refused\n55\nwhatever this is', ['rooms'])).toMatchObject([
      { code: '1', label: 'One room', rows: 9, known: null, declared: null, missing: null },
      { code: '99', label: 'Refused', rows: 8, missing: 'refused' },
      { code: '55', rows: 0, says: 'no label' },
      { text: 'whatever this is', rows: 0 },
    ]);
    expect(engine.holding(['99', 'Fenwater'])).toEqual({ 99: ['rooms'], Fenwater: ['town'] });
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
    expect(engine.profile('rooms')?.variable.confirmed).toBe(false);
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
    await engine.read(
      plan(file('g.csv', `oft_a,oft_b,size,other\n${rows}\n`), group),
      [],
      null,
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
    await open(DATA);
    engine.lay([
      declare,
      entryOf(
        { type: 'label-codes', variables: ['rooms'], labels: [{ code: '99', label: 'Refused' }] },
        'l',
        new Date(0),
      ),
    ]);
    expect(engine.record(8)).toMatchObject({
      row: 8,
      rows: 80,
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
      engine.grouped('rooms', 'town')?.groups.map(({ code, rows, valid }) => [code, rows, valid]),
    ).toEqual([
      ['Fenwater', 40, 40],
      ['Marlhope', 40, 40],
    ]);
    expect(engine.grouped('rooms', 'nobody')).toBeNull();
    expect(engine.chart('rooms', null)).toMatch(/^<svg[\s\S]*<style>[\s\S]*<rect/);
  });

  it('calls the open extract otherwise, also where it is kept and handed off', async () => {
    await open(DATA);
    engine.callIt('Homes of Ostrey');
    expect(inspectionSchema.parse(JSON.parse(engine.inspection())).source.name).toBe('Homes of Ostrey');
  });

  it('stops when told to, and says so', async () => {
    const long = file('long.csv', `a,b\n${'1,two words here\n'.repeat(400_000)}`);
    const reading = engine.read(plan(long), [], null, () => engine.stop());
    expect(await reading).toEqual({ ok: false, problem: null });
  });

  it('lays a log over the extract: what changed comes back, and so do the flags', async () => {
    expect((await open(DATA)).flags.map(({ codes }) => codes)).toEqual([['99']]);
    const after = engine.lay([declare]);
    expect(after.summaries.map(({ name, counts }) => [name, counts.missing])).toEqual([['rooms', 8]]);
    expect(after.flags).toEqual([]);
    expect(
      engine.lay([declare, entryOf({ type: 'undo', entry: 'e1' }, 'u', new Date(0))]).flags,
    ).toHaveLength(1);
  });

  it('hands off under the rulings in force', async () => {
    await open(DATA);
    engine.lay([declare]);
    expect(engine.inventory(['rooms'])).toContain('99 refused (8)');
    expect(inspectionSchema.parse(JSON.parse(engine.inspection())).variables[1].counts.missing).toBe(8);
    expect(engine.report([declare], ['rooms'], '2026-01-05T10:00:00Z')).toContain('2026-01-05 10:00 UTC');
    expect(engine.profile('nobody')).toBeNull();
  });

  it('says when nothing can be kept, as where there is no storage', async () => {
    await open(DATA);
    expect(await engine.keep('x')).toMatchObject({
      refused: expect.stringContaining('Work goes on in memory') as string,
    });
  });
});
