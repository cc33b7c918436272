import fc from 'fast-check';
import Papa from 'papaparse';
import { atPlace } from '../extract/row-names';
import { describe, expect, it } from 'vitest';
import { parseDdi } from '../codebook/ddi';
import { linkCodebooks } from '../codebook/link';
import { barsOf } from '../handoff/chart';
import { inventoryCsv } from '../handoff/inventory';
import { reportHtml } from '../handoff/report';
import { figure, percent, whole } from '../handoff/words';
import { entryOf, type Entry } from '../log/entries';
import { foldLog } from '../log/fold';
import { readExtract } from '../intake/receive';
import { sourceOf } from '../read/source';
import { Inspector } from './inspect';
import { profileOf } from './profile';
import { inspectionSchema } from './schema';
import { summaryOf } from './summary';

const DATA = `id,oft,income,town,day,own,note
${Array.from({ length: 120 }, (_, i) => `H${1000 + i},${i % 10 === 9 ? 9 : 1 + (i % 5)},${i % 20 === 0 ? 'n/k' : 500 + i * 13},${['Fenwater', 'Marlhope', 'fenwater'][i === 7 ? 2 : i % 2]},2021-${String(1 + (i % 12)).padStart(2, '0')}-15,${i % 3 ? '' : i % 2},"said ${i}, <b>""quoted""</b> & more words"`).join('\n')}
`;
const DDI = `<codeBook><dataDscr><var name="oft"><labl>How often</labl>
${['Never', 'Rarely', 'Sometimes', 'Often', 'Always'].map((label, i) => `<catgry><catValu>${i + 1}</catValu><labl>${label}</labl></catgry>`).join('')}
<catgry missing="Y"><catValu>9</catValu><labl>Not applicable</labl></catgry></var><var name="income" measUnit="crowns"><labl>Income</labl></var></dataDscr></codeBook>`;

async function inspector(codebook = true): Promise<Inspector> {
  const extract = await readExtract([{ source: sourceOf('made.csv', DATA) }]);
  return new Inspector(linkCodebooks(extract, codebook ? [parseDdi('made.xml', DDI)] : []));
}
const ruling: Entry = entryOf(
  {
    type: 'declare-missing',
    variables: ['oft'],
    codes: [{ code: '9', reason: 'refused' }],
    rule: 'sentinel-code',
  },
  'e1',
  new Date(0),
);

describe('the inspection', () => {
  it('fits its schema and adds up', async () => {
    const document = inspectionSchema.parse(JSON.parse(JSON.stringify((await inspector()).document())));
    expect(document).toMatchObject({
      format: 'dig-first-inspection',
      version: 1,
      rows: 120,
      source: { name: 'made', codebooks: [{ name: 'made.xml', form: 'ddi-codebook' }] },
    });
    for (const { counts, frequencies, frequenciesComplete } of document.variables) {
      expect(counts.blank + counts.unreadable + counts.missing + counts.notAsked + counts.valid).toBe(
        counts.all,
      );
      if (frequenciesComplete)
        expect(frequencies.reduce((sum, { count }) => sum + count, 0)).toBe(
          counts.all - counts.blank - counts.unreadable,
        );
    }
  });

  it('tells frequencies in value order with three shares, missing codes among them', async () => {
    const oft = (await inspector()).document().variables[1];
    expect(oft).toMatchObject({
      kind: 'ordinal',
      label: 'How often',
      counts: { all: 120, notAsked: 12, valid: 108, distinct: 5 },
    });
    expect(oft.missingCodes).toEqual([
      { code: '9', label: 'Not applicable', reason: 'not-asked', count: 12, declaredBy: 'codebook' },
    ]);
    expect(oft.frequencies.map(({ code }) => code)).toEqual(['1', '2', '3', '4', '5', '9']);
    expect(oft.frequencies[0]).toMatchObject({
      label: 'Never',
      count: 24,
      shareOfAll: 24 / 120,
      shareOfAsked: 24 / 108,
      shareOfValid: 24 / 108,
      missing: false,
    });
    expect(oft.frequencies[5]).toMatchObject({ missing: true, shareOfAsked: null, shareOfValid: null });
    expect(oft.statistics).toMatchObject({ median: 3, mean: null, sd: null, min: 1, max: 5 });
  });

  it('gives each kind the figures that suit it, and null for the rest', async () => {
    const { variables } = (await inspector()).document();
    const by = new Map(variables.map((variable) => [variable.name, variable]));
    expect(by.get('income')).toMatchObject({
      kind: 'continuous',
      storage: 'integer',
      counts: { unreadable: 6 },
      unreadable: [{ text: 'n/k', count: 6 }],
    });
    expect(by.get('income')?.statistics.mean).toBeGreaterThan(500);
    expect(by.get('day')).toMatchObject({
      kind: 'date',
      statistics: { min: '2021-01-15', max: '2021-12-15', mean: null, median: null },
    });
    for (const name of ['id', 'town', 'note'])
      expect(by.get(name)?.statistics).toMatchObject({
        min: null,
        max: null,
        mean: null,
        sd: null,
        median: null,
        q1: null,
        skewness: null,
      });
    expect(by.get('id')).toMatchObject({ kind: 'identifier', role: 'identifier', statistics: { mode: [] } });
  });

  it('lists the fifty most frequent where there are more than five hundred', async () => {
    const text = `v\n${Array.from({ length: 1200 }, (_, i) => (i < 600 ? i : i % 60)).join('\n')}\n`;
    const [variable] = new Inspector(await readExtract([{ source: sourceOf('v.csv', text) }])).document()
      .variables;
    expect(variable.frequenciesComplete).toBe(false);
    expect(variable.frequencies).toHaveLength(50);
    expect(variable.frequencies.every(({ count }) => count === 11)).toBe(true);
  });

  it('keeps raw codes as they stood in the file', async () => {
    const [padded, mixed] = new Inspector(
      await readExtract([{ source: sourceOf('v.csv', 'a,b\n007,1\n012,1.0\n007,1\n') }]),
    ).document().variables;
    expect(padded.frequencies.map(({ code }) => code)).toEqual(['007', '012']);
    expect(mixed.frequencies).toMatchObject([{ code: '1', count: 3, spellings: ['1', '1.0'] }]);
  });
});

