import ExcelJS from 'exceljs';
import { strToU8, zipSync } from 'fflate';
import { parquetWriteBuffer } from 'hyparquet-writer';
import { describe, expect, it } from 'vitest';
import { InputError } from '../extract/problem';
import { Inspector } from '../inspect/inspect';
import { bring } from '../intake/bring';
import { readExtract } from '../intake/receive';
import { lookAt } from './look';
import { allBytes, sourceOf, type ByteSource } from './source';
import { openZip } from './zip';

const failure = async (work: Promise<unknown>): Promise<string> =>
  work.then(
    () => 'nothing failed',
    (cause: unknown) =>
      cause instanceof InputError ? cause.problem.says : `no problem of the input: ${String(cause)}`,
  );
const cells = (extract: Awaited<ReturnType<typeof readExtract>>): string[][] =>
  Array.from({ length: extract.rows }, (_, row) => extract.variables.map(({ column }) => column.text(row)));

/** Opens an archive and its first member to the end. */
const openFirst = async (source: ByteSource): Promise<void> => {
  const [member] = (await openZip(source)).members;
  for await (const _ of member.open());
};

describe('an archive', () => {
  const pack = (members: Record<string, string>): Uint8Array =>
    zipSync(Object.fromEntries(Object.entries(members).map(([name, text]) => [name, strToU8(text)])));

  it('gives its members by their names without folders, and never a path', async () => {
    const { members, notices } = await openZip(
      sourceOf(
        'a.zip',
        pack({
          'x/one.csv': 'a\n1\n',
          '../../etc/two.csv': 'b\n2\n',
          '__MACOSX/._one.csv': 'junk',
          'y/one.csv': 'c\n',
          'none.csv': '',
        }),
      ),
    );
    expect(members.map(({ name }) => name)).toEqual(['one.csv', 'two.csv', 'y/one.csv']);
    expect(new TextDecoder().decode(await allBytes(members[1].open()))).toBe('b\n2\n');
    expect(notices).toEqual([
      'the archive names a path outside itself, ../../etc/two.csv; only the name two.csv is used',
      'none.csv in the archive is empty and was passed over',
    ]);
  });

  it('is read by its directory: a member alone is unpacked when it is opened', async () => {
    const packed = pack({
      'small.csv': 'a\n1\n',
      'large.csv': Array.from({ length: 90_000 }, (_, i) => `${(i * 7919) % 100_003}`).join('\n'),
    });
    let touched = 0;
    const { members } = await openZip({
      ...sourceOf('a.zip', packed),
      slice: async (from, to) => {
        touched += to - from;
        return packed.subarray(from, to);
      },
    });
    expect(members.map(({ name, bytes }) => [name, bytes > 100])).toEqual([
      ['small.csv', false],
      ['large.csv', true],
    ]);
    await allBytes(members[0].open());
    expect(touched).toBeLessThan(packed.length / 2);
  });

  it('is refused where it is cut off, damaged, empty or swells beyond bounds', async () => {
    const whole = pack({
      'one.csv': `a,b\n${Array.from({ length: 3000 }, (_, i) => `${i},${(i * 7919) % 1000}`).join('\n')}`,
    });
    expect(await failure(openZip(sourceOf('cut.zip', whole.subarray(0, whole.length >> 1))))).toMatch(
      /ends|damaged/,
    );
    const damaged = Uint8Array.from(whole);
    damaged.fill(0xff, 60, 400);
    expect(await failure(openFirst(sourceOf('bad.zip', damaged)))).toMatch(/damaged|ends/);
    expect(await failure(openZip(sourceOf('none.zip', zipSync({}))))).toContain('holds no file');
    const bomb = zipSync({ 'zeros.csv': new Uint8Array(280 << 20) }, { level: 1 });
    expect(bomb.length).toBeLessThan(2 << 20);
    expect(await failure(openFirst(sourceOf('bomb.zip', bomb)))).toMatch(/unpack to more than/);
    const many = Object.fromEntries(Array.from({ length: 1500 }, (_, i) => [`${i}.csv`, 'a\n1\n']));
    expect(await failure(openZip(sourceOf('many.zip', pack(many))))).toContain('more than 1000 members');
  }, 60_000);

  it('that is protected by a password is told apart from a damaged one', async () => {
    const locked = Uint8Array.from(pack({ 'one.csv': 'a\n1\n' }));
    locked[6] |= 1;
    // Also in the directory, whose entry begins with PK and the bytes 1 and 2.
    const entry = locked.findIndex(
      (byte, i) => byte === 0x50 && locked[i + 1] === 0x4b && locked[i + 2] === 1,
    );
    locked[entry + 8] |= 1;
    expect(await failure(openZip(sourceOf('locked.zip', locked)))).toContain('password');
  });

  it('brings data, codebook and table of codes along, and passes over the rest', async () => {
    const packed = pack({
      'homes.csv': 'id,fuel\nA,1\nB,2\n',
      'homes.xml': '<codeBook><dataDscr><var name="fuel"><labl>Fuel</labl></var></dataDscr></codeBook>',
      'codes.csv': 'variable,code,label\nfuel,1,Gas\nfuel,2,Oil\n',
      'read me.txt': 'This is the study of homes.\nPlease cite it.\n',
      'logo.png': '\u0089PNG\r\n\u001a\n',
    });
    const { brought } = await bring([{ key: 'k', source: sourceOf('study.zip', packed) }]);
    expect(brought.map(({ name, what, archive }) => [name, what, archive]).sort()).toEqual(
      [
        ['homes.csv', 'data', 'study.zip'],
        ['homes.xml', 'codebook', 'study.zip'],
        ['codes.csv', 'codebook', 'study.zip'],
        ['read me.txt', 'passed', 'study.zip'],
        ['logo.png', 'passed', 'study.zip'],
      ].sort(),
    );
  });
});

