import { describe, expect, it } from 'vitest';
import { extractOf } from '../../testing/made';
import { entryOf, type Decision } from '../log/entries';
import { foldLog } from '../log/fold';
import { conditionsOfCell } from './cell-rows';
import { crossDocument, type CrossAsk } from './crossing';
import { Inspector } from './inspect';
import { skipOf } from './skip';

const N = 200;
const rows = Array.from({ length: N }, (_, i) => ({
  gate: i % 2 ? '1' : '2',
  second: i % 4 < 2 ? 'a' : 'b',
  // Asked where gate is 1; row 10 breaks it, row 11 was asked and left it blank.
  gated: i === 10 ? '3' : i === 11 ? '' : i % 2 ? String(1 + (i % 3)) : '',
}));
const dig = (...decisions: Decision[]): Inspector => {
  const made = new Inspector(
    extractOf({
      gate: rows.map((row) => row.gate),
      second: rows.map((row) => row.second),
      gated: rows.map((row) => row.gated),
    }),
  );
  made.lay(foldLog(decisions.map((decision, i) => entryOf(decision, `e${i}`, new Date(0)))));
  return made;
};

describe('who was asked, as a table', () => {
  it('is told by the blanks, with the codes at which nobody was', () => {
    expect(skipOf(dig(), 'gated')).toMatchObject({
      gated: 'gated',
      gate: 'gate',
      within: null,
      accepted: false,
      shut: [{ within: null, down: '2' }],
      more: [],
    });
    expect(skipOf(dig(), 'gate')).toBe(null);
  });
  it('is told by a ruling before the blanks, a second gate within whose levels it holds', () => {
    const made = dig({
      type: 'accept-universe',
      variable: 'gated',
      by: 'gate',
      shut: ['2'],
      steps: [{ by: 'second', codes: ['b'], asked: false }],
    });
    const skip = skipOf(made, 'gated');
    expect(skip).toMatchObject({ gate: 'gate', within: 'second', accepted: true });
    const shut = (within: string): string[] =>
      skip?.shut.filter((one) => one.within === within).map(({ down }) => down) ?? [];
    expect(shut('a')).toEqual(['2']);
    expect(shut('b').slice(0, 2)).toEqual(['1', '2']);
  });
});

describe('the rows of a cell', () => {
  const ask = (part: Partial<CrossAsk>): CrossAsk => ({
    down: 'gate',
    across: 'gated',
    within: null,
    weight: null,
    measure: null,
    withMissing: true,
    small: 10,
    ...part,
  });
  it('are kept by conditions, in as many rows as the cell tells, whatever its state', async () => {
    const missing: Decision = {
      type: 'declare-missing',
      variables: ['gated'],
      codes: [{ code: '2', reason: 'refused' }],
      rule: null,
    };
    const universe: Decision = {
      type: 'accept-universe',
      variable: 'gated',
      by: 'gate',
      shut: ['2'],
    };
    for (const decisions of [[], [missing], [missing, universe]]) {
      const plain = dig(...decisions);
      for (const across of ['gated', null]) {
        const asked = ask({ across });
        const { tables, down } = await crossDocument(plain, asked);
        expect(down.codes.length).toBe(2);
        for (const cell of tables[0].cells) {
          // What is blank and what is not asked is told apart by the gate alone.
          if (cell.rows === 0) continue;
          const conditions = conditionsOfCell(plain, asked, {
            down: cell.down,
            across: cell.across,
            within: null,
          });
          const sieved = dig(...decisions, {
            type: 'make-sieve',
            sieve: 's',
            name: '',
            parts: conditions.map((condition, i) => ({ id: `p${i}`, condition, on: true })),
            use: true,
          });
          expect([cell.down, cell.across, sieved.rowCounts.kept]).toEqual([
            cell.down,
            cell.across,
            cell.rows,
          ]);
        }
      }
    }
  });
  it('in bins are kept by a stretch', async () => {
    const made = new Inspector(
      extractOf({
        x: Array.from({ length: 300 }, (_, i) => String(i)),
        y: Array.from({ length: 300 }, (_, i) => String(i % 2)),
      }),
    );
    made.lay(
      foldLog([
        entryOf({ type: 'confirm-kind', kinds: [{ variable: 'x', kind: 'continuous' }] }, 'k', new Date(0)),
      ]),
    );
    const asked = { ...ask({ down: 'x', across: 'y', withMissing: false }), binned: true };
    const { down } = await crossDocument(made, asked);
    expect(down.bins).toEqual({ size: 50, start: 0 });
    expect(down.codes[1]).toMatchObject({ code: '50', label: '50 to 99' });
    expect(conditionsOfCell(made, asked, { down: '50', across: null, within: null })).toEqual([
      { variable: 'x', from: 50, to: 99 },
      { variable: 'y', answered: true },
    ]);
  });
});
