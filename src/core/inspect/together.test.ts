import { describe, expect, it } from 'vitest';
import { parseDdi } from '../codebook/ddi';
import { linkCodebooks } from '../codebook/link';
import { entryOf } from '../log/entries';
import { foldLog } from '../log/fold';
import { readExtract } from '../intake/receive';
import { sourceOf } from '../read/source';
import { Inspector } from './inspect';
import { groupedBy } from './grouped';
import { batteryOf } from './together';

const rows = Array.from({ length: 120 }, (_, i) =>
  [
    i % 2 ? 'a' : 'b',
    1 + (i % 5),
    1 + ((i * 3) % 5),
    i % 10 === 0 ? 0 : 1 + (i % 5),
    i % 60,
    ['low', 'mid', 'high'][i % 3],
    i % 12 === 0 ? 'n/k' : i % 7,
  ].join(','),
);
async function made(): Promise<Inspector> {
  const text = `side,q_a,q_b,q_c,width_cm,tier,num\n${rows.join('\n')}\n`;
  const item = (name: string): string =>
    `<var name="${name}">${['Never', 'Rarely', 'Sometimes', 'Often', 'Always'].map((label, i) => `<catgry><catValu>${i + 1}</catValu><labl>${label}</labl></catgry>`).join('')}</var>`;
  const extract = await readExtract([
    { source: sourceOf('m_1.csv', text) },
    { source: sourceOf('m_2.csv', text) },
  ]);
  return new Inspector(
    linkCodebooks(extract, [
      parseDdi(
        'm.xml',
        `<codeBook><dataDscr>${['q_a', 'q_b', 'q_c'].map(item).join('')}</dataDscr></codeBook>`,
      ),
    ]),
  );
}
const find = (dig: Inspector, name: string) => {
  const variable = dig.extract.variables.find((one) => one.name === name);
  const inspected = dig.named(name);
  if (!variable || !inspected) throw new Error(name);
  return { variable, inspected };
};

describe('siblings', () => {
  it('stand in one table, items down and codes across, the odd one told', async () => {
    const dig = await made();
    const battery = batteryOf(['q_a', 'q_b', 'q_c'].map((name) => find(dig, name).inspected));
    expect(battery?.codes.map(({ code }) => code)).toEqual(['0', '1', '2', '3', '4', '5']);
    expect(battery?.items.map(({ name, valid, odd }) => [name, valid, odd])).toEqual([
      ['q_a', 240, null],
      ['q_b', 240, null],
      ['q_c', 240, 'only here 0'],
    ]);
    expect(battery?.items[0].counts).toEqual([0, 48, 48, 48, 48, 48]);
  });

  it('are none where their codes have nothing in common, or where they are measures', async () => {
    const dig = await made();
    expect(batteryOf(['q_a', 'tier'].map((name) => find(dig, name).inspected))).toBeNull();
    expect(batteryOf(['q_a', 'width_cm'].map((name) => find(dig, name).inspected))).toBeNull();
  });
});

describe('by group', () => {
  it('summarises a measure within levels, and a category within files', async () => {
    const dig = await made();
    const bySide = await groupedBy(dig, 'width_cm', 'side');
    expect(
      bySide?.groups.map(({ code, rows: n, summary: s }) => [code, n, s?.mean, s?.min, s?.max, s?.median]),
    ).toEqual([
      ['a', 120, 30, 1, 59, 30],
      ['b', 120, 29, 0, 58, 29],
    ]);
    // Stems of tens, each group with its own.
    expect(bySide?.groups[0].stem?.lines[0]).toMatchObject({
      stem: '0',
      leaves: '11113333555577779999',
      depth: 20,
    });
    const byFile = await groupedBy(dig, 'tier', null);
    expect(byFile?.codes.map(({ code }) => code)).toEqual(['high', 'low', 'mid']);
    expect(byFile?.groups.map(({ rows: n, valid, counts }) => [n, valid, counts])).toEqual([
      [120, 120, [40, 40, 40]],
      [120, 120, [40, 40, 40]],
    ]);
  });

  it('says why there is none', async () => {
    const dig = await made();
    dig.lay(
      foldLog([
        entryOf({ type: 'confirm-kind', kinds: [{ variable: 'tier', kind: 'text' }] }, '1', new Date(0)),
      ]),
    );
    expect((await groupedBy(dig, 'tier', null))?.why).toContain('no summary');
  });
});

describe('a person’s word', () => {
  const entry = (decision: Parameters<typeof entryOf>[0], i = 1) => entryOf(decision, String(i), new Date(0));

  it('makes numbers of words as far as they can be read, and the rest unreadable', async () => {
    const words = ['some', 'few', 'many', 'plenty'];
    const text = `x\n${Array.from({ length: 60 }, (_, i) => (i % 3 === 0 ? words[i % 4] : String(i))).join('\n')}\n`;
    const dig = new Inspector(await readExtract([{ source: sourceOf('x.csv', text) }]));
    expect(dig.named('x')?.written.storage).toBe('text');
    expect(dig.asKind('x', 'continuous')).toMatchObject({
      written: { storage: 'integer' },
      counts: { unreadable: 20, valid: 40 },
    });
    expect(dig.named('x')?.written.storage).toBe('text');
    dig.lay(
      foldLog([
        entry({
          type: 'declare-missing',
          variables: ['x'],
          codes: words.map((code) => ({ code, reason: 'other' as const })),
          rule: null,
        }),
        entry({ type: 'confirm-kind', kinds: [{ variable: 'x', kind: 'continuous' }] }, 2),
      ]),
    );
    expect(dig.named('x')).toMatchObject({
      kind: 'continuous',
      written: { storage: 'integer' },
      counts: { unreadable: 0, missing: 20, valid: 40 },
    });
    dig.lay(foldLog([]));
    expect(dig.named('x')).toMatchObject({ written: { storage: 'text' }, counts: { valid: 60 } });
  });

  it('orders categories, and frequencies follow', async () => {
    const dig = await made();
    dig.lay(foldLog([entry({ type: 'order-codes', variables: ['tier'], codes: ['low', 'mid', 'high'] })]));
    expect(
      dig
        .document()
        .variables.find(({ name }) => name === 'tier')
        ?.frequencies.map(({ code }) => code),
    ).toEqual(['low', 'mid', 'high']);
  });

  it('labels a variable anew, the archive’s label kept beside', async () => {
    const dig = await made();
    dig.lay(
      foldLog([entry({ type: 'rename', variable: 'width_cm', name: 'area', label: 'Size in metres' })]),
    );
    expect(dig.named('width_cm')).toMatchObject({ name: 'width_cm', label: 'Size in metres' });
  });
});
