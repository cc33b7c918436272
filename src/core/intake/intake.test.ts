import { demoFiles } from '../../demo/files';
import { describe, expect, it } from 'vitest';
import { Inspector } from '../inspect/inspect';
import { sourceOf } from '../read/source';
import { bring } from './bring';
import type { Brought } from './brought';
import { guessCells } from './cells';
import { compareNames } from './differences';
import { readExtract, type Choices } from './receive';
import { withFiles, withoutFile, withWaves } from './rejoin';
import { missingYears, waveOf } from './waves';

const read = (files: Record<string, string>, choices: Choices = {}) =>
  readExtract(
    Object.entries(files).map(([name, text]) => ({ source: sourceOf(name, text) })),
    {},
    choices,
  );
const cells = (extract: Awaited<ReturnType<typeof read>>): Record<string, string[]> =>
  Object.fromEntries(
    extract.variables.map(({ name, column }) => [
      name,
      Array.from({ length: extract.rows }, (_, row) => column.text(row)),
    ]),
  );
const brought = async (...files: [string, string][]): Promise<Brought[]> =>
  (await bring(files.map(([name, text]) => ({ key: name, source: sourceOf(name, text) })))).brought;

describe('files that are handed over', () => {
  it('pass over what tells what is planted in the demo', async () => {
    const truth = demoFiles().find(({ name }) => name === 'truth.json');
    const { brought } = await bring([
      { key: 'a', source: sourceOf('truth.json', truth?.text ?? '') },
      { key: 'b', source: sourceOf('a.csv', 'a,b\n1,2\n3,4\n') },
    ]);
    expect(brought.map(({ name, what }) => [name, what])).toEqual(
      expect.arrayContaining([
        ['truth.json', 'passed'],
        ['a.csv', 'data'],
      ]),
    );
  });

  it('are told apart by what they hold: data, codebooks, tables of codes, and neither', async () => {
    const found = await brought(
      ['data.txt', 'id,fuel\na,1\nb,2\n'],
      ['book.txt', '<?xml version="1.0"?><codeBook><dataDscr><var name="fuel"/></dataDscr></codeBook>'],
      ['meta', '{"fields":[{"name":"fuel"}]}'],
      ['labels.csv', 'variable,code,label\nfuel,1,Gas\nfuel,2,Oil\n'],
      ['page.csv', '<!DOCTYPE html><html></html>'],
      ['none.csv', ''],
    );
    expect(found.map(({ name, what }) => [name, what])).toEqual([
      ['data.txt', 'data'],
      ['book.txt', 'codebook'],
      ['meta', 'codebook'],
      ['labels.csv', 'codebook'],
      ['page.csv', 'problem'],
      ['none.csv', 'problem'],
    ]);
  });

  it('of which one looks like a table of codes are data where a person says so', async () => {
    const handed = [
      { key: 'k', source: sourceOf('labels.csv', 'variable,code,label\nfuel,1,Gas\nfuel,2,Oil\n') },
    ];
    expect((await bring(handed)).brought[0].what).toBe('codebook');
    expect((await bring(handed, { chosen: new Map([['k', { form: 'delimited' }]]) })).brought[0].what).toBe(
      'data',
    );
  });

  it('in fixed width find the codebook that tells their places, whichever comes first', async () => {
    const xml =
      '<codeBook><dataDscr><var name="hid"><location StartPos="1" width="3"/></var><var name="km"><location StartPos="4" width="4"/></var></dataDscr></codeBook>';
    for (const files of [
      [
        ['f.dat', '0011234\n0020012\n'],
        ['f.xml', xml],
      ],
      [
        ['f.xml', xml],
        ['f.dat', '0011234\n0020012\n'],
      ],
    ] as [string, string][][]) {
      const found = await brought(...files);
      expect(found.find(({ what }) => what === 'data')).toMatchObject({
        layoutFrom: 'f.xml',
        look: { reading: { form: 'fixed-width' }, names: ['hid', 'km'] },
      });
    }
    // The same codebook beside a delimited file does not make it one of fixed width.
    expect(
      (await brought(['f.csv', 'hid,km\n001,1234\n'], ['f.xml', xml])).find(({ what }) => what === 'data'),
    ).toMatchObject({ look: { reading: { form: 'delimited' } } });
  });
});

