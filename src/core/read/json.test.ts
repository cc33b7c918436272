import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { InputError } from '../extract/problem';
import { readExtract } from '../intake/receive';
import { lookAt } from './look';
import { sourceOf } from './source';

const read = (text: string, reading = {}, part: number | null = null) =>
  readExtract(
    [{ source: sourceOf('r.json', text), reading }],
    {},
    { part: part === null ? null : { rows: part, names: null } },
  );
const rowsOf = (extract: Awaited<ReturnType<typeof read>>): Record<string, string>[] =>
  Array.from({ length: extract.rows }, (_, row) =>
    Object.fromEntries(extract.variables.map(({ name, column }) => [name, column.text(row)])),
  );
const failure = async (work: Promise<unknown>) =>
  work.then(
    () => null,
    (cause: unknown) => (cause instanceof InputError ? cause.problem : cause),
  );

describe('JSON records', () => {
  it('are found as a list, one to a line, or under a name', async () => {
    expect((await lookAt(sourceOf('x', '[{"a":1}]'))).reading).toMatchObject({
      form: 'json',
      records: 'list',
    });
    expect((await lookAt(sourceOf('x', '{"a":1}\n{"a":2}\n'))).reading.records).toBe('lines');
    expect((await lookAt(sourceOf('x', '{"made":"2021","rows":[{"a":1},{"a":2}]}'))).reading.records).toBe(
      'in rows',
    );
    for (const text of [
      '[{"a":1},{"a":2}]',
      '{"a":1}\n{"a":2}',
      '{"x":[1],"rows":[{"a":1},{"a":2}],"y":{"rows":[{"a":9}]}}',
    ])
      expect(rowsOf(await read(text))).toEqual([{ a: '1' }, { a: '2' }]);
  });

  it('keep numbers as they are written, whatever their length', async () => {
    const [row] = rowsOf(
      await read('[{"a":1.0,"b":12345678901234567890,"c":1e5,"d":-0.10,"e":true,"f":null,"g":"007"}]'),
    );
    expect(row).toEqual({
      a: '1.0',
      b: '12345678901234567890',
      c: '1e5',
      d: '-0.10',
      e: 'true',
      f: '',
      g: '007',
    });
  });

  it('leave blank what a record lacks, keep what is nested as JSON, and notice a name that stands twice', async () => {
    const extract = await read('[{"a":1,"l":[1,{"x":"y"}]},{"b":2,"a":3,"a":4}]');
    expect(rowsOf(extract)).toEqual([
      { a: '1', l: '[1,{"x":"y"}]', b: '' },
      { a: '4', l: '', b: '2' },
    ]);
    expect(extract.files[0].notices.map(({ says }) => says)).toEqual([
      'a record names “a” twice; its last value counts',
    ]);
  });

  it('may be named as objects name their own things', async () => {
    expect(
      rowsOf(await read('[{"__proto__":1,"constructor":2,"toString":3},{"constructor":4}]')),
    ).toMatchObject([
      { constructor: '2', toString: '3' },
      { constructor: '4', toString: '' },
    ]);
    expect(
      (await read('[{"__proto__":1,"hasOwnProperty":2}]')).variables.map(({ name, column }) => [
        name,
        column.text(0),
      ]),
    ).toEqual([
      ['__proto__', '1'],
      ['hasOwnProperty', '2'],
    ]);
  });

  it('are read in part when only the first are wanted', async () => {
    const extract = await read(`[${Array.from({ length: 50 }, (_, i) => `{"a":${i}}`).join(',')}]`, {}, 7);
    expect([extract.rows, extract.files[0].partial]).toEqual([7, true]);
  });

  it.each([
    ['a comma too many', '[{"a":1},\n{"a":2},,\n{"a":3}]', 2, 'no valid JSON'],
    ['an end too early', '[{"a":1},\n{"a":', 2, 'ends in the middle'],
    ['a number that is none', '{"a":1}\n{"a":01x}\n', 2, 'no valid JSON'],
    ['records that are no objects', '[{"a":1}, 2]', undefined, 'record 2 is no object'],
    ['no record', '[]', undefined, 'holds no record'],
  ])('tell %s with its line', async (_, text, line, says) => {
    const problem = await failure(read(text));
    expect(problem).toMatchObject({
      file: 'r.json',
      ...(line ? { line } : {}),
      says: expect.stringContaining(says) as string,
    });
  });

  it('come out as they went in, however they are cut up', async () => {
    const cell = fc.oneof(fc.string({ maxLength: 8 }), fc.integer(), fc.boolean());
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.dictionary(fc.constantFrom('a', 'b', 'käse', '"q"'), cell, { minKeys: 1 }), {
          minLength: 1,
          maxLength: 6,
        }),
        fc.boolean(),
        fc.integer({ min: 1, max: 9 }),
        async (records, lines, size) => {
          const bytes = new TextEncoder().encode(
            lines
              ? records.map((record) => JSON.stringify(record)).join('\n')
              : JSON.stringify(records, null, 1),
          );
          const source = {
            ...sourceOf('r.json', bytes),
            open: async function* () {
              for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
            },
          };
          const extract = await readExtract([
            { source, reading: { form: 'json', records: lines ? 'lines' : 'list' } },
          ]);
          const told = new Map(extract.variables.map(({ name, column }) => [name, column]));
          records.forEach((record, row) => {
            for (const [name, value] of Object.entries(record))
              expect(told.get(name)?.text(row)).toBe(String(value));
          });
        },
      ),
      { numRuns: 60 },
    );
  });
});
