import fc from 'fast-check';
import { expect, it } from 'vitest';
import { fits } from './standing-rules';

const byExpression = (name: string, pattern: string): boolean =>
  new RegExp(`^${pattern.split('*').join('.*')}$`, 'i').test(name);

it('matches a star like any signs', () => {
  const text = fc.string({ unit: fc.constantFrom('a', 'B', '_', '1'), maxLength: 7 });
  const pattern = fc.string({ unit: fc.constantFrom('a', 'b', '_', '*'), minLength: 1, maxLength: 6 });
  fc.assert(
    fc.property(text, pattern, (name, wanted) => {
      expect(fits(name, wanted)).toBe(byExpression(name, wanted));
    }),
    { numRuns: 2000 },
  );
});

it('never goes back, however many stars there are: this would run for hours', () => {
  for (let i = 0; i < 1000; i++) expect(fits('a'.repeat(40), `${'a*'.repeat(15)}b`)).toBe(false);
});
