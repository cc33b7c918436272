import { gzipSync } from 'node:zlib';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { InputError } from '../extract/problem';
import { lookAt } from './look';
import { extractName, readExtract } from '../intake/receive';
import { sourceOf, type ByteSource } from './source';

const read = (text: string | Uint8Array, reading = {}) =>
  readExtract([{ source: sourceOf('file.csv', text), reading }]);
const rowsOf = (extract: Awaited<ReturnType<typeof read>>): string[][] =>
  Array.from({ length: extract.rows }, (_, row) => extract.variables.map(({ column }) => column.text(row)));
const failure = async (work: Promise<unknown>) =>
  work.then(
    () => null,
    (cause: unknown) => (cause instanceof InputError ? cause.problem : cause),
  );
/** The same bytes, in parts of the sizes given, over and over. */
function inParts(bytes: Uint8Array, sizes: number[]): ByteSource {
  return {
    name: 'parts.csv',
    bytes: bytes.length,
    open: async function* () {
      for (let at = 0, i = 0; at < bytes.length; at += sizes[i++ % sizes.length])
        yield bytes.subarray(at, at + sizes[i % sizes.length]);
    },
  };
}

describe('what is guessed of a file', () => {
  it.each([
    ['comma', 'a,b,c\n1,2,3\n4,5,6\n', ','],
    ['semicolon beside decimal commas', 'a;b\n1,5;2,5\n3,5;4,5\n', ';'],
    ['tab', 'name\tplace of work\nx y\tz\nu\tv w\n', '\t'],
    ['vertical bar', 'a|b|c\n1, 2|x|y\n3|u|v, w\n', '|'],
    ['an unusual sign', 'a§b§c\n1§2§3\n', '§'],
    ['one column', 'town\nFenwater\nMarlhope\n', null],
  ])('delimiter: %s', async (_, text, expected) => {
    const look = await lookAt(sourceOf('x', text));
    if (expected) expect(look.reading.delimiter).toBe(expected);
    else expect(look.names).toEqual(['town']);
  });

  it.each([
    ['words above numbers', 'age,rooms\n30,4\n41,5\n', true],
    ['numbers from the first row', '30,4\n41,5\n', false],
    ['names above words', 'town,county\nFenwater,Ostrey\nMarlhope,Ostrey\n', true],
    ['a first row that occurs again', 'yes,no\nno,yes\nyes,no\nyes,yes\n', false],
  ])('header: %s', async (_, text, expected) => {
    expect((await lookAt(sourceOf('x', text))).reading.header).toBe(expected);
  });

  it.each([
    ['UTF-8 with a mark', new Uint8Array([0xef, 0xbb, 0xbf, ...Buffer.from('näme,b\n1,2\n')]), 'utf-8'],
    [
      'UTF-16 with a mark',
      new Uint8Array([0xff, 0xfe, ...Buffer.from('näme,b\n1,2\n', 'utf16le')]),
      'utf-16le',
    ],
    ['UTF-16 without', new Uint8Array(Buffer.from('näme,b\n1,2\n', 'utf16le')), 'utf-16le'],
    ['Windows-1252', new Uint8Array(Buffer.from('näme,b\n1,2\n', 'latin1')), 'windows-1252'],
  ])('encoding: %s', async (_, bytes, encoding) => {
    const look = await lookAt(sourceOf('x', bytes));
    expect(look.reading.encoding).toBe(encoding);
    expect(look.names[0]).toBe('näme');
  });

  it('can be changed, and the rest follows', async () => {
    const look = await lookAt(sourceOf('x', 'a;b,c\n1;2,3\n'), { delimiter: ',', header: false });
    expect(look.rows).toEqual([['a;b', 'c'], ['1;2', '3'], ['']].slice(0, look.rows.length));
    expect(look.because.delimiter).toBe('chosen');
  });
});