describe('several files as one extract', () => {
  it('meet by names that agree but for case, whether they come together or one after the other', async () => {
    const texts = {
      'a.csv': 'id,rooms\na,1\n',
      'b.csv': 'ID,Rooms,Fuel\nb,2,gas\n',
      'c.csv': 'fuel,ROOMS\noil,3\n',
    };
    const together = await read(texts);
    const [a, b, c] = await Promise.all(Object.entries(texts).map(([name, text]) => read({ [name]: text })));
    const later = withFiles(withFiles(a, b), c);
    expect(Object.keys(cells(together))).toEqual(['id', 'rooms', 'Fuel']);
    expect(cells(later)).toEqual(cells(together));
    expect(later.files.map(({ names, notices }) => [names, notices])).toEqual(
      together.files.map(({ names, notices }) => [names, notices]),
    );
    // What was chosen in the first look is met in the same way.
    const part = { rows: null, names: ['rooms'] };
    const more = await read({ 'b.csv': texts['b.csv'] }, { part, known: ['rooms'] });
    expect(cells(withFiles(await read({ 'a.csv': texts['a.csv'] }, { part }), more))).toEqual({
      rooms: ['1', '2'],
    });
  });

  it('add up in their order, matched by name; what differs is noticed', async () => {
    const extract = await read({
      'h_2019.csv': 'id,rooms\na,1\nb,2\n',
      'h_2020.csv': 'ROOMS,id,heat\n3,a,9\n',
      'h_2022.csv': 'id\nc\n',
    });
    expect(cells(extract)).toEqual({
      id: ['a', 'b', 'a', 'c'],
      rooms: ['1', '2', '3', ''],
      heat: ['', '', '9', ''],
    });
    const notices = [...extract.notices, ...extract.files.flatMap((file) => file.notices)]
      .map(({ says }) => says)
      .join('\n');
    for (const says of [
      'h_2020.csv has heat, which h_2019.csv lacks',
      'h_2022.csv lacks rooms, which h_2019.csv has',
      'columns in another order',
      'ROOMS is taken for rooms',
      'no file for 2021',
    ])
      expect(notices).toContain(says);
  });

  it('have their wave told by a variable that is one in each file, or by one that is made', async () => {
    const files = { 'a_2019.csv': 'id,year\na,2019\nb,2019\n', 'a_2020.csv': 'id,year\na,2020\n' };
    expect(await read(files)).toMatchObject({
      wave: { variable: 'year', by: 'found' },
      files: [{ wave: '2019' }, { wave: '2020' }],
    });
    const made = await read(files, { waveFrom: 'file-name' });
    expect(made.wave).toEqual({ variable: 'wave', by: 'made' });
    expect(cells(made).wave).toEqual(['2019', '2019', '2020']);
    expect((await read(files, { waveFrom: 'none' })).wave).toBeUndefined();
    expect((await read(files, { waveFrom: { variable: 'id' } })).notices.map(({ says }) => says)).toContain(
      'id does not hold one value in each file and another in every other, so it does not tell the wave',
    );
    expect(
      cells(await read({ 'a_2019.csv': 'wave\n5\n', 'a_2020.csv': 'wave\n5\n' }, { waveFrom: 'file-name' })),
    ).toEqual({ wave: ['5', '5'], wave_2: ['2019', '2020'] });
  });

  it('are called by what their names do not share', () => {
    expect([
      waveOf('upkeep_2019.csv', ['upkeep_2019.csv', 'upkeep_2020.csv']),
      waveOf('w1_homes.csv', ['w1_homes.csv', 'w2_homes.csv']),
      waveOf('north.csv', ['north.csv', 'south.csv']),
      waveOf('a.csv', ['a.csv', 'a.csv']),
    ]).toEqual(['2019', 'w1', 'north', 'a']);
  });

  it('miss years in a run, but not where a panel asks every second year', () => {
    expect([
      missingYears(['2019', '2021', '2022']),
      missingYears(['2018', '2020', '2022']),
      missingYears(['2019', '2020']),
      missingYears(['1990', '2020']),
      missingYears(['a', 'b']),
    ]).toEqual([['2020'], [], [], [], []]);
  });

  it('that write a variable otherwise are noticed', async () => {
    const dig = new Inspector(
      await read({ 'a.csv': `id,km\n${'a,1\n'.repeat(5)}`, 'b.csv': `id,km\n${'b,near\n'.repeat(5)}` }),
    );
    expect(dig.notices.map(({ says }) => says)).toContain(
      'km is written as integer in a.csv and as text in b.csv',
    );
  });

  it('compare by their names', () => {
    expect(compareNames(['a', 'b', 'c'], ['c', 'a', 'd'])).toEqual({
      missing: ['b'],
      extra: ['d'],
      reordered: true,
    });
    expect(compareNames(['a', 'b'], ['a', 'b'])).toEqual({ missing: [], extra: [], reordered: false });
  });
});

