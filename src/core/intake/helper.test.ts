import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Extract } from '../extract/extract';
import { InputError } from '../extract/problem';
import { Inspector } from '../inspect/inspect';
import { sourceOf, type ByteSource } from '../read/source';
import { HelperAtWork, HelperLost, isWorthHelp, type Helper } from './helper';
import { readExtract, type Choices } from './receive';

/** A helper as another thread is one: it answers later, in order, and sees nothing but what messages carry. */
function helperApart(): Helper {
  const work = new HelperAtWork();
  let turn: Promise<unknown> = Promise.resolve();
  const later = <T>(does: () => T): Promise<T> => {
    const done = turn.then(() => new Promise<T>((resolve) => setTimeout(() => resolve(does()))));
    turn = done.catch(() => undefined);
    return done;
  };
  return {
    start: (holds) => later(() => work.start(structuredClone(holds))),
    expect: (rows, columns) => later(() => work.expect(rows, columns)),
    begin: (file, names) => later(() => work.begin(file, [...names])),
    take: (cells) => later(() => work.take(cells)),
    endFile: () => later(() => work.endFile()),
    finish: () => later(() => structuredClone(work.finish())),
  };
}

const read = (texts: readonly (string | ByteSource)[], choices: Choices = {}): Promise<Extract> =>
  readExtract(
    texts.map((text, i) => ({
      source: typeof text === 'string' ? sourceOf(`homes_${2000 + i}.csv`, text) : text,
    })),
    {},
    choices,
  );
const cellsOf = ({ variables, rows }: Extract): [string, string[]][] =>
  variables.map(({ name, column }) => [name, Array.from({ length: rows }, (_, row) => column.text(row))]);
/** The same files in many small pieces, so that the helper is told much. */
const inPieces = (name: string, text: string, size: number): ByteSource => {
  const bytes = new TextEncoder().encode(text);
  return {
    name,
    bytes: bytes.length,
    open: async function* () {
      for (let at = 0; at < bytes.length; at += size) yield bytes.slice(at, at + size);
    },
  };
};

describe('columns that are shared with a helper', () => {
  it('are the same as those that are taken by one', async () => {
    const cell = fc.stringMatching(/^[a-c0-3 .-]{0,3}$|^"[a, ]{0,3}"$/);
    const row = fc.array(cell, { minLength: 1, maxLength: 5 });
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.array(row, { maxLength: 30 }), { minLength: 1, maxLength: 3 }),
        fc.constantFrom<Choices>({}, { hold: 'sample' }, { hold: 'sample', bounds: { rows: 4, texts: 3 } }),
        async (files, choices) => {
          const texts = files.map(
            (rows, i) => `a,b${i},c,d,e\n${rows.map((cells) => cells.join(',')).join('\n')}\n`,
          );
          const refused = (cause: unknown): string => String(cause);
          const alone = await read(texts, choices).catch(refused);
          const shared = await read(texts, { ...choices, helper: helperApart() }).catch(refused);
          if (typeof alone === 'string' || typeof shared === 'string') {
            expect(shared).toEqual(alone);
            return;
          }
          expect(cellsOf(shared)).toEqual(cellsOf(alone));
          expect(shared.variables.map(({ pass }) => pass)).toEqual(alone.variables.map(({ pass }) => pass));
          expect({ ...shared, variables: [] }).toEqual({ ...alone, variables: [] });
          expect(new Inspector(shared).document()).toEqual(new Inspector(alone).document());
        },
      ),
      { numRuns: 60 },
    );
  });

  it('of many pieces, with rows that only a parser reads among them, are the same too', async () => {
    const lines = Array.from({ length: 60_000 }, (_, i) =>
      i === 30_000
        ? 'one,two'
        : i % 20_000 === 7
          ? `${i},"a ""b"",\nc",x,y`
          : `${i},${i % 7},word ${i % 50},${i / 4}`,
    );
    const file = inPieces('homes.csv', `id,rooms,place,rent\n${lines.join('\n')}\n`, 1 << 16);
    for (const choices of [
      {},
      { hold: 'sample' },
      { part: { rows: 40_000, names: ['rent', 'rooms'] } },
    ] as Choices[]) {
      const alone = await read([file], choices);
      const shared = await read([file], { ...choices, helper: helperApart() });
      expect(cellsOf(shared)).toEqual(cellsOf(alone));
      expect(shared.files).toEqual(alone.files);
    }
  });

  it('stand in the order of the files, and each on one side alone', async () => {
    const begun: (string | null)[][] = [];
    const helper = helperApart();
    const extract = await read(['a,b,c,d,e,f,g\n1,2,3,4,5,6,7\n'], {
      helper: {
        ...helper,
        begin: (file, names) => {
          begun.push([...names]);
          return helper.begin(file, names);
        },
      },
    });
    expect(extract.variables.map(({ name }) => name)).toEqual(['a', 'b', 'c', 'd', 'e', 'f', 'g']);
    expect(begun).toEqual([['a', 'b', null, 'd', 'e', null, 'g']]);
  });

  it('refuse in words what the helper could not take, and tell where it ended', async () => {
    const text = `a,b\n${'1,2\n'.repeat(1000)}`;
    const problem = { file: 'homes.csv', element: 'a', says: 'it holds more than 4 GB of text' };
    await expect(
      read([text], { helper: { ...helperApart(), take: () => Promise.resolve(problem) } }),
    ).rejects.toThrow(new InputError(problem));
    await expect(
      read([text], { helper: { ...helperApart(), take: () => Promise.reject(new HelperLost('no memory')) } }),
    ).rejects.toThrow('a second thread that read along has ended: no memory');
  });

  it('wait for a helper that is behind', async () => {
    let [given, most] = [0, 0];
    const helper = helperApart();
    const rows = Array.from({ length: 400_000 }, (_, i) => `${i % 10},${i % 7},${i % 3}`).join('\n');
    await read([inPieces('homes.csv', `a,b,c\n${rows}\n`, 1 << 16)], {
      helper: {
        ...helper,
        take: async (cells) => {
          most = Math.max(most, ++given);
          await new Promise((resolve) => setTimeout(resolve, 20));
          const answer = await helper.take(cells);
          given--;
          return answer;
        },
      },
    });
    expect(most).toBeGreaterThan(1);
    expect(most).toBeLessThan(8);
  });
});

describe('a helper', () => {
  it('is for large files of delimited text', () => {
    const file = { bytes: 20e6, packed: false, form: 'delimited' } as const;
    expect(isWorthHelp([file])).toBe(true);
    expect(
      isWorthHelp([
        { ...file, bytes: 7e6 },
        { ...file, bytes: 7e6 },
      ]),
    ).toBe(true);
    expect(isWorthHelp([{ ...file, bytes: 3e6, packed: true }])).toBe(true);
    expect(isWorthHelp([{ ...file, bytes: 3e6 }])).toBe(false);
    expect(isWorthHelp([{ ...file, form: 'parquet' }, file])).toBe(false);
  });
});
