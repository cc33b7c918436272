import { describe, expect, it } from 'vitest';
import { InputError } from '../extract/problem';
import { Inspector } from '../inspect/inspect';
import { readExtract } from '../intake/receive';
import { sourceOf } from '../read/source';
import { looksLikeCodeTable, readCodeTable } from './code-table';
import { parseDdi } from './ddi';
import { mayBeDocument, readDocument } from './document';
import { linkCodebooks } from './link';
import { readPasted } from './pasted';

const json = (value: unknown) => readDocument(sourceOf('meta.json', JSON.stringify(value, null, 1)), 'json');
const failure = async (work: Promise<unknown>) =>
  work.then(
    () => null,
    (cause: unknown) => (cause instanceof InputError ? cause.problem : cause),
  );

describe('Table Schema', () => {
  const fields = [
    {
      name: 'fuel',
      title: 'Main fuel',
      description: 'What heats the home.',
      type: 'integer',
      categories: [
        { value: 1, label: 'Gas' },
        { value: 2, label: 'Oil' },
      ],
      missingValues: ['-9', { value: '-8', label: 'Not applicable' }],
    },
    { name: 'km', type: 'number', constraints: { minimum: 0, maximum: 50 } },
    { name: 'town', type: 'string', constraints: { enum: ['Fenwater', 'Hawmoor'] } },
  ];

  it('gives names, titles, types, ranges, categories and missing values, alone or in a package', async () => {
    for (const document of [
      { fields, missingValues: ['', 'NA'] },
      {
        name: 'homes',
        title: 'Homes',
        resources: [{ name: 'homes', path: 'homes.csv', schema: { fields, missingValues: ['', 'NA'] } }],
      },
    ]) {
      const book = await json(document);
      expect(book).toMatchObject({ form: 'table-schema' });
      const [fuel, km, town] = book?.entries ?? [];
      expect(fuel).toMatchObject({ name: 'fuel', label: 'Main fuel', storage: 'integer' });
      expect(
        fuel.categories.map(({ code, label, missing, reason }) => [code, label, missing, reason]),
      ).toEqual(
        expect.arrayContaining([
          ['1', 'Gas', false, null],
          ['2', 'Oil', false, null],
          ['-8', 'Not applicable', true, 'not-asked'],
        ]),
      );
      expect(km).toMatchObject({ storage: 'decimal', validRanges: [{ min: 0, max: 50 }] });
      expect(km.missingTexts).toEqual(['NA']);
      expect(town.categories.map(({ code }) => code)).toEqual(['Fenwater', 'Hawmoor']);
    }
  });

  it('has its missing values counted as missing', async () => {
    const book = await json({ fields: [{ name: 'km', type: 'number' }], missingValues: ['', 'NA', '-9'] });
    const extract = await readExtract([{ source: sourceOf('d.csv', 'id,km\na,1.5\nb,NA\nc,-9\nd,2\n') }]);
    expect(new Inspector(linkCodebooks(extract, book ? [book] : [])).named('km')).toMatchObject({
      counts: { missing: 2, valid: 2, unreadable: 0 },
      written: { storage: 'decimal' },
    });
  });

  it('that breaks its standard is told with its place, and other JSON is no codebook', async () => {
    expect(await failure(json({ fields: [{ title: 'no name' }, { name: 3 }] }))).toMatchObject({
      file: 'meta.json',
      element: 'fields.0.name',
      says: expect.stringContaining('does not fit the Table Schema standard') as string,
    });
    expect(
      await failure(readDocument(sourceOf('meta.json', '{"fields":[\n{"name":"a"},\n]}'), 'json')),
    ).toMatchObject({ file: 'meta.json', line: 3 });
    expect(await json({ columns: 3, made: 'elsewhere' }).catch(() => 'refused')).toSatisfy(
      (found) => found === null || found === 'refused',
    );
    expect([mayBeDocument('[{"fields":1}]'), mayBeDocument('{"a":1}'), mayBeDocument('a,b\n1,2')]).toEqual([
      null,
      null,
      null,
    ]);
  });
});

