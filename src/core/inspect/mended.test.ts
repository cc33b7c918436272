import { describe, expect, it } from 'vitest';
import { extractOf, flagsOf, labels } from '../../testing/made';
import { columnOf } from '../extract/column';
import { atPlace } from '../extract/row-names';
import { inferStorage } from '../infer/storage';
import { entryOf, type Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import { tallyColumn, tallyTexts } from '../tally/tally';
import { inventoryCsv } from '../handoff/inventory';
import { reportHtml } from '../handoff/report';
import { chartSvg } from '../handoff/chart';
import { Inspector } from './inspect';
import { profileOf } from './profile';

const under = (dig: Inspector, ...decisions: Decision[]): Inspector => {
  dig.lay(foldLog(decisions.map((decision, i) => entryOf(decision, `e${i}`, new Date(0)))));
  return dig;
};

describe('a variable of very many values', () => {
  it('padded but for one does not overflow the stack', () => {
    const texts = Array.from({ length: 150_000 }, (_, i) => String(i).padStart(7, '0'));
    expect(inferStorage(tallyTexts([...texts, '12345678']), {}).storage).toBe('text');
  });

  it('counts rows that are set aside nowhere, as if they had never been there', () => {
    const cells = Array.from({ length: 3000 }, (_, i) => (i * 7919) % 2500);
    const gone = Array.from({ length: 200 }, (_, i) => i * 13);
    const left = cells.filter((_, row) => !gone.includes(row));
    const dig = under(new Inspector(extractOf({ x: cells })), {
      type: 'set-aside',
      rows: gone.map(atPlace),
      rule: null,
    });
    const told = dig.document().variables[0];
    expect(told.counts).toEqual(new Inspector(extractOf({ x: left })).document().variables[0].counts);
    expect(told.statistics).toEqual(new Inspector(extractOf({ x: left })).document().variables[0].statistics);
  });
});

describe('what a person said of a variable', () => {
  const dig = under(
    new Inspector(
      extractOf(
        { rooms: [1, 2, 3, 3], fuel: [1, 2, 1, 2] },
        { rooms: { label: 'Number of rooms' }, fuel: { categories: labels({ 1: 'Gas', 2: 'Oil' }) } },
      ),
    ),
    { type: 'rename', variable: 'rooms', name: 'rooms_n', label: '=Rooms' },
    { type: 'note', variable: 'rooms', text: '-look <again>' },
    { type: 'sign-off', variables: ['rooms'], done: true },
  );
  it('stands in the inspection, the inventory and the report, the archive’s own beside', async () => {
    expect(dig.document().variables).toMatchObject([
      { name: 'rooms', called: 'rooms_n', label: '=Rooms', note: '-look <again>', signedOff: true },
      { name: 'fuel', called: null, note: null, signedOff: false },
    ]);
    const [, rooms] = inventoryCsv(dig, ['rooms']).split('\r\n');
    expect(rooms).toMatch(/^1,rooms,=Rooms,rooms_n,Number of rooms,.*,-look <again>,yes,all \d+ rows?$/);
    const report = await reportHtml(dig, [], ['rooms', 'fuel'], new Date(0));
    expect(report).toContain(
      '<span class="code">rooms_n</span> <span class="soft">(<span class="code">rooms</span> in the archive)',
    );
    expect(report).toContain('Note: -look &lt;again&gt;');
    expect(report).toContain('Signed off.');
    expect(report).toMatch(/<meta http-equiv="Content-Security-Policy" content="default-src 'none'/);
  });
  it('is kept from spreadsheets that would run it, on request, and numbers stay numbers', () => {
    const [, rooms] = inventoryCsv(dig, ['rooms'], { harmless: true }).split('\r\n');
    expect(rooms).toMatch(/^1,rooms,'=Rooms,rooms_n,.*,'-look <again>,yes,all \d+ rows?$/);
    const [, cold] = inventoryCsv(new Inspector(extractOf({ cold: [-3, -2.5, 4] })), ['cold'], {
      harmless: true,
    }).split('\r\n');
    expect(cold).toContain(',-3,');
  });
});

describe('figures', () => {
  it('include variance and range of quantities, and of no categories', () => {
    const { variables } = new Inspector(
      extractOf({
        x: Array.from({ length: 40 }, (_, i) => i + 0.5),
        y: Array.from({ length: 40 }, (_, i) => 'ab'[i % 2]),
      }),
    ).document();
    expect(variables[0].statistics).toMatchObject({ range: 39, variance: (40 * 41) / 12 });
    expect(variables[1].statistics).toMatchObject({ range: null, variance: null });
  });
  it('name no row that was set aside among the rows in which an extreme stands', async () => {
    const dig = new Inspector(
      extractOf({ x: [...Array.from({ length: 40 }, (_, i) => i + 0.5), 39.5, 39.5] }),
    );
    const highest = async (): Promise<number[] | undefined> => (await profileOf(dig, 'x'))?.highest[0].rows;
    expect(await highest()).toEqual([40, 41, 42]);
    dig.lay(
      foldLog([entryOf({ type: 'set-aside', rows: dig.nameRows([39]), rule: null }, 's', new Date(0))]),
    );
    expect(await highest()).toEqual([41, 42]);
  });
  it('and charts stand numbers at the ends of what a double holds', async () => {
    const dig = new Inspector(extractOf({ x: ['1e308', '1e-320', '-1e308', '3.5', '4.5'] }));
    expect(await profileOf(dig, 'x')).not.toBeNull();
    expect(dig.summaries()).toHaveLength(1);
  });
  it('in a chart of a title with control characters leave it well-formed', () => {
    expect(
      chartSvg(
        { form: 'bars', bars: [{ code: 'a\u0001b', label: 'x\uD800', count: 3 }], rest: 0 },
        'bell\u0007',
      ),
    ).not.toMatch(/[\u0001\u0007\uD800]/);
  });
});

describe('words that are members of every object', () => {
  it('are codes like any others', () => {
    const cells = Array.from({ length: 60 }, (_, i) => ['constructor', '__proto__', 'toString'][i % 3]);
    const dig = under(new Inspector(extractOf({ x: cells })), {
      type: 'declare-missing',
      variables: ['x'],
      codes: [{ code: '__proto__', reason: 'refused' }],
      rule: null,
    });
    expect(dig.document().variables[0]).toMatchObject({
      counts: { missing: 20, valid: 40, distinct: 2 },
      missingCodes: [{ code: '__proto__', count: 20 }],
    });
  });
});

it('a reason names the codes that stand beside two values', () => {
  const cells = Array.from({ length: 90 }, (_, i) => (i % 30 === 0 ? 9 : 1 + (i % 2)));
  expect(new Inspector(extractOf({ x: cells })).variables[0].because.join()).toMatch(
    /two values, 1 and 2, beside 9/,
  );
});

it('rows that are the same are all counted in the sentence', () => {
  const rows = Array.from({ length: 400 }, (_, i) => i);
  const columns = Object.fromEntries(
    ['a', 'b', 'c', 'd', 'e', 'f'].map((name, n) => [
      name,
      rows.map((row) => (row >= 394 ? row - 394 : row) * (n + 3) + n),
    ]),
  );
  const flag = new Inspector(extractOf(columns)).flags.find(({ rule }) => rule === 'duplicate-row');
  expect(flag).toMatchObject({
    rows: 12,
    says: expect.stringContaining(' and 4 more hold the same') as string,
  });
});

it('a time zone without minutes, as databases write it, is read as one', () => {
  const texts = Array.from(
    { length: 20 },
    (_, i) => `2021-03-${String(i + 1).padStart(2, '0')} 10:0${i % 10}:00+0${i % 3}`,
  );
  expect(inferStorage(tallyColumn(columnOf(texts)), {})).toMatchObject({ storage: 'datetime', utc: true });
  expect(flagsOf(texts)).toEqual([]);
});