describe('rulings', () => {
  it('recount at once what they touch, and nothing else', async () => {
    const dig = await inspector(false);
    const town = dig.named('town');
    expect(dig.flags.map(({ rule }) => rule)).toEqual([
      'sentinel-code',
      'mixed-content',
      'variant-spelling',
      'mostly-missing',
    ]);
    expect(dig.lay(foldLog([ruling]))).toEqual(new Set(['oft']));
    expect(dig.named('oft')?.counts).toMatchObject({ missing: 12, valid: 108, distinct: 5 });
    expect(dig.flags.map(({ rule }) => rule)).toEqual([
      'mixed-content',
      'variant-spelling',
      'mostly-missing',
    ]);
    expect(dig.named('town')).toBe(town);
    expect(dig.document().variables[1].missingCodes[0]).toMatchObject({
      declaredBy: 'ruling',
      reason: 'refused',
    });
  });

  it('to keep as valid silence the flag and change no count', async () => {
    const dig = await inspector(false);
    const before = dig.named('oft')?.counts;
    dig.lay(
      foldLog([
        entryOf(
          { type: 'keep-valid', variables: ['oft'], codes: ['9'], rule: 'sentinel-code' },
          'k',
          new Date(0),
        ),
      ]),
    );
    expect(dig.flags.map(({ rule }) => rule)).toEqual([
      'mixed-content',
      'variant-spelling',
      'mostly-missing',
    ]);
    expect(dig.named('oft')?.counts).toEqual(before);
  });

  it('merge spellings, set rows aside, and tell blanks of those who were not asked; undo restores all', async () => {
    const dig = await inspector(false);
    const before = JSON.stringify(dig.document());
    const entries = [
      entryOf(
        {
          type: 'merge-codes',
          variables: ['town'],
          codes: ['fenwater'],
          into: 'Fenwater',
          rule: 'variant-spelling',
        },
        'm',
        new Date(0),
      ),
      entryOf({ type: 'set-aside', rows: [0, 1, 2].map(atPlace), rule: null }, 's', new Date(0)),
      entryOf({ type: 'accept-universe', variable: 'own', by: 'town', shut: ['Marlhope'] }, 'u', new Date(0)),
      entryOf({ type: 'confirm-role', roles: [{ variable: 'income', role: 'weight' }] }, 'r', new Date(0)),
    ];
    dig.lay(foldLog(entries));
    const town = dig.document().variables.find(({ name }) => name === 'town');
    expect(town).toMatchObject({
      counts: { all: 117, valid: 117, distinct: 2 },
      frequencies: [{ code: 'Fenwater', spellings: ['Fenwater', 'fenwater'] }, { code: 'Marlhope' }],
    });
    const own = dig.named('own')?.counts;
    expect(own).toMatchObject({ all: 117, notAsked: 38 });
    expect((own?.blank ?? 0) + (own?.valid ?? 0) + (own?.notAsked ?? 0)).toBe(117);
    expect(dig.named('income')?.role).toBe('weight');
    expect(dig.flags.map(({ rule }) => rule)).not.toContain('variant-spelling');
    dig.lay(foldLog([]));
    expect(JSON.stringify(dig.document())).toBe(before);
  });

  it('taken back restore the inspection exactly', async () => {
    const dig = await inspector(false);
    const before = JSON.stringify(dig.document());
    dig.lay(
      foldLog([
        ruling,
        entryOf({ type: 'confirm-kind', kinds: [{ variable: 'oft', kind: 'count' }] }, 'e2', new Date(0)),
      ]),
    );
    expect(dig.document().variables[1]).toMatchObject({ kind: 'count', confirmed: true });
    expect(JSON.stringify(dig.document())).not.toBe(before);
    dig.lay(foldLog([ruling, entryOf({ type: 'undo', entry: 'e1' }, 'u', new Date(0))]));
    expect(JSON.stringify(dig.document())).toBe(before);
  });
});

