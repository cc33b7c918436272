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

describe('a JSON document of another shape', () => {
  const two = [
    { a: '1.0', b: 'x' },
    { a: '22', b: '' },
  ];
  it.each([
    ['lists by column', '{"a":[1.0,22],"b":["x",null]}', 'columns'],
    ['objects by column', '{"a":{"0":1.0,"1":22},"b":{"0":"x","1":null}}', 'columns'],
    ['objects by row', '{"0":{"a":1.0,"b":"x"},"1":{"a":22,"b":null}}', 'index'],
    ['names beside rows', '{"columns":["a","b"],"index":[0,1],"data":[[1.0,"x"],[22,null]]}', 'split'],
    [
      'a schema beside records',
      '{"schema":{"fields":[{"name":"a"},{"name":"b"}]},"data":[{"a":1.0,"b":"x"},{"a":22,"b":null}]}',
      'in data',
    ],
  ])('is read as the table that it is: %s', async (_, text, records) => {
    expect((await lookAt(sourceOf('x', text))).reading.records).toBe(records);
    expect(rowsOf(await read(text))).toEqual(two);
  });
  it('has the names of its rows as a column, where they do more than count', async () => {
    expect(rowsOf(await read('{"h1":{"a":1},"h2":{"a":2},"h3":{"a":3}}'))).toEqual([
      { index: 'h1', a: '1' },
      { index: 'h2', a: '2' },
      { index: 'h3', a: '3' },
    ]);
    expect(rowsOf(await read('{"a":{"7":1,"9":2},"b":{"9":4}}'))).toEqual([
      { index: '7', a: '1', b: '' },
      { index: '9', a: '2', b: '4' },
    ]);
  });
  it('is one record, where nothing says otherwise', async () => {
    expect(rowsOf(await read('{"a":1,"l":[1,2]}'))).toEqual([{ a: '1', l: '[1,2]' }]);
    expect(rowsOf(await read('{"a":{"x":1},"b":{"y":2}}'))).toEqual([{ a: '{"x":1}', b: '{"y":2}' }]);
  });
  it('says which row has more values than names', async () => {
    expect(await failure(read('{"columns":["a"],"data":[[1],[2,3]]}'))).toMatchObject({
      file: 'r.json',
      says: 'row 2 has 2 values for 1 names',
    });
  });
  it('is no table where each record has names of its own, or values are nested without end', async () => {
    const own = `[${Array.from({ length: 20_000 }, (_, i) => `{"k${i}":1}`).join(',')}]`;
    expect(await failure(read(own))).toMatchObject({
      says: expect.stringMatching(/^nearly every record/) as string,
    });
    const deep = `[{"a":${'['.repeat(30_000)}${']'.repeat(30_000)}}]`;
    expect(await failure(read(deep))).toMatchObject({
      says: expect.stringMatching(/^values are nested/) as string,
    });
  });
});

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
