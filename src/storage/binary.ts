import { z } from 'zod';
import { DictionaryColumn, PackedColumn, type Codes, type Column } from '../core/extract/column';

const bytesSchema = z.custom<Uint8Array>((value) => value instanceof Uint8Array);
const endsSchema = z.custom<Uint32Array>((value) => value instanceof Uint32Array);
const codesSchema = z.custom<Codes>(
  (value) => value instanceof Uint8Array || value instanceof Uint16Array || value instanceof Uint32Array,
);
/** A column as it is kept. */
export const columnSchema = z.discriminatedUnion('form', [
  z.object({ form: z.literal('dictionary'), bytes: bytesSchema, ends: endsSchema, codes: codesSchema }),
  z.object({ form: z.literal('packed'), bytes: bytesSchema, ends: endsSchema }),
]);
export type BinaryColumn = z.infer<typeof columnSchema>;

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8', { ignoreBOM: true });

/** A column as binary: a dictionary's texts are packed like cells. */
export function toBinary(column: Column): BinaryColumn {
  if (column.form === 'packed') return { form: 'packed', bytes: column.bytes, ends: column.ends };
  const whole = column.texts.join('');
  const bytes = encoder.encode(whole);
  // Where every character is one byte, which is nearly always, lengths are those of the texts.
  const plain = bytes.length === whole.length;
  const ends = new Uint32Array(column.texts.length);
  let at = 0;
  column.texts.forEach((text, i) => {
    ends[i] = at += plain ? text.length : encoder.encode(text).length;
  });
  return { form: 'dictionary', bytes, ends, codes: column.codes };
}

export function fromBinary(binary: BinaryColumn): Column {
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
export const sizeOf = (binary: BinaryColumn): number =>
  binary.bytes.byteLength +
  binary.ends.byteLength +
  (binary.form === 'dictionary' ? binary.codes.byteLength : 0);
