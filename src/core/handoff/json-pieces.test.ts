import fc from 'fast-check';
import { expect, it } from 'vitest';
import { jsonPieces } from './json-pieces';

it('is the text that would be written in one piece, whatever the document holds', () => {
  fc.assert(
    fc.property(
      fc.dictionary(
        fc.string(),
        fc.oneof(
          fc.jsonValue(),
          fc.array(fc.jsonValue()),
          fc.constantFrom(undefined, 'two\nlines', [], {}, null),
        ),
      ),
      (document) => {
        expect([...jsonPieces(document)].join('')).toBe(`${JSON.stringify(document, null, 1)}\n`);
      },
    ),
  );
});
it('comes member by member, and each of a list by itself', () => {
  expect([...jsonPieces({ a: 1, list: [{ b: [2] }, 'x'] })]).toEqual([
    '{\n "a": ',
    '1',
    ',\n "list": ',
    '[\n  {\n   "b": [\n    2\n   ]\n  }',
    ',\n  "x"',
    '\n ]',
    '\n}\n',
  ]);
});