describe('CSV on the Web', () => {
  it('gives titles, descriptions, datatypes, ranges and nulls, in one language or several', async () => {
    const book = await json({
      '@context': 'http://www.w3.org/ns/csvw',
      url: 'homes.csv',
      'dc:title': 'Homes',
      null: 'NA',
      tableSchema: {
        columns: [
          { name: 'fuel', titles: { en: ['Main fuel', 'Fuel'] }, datatype: 'integer', null: ['', '-9'] },
          {
            titles: 'km',
            datatype: { base: 'decimal', minimum: '0', maximum: 50 },
            'dc:description': 'Distance to the shop',
          },
          { name: 'virtual', virtual: true },
        ],
      },
    });
    expect(book).toMatchObject({ form: 'csvw', title: 'Homes' });
    expect(book?.entries.slice(0, 2)).toMatchObject([
      { name: 'fuel', label: 'Main fuel', storage: 'integer', missingTexts: ['-9'] },
      {
        name: 'km',
        label: 'Distance to the shop',
        storage: 'decimal',
        validRanges: [{ min: 0, max: 50 }],
        missingTexts: ['NA'],
      },
    ]);
  });
});

describe('a table of variable, code and label', () => {
  it('is told by its heads, and by naming columns of the data', () => {
    const rows = [
      ['fuel', '1', 'Gas'],
      ['fuel', '2', 'Oil'],
    ];
    expect(looksLikeCodeTable(['Variable', 'Code', 'Label'], rows, new Set(['id', 'FUEL']))).toBe(true);
    expect(looksLikeCodeTable(['Variable', 'Wert', 'Bezeichnung'], rows, null)).toBe(true);
    expect(looksLikeCodeTable(['Variable', 'Code', 'Label'], rows, new Set(['id', 'rent']))).toBe(false);
    expect(looksLikeCodeTable(['id', 'rooms', 'town'], rows, null)).toBe(false);
  });

  it('may name a variable only in its first row, describe it, mark codes missing and print frequencies', () => {
    const book = readCodeTable(
      'codes.csv',
      ['Variable', 'Variable label', 'Value', 'Value label', 'Missing', 'Freq'],
      [
        ['fuel', 'Main fuel', '1', 'Gas', '', '1,200'],
        ['', '', '2', 'Oil', '', '30'],
        ['', '', '9', 'Refused', 'yes', '4'],
        ['', '', '2', 'Oil again', '', ''],
        ['rent', 'Rent', '', '', '', ''],
      ],
    );
    expect(book.entries).toMatchObject([
      {
        name: 'fuel',
        label: 'Main fuel',
        categories: [
          { code: '1', label: 'Gas', frequency: 1200, missing: false },
          { code: '2', frequency: 30 },
          { code: '9', missing: true, reason: 'refused' },
        ],
      },
      { name: 'rent', label: 'Rent', categories: [] },
    ]);
    expect(book.notices).toEqual([{ line: 5, says: 'fuel lists the code 2 twice; the first counts' }]);
  });
});

describe('a table with two columns of labels', () => {
  it('has that of the variable before the code and that of the code behind it', () => {
    const { entries } = readCodeTable(
      'c.csv',
      ['variable', 'label', 'code', 'meaning'],
      [
        ['fuel', 'Main fuel', '1', 'Gas'],
        ['rent', 'Rent', '', ''],
      ],
    );
    expect(entries).toMatchObject([
      { name: 'fuel', label: 'Main fuel', categories: [{ code: '1', label: 'Gas' }] },
      { name: 'rent', label: 'Rent' },
    ]);
  });
});