describe('a workbook', () => {
  async function made(fill: (book: ExcelJS.Workbook) => void): Promise<Uint8Array> {
    const book = new ExcelJS.Workbook();
    fill(book);
    return new Uint8Array(await book.xlsx.writeBuffer());
  }

  it('gives dates, times, results of formulas, rich text and errors as they are seen', async () => {
    const bytes = await made((book) => {
      const sheet = book.addWorksheet('Data');
      sheet.addRow(['id', 'day', 'moment', 'sum', 'rich', 'wrong', 'yes', 'long']);
      sheet.addRow([
        'a',
        new Date(Date.UTC(2021, 5, 30)),
        new Date(Date.UTC(2021, 5, 30, 14, 5, 9)),
        { formula: 'A1+1', result: 42.5 },
        { richText: [{ text: 'two ' }, { text: 'parts' }] },
        { error: '#N/A' },
        true,
        0.1,
      ]);
      sheet.getCell('B2').numFmt = 'dd/mm/yyyy';
      sheet.getCell('C2').numFmt = 'yyyy-mm-dd hh:mm:ss';
      sheet.addRow([
        'b',
        new Date(Date.UTC(1900, 2, 1)),
        null,
        { formula: 'X', result: 'text' },
        'plain',
        null,
        false,
        1e21,
      ]);
    });
    const extract = await readExtract([{ source: sourceOf('b.xlsx', bytes) }]);
    expect(cells(extract)).toEqual([
      ['a', '2021-06-30', '2021-06-30T14:05:09', '42.5', 'two parts', '#N/A', 'TRUE', '0.1'],
      ['b', '1900-03-01', '', 'text', 'plain', '', 'FALSE', '1e+21'],
    ]);
    expect(extract.files[0]).toMatchObject({ form: 'workbook', sheet: 'Data', rows: 2, columns: 8 });
  });

  it('has what formulas came to, zero and false among it', async () => {
    const bytes = await made((book) => {
      const sheet = book.addWorksheet('Sums');
      sheet.addRow(['id', 'twice', 'any', 'why', 'share']);
      for (const n of [0, 1, 2])
        sheet.addRow([
          n + 1,
          { formula: `A${n}*2`, result: n * 2 },
          { formula: 'A1>0', result: n > 0 },
          { formula: 'IF(A1=0,"","x")', result: n ? 'x' : '' },
          n ? { formula: '1/A1', result: 1 / n } : { formula: '1/A1', result: { error: '#DIV/0!' } },
        ] as never);
    });
    const extract = await readExtract([{ source: sourceOf('b.xlsx', bytes) }]);
    expect(cells(extract)).toEqual([
      ['1', '0', 'FALSE', '', '#DIV/0!'],
      ['2', '2', 'TRUE', 'x', '1'],
      ['3', '4', 'TRUE', 'x', '0.5'],
    ]);
  });

  it('is read by the sheet that holds most, or the one chosen, the others noticed; titles, empty rows and merged cells pass', async () => {
    const bytes = await made((book) => {
      book.addWorksheet('Notes').addRow(['about']);
      const sheet = book.addWorksheet('Homes');
      sheet.addRow(['Homes of Ostrey, 2021']);
      sheet.addRows([
        [],
        ['id', 'rooms', 'town'],
        ['a', 3, 'Fenwater'],
        [],
        ['b', 4, 'Hawmoor'],
        ['c', 5, null],
      ]);
      sheet.mergeCells('C6:C7');
    });
    const look = await lookAt(sourceOf('b.xlsx', bytes));
    expect(look).toMatchObject({
      reading: { sheet: 'Homes', titles: 1, header: true },
      names: ['id', 'rooms', 'town'],
      all: 3,
      sheets: [{ name: 'Notes' }, { name: 'Homes' }],
    });
    const extract = await readExtract([{ source: sourceOf('b.xlsx', bytes) }]);
    expect(cells(extract)).toEqual([
      ['a', '3', 'Fenwater'],
      ['b', '4', 'Hawmoor'],
      ['c', '5', ''],
    ]);
    const said = extract.files[0].notices.map(({ line, says }) => `${line ?? ''} ${says}`);
    expect(said).toEqual(
      expect.arrayContaining([
        expect.stringContaining('only the sheet “Homes” is read; not “Notes” (1 rows)') as string,
        expect.stringMatching(/^1 a title, not read/) as string,
        expect.stringMatching(/^5 the row is empty/) as string,
      ]),
    );
    expect(await failure(lookAt(sourceOf('b.xlsx', bytes), { sheet: 'Houses' }))).toContain(
      'there is no sheet “Houses”',
    );
  });

  it('with a stray cell in its last column and row is read as the table that it is', async () => {
    const { default: excel } = await import('exceljs');
    const workbook = new excel.Workbook();
    const sheet = workbook.addWorksheet('Data');
    sheet.addRow(['id', 'rooms']);
    for (let i = 0; i < 2000; i++) sheet.addRow([`H${i}`, 1 + (i % 5)]);
    sheet.getCell('XFD3').value = 'left behind';
    const bytes = new Uint8Array(await workbook.xlsx.writeBuffer());
    let opened = 0;
    const source: ByteSource = {
      name: 'stray.xlsx',
      bytes: bytes.length,
      open: () => {
        opened++;
        return sourceOf('stray.xlsx', bytes).open();
      },
    };
    const look = await lookAt(source, {}, null);
    const extract = await readExtract([{ source, look }]);
    expect(extract.variables.map(({ name }) => name)).toEqual(['id', 'rooms']);
    expect([extract.rows, extract.variables[1].column.text(1)]).toEqual([2000, '2']);
    expect(extract.files[0].notices.map(({ says }) => says)).toContain(
      'a cell stands far beyond the table and is not read: XFD3 “left behind”',
    );
    // Its form is looked for once, and it is parsed once, however often it is looked at.
    const before = opened;
    await lookAt(source, { form: 'workbook' }, null);
    expect(opened).toBe(before);
  });

  it('that is no workbook, or damaged, is refused in words', async () => {
    const bytes = await made((book) => book.addWorksheet('x').addRow(['a', 'b']));
    expect(await failure(lookAt(sourceOf('cut.xlsx', bytes.subarray(0, bytes.length - 400))))).toMatch(
      /damaged|ends/,
    );
    const document = zipSync({
      '[Content_Types].xml': strToU8('<x/>'),
      'word/document.xml': strToU8('<x/>'),
    });
    const { brought } = await bring([{ key: 'k', source: sourceOf('letter.docx', document) }]);
    expect(brought[0]).toMatchObject({
      what: 'problem',
      problem: { says: expect.stringContaining('text document') as string },
    });
  });
});

