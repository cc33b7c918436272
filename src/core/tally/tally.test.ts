import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { columnOf } from '../extract/column';
import { tallyColumn, tallyTexts, type Tally } from './tally';

const asMap = ({ texts, counts }: Tally): Map<string, number> =>
  new Map(texts.map((text, i) => [text, counts[i]]));
const cells = fc.array(fc.constantFrom('1', '2', '02', '', ' ', 'x', 'é'), { maxLength: 60 });

describe('a tally', () => {
  it('counts each distinct text, blanks among them', () => {
    expect(asMap(tallyColumn(columnOf(['a', '', 'a', 'b'])))).toEqual(
      new Map([
        ['a', 2],
        ['', 1],
        ['b', 1],
      ]),
    );
  });

  it('of parts adds up to that of the whole, wherever the cut', () => {
    fc.assert(
      fc.property(cells, fc.nat(), (texts, cut) => {
        const column = columnOf(texts);
        const at = texts.length ? cut % (texts.length + 1) : 0;
        const parts = [tallyColumn(column, 0, at), tallyColumn(column, at)];
        const sum = new Map<string, number>();
        for (const part of parts)
          for (const [text, count] of asMap(part)) sum.set(text, (sum.get(text) ?? 0) + count);
        expect(sum).toEqual(asMap(tallyColumn(column)));
        expect(parts[0].rows + parts[1].rows).toBe(texts.length);
      }),
    );
  });

  it('is the same however the cells are held, and counts every row', () => {
    fc.assert(
      fc.property(cells, (texts) => {
        const tally = tallyColumn(columnOf(texts));
        expect(asMap(tally)).toEqual(asMap(tallyTexts(texts)));
        expect(tally.counts.reduce((sum, count) => sum + count, 0)).toBe(texts.length);
      }),
    );
  });

  it('counts packed columns too', () => {
    const texts = Array.from({ length: 280_000 }, (_, i) => (i < 270_000 ? `k${i}` : 'k0'));
    const column = columnOf(texts);
    expect(column.form).toBe('packed');
    expect(asMap(tallyColumn(column)).get('k0')).toBe(10_001);
  });
});
