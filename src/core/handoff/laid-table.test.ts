import { describe, expect, it } from 'vitest';
import { parse } from 'papaparse';
import { extractOf } from '../../testing/made';
import type { KeptTable } from '../cross/kept-table';
import { crossDocument } from '../inspect/crossing';
import { Inspector } from '../inspect/inspect';
import { entryOf, type Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import { laidTable, tableCsv, tableHtml, tableSvg, type LaidTable } from './laid-table';
import { reportHtml } from './report';

const asked = (part: Partial<KeptTable>): KeptTable => ({
  down: 'a',
  across: 'b',
  within: null,
  measure: null,
  withMissing: false,
  small: 5,
  blank: false,
  bins: {},
  shows: ['rows', 'ofRow'],
  measured: ['mean'],
  ...part,
});
const times = (n: number, a: string, b: string, m: string): string[][] =>
  Array.from({ length: n }, () => [a, b, m]);
// 40 10 / 20 30 as in the worked example of what stands out, a small cell and an unanswered row beside it.
const ROWS = [
  ...times(40, 'Own', '1', '10'),
  ...times(10, 'Own', '2', '20'),
  ...times(20, 'Rent', '1', '30'),
  ...times(30, 'Rent', '2', '40'),
  ...times(2, '=3', '1', '5'),
  ...times(1, '', '1', ''),
];
const dig = (...decisions: Decision[]): Inspector => {
  const made = new Inspector(
    extractOf({
      a: ROWS.map(([a]) => a),
      b: ROWS.map(([, b]) => b),
      m: ROWS.map(([, , m]) => m),
    }),
  );
  made.lay(
    foldLog(
      [
        {
          type: 'confirm-kind' as const,
          kinds: [
            { variable: 'a', kind: 'nominal' as const },
            { variable: 'b', kind: 'nominal' as const },
            { variable: 'm', kind: 'continuous' as const },
          ],
        },
        ...decisions,
      ].map((decision, i) => entryOf(decision, `e${i}`, new Date(0))),
    ),
  );
  return made;
};
const laid = async (part: Partial<KeptTable> = {}): Promise<LaidTable> => {
  const table = asked(part);
  const told = await crossDocument(dig(), { ...table, weight: null });
  return laidTable(told, table, 'all 103 rows');
};

describe('a table that leaves', () => {
  it('has codes, margins, what stands out, and below it what it is of', async () => {
    const { title, grids, notes } = await laid();
    expect(title).toBe('a by b');
    const [{ head, lines }] = grids;
    expect(head).toEqual([
      'a',
      '1, rows',
      '1, of the row',
      '2, rows',
      '2, of the row',
      'All, rows',
      'All, of the row',
    ]);
    expect(lines.map(({ head: code }) => code)).toEqual(['=3', 'Own', 'Rent', 'All']);
    expect(lines[1].cells.map(({ text }) => text)).toEqual(['40', '80.0 %', '10', '20.0 %', '50', '100 %']);
    expect(lines[1].cells[0].stands).toMatch(/^\+3\.\d$/);
    expect(lines[1].cells[2].stands).toMatch(/^−3\.\d$/);
    expect(lines[3].cells.map(({ text }) => text)).toEqual(['62', '60.8 %', '40', '39.2 %', '102', '100 %']);
    expect(notes.join(' ')).toMatch(
      /102 rows of all 103 rows; left out: 1 without a valid answer to a\. Unweighted\./,
    );
    expect(grids[0].notes[0]).toMatch(/Cramér’s V 0\.4\d; χ² \d+\.\d, 2 degrees of freedom; 102 rows/);
  });

  it('leaves small cells out where that is wanted, and says so', async () => {
    const { grids, notes } = await laid({ blank: true, measure: 'm' });
    expect(grids[0].lines[0].cells.slice(0, 3)).toEqual(
      [1, 2, 3].map(() => ({ text: '< 5', blanked: true })),
    );
    expect(grids[0].lines[0].cells[3].text).toBe('0');
    expect(notes.join(' ')).toContain('Cells of fewer than 5 rows are left out.');
    // The mean of a cell and of a margin: 40 times 10 and 10 times 20.
    expect(grids[0].lines[1].cells.map(({ text }) => text)).toEqual([
      '40',
      '80.0 %',
      '10',
      '10',
      '20.0 %',
      '20',
      '50',
      '100 %',
      '12',
    ]);
  });

  it('of one variable has shares of all, and no margin at the right', async () => {
    const { grids } = await laid({ across: null, shows: ['rows', 'ofRow', 'residual'] });
    expect(grids[0].head).toEqual(['a', 'rows', 'of the column']);
    expect(grids[0].lines.map(({ cells }) => cells.map(({ text }) => text))).toEqual([
      ['2', '2.0 %'],
      ['50', '49.0 %'],
      ['50', '49.0 %'],
      ['102', '100 %'],
    ]);
  });

  it('is read as a table by a spreadsheet, which runs nothing of it; as HTML and SVG nothing of it is markup', async () => {
    const table = await laid();
    const rows = parse<string[]>(tableCsv(table)).data;
    expect(rows[0]).toEqual(['a by b']);
    expect(rows[2][0]).toBe("'=3");
    const hostile = { ...table, title: '<script>x</script>' };
    for (const text of [tableHtml(hostile), tableSvg(hostile)]) {
      expect(text).not.toContain('<script');
      expect(text).toContain('&lt;script&gt;');
    }
    expect(tableSvg(table)).toMatch(/^<svg [^>]*width="\d+" height="\d+"/);
  });

  it('that is kept goes into the report with its base, and one that cannot be made says why', async () => {
    const made = dig(
      { type: 'keep-table', table: 't', asked: asked({}) },
      { type: 'keep-table', table: 'u', asked: asked({ across: 'gone' }) },
    );
    const html = await reportHtml(made, [], ['a'], new Date(0));
    expect(html).toContain('<h3>a by b</h3>');
    expect(html).toContain('102 rows of all 103 rows');
    expect(html).toMatch(/a by gone<\/h3><p class="soft">Not made: gone: there is no variable of this name/);
  });
});
