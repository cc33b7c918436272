import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { dig, HOMES, written } from '../../testing/homes';
import { DEFINITIONS } from './definitions';

it('definitions stand in report and codebook, and their sources at length in the documentation', async () => {
  const page = readFileSync(join(import.meta.dirname, '../../../docs/definitions.md'), 'utf8');
  for (const [, says] of DEFINITIONS)
    for (const source of says.match(/[A-Z][a-z]+(?: & [A-Z][a-z]+)? (?=\(?\d{4})/g) ?? [])
      expect(page).toContain(source.trim());
  for (const [name, bytes] of await written(dig(HOMES), ['report', 'codebook'])) {
    if (!name.endsWith('.html')) continue;
    const text = new TextDecoder().decode(bytes);
    expect(text).toContain('<a href="#definitions">');
    expect(text).toContain('type 7 of Hyndman &amp; Fan (1996)');
  }
});
