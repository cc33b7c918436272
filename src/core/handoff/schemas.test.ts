import { join } from 'node:path';
import { expect, it } from 'vitest';
import * as z from 'zod';
import { inspectionSchema } from '../inspect/schema';
import { standingRulesSchema } from '../flags/standing-rules';
import { setsSchema } from '../log/carry-sets';
import { logSchema } from '../log/entries';
import { rowsSchema } from '../inspect/rows-schema';
import { crossSchema, everythingSchema } from '../inspect/cross-document';
import { recodesSchema } from '../recode/recode';
import { manifestSchema } from './manifest';
import { sieveSchema } from '../sieve/condition';

const folder = join(import.meta.dirname, '../../../docs/formats');

// `npx vitest run -u` writes them anew after a schema has changed.
it.each([
  ['inspection', inspectionSchema],
  ['dig-log', logSchema],
  ['standing-rules', standingRulesSchema],
  ['sets', setsSchema],
  ['sieve', sieveSchema],
  ['rows', rowsSchema],
  ['recodes', recodesSchema],
  ['manifest', manifestSchema],
  ['cross-check', z.union([crossSchema, everythingSchema])],
])('the published JSON Schema of the %s is that of the code', async (name, schema) => {
  await expect(`${JSON.stringify(z.toJSONSchema(schema, { io: 'input' }), null, 1)}\n`).toMatchFileSnapshot(
    join(folder, `${name}.schema.json`),
  );
});