describe('a pasted list of codes', () => {
  const understood = (text: string) =>
    readPasted(text).map(({ code, label, missing, says }) =>
      code === undefined ? says : [code, label, missing ?? null],
    );

  it.each([
    [
      'one to a line',
      '1 Owned outright\n2 Rented\n',
      [
        ['1', 'Owned outright', null],
        ['2', 'Rented', null],
      ],
    ],
    [
      'with signs between',
      '1. Owned\n2) Rented\n3 = Free\n4: Other\n5 - Boat\n[6] Tent\n(7) Cave\n8\tHouse',
      ['1 Owned', '2 Rented', '3 Free', '4 Other', '5 Boat', '6 Tent', '7 Cave', '8 House'].map((text) => [
        text.slice(0, 1),
        text.slice(2),
        null,
      ]),
    ],
    [
      'label first',
      'Owned outright (1)\nRented = 2\nRent free ..... 3',
      [
        ['1', 'Owned outright', null],
        ['2', 'Rented', null],
        ['3', 'Rent free', null],
      ],
    ],
    [
      'several in a line',
      '1 Owned outright / 2 Rented / 3 Rent free',
      [
        ['1', 'Owned outright', null],
        ['2', 'Rented', null],
        ['3', 'Rent free', null],
      ],
    ],
    [
      'with semicolons',
      '1=Yes; 2=No; 9=Refused',
      [
        ['1', 'Yes', null],
        ['2', 'No', null],
        ['9', 'Refused', 'refused'],
      ],
    ],
    [
      'with counts behind',
      '1 Yes 1,204 61.2%\n2 No 740 37.6%\n9 Don’t know 24 1.2%',
      [
        ['1', 'Yes', null],
        ['2', 'No', null],
        ['9', 'Don’t know', 'dont-know'],
      ],
    ],
    [
      'negative and lettered codes',
      '-8 Not applicable\n-1 Refused\n.a Not asked\nA North',
      [
        ['-8', 'Not applicable', 'not-asked'],
        ['-1', 'Refused', 'refused'],
        ['.a', 'Not asked', 'not-asked'],
        ['A', 'North', null],
      ],
    ],
    [
      'numbers in labels',
      '1 Under 30\n2 30 to 49\n3 50 or more',
      [
        ['1', 'Under 30', null],
        ['2', '30 to 49', null],
        ['3', '50 or more', null],
      ],
    ],
    [
      'marked as missing',
      '97 Something else (missing)\n1 Yes',
      [
        ['97', 'Something else', 'other'],
        ['1', 'Yes', null],
      ],
    ],
    [
      'a code alone, a code twice, a range, prose',
      '5\n1 One\n1 Uno\n2-4\nHow do you live?',
      [
        ['5', undefined, null],
        ['1', 'One', null],
        'the code 1 stands above already',
        'a range of codes; write each code on a line of its own',
        'no code found at the beginning or the end',
      ],
    ],
  ])('%s', (_, text, expected) => {
    expect(understood(text)).toEqual(expected);
  });

  it('of nothing is nothing', () => {
    expect(readPasted(' \n\n')).toEqual([]);
  });
});

describe('codebooks and data', () => {
  const data = () => readExtract([{ source: sourceOf('d.csv', 'ID,Fuel,fuel2,x\na,1,1,1\nb,2,2,2\n') }]);
  const ddi = (text: string) => parseDdi('c.xml', `<codeBook><dataDscr>${text}</dataDscr></codeBook>`);

  it('meet by name, else without regard to case where that is unambiguous; what is left over is listed', async () => {
    const extract = linkCodebooks(await data(), [
      ddi(
        '<var name="FUEL"><labl>Fuel</labl></var><var name="X"><labl>Big</labl></var><var name="x"><labl>Small</labl></var><var name="gone"/>',
      ),
    ]);
    expect(extract.variables.map(({ entry }) => entry?.label ?? null)).toEqual([null, 'Fuel', null, 'Small']);
    expect(extract.linkNotices.map(({ says }) => says)).toEqual([
      'no codebook describes ID, fuel2',
      'the codebook describes X, gone, which no file has',
    ]);
  });

  it('complete each other: a later one adds only what the earlier leaves out', async () => {
    const table = readCodeTable(
      'codes.csv',
      ['variable', 'code', 'label'],
      [
        ['Fuel', '1', 'Gas (table)'],
        ['Fuel', '2', 'Oil'],
      ],
    );
    const extract = linkCodebooks(await data(), [
      ddi(
        '<var name="Fuel"><labl>Main fuel</labl><catgry><catValu>1</catValu><labl>Gas</labl></catgry></var>',
      ),
      table,
    ]);
    expect(extract.variables[1].entry).toMatchObject({
      label: 'Main fuel',
      categories: [
        { code: '1', label: 'Gas' },
        { code: '2', label: 'Oil' },
      ],
    });
  });

  it('part again without a trace', async () => {
    const received = await data();
    const linked = linkCodebooks(received, [ddi('<var name="x"><labl>X</labl></var>')]);
    expect(linkCodebooks(linked, [])).toEqual(linkCodebooks(received, []));
  });
});
