import { describe, expect, it } from 'vitest';
import { orderOf, roomForDistinct, shares, templateOf } from './columns';

const look = { shown: ['kind' as const], widths: {}, first: 'name' as const };
const part = (track: string): number => Number(/(\d+)fr/.exec(track)?.[1]);

describe('the columns of the ledger', () => {
  it('always hold name and label, in the order that a person prefers', () => {
    expect(orderOf(look)).toEqual(['name', 'label', 'kind']);
    expect(orderOf({ ...look, first: 'label' })).toEqual(['label', 'name', 'kind']);
  });

  it('hold the values in the place of labels where no variable has one', () => {
    expect(orderOf(look, false)).toEqual(['name', 'values', 'kind']);
    expect(orderOf({ ...look, shown: ['values'] })).toEqual(['name', 'label', 'values']);
    expect(templateOf(look, shares([]), false).split('minmax')).toHaveLength(3);
  });

  it('give numbers of distinct values more room where some are long', () => {
    const wide = (distinct: number): string =>
      templateOf(
        { ...look, shown: ['distinct'] },
        { ...shares([]), ...roomForDistinct([{ counts: { distinct } }]) },
      );
    expect([wide(99_999), wide(1_000_000)].map((template) => template.split(' ').at(-1))).toEqual([
      '52px',
      '74px',
    ]);
  });

  it('give names and labels room by how long they are', () => {
    const terse = shares([
      { name: 'v1', label: 'How often do you paint your window frames?' },
      { name: 'v2', label: 'Age' },
      { name: 'v3', label: 'How long have you lived in this home?' },
    ]);
    const bare = shares(
      Array.from({ length: 40 }, (_, i) => ({ name: `amount_of_expenditure_in_category_${i}`, label: null })),
    );
    expect(part(terse.label)).toBeGreaterThan(2 * part(terse.name));
    expect(part(bare.name)).toBeGreaterThan(3 * part(bare.label));
    // One name that is far longer than all others does not take the room of the labels.
    const one = shares([
      ...Array.from({ length: 99 }, (_, i) => ({ name: `v${i}`, label: 'Age of respondent' })),
      { name: 'x'.repeat(200), label: 'Rest' },
    ]);
    expect(part(one.label)).toBeGreaterThan(part(one.name));
    expect(shares([])).toEqual({
      name: expect.stringContaining('fr') as string,
      label: expect.stringContaining('fr') as string,
    });
  });

  it('keep the width that a person gave', () => {
    expect(templateOf({ ...look, widths: { name: 212 } }, shares([]))).toContain(' 212px minmax(80px');
  });
});
