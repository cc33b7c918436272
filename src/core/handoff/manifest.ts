import * as z from 'zod';
import { accountSchema, rowCountsSchema } from '../inspect/schema';

/** What a handoff wrote, so that whoever receives it can check that all of it arrived. */
export const manifestSchema = z.object({
  format: z.literal('dig-first-manifest'),
  version: z.literal(1),
  files: z
    .array(z.object({ name: z.string(), bytes: z.number(), sha256: z.string().regex(/^[0-9a-f]{64}$/) }))
    .describe('all but the manifest itself'),
  rows: rowCountsSchema,
  sieve: z.array(accountSchema),
  variables: z.array(z.string()).describe('names under which variables went out'),
  wentAlong: z.array(z.string()).describe('those of them that were not asked for'),
  leftOut: z.array(z.string()).describe('the archive’s names of those that did not'),
});
export type Manifest = z.infer<typeof manifestSchema>;
