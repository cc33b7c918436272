import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { extractOf } from '../../testing/made';
import { columnOf } from '../extract/column';
import { columnWith } from '../extract/mended-column';
import { atPlace } from '../extract/row-names';
import { entryOf, type Decision, type Entry } from '../log/entries';
import { foldLog } from '../log/fold';
import { byCodePoint } from '../rows/sorting';
import { Inspector } from './inspect';
import { rowsDocument } from './rows-document';
import type { RowsWanted } from './rows-schema';

const logOf = (...decisions: Decision[]): Entry[] =>
  decisions.map((decision, i) => entryOf(decision, `e${i}`, new Date(0)));
const laid = (columns: Record<string, string[]>, ...decisions: Decision[]): Inspector => {
  const dig = new Inspector(extractOf(columns));
  dig.lay(foldLog(logOf(...decisions)));
  return dig;
};
const wanted = (some: Partial<RowsWanted> & { variables: string[] }): RowsWanted => ({
  sort: [],
  find: null,
  dropped: false,
  from: 0,
  take: 99,
  ...some,
});
const correct = (variable: string, row: number, from: string, to: string): Decision => ({
  type: 'correct-cells',
  cells: [{ row: atPlace(row), variable, from, to }],
  rule: null,
});

describe('sorted rows', () => {
  const columns = {
    size: ['10', '9', '', 'x', '9.0', '100', '99', '9'],
    when: [
      '2019-03-01',
      '2018-12-31',
      '2019-01-01',
      '',
      '2019-03-01',
      '2017-01-01',
      '2019-02-01',
      '2019-02-02',
    ],
    word: ['b', 'a', 'B', '\u{1F600}', '\uFF5E', 'a', '', 'c'],
  };
  const order = async (dig: Inspector, ...sort: [string, boolean?][]): Promise<number[]> =>
    (
      await rowsDocument(
        dig,
        wanted({ variables: [], sort: sort.map(([variable, down = false]) => ({ variable, down })) }),
      )
    ).records.map(({ row }) => row);
  const dig = laid(columns, {
    type: 'declare-missing',
    variables: ['size'],
    codes: [{ code: '99', reason: 'refused' }],
    rule: null,
  });

  it('stand by value, without a valid one last, ties in file order, up and down', async () => {
    expect(await order(dig, ['size'])).toEqual([2, 5, 8, 1, 6, 3, 4, 7]);
    expect(await order(dig, ['size', true])).toEqual([6, 1, 2, 5, 8, 3, 4, 7]);
    expect(await order(dig, ['when'])).toEqual([6, 2, 3, 7, 8, 1, 5, 4]);
  });
  it('stand by code point among words, and by order among ordered categories', async () => {
    expect(await order(dig, ['word'])).toEqual([3, 2, 6, 1, 8, 5, 4, 7]);
    const ordering: Decision = { type: 'order-codes', variables: ['word'], codes: ['c', 'b', 'a'] };
    expect((await order(laid(columns, ordering), ['word'])).slice(0, 4)).toEqual([8, 1, 2, 6]);
  });
  it('stand by the first variable, and by the next within it', async () => {
    expect(await order(dig, ['word'], ['size', true])).toEqual([3, 6, 2, 1, 8, 5, 4, 7]);
  });
  it('are in the order that comparing them gives', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.tuple(fc.constantFrom('1', '2', '10', ''), fc.constantFrom('a', 'b', 'ab')), {
          minLength: 3,
          maxLength: 30,
        }),
        fc.boolean(),
        fc.boolean(),
        async (table, down, downToo) => {
          const columns = { n: ['1', ...table.map(([n]) => n)], t: ['a', ...table.map(([, t]) => t)] };
          const rows = columns.n.map((_, row) => row);
          const compare = (a: number, b: number): number => {
            const [x, y] = [columns.n[a], columns.n[b]];
            if ((x === '') !== (y === '')) return x === '' ? 1 : -1;
            return (
              (down ? -1 : 1) * (Number(x) - Number(y)) ||
              (downToo ? -1 : 1) * byCodePoint(columns.t[a], columns.t[b]) ||
              a - b
            );
          };
          expect(await order(laid(columns), ['n', down], ['t', downToo])).toEqual(
            rows.sort(compare).map((row) => row + 1),
          );
        },
      ),
    );
  });
});