describe('profile and summary', () => {
  it('show what suits the kind', async () => {
    const dig = await inspector();
    const profile = async (name: string) => {
      const found = dig.named(name);
      const shown = await profileOf(dig, name);
      if (!found || !shown) throw new Error(name);
      return { ...shown, summary: summaryOf(found) };
    };
    expect(barsOf((await profile('oft')).picture).map(({ name }) => name)).toEqual([
      '1  Never',
      '2  Rarely',
      '3  Sometimes',
      '4  Often',
      '5  Always',
    ]);
    expect((await profile('income')).picture.form).toBe('histogram');
    expect((await profile('income')).lowest[0]).toMatchObject({ code: '513', rows: [2] });
    expect(barsOf((await profile('day')).picture)).toHaveLength(12);
    expect(await profile('note')).toMatchObject({
      picture: { form: 'histogram', lengths: true },
      summary: { sketch: null },
    });
    expect((await profile('id')).ends).toEqual({ first: 'H1000', last: 'H1119' });
    expect((await profile('oft')).summary.sketch?.heights).toHaveLength(5);
  });

  it('draw every valid row, whatever the values', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.array(fc.constantFrom('1', '2.5', '40', '', 'x', '2021-01-01', '-3'), {
          minLength: 1,
          maxLength: 60,
        }),
        async (texts) => {
          const dig = new Inspector(
            await readExtract([
              {
                source: sourceOf('v.csv', `v,w\n${texts.map((text) => `${text},1`).join('\n')}\n`),
                reading: { delimiter: ',', header: true },
              },
            ]),
          );
          const found = dig.variables[0];
          const picture = (await profileOf(dig, 'v'))?.picture ?? { form: 'none', why: '' };
          const { below = null, above = null } = (picture.form === 'histogram' && picture.beyond) || {};
          const bars = barsOf(picture);
          if (bars.length)
            expect(
              bars.reduce((sum, { count }) => sum + count, (below?.rows ?? 0) + (above?.rows ?? 0)),
            ).toBe(found.counts.valid);
        },
      ),
    );
  });
});

describe('the handoff', () => {
  it('writes an inventory that reads back', async () => {
    const dig = await inspector();
    const { data } = Papa.parse<Record<string, string>>(inventoryCsv(dig, ['oft', 'income', 'town']).trim(), {
      header: true,
    });
    expect(data.map(({ name, kind, valid, kind_is }) => [name, kind, valid, kind_is])).toEqual([
      ['oft', 'ordinal', '108', 'presumed'],
      ['income', 'continuous', '114', 'presumed'],
      ['town', 'nominal', '120', 'presumed'],
    ]);
    expect(data[0].missing_codes).toBe('9 not-asked (12)');
    expect(data[2].flags).toContain('variant-spelling');
  });

  it('writes a report that needs nothing else and cannot be broken by what the data hold', async () => {
    const html = await reportHtml(await inspector(), [ruling], ['oft', 'town', 'note'], new Date(0));
    expect(html).toContain('<svg');
    expect(html).toContain('9 (refused) declared missing in oft');
    expect(html).toContain('based on all 120 rows');
    expect(html).toContain('4 of the extract not reported');
    expect(html).not.toMatch(/<script|<link|src=|url\(|@import/);
    expect(html.replace(/xmlns="[^"]*"/g, '')).not.toMatch(/https?:/);
    expect(html).not.toContain('<b>"quoted"');
  });

  it('writes numbers so that none reads as more or less than it is', () => {
    expect([
      whole(1234567),
      percent(0.0001),
      percent(0.99999),
      percent(1),
      percent(0),
      figure(0.1 + 0.2),
      figure(null),
    ]).toEqual(['1,234,567', '<0.1 %', '>99.9 %', '100.0 %', '0.0 %', '0.3', '']);
  });
});
