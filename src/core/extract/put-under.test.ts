import fc from 'fast-check';
import { expect, it } from 'vitest';
import { putUnder } from './put-under';

it('what is put under keys lies under each in the order in which it came', () => {
  fc.assert(
    fc.property(fc.array(fc.tuple(fc.integer({ min: 0, max: 3 }), fc.integer())), (pairs) => {
      const lists = new Map<number, number[]>();
      for (const [key, one] of pairs) putUnder(lists, key, one);
      expect([...lists.keys()]).toEqual([...new Set(pairs.map(([key]) => key))]);
      for (const [key, list] of lists)
        expect(list).toEqual(pairs.filter(([own]) => own === key).map(([, one]) => one));
    }),
  );
});
