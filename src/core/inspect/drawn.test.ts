import { describe, expect, it } from 'vitest';
import { extractOf, make, repeat, type Cells } from '../../testing/made';
import { validOf } from '../infer/levels';
import { drawnOf } from './drawn';
import { Inspector } from './inspect';

const drawn = (cells: Cells): ReturnType<typeof drawnOf> => {
  const inspected = new Inspector(extractOf({ x: cells })).named('x');
  if (!inspected) throw new Error('no x');
  return drawnOf(validOf(inspected.levels));
};

describe('what is drawn of a quantity', () => {
  it('leaves out codes of sentinel form beyond a gap, however many rows hold them', () => {
    const { body, beyond } = drawn([
      ...make(300, (c) => c.whole(10, 60)),
      ...repeat(200, 999),
      ...repeat(20, 997),
      ...repeat(9, -8),
    ]);
    expect([body.values[0], body.values[body.values.length - 1]]).toEqual([10, 60]);
    expect(beyond).toEqual({
      below: { rows: 9, from: -8, to: -8 },
      above: { rows: 220, from: 997, to: 999 },
    });
  });

  it('and what lies far out besides, so that all rows are told', () => {
    const cells = [...make(900, (c) => c.whole(1, 40)), 5792, ...repeat(30, 99999)];
    const { body, beyond } = drawn(cells);
    expect(beyond).toEqual({ below: null, above: { rows: 31, from: 5792, to: 99999 } });
    expect(Array.from(body.counts).reduce((sum, count) => sum + count, 0) + 31).toBe(cells.length);
  });

  it('draws all where nothing stands apart', () => {
    expect(drawn(make(300, (c) => c.whole(0, 99))).beyond).toBeNull();
    expect(drawn(make(300, (c) => (c.next() * 8).toFixed(2))).beyond).toBeNull();
    expect(drawn(repeat(40, 7)).beyond).toBeNull();
  });
});
