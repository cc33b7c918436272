import { describe, expect, it } from 'vitest';
import { extractOf } from '../../testing/made';
import type { Codebook, Extract } from '../extract/extract';
import { entriesFor } from './by-file';
import { readCsvw } from './csvw';
import { parseDdi } from './ddi';
import { codesDescribed } from './described';
import { linkCodebooks } from './link';
import { readTableSchema } from './table-schema';

const named = (file: string, names: string[]): Extract => {
  const made = extractOf(Object.fromEntries(names.map((name) => [name, ['1', '2']])));
  const source = { name: file, bytes: 0, rows: 2, columns: names.length, form: 'delimited' as const, names };
  return {
    ...made,
    files: [{ ...source, encoding: 'utf-8', delimiter: ',', header: true, notices: [] }],
  };
};
const labelsOf = (extract: Extract, codebook: Codebook): (string | null | undefined)[] =>
  linkCodebooks(extract, [codebook]).variables.map(({ entry }) => entry?.label);

const DDI = parseDdi(
  'study.xml',
  `<codeBook><fileDscr ID="F1"><fileTxt><fileName>households.csv</fileName><dimensns><caseQnty>40</caseQnty></dimensns></fileTxt></fileDscr>
  <fileDscr ID="F2" URI="data/persons.csv"><fileTxt><dimensns><caseQnty>90</caseQnty></dimensns></fileTxt></fileDscr>
  <dataDscr><var ID="V1" name="age" files="F1"><labl>Age of the head</labl></var><var ID="V2" name="age" files="F2"><labl>Age of the person</labl></var>
  <var ID="V3" name="rooms" files="F1"><labl>Rooms</labl></var></dataDscr></codeBook>`,
);

describe('a codebook of several data files', () => {
  it('says of a file what it describes for that one: DDI by its files', () => {
    expect(labelsOf(named('households.csv', ['age', 'rooms']), DDI)).toEqual(['Age of the head', 'Rooms']);
    expect(labelsOf(named('extract/Persons.CSV.gz', ['age']), DDI)).toEqual(['Age of the person']);
    expect(DDI.notices).toEqual([]);
  });
  it('publishes the cases of that one', () => {
    expect(entriesFor(DDI, ['persons.csv']).cases).toBe(90);
    expect(entriesFor(DDI, ['persons.csv', 'households.csv']).cases).toBe(130);
  });
  it('says nothing of what only other files have', () => {
    expect(linkCodebooks(named('persons.csv', ['age']), [DDI]).linkNotices).toEqual([]);
  });
  it('tells that it cannot be told, where no file is named so', () => {
    const { linkNotices, variables } = linkCodebooks(named('other.csv', ['age', 'rooms']), [DDI]);
    expect(variables[0].entry?.label).toBe('Age of the head');
    expect(linkNotices.map(({ says }) => says)).toEqual([
      'study.xml describes age for several data files, none of which has the name of one here; the first counts',
    ]);
  });
  it('in a Data Package is told by paths', () => {
    const codebook = readTableSchema('datapackage.json', {
      resources: [
        {
          name: 'h',
          path: 'data/households.csv',
          schema: { fields: [{ name: 'age', title: 'Age of the head' }] },
        },
        {
          name: 'p',
          path: 'data/persons.csv',
          schema: { fields: [{ name: 'age', title: 'Age of the person' }] },
        },
      ],
    });
    expect(labelsOf(named('persons.csv', ['age']), codebook)).toEqual(['Age of the person']);
  });
  it('in CSV on the Web is told by addresses', () => {
    const column = (title: string) => ({ name: 'age', titles: 'age', 'dc:title': title });
    const codebook = readCsvw('meta.json', {
      '@context': 'http://www.w3.org/ns/csvw',
      tables: [
        { url: 'https://quillmere.example/house%20holds.csv', tableSchema: { columns: [column('Head')] } },
        { url: 'persons.csv', tableSchema: { columns: [column('Person')] } },
      ],
    });
    expect(labelsOf(named('persons.csv', ['age']), codebook)).toEqual(['Person']);
    expect(labelsOf(named('house holds.csv', ['age']), codebook)).toEqual(['Head']);
  });
});

describe('CSV on the Web', () => {
  const codebook = readCsvw('meta.json', {
    '@context': 'http://www.w3.org/ns/csvw',
    url: 'homes.csv',
    tableSchema: {
      columns: [
        {
          name: 'ten',
          titles: { en: ['Tenure', 'tenure of home'] },
          'dc:description': '1 = Owned; 2 = Rented; 9 = Refused',
        },
      ],
    },
  });
  it('describes a column that stands under any of its titles', () => {
    const [{ entry }] = linkCodebooks(named('homes.csv', ['tenure of home']), [codebook]).variables;
    expect(entry?.name).toBe('ten');
  });
  it('lists codes in its descriptions', () => {
    expect(codebook.entries[0].categories).toMatchObject([
      { code: '1', label: 'Owned', missing: false },
      { code: '2', label: 'Rented', missing: false },
      { code: '9', label: 'Refused', missing: true, reason: 'refused' },
    ]);
  });
});

describe('codes in the text of a description', () => {
  it.each([
    ['1 = Owned; 2 = Rented', ['1', '2']],
    ['Tenure: 1 = Owned, 2 = Rented', ['1', '2']],
    ['Who owns the home. 0: nobody; 1: somebody', ['0', '1']],
    ['1 = Owned\n2 = Rented\n3 = Other', ['1', '2', '3']],
  ])('are read: %s', (text, codes) => {
    expect(codesDescribed(text).map(({ code }) => code)).toEqual(codes);
  });
  it.each([
    'Age in years',
    'Measured in 2 rounds - spring and autumn',
    'Range 1 - 5',
    'See section 4: housing',
    '',
  ])('are none: %s', (text) => {
    expect(codesDescribed(text)).toEqual([]);
  });
});