describe('records', () => {
  const columns = { id: ['a1', 'a2', 'a3', 'a4'], n: ['1', ' 9', '', 'x'], m: ['2', '2.0', '2', '2'] };
  const dig = laid(
    columns,
    { type: 'label-codes', variables: ['n'], labels: [{ code: '9', label: 'Refused' }] },
    { type: 'declare-missing', variables: ['n'], codes: [{ code: '9', reason: 'refused' }], rule: null },
    { type: 'confirm-kind', kinds: [{ variable: 'n', kind: 'count' }] },
  );

  it('tell what the file holds, what it counts as, and in which state it is', async () => {
    const { records } = await rowsDocument(dig, wanted({ variables: ['m', 'n'] }));
    expect(
      records.map(({ cells }) => cells.map(({ raw, code, label, state }) => [raw, code, label, state])),
    ).toEqual([
      [
        ['2', '2', null, 'valid'],
        ['1', '1', null, 'valid'],
      ],
      [
        ['2.0', '2', null, 'valid'],
        [' 9', ' 9', 'Refused', 'missing'],
      ],
      [
        ['2', '2', null, 'valid'],
        ['', null, null, 'blank'],
      ],
      [
        ['2', '2', null, 'valid'],
        ['x', null, null, 'unreadable'],
      ],
    ]);
  });
  it('are found by text and by label in the variables shown, whatever the case', async () => {
    const found = async (find: string, ...variables: string[]): Promise<unknown> => {
      const { found: n, records } = await rowsDocument(dig, wanted({ variables, find }));
      return [n, records.map(({ row }) => row)];
    };
    expect(await found('A', 'id')).toEqual([4, [1, 2, 3, 4]]);
    expect(await found('REFUSED', 'id', 'n')).toEqual([1, [2]]);
    expect(await found('refused', 'id')).toEqual([0, []]);
    expect(await found('.0', 'm')).toEqual([1, [2]]);
  });
  it('of a page are those behind it', async () => {
    const { records } = await rowsDocument(dig, wanted({ variables: ['id'], from: 1, take: 2 }));
    expect(records.map(({ row }) => row)).toEqual([2, 3]);
  });
  it('say not asked where a universe that was accepted says so', async () => {
    const gated = laid(
      { gate: ['1', '2', '2', '1'], deep: ['5', '', '6', ''] },
      { type: 'accept-universe', variable: 'deep', by: 'gate', shut: ['2'] },
    );
    const { records } = await rowsDocument(gated, wanted({ variables: ['deep'] }));
    expect(records.map(({ cells: [{ state }] }) => state)).toEqual(['valid', 'notAsked', 'valid', 'blank']);
    expect(gated.document().variables[1].counts).toMatchObject({ notAsked: 1, blank: 1, valid: 2 });
  });
});