describe('reading', () => {
  it('does not depend on how the bytes come in parts', async () => {
    const text = `name,näme,z\r\n${Array.from({ length: 40 }, (_, i) => `${i},"é ""${i}"" ü\nx",${i % 3}`).join('\r\n')}\r\n`;
    const bytes = new Uint8Array(Buffer.from(text));
    const whole = rowsOf(await read(text));
    expect(whole[39]).toEqual(['39', 'é "39" ü\nx', '0']);
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.integer({ min: 1, max: 50 }), { minLength: 1, maxLength: 5 }),
        async (sizes) => {
          expect(rowsOf(await readExtract([{ source: inParts(bytes, sizes) }]))).toEqual(whole);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('keeps ragged rows and notices them with their line', async () => {
    const extract = await read('a,b,c\n1,"x\ny",3\n4,5\n6,7,8,9\n\n10,11,12\n');
    expect(rowsOf(extract)).toEqual([
      ['1', 'x\ny', '3'],
      ['4', '5', ''],
      ['6', '7', '8'],
      ['10', '11', '12'],
    ]);
    expect(extract.files[0].notices).toEqual([
      { line: 4, says: 'row has 2 cells, 3 expected' },
      { line: 5, says: 'row has 4 cells, 3 expected; not read: 9' },
      { line: 6, says: 'the line is empty and was passed over' },
    ]);
  });

  it('knows titles that are padded to full width, and a sparse table is none', async () => {
    const rows = Array.from({ length: 30 }, (_, i) => `${i + 1},Fenwater,${i % 7},${40 - i}`).join('\n');
    const padded = await read(`Homes of Ostrey,,,\n,,,\nAs of 2021,,,\nid,town,rooms,age\n${rows}\n`);
    expect(padded.variables.map(({ name }) => name)).toEqual(['id', 'town', 'rooms', 'age']);
    expect(padded.rows).toBe(30);
    expect(padded.files[0].notices.map(({ says }) => says.trim())).toContain(
      'a title, not read: Homes of Ostrey',
    );
    const sparse = await read(
      `id,,,\n${Array.from({ length: 30 }, (_, i) => `${i},,,${i % 5 ? '' : 'x'}`).join('\n')}\n`,
    );
    expect(sparse.rows).toBe(31);
  });

  it('passes over title rows above the names, and says what they held', async () => {
    const extract = await read(
      'Quillmere Archive 2022\n\nAll rights kept\nid,town\n1,Fenwater\n2,Marlhope\n3,Hawmoor\n4,Pellsey\n',
    );
    expect(extract.variables.map(({ name }) => name)).toEqual(['id', 'town']);
    expect(rowsOf(extract)).toHaveLength(4);
    expect(extract.files[0].notices).toEqual([
      { line: 1, says: 'a title, not read: Quillmere Archive 2022' },
      { line: 3, says: 'a title, not read: All rights kept' },
    ]);
    expect(rowsOf(await read('T\nid,town\n1,a\n2,b\n', { titles: 0, header: false }))[0]).toEqual(['T']);
  });

  it('counts notices that are too many to list', async () => {
    const { notices } = (await read(`a,b\n${'1,2\n'.repeat(100)}${'1\n'.repeat(80)}`)).files[0];
    expect(notices).toHaveLength(51);
    expect(notices[50].says).toBe('ragged rows: 30 more like these');
  });

  it('keeps an empty line of a single column as a blank cell', async () => {
    expect(rowsOf(await read('town\nFenwater\n\nMarlhope\n'))).toEqual([['Fenwater'], [''], ['Marlhope']]);
  });

  it('names columns that have no name or share one', async () => {
    const extract = await read('a,,a,a_2\n1,2,3,4\n5,6,7,8\n', { header: true });
    expect(extract.variables.map(({ name }) => name)).toEqual(['a', 'column_2', 'a_3', 'a_2']);
    expect(extract.files[0].notices.map(({ says }) => says)).toEqual([
      'column 2 has no name; it is called column_2',
      'the name “a” stands twice; column 3 is called a_3',
    ]);
  });

  it('takes names such as __proto__ and constructor for what they are', async () => {
    const extract = await read('__proto__,constructor\n1,2\n3,4\n', { header: true });
    expect(extract.variables.map(({ name, column }) => [name, column.text(1)])).toEqual([
      ['__proto__', '3'],
      ['constructor', '4'],
    ]);
  });

  it('reads gzip by its content, and says when it is cut off', async () => {
    const packed = new Uint8Array(gzipSync('a,b\n1,2\n'));
    expect(rowsOf(await read(packed))).toEqual([['1', '2']]);
    const problem = await failure(read(packed.subarray(0, packed.length - 6)));
    expect(problem).toMatchObject({ file: 'file.csv', says: expect.stringContaining('gzip') as string });
  });

  it('turns to Windows-1252 when the first byte beyond ASCII comes late, and says so', async () => {
    const bytes = Buffer.concat([
      Buffer.from(`a,b\n${'1,x\n'.repeat(100_000)}`),
      Buffer.from('2,café\n', 'latin1'),
    ]);
    const extract = await read(new Uint8Array(bytes));
    expect(extract.variables[1].column.text(100_000)).toBe('café');
    expect(extract.files[0]).toMatchObject({
      encoding: 'windows-1252',
      notices: [{ says: 'the bytes are not valid UTF-8; read as Windows-1252' }],
    });
  });

  it('marks single bad bytes in a UTF-8 file with their line', async () => {
    const extract = await read(
      new Uint8Array(Buffer.concat([Buffer.from('a,b\nü,ö\nä,'), Buffer.from([0xff]), Buffer.from('\n')])),
    );
    expect(extract.variables[1].column.text(1)).toBe('\uFFFD');
    expect(extract.files[0].notices).toContainEqual({
      line: 3,
      says: 'cell 2 holds bytes that are not valid utf-8',
    });
  });
});

describe('input that cannot be used', () => {
  it.each([
    ['an empty file', '', undefined, 'empty'],
    ['white space', ' \n\n', 1, 'white space'],
    [
      'a picture with another name',
      new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0]),
      undefined,
      'PNG picture',
    ],
    ['bytes of no text', new Uint8Array(500).map((_, i) => (i * 7) % 31), undefined, 'binary'],
    ['a page of HTML', '<!doctype html><p>a,b</p>', 1, 'HTML'],
    ['a file that ends inside quotes', 'a,b\n1,2\n3,"4\n5,6\n', 3, 'never closed'],
  ])('%s is refused with file and place', async (_, content, line, says) => {
    const problem = await failure(read(content as string));
    expect(problem).toMatchObject({ file: 'file.csv', says: expect.stringContaining(says) as string });
    expect((problem as { line?: number }).line).toBe(line);
  });

  it('a quote unclosed in a long file is found in linear time', async () => {
    const before = performance.now();
    const problem = await failure(read(`a,b\n"${'1,2\n'.repeat(2_000_000)}`));
    expect(problem).toMatchObject({ line: 2 });
    expect(performance.now() - before).toBeLessThan(20_000);
  });
});

