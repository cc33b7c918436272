import { describe, expect, it } from 'vitest';
import { bareEntry } from '../extract/extract';
import { InputError } from '../extract/problem';
import { readExtract } from '../intake/receive';
import { sourceOf } from '../read/source';
import { looksLikeDdi, parseDdi } from './ddi';
import { readDocument } from './document';
import { linkCodebooks } from './link';
import { reasonOfLabel } from './missing-words';
import { readsAsNoAnswer } from './no-answer';

const document = (body: string, open = '<codeBook xmlns="ddi:codebook:2_5">'): string =>
  `<?xml version="1.0"?>${open}<stdyDscr><citation><titlStmt><titl>Upkeep</titl></titlStmt></citation></stdyDscr><dataDscr>${body}</dataDscr></codeBook>`;
const TENURE = `<var ID="V1" name="tenure" intrvl="discrete"><labl>Tenure &amp; home</labl><qstn><qstnLit>Own or
  rent?</qstnLit></qstn><universe>All</universe><invalrng><range min="-9" max="-1"/><item VALUE="99"/></invalrng>
  <catgry><catValu>1</catValu><labl>Owned</labl><catStat type="freq">812</catStat></catgry>
  <catgry missing="Y"><catValu>9</catValu><labl>Refused</labl></catgry><notes>Coded at home.</notes></var>`;

describe('a DDI-Codebook document', () => {
  it('gives label, question, universe, categories, ranges, notes, groups', () => {
    const codebook = parseDdi(
      'c.xml',
      document(
        `<varGrp ID="G" var="V1"><labl>Home</labl></varGrp>${TENURE}<var name="w" wgt="wgt" intrvl="contin" measUnit="crowns"/>`,
      ),
    );
    expect(codebook).toMatchObject({ title: 'Upkeep', groups: [{ name: 'Home', variables: ['tenure'] }] });
    expect(codebook.entries[0]).toEqual({
      ...bareEntry('tenure'),
      name: 'tenure',
      label: 'Tenure & home',
      question: 'Own or rent?',
      universe: 'All',
      units: null,
      notes: ['Coded at home.'],
      interval: 'discrete',
      isWeight: false,
      validRanges: [],
      missingRanges: [
        { min: -9, max: -1 },
        { min: 99, max: 99 },
      ],
      categories: [
        { code: '1', label: 'Owned', missing: false, reason: null, frequency: 812 },
        { code: '9', label: 'Refused', missing: true, reason: 'refused', frequency: null },
      ],
    });
    expect(codebook.entries[1]).toMatchObject({ isWeight: true, interval: 'continuous', units: 'crowns' });
  });

  it('may have no namespace, or a prefix', () => {
    expect(parseDdi('c.xml', document(TENURE, '<codeBook>')).entries[0].name).toBe('tenure');
    const prefixed = document(TENURE, '<d:codeBook xmlns:d="ddi:codebook:2_5">')
      .replace('</codeBook>', '</d:codeBook>')
      .replace(/<(\/?)(var|labl)\b/g, '<$1d:$2');
    expect(parseDdi('c.xml', prefixed).entries[0].label).toBe('Tenure & home');
    expect(looksLikeDdi(prefixed)).toBe(true);
  });

  it.each([
    ['malformed XML', '<codeBook>\n<dataDscr>\n<var name="a"></dataDscr>', { line: 3, element: 'dataDscr' }],
    [
      'an entity of its own',
      '<!DOCTYPE c [<!ENTITY x "boom">]>\n<codeBook><var name="a"><labl>&x;</labl></var></codeBook>',
      { line: 2, element: 'labl' },
    ],
    ['no variable', '<codeBook></codeBook>', { element: 'dataDscr' }],
  ])('is refused with its place: %s', (_, xml, place) => {
    const refuse = (): unknown => parseDdi('c.xml', xml);
    expect(refuse).toThrow(InputError);
    try {
      refuse();
    } catch (cause) {
      expect((cause as InputError).problem).toMatchObject({ file: 'c.xml', ...place });
    }
  });

  it('is decoded as its first line says', async () => {
    const xml = document('<var name="a"><labl>Ménage</labl></var>').replace(
      'version="1.0"',
      'version="1.0" encoding="ISO-8859-1"',
    );
    expect(
      (await readDocument(sourceOf('c.xml', new Uint8Array(Buffer.from(xml, 'latin1'))), 'xml'))?.entries[0]
        .label,
    ).toBe('Ménage');
  });

  it('meets the data by name, without regard to case where that is clear, and tells what is left', async () => {
    const extract = await readExtract([{ source: sourceOf('d.csv', 'TENURE,extra\n1,2\n9,3\n') }]);
    const linked = linkCodebooks(extract, [parseDdi('c.xml', document(`${TENURE}<var name="gone"/>`))]);
    expect(linked.variables[0].entry?.label).toBe('Tenure & home');
    expect(linked.linkNotices.map(({ says }) => says)).toEqual([
      'no codebook describes extra',
      'the codebook describes gone, which no file has',
    ]);
  });
});

it.each([
  ['Refused', 'refused'],
  ["Don't know", 'dont-know'],
  ['weiß nicht', 'dont-know'],
  ['Trifft nicht zu', 'not-asked'],
  ['INAPPLICABLE', 'not-asked'],
  ['Not in universe (NIU)', 'not-asked'],
  ['Sans réponse', 'no-answer'],
  ['No sabe', 'dont-know'],
  ['Keine Angabe', 'no-answer'],
  ['Suppressed for confidentiality', 'suppressed'],
  ['Missing', 'other'],
  ['Never', null],
  ['None', null],
  ['Knows the neighbours', null],
  ['Refuse collection', 'refused'],
  ['Nature reserve', null],
])('the label “%s” reads as %s', (label, reason) => {
  expect(reasonOfLabel(label)).toBe(reason);
});

it.each([
  'IAP',
  'DK',
  'NIU',
  'Not codeable',
  'Item nonresponse',
  'Weiß ich nicht',
  'Prefer not to answer',
  'Logical skip',
  'No opinion',
  'System missing',
  'Unknown',
  'k.A.',
  'Legitimate skip (no children)',
  'NS/NC',
  'Donnée manquante',
  'Not disclosed',
])('“%s” reads as no answer though nobody says so', (label) => {
  expect(readsAsNoAnswer(label)).toBe(true);
  expect(reasonOfLabel(label)).not.toBeNull();
});
it.each([
  'Never married',
  'Household refuse',
  'Filter coffee',
  'Blank wall',
  'Missing teeth',
  'Not at all',
  'Confidential clerk',
  'No religion',
  'Refugee',
  'Not sure how often',
  'Unknown soldier memorial',
  'Does not work',
  'None',
  'Not happy',
  'Uncertain',
])('“%s” is an answer', (label) => {
  expect(readsAsNoAnswer(label)).toBe(false);
});