describe('corrected cells and added rows', () => {
  const columns = { n: ['1', '2', '222', '3'], t: ['a', 'b', 'c', 'a'] };
  const one = correct('n', 2, '222', '2');

  it('count everywhere, with what was received beside them', async () => {
    const dig = laid(columns, one);
    expect(dig.named('n')?.levels.levels.map(({ code, count }) => [code, count])).toEqual([
      ['1', 1],
      ['2', 2],
      ['3', 1],
    ]);
    const { records } = await rowsDocument(dig, wanted({ variables: ['n'], find: '222' }));
    expect(records).toMatchObject([{ row: 3, cells: [{ raw: '222', code: '2', corrected: true }] }]);
    expect(dig.received.variables[0].column.text(2)).toBe('222');
  });
  it('are not made of what does not hold what it did', () => {
    const dig = laid(
      columns,
      correct('n', 2, '221', '2'),
      correct('gone', 0, '', '1'),
      correct('n', 9, '', '1'),
    );
    expect(dig.named('n')?.levels.levels.map(({ code }) => code)).toEqual(['1', '2', '3', '222']);
    expect(dig.notices.map(({ says }) => says)).toEqual([
      'n was to be corrected to “2”, but the cell holds “222” here, not “221”',
      'gone was to be corrected to “1”, but there is no gone here',
      'n was to be corrected to “1”, but there is no row 10: the extract has 4',
    ]);
  });
  it('stand behind all others, are corrected, set aside and sieved as they are, and are in no file', async () => {
    const add: Decision = { type: 'add-rows', rows: [{ id: 'r', cells: { n: '7' } }] };
    const dig = laid(columns, add);
    expect(dig.rowCounts).toEqual({ all: 5, aside: 0, kept: 5 });
    const [name] = dig.nameRows([4]);
    expect(name).toMatchObject({ file: null, added: 'r' });
    const { records } = await rowsDocument(dig, wanted({ variables: ['n', 't'], from: 4 }));
    expect(records).toMatchObject([
      {
        row: 5,
        file: 'added by hand',
        line: null,
        cells: [{ raw: '', code: '7', state: 'valid' }, { state: 'blank' }],
      },
    ]);
    const changed = laid(columns, add, {
      type: 'correct-cells',
      cells: [{ row: name, variable: 't', from: '', to: 'z' }],
      rule: null,
    });
    expect(changed.named('t')?.levels.levels.map(({ code }) => code)).toContain('z');
    const gone = laid(columns, add, { type: 'set-aside', rows: [name], rule: null });
    expect(gone.rowCounts).toEqual({ all: 4, aside: 1, kept: 4 });
  });

  it('taken back in any order leave what the others say: the log over an extract is always the same', () => {
    const row = atPlace(1);
    const sieve = (codes: string[]): Decision => ({
      type: 'make-sieve',
      sieve: codes.join(''),
      name: '',
      parts: [{ id: 'p', condition: { variable: 't', codes }, on: true }],
      use: true,
    });
    const all: Decision[] = [
      one,
      correct('t', 0, 'a', 'b'),
      correct('n', 2, '222', '3'),
      { type: 'add-rows', rows: [{ id: 'x', cells: { n: '9', t: 'a' } }] },
      { type: 'set-aside', rows: [row], rule: null },
      sieve(['a']),
      {
        type: 'change-sieve',
        sieve: 'a',
        parts: [{ id: 'p', condition: { variable: 't', codes: ['a', 'c'] }, on: true }],
        use: true,
      },
      sieve(['b', 'c']),
      { type: 'use-sieve', sieve: 'a' },
      { type: 'drop-sieve', sieve: 'a' },
    ];
    fc.assert(
      fc.property(fc.shuffledSubarray(all.map((_, i) => i)), (undone) => {
        const log = logOf(...all);
        const dig = new Inspector(extractOf(columns));
        // Laid step by step, as a person would, with every undo.
        for (let i = 1; i <= log.length; i++) dig.lay(foldLog(log.slice(0, i)));
        const undos = undone.map((i, n) => entryOf({ type: 'undo', entry: `e${i}` }, `u${n}`, new Date(0)));
        for (let i = 1; i <= undos.length; i++) dig.lay(foldLog([...log, ...undos.slice(0, i)]));
        const fresh = new Inspector(extractOf(columns));
        fresh.lay(foldLog(log.filter((_, i) => !undone.includes(i))));
        expect(dig.document()).toEqual(fresh.document());
        expect(dig.rowCounts).toEqual(fresh.rowCounts);
      }),
      { numRuns: 60 },
    );
  });

  it('make a column of either form another, cell by cell', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('a', 'b', ''), { minLength: 1, maxLength: 20 }),
        fc.dictionary(fc.nat(19).map(String), fc.constantFrom('b', 'new', 'é'), { maxKeys: 5 }),
        (texts, changes) => {
          const cells = new Map(
            Object.entries(changes)
              .map(([row, to]) => [Number(row), to] as const)
              .filter(([row]) => row < texts.length),
          );
          const made = columnWith(columnOf(texts), cells);
          expect(texts.map((_, row) => made.text(row))).toEqual(
            texts.map((text, row) => cells.get(row) ?? text),
          );
        },
      ),
    );
  });
});