describe('Parquet', () => {
  it('gives every type as exact text, its declaration kept', async () => {
    const buffer = parquetWriteBuffer({
      columnData: [
        { name: 'id', data: ['007', '008', '009'], type: 'STRING' },
        { name: 'big', data: [9007199254740993n, -1n, 0n], type: 'INT64' },
        { name: 'km', data: [1.5, 0.1, 1e21], type: 'DOUBLE' },
        { name: 'n', data: [1, null, 3], type: 'INT32', nullable: true },
        { name: 'yes', data: [true, false, true], type: 'BOOLEAN' },
        {
          name: 'seen',
          data: [
            new Date(Date.UTC(2021, 5, 30, 1, 2, 3, 250)),
            new Date(0),
            new Date(Date.UTC(1969, 11, 31, 23, 59, 59)),
          ],
          type: 'TIMESTAMP',
        },
      ],
    });
    const extract = await readExtract([{ source: sourceOf('p.parquet', new Uint8Array(buffer)) }]);
    expect(cells(extract)).toEqual([
      ['007', '9007199254740993', '1.5', '1', 'true', '2021-06-30T01:02:03.25'],
      ['008', '-1', '0.1', '', 'false', '1970-01-01T00:00:00'],
      ['009', '0', '1e+21', '3', 'true', '1969-12-31T23:59:59'],
    ]);
    const dig = new Inspector(extract);
    expect(dig.variables.map(({ name, written }) => [name, written.storage])).toEqual([
      ['id', 'text'],
      ['big', 'integer'],
      ['km', 'decimal'],
      ['n', 'integer'],
      ['yes', 'text'],
      ['seen', 'datetime'],
    ]);
  });

  it('shows its first and last rows without reading all, and only some rows when asked', async () => {
    const buffer = parquetWriteBuffer({
      columnData: [{ name: 'i', data: Array.from({ length: 500 }, (_, i) => i), type: 'INT32' }],
    });
    const source = sourceOf('p.parquet', new Uint8Array(buffer));
    expect(await lookAt(source)).toMatchObject({ all: 500, names: ['i'], last: [['497'], ['498'], ['499']] });
    const extract = await readExtract([{ source }], {}, { part: { rows: 5, names: null } });
    expect([extract.rows, extract.files[0].partial]).toEqual([5, true]);
  });

  it('that is cut off is refused', async () => {
    const buffer = new Uint8Array(
      parquetWriteBuffer({ columnData: [{ name: 'i', data: [1, 2, 3], type: 'INT32' }] }),
    );
    expect(await failure(lookAt(sourceOf('p.parquet', buffer.subarray(0, buffer.length - 9))))).toContain(
      'the Parquet file is damaged',
    );
  });
});