describe('several files', () => {
  it('of one structure are one extract, and what differs is noticed', async () => {
    const extract = await readExtract([
      { source: sourceOf('w_2019.csv', 'id,a,b\n1,x,5\n2,y,6\n') },
      { source: sourceOf('w_2020.csv', 'b,id,c\n7,3,new\n') },
    ]);
    expect(extract.name).toBe('w');
    expect(extract.variables.map(({ name }) => name)).toEqual(['id', 'a', 'b', 'c']);
    expect(rowsOf(extract)).toEqual([
      ['1', 'x', '5', ''],
      ['2', 'y', '6', ''],
      ['3', '', '7', 'new'],
    ]);
    expect(extract.notices.map(({ says }) => says)).toEqual([
      'w_2020.csv lacks a, which w_2019.csv has; its rows are blank there',
      'w_2020.csv has c, which w_2019.csv lacks; the 2 rows before are blank there',
      'w_2020.csv has its columns in another order than w_2019.csv; they are matched by name',
      'no variable tells the waves 2019, 2020 apart; one can be made of what the files are called',
    ]);
    expect(extract.files.map(({ rows, columns }) => [rows, columns])).toEqual([
      [2, 3],
      [1, 3],
    ]);
  });

  it('lend the extract their name without endings', () => {
    expect(extractName(['upkeep_2021.csv.gz'])).toBe('upkeep_2021');
    expect(extractName(['w1.csv', 'w2.csv'])).toBe('w');
  });
});

describe('rows with names of their own', () => {
  it.each([
    ['of several columns', '"mpg","cyl"\n"Mazda",21,6\n"Hornet",22.8,4\n', ['column_1', 'mpg', 'cyl']],
    ['of one column', 'x\n1,5\n2,6\n3,7\n', ['column_1', 'x']],
    ['parted by blanks', 'x y\n1 2.5 6\n2 7.5 7\n', ['column_1', 'x', 'y']],
  ])('have them in a column without a name, and nothing is shifted: %s', async (_, text, names) => {
    const extract = await read(text);
    expect(extract.variables.map(({ name }) => name)).toEqual(names);
    expect(rowsOf(extract)[0]).toEqual(text.split('\n')[1].replaceAll('"', '').split(/[, ]/));
    expect(extract.files[0].notices.map(({ says }) => says)).toContain(
      'every row has one cell more than there are names: the first column holds the names of the rows, and has none itself',
    );
    expect((await lookAt(sourceOf('file.csv', text))).names).toEqual(names);
  });
  it('are none where every row ends with a delimiter, or not all are longer', async () => {
    expect((await read('a,b\n1,2,\n3,4,\n')).variables.map(({ name }) => name)).toEqual(['a', 'b']);
    expect((await read('a,b\n1,2,5\n3,4\n')).variables.map(({ name }) => name)).toEqual(['a', 'b']);
  });
});