describe('files added and left out later', () => {
  const all = {
    'h_2019.csv': 'id,rooms\na,1\nb,2\n',
    'h_2020.csv': 'id,heat\na,9\n',
    'h_2021.csv': 'id,rooms\nc,4\n',
  };

  it('give what reading them together gives', async () => {
    const { 'h_2021.csv': last, ...first } = all;
    const together = await read(all);
    const joined = withFiles(await read(first), await read({ 'h_2021.csv': last }));
    expect(cells(joined)).toEqual(cells(together));
    expect(joined.notices).toEqual(together.notices);
    expect(joined.files.map(({ name, wave }) => [name, wave])).toEqual(
      together.files.map(({ name, wave }) => [name, wave]),
    );
  });

  it('take what only they had with them', async () => {
    const left = withoutFile(await read(all), 1);
    expect(cells(left)).toEqual({ id: ['a', 'b', 'c'], rooms: ['1', '2', '4'] });
    expect(left.notices.map(({ says }) => says)).toContain(
      'no file for 2020, though there are files before and after',
    );
  });

  it('can be called otherwise, and a wave that was made follows', async () => {
    const named = withWaves(await read(all, { waveFrom: 'file-name' }), ['one', 'two', 'three']);
    expect(cells(named).wave).toEqual(['one', 'one', 'two', 'three']);
  });
});

describe('a first look', () => {
  it('reads so many rows of each file, and only the variables wanted', async () => {
    const extract = await read(
      { 'a.csv': 'id,x,y\n1,2,3\n4,5,6\n7,8,9\n', 'b.csv': 'id,y\n1,3\n' },
      { part: { rows: 2, names: ['id', 'y'] } },
    );
    expect(cells(extract)).toEqual({ id: ['1', '4', '1'], y: ['3', '6', '3'] });
    expect(extract.files.map(({ partial }) => partial ?? false)).toEqual([true, false]);
    await expect(
      read({ 'a.csv': 'id,x\n1,2\n' }, { part: { rows: null, names: ['nobody'] } }),
    ).rejects.toThrow('none of the wanted variables is there');
  });
});

describe('how cells are written', () => {
  const guess = (rows: string[][], marks = {}) =>
    guessCells(
      rows[0].map((_, i) => `c${i + 1}`),
      rows,
      marks,
    );

  it('is guessed column by column, and said where it is open', () => {
    const rows = [
      ['1,5', '03/04/2021', 'NA', '1.500'],
      ['2,25', '25/04/2021', '.', '2.500'],
      ['3,125', '01/02/2021', '4', '3.250'],
    ];
    expect(guess(rows)).toMatchObject({ decimal: ',', order: 'dmy' });
    expect(guess(rows).columns.slice(0, 2)).toEqual(['decimals, comma', 'dates, day first']);
    expect(guess(rows).markers).toEqual([
      { text: 'NA', count: 1, columns: 1 },
      { text: '.', count: 1, columns: 1 },
    ]);
  });

  it('follows what a person fixed', () => {
    const rows = [
      ['03/04/2021', '1.500'],
      ['05/06/2021', '2.500'],
    ];
    expect(guess(rows).columns).toEqual(['dates, day first', 'decimals']);
    expect(guess(rows, { order: 'mdy', decimal: ',' }).columns).toEqual([
      'dates, month first',
      'whole numbers',
    ]);
    expect(guess(rows).orderBecause).toBe('c1 leaves it open');
  });

  it('does not take an answer among words for a mark of nothing', () => {
    expect(
      guess([
        ['none', '5'],
        ['some', 'none'],
        ['many', '6'],
      ]).markers,
    ).toEqual([{ text: 'none', count: 1, columns: 1 }]);
  });
});
