import { z } from 'zod';
import type { Column } from '../core/extract/column';
import { DictionaryColumn, type Codes } from '../core/extract/dictionary-column';
import { NumberColumn } from '../core/extract/number-column';
import { PackedColumn } from '../core/extract/packed-column';
import { NumberTexts } from '../core/extract/text-list';

const bytesSchema = z.custom<Uint8Array>((value) => value instanceof Uint8Array);
const endsSchema = z.custom<Uint32Array>((value) => value instanceof Uint32Array);
const digitsSchema = z.custom<Float64Array>((value) => value instanceof Float64Array);
const codesSchema = z.custom<Codes>(
  (value) => value instanceof Uint8Array || value instanceof Uint16Array || value instanceof Uint32Array,
);
/** A column as it is kept. */
export const columnSchema = z.discriminatedUnion('form', [
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
export type BinaryColumn = z.infer<typeof columnSchema>;

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8', { ignoreBOM: true });

/** A column as binary: a dictionary's texts are packed like cells. */
export function toBinary(column: Column): BinaryColumn {
  if (column.form === 'packed') return { form: 'packed', bytes: column.bytes, ends: column.ends };
  if (column.form === 'numbers')
    return { form: 'numbers', cells: column.cells, decimals: column.decimals, odd: [...column.odd] };
  const { texts, codes } = column;
  if (texts instanceof NumberTexts) {
    const { digits, decimals, odd } = texts;
    return { form: 'coded-numbers', digits, decimals, odd: [...odd], codes };
  }
  const whole = [...texts].join('');
  const bytes = encoder.encode(whole);
  // Where every character is one byte, which is nearly always, lengths are those of the texts.
  const plain = bytes.length === whole.length;
  const ends = new Uint32Array(texts.length);
  let at = 0;
  texts.forEach((text, i) => {
    ends[i] = at += plain ? text.length : encoder.encode(text).length;
  });
  return { form: 'dictionary', bytes, ends, codes };
}

export function fromBinary(binary: BinaryColumn): Column {
  if (binary.form === 'numbers') return new NumberColumn(binary.cells, binary.decimals, binary.odd);
  if (binary.form === 'coded-numbers')
    return new DictionaryColumn(
      new NumberTexts(binary.digits, binary.decimals, new Map(binary.odd)),
      binary.codes,
    );
  const { bytes, ends } = binary;
  if (binary.form === 'packed') return new PackedColumn(bytes, ends);
  const whole = decoder.decode(bytes);
  const plain = bytes.length === whole.length;
  const texts = Array.from(ends, (end, i) => {
    const begin = i === 0 ? 0 : ends[i - 1];
    return plain ? whole.slice(begin, end) : decoder.decode(bytes.subarray(begin, end));
  });
  return new DictionaryColumn(texts, binary.codes);
}

/** Bytes that a column takes. */
export function sizeOf(binary: BinaryColumn): number {
  switch (binary.form) {
    case 'packed':
      return binary.bytes.byteLength + binary.ends.byteLength;
    case 'dictionary':
      return binary.bytes.byteLength + binary.ends.byteLength + binary.codes.byteLength;
    case 'coded-numbers':
      return binary.digits.byteLength + binary.codes.byteLength;
    case 'numbers':
      return binary.cells.byteLength;
  }
}
