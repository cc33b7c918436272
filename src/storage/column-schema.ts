import * as z from 'zod';
import type { BinaryColumn } from '../core/extract/binary-column';
import type { Codes } from '../core/extract/dictionary-column';

const bytesSchema = z.custom<Uint8Array>((value) => value instanceof Uint8Array);
const endsSchema = z.custom<Uint32Array>((value) => value instanceof Uint32Array);
const digitsSchema = z.custom<Float64Array>((value) => value instanceof Float64Array);
const codesSchema = z.custom<Codes>(
  (value) => value instanceof Uint8Array || value instanceof Uint16Array || value instanceof Uint32Array,
);

/** A column as it is kept. */
export const columnSchema: z.ZodType<BinaryColumn> = z.discriminatedUnion('form', [
  z.object({ form: z.literal('dictionary'), bytes: bytesSchema, ends: endsSchema, codes: codesSchema }),
  z.object({ form: z.literal('packed'), bytes: bytesSchema, ends: endsSchema }),
  z.object({
    form: z.literal('coded-numbers'),
    digits: digitsSchema,
    decimals: z.number(),
    odd: z.array(z.tuple([z.number(), z.string()])),
    codes: codesSchema,
  }),
  z.object({
    form: z.literal('numbers'),
    cells: digitsSchema,
    decimals: z.number(),
    odd: z.array(z.string()),
  }),
]);