describe('fixed-width text', () => {
  const layout = [
    { name: 'id', start: 1, end: 3 },
    { name: 'km', start: 5, end: 8 },
    { name: 'town', start: 9, end: 12 },
  ];
  const read = (text: string) =>
    readExtract([{ source: sourceOf('f.dat', text), reading: { form: 'fixed-width' }, layout }]);

  it('is cut at its places; what lies between and around is not the cell', async () => {
    const extract = await read('001 1234Fenw\n002   12Häfn\r\n003      \n');
    expect(cells(extract)).toEqual([
      ['001', '1234', 'Fenw'],
      ['002', '12', 'Häfn'],
      ['003', '', ''],
    ]);
  });

  it('notices lines that are too short or too long with their line, and passes over empty ones', async () => {
    const extract = await read('001 1234Fenw\n00\n\n003 1234Fenw and more\n');
    expect(extract.rows).toBe(3);
    expect(extract.files[0].notices.map(({ line, says }) => `${line}: ${says}`).join('\n')).toMatch(
      /2: the line has 2 characters, 12 expected; what is not there is blank\n4: the line has 21 characters, 12 expected; not read: and more/,
    );
  });

  it('puts the lines of a case together, and says where one is cut short', async () => {
    const two = [
      { name: 'id', start: 1, end: 3 },
      { name: 'age', start: 4, end: 5 },
      { name: 'town', start: 1, end: 4, record: 2 },
    ];
    const extract = await readExtract([
      {
        source: sourceOf('f.dat', '00134\nFenw\n00251\nHawm\n00360\n'),
        reading: { form: 'fixed-width' },
        layout: two,
      },
    ]);
    expect(cells(extract)).toEqual([
      ['001', '34', 'Fenw'],
      ['002', '51', 'Hawm'],
    ]);
    expect(extract.files[0].lines).toEqual([
      [0, 1],
      [1, 3],
    ]);
    expect(extract.files[0].notices).toEqual([
      { line: 5, says: 'a case takes 2 lines, and the file ends after 1 of its last one: it was not read' },
    ]);
  });

  it('says what a codebook places past the end of every line', async () => {
    const extract = await readExtract([
      {
        source: sourceOf('f.dat', '00134\n00251\n'),
        reading: { form: 'fixed-width' },
        layout: [
          { name: 'id', start: 1, end: 3 },
          { name: 'far', start: 40, end: 44 },
        ],
      },
    ]);
    expect(extract.files[0].notices.map(({ says }) => says).join('\n')).toContain(
      'the codebook places far (40 to 44) past the end of every line, which has 5 characters at most',
    );
  });

  it('needs a codebook that tells the places', async () => {
    expect(await failure(lookAt(sourceOf('f.dat', '001 1234Fenw\n'), { form: 'fixed-width' }))).toContain(
      'needs a codebook',
    );
  });
});
