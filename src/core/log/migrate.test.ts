import { describe, expect, it } from 'vitest';
import { atPlace } from '../extract/row-names';
import { anyLogSchema, fittingPlaces, misfitText } from './migrate';

const common = { at: '2026-01-05T10:00:00.000Z', why: null };
const KIND = { ...common, id: 'k', type: 'confirm-kind', kinds: [{ variable: 'rooms', kind: 'count' }] };
const log = (version: number, rows: unknown[]): unknown => ({
  format: 'dig-first-log',
  version,
  extract: 'upkeep',
  entries: [KIND, { ...common, id: 's', type: 'set-aside', rows, rule: 'summary-row' }],
});

describe('a log of version 1', () => {
  const read = anyLogSchema.parse(log(1, [3, 7]));
  it('is read as one of the present version, its rows known by place alone', () => {
    expect(read.version).toBe(6);
    expect(read.entries).toEqual([
      KIND,
      { ...common, id: 's', type: 'set-aside', rows: [atPlace(3), atPlace(7)], rule: 'summary-row' },
    ]);
  });
  it('sets rows aside in the extract that it was made on, and in no other', () => {
    expect(fittingPlaces(read, 'upkeep')).toEqual({ entries: read.entries, misfits: [] });
    const { entries, misfits } = fittingPlaces(read, 'upkeep-2023');
    expect(entries.map(({ id }) => id)).toEqual(['k']);
    expect(misfits.map(misfitText)).toEqual([
      'did not fit: 2 rows set aside (row 4, row 8) (an earlier version named rows by their place alone, in upkeep; set them aside anew)',
    ]);
  });
});

describe.each([2, 3, 4, 5])('a log of version %i', (version) => {
  const row = { file: 'h.csv', row: 2, cells: '0123456789abcdef', of: null, identifier: null };
  it('is read as it stands, and its rows go with it to any extract', () => {
    const read = anyLogSchema.parse(log(version, [row]));
    expect(fittingPlaces(read, 'another').entries).toEqual(read.entries);
  });
  it('with damaged rows is refused', () => {
    for (const wrong of [3, { ...row, cells: 'zz' }, { ...row, row: -1 }, null])
      expect(anyLogSchema.safeParse(log(version, [wrong])).success).toBe(false);
    expect(anyLogSchema.safeParse(log(7, [row])).success).toBe(false);
  });
});
