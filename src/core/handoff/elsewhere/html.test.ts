import { HtmlValidate } from 'html-validate';
import { describe, expect, it } from 'vitest';
import { column, dig, written } from '../../../testing/homes';

/** Rules of the standard alone, none of style. */
const validator = new HtmlValidate({
  root: true,
  elements: ['html5'],
  rules: {
    'close-order': 'error',
    'no-raw-characters': 'error',
    'element-permitted-content': 'error',
    'no-dup-attr': 'error',
    'no-dup-id': 'error',
    'attribute-allowed-values': 'error',
    'void-content': 'error',
    'element-name': 'error',
    'unrecognized-char-ref': 'error',
  },
});

describe('report and codebook, by a validator of HTML', () => {
  it(
    'hold nothing that the standard does not allow, whatever the extract holds',
    { timeout: 60_000 },
    async () => {
      const from = dig({
        rare: Array.from({ length: 4000 }, (_, i) => (i === 7 ? '2' : '1')),
        odd: Array.from(
          { length: 4000 },
          (_, i) => ['a\u0085b', 'x\u007f', '<b>', '&amp;', '\ufdd0', '"\''][i % 6],
        ),
      });
      const files = await written(from, ['report', 'codebook']);
      for (const [name, bytes] of files) {
        if (!name.endsWith('.html')) continue;
        const text = new TextDecoder().decode(bytes);
        const { results } = await validator.validateString(text);
        const told = results.flatMap(({ messages }) =>
          messages.map(
            ({ ruleId, message, line }) => `${ruleId} ${message} ${text.split('\n')[line - 1]?.slice(0, 80)}`,
          ),
        );
        expect([name, [...new Set(told)]]).toEqual([name, []]);
        expect(text).toContain('&lt;0.1 %');
        expect(/[\u{7f}-\u{9f}\u{fdd0}]/u.test(text)).toBe(false);
      }
    },
  );
  it('say so of few rows as well', async () => {
    const files = await written(dig({ a: column((i) => i % 3) }), ['codebook']);
    const bytes = files.get('made-codebook.html');
    expect((await validator.validateString(new TextDecoder().decode(bytes))).valid).toBe(true);
  });
});
