import type { Column } from './column';
import { DictionaryColumn, type Codes } from './dictionary-column';
import { NumberColumn } from './number-column';
import { PackedColumn } from './packed-column';
import { NumberTexts, type TextList } from './text-list';

/** Texts as binary: packed like cells, or the numbers that they write. */
export type BinaryTexts =
  | { bytes: Uint8Array; ends: Uint32Array }
  | { digits: Float64Array; decimals: number; odd: [place: number, text: string][] };

/** A column as it is kept, and as it is given from one thread to another. */
export type BinaryColumn =
  | { form: 'dictionary'; bytes: Uint8Array; ends: Uint32Array; codes: Codes }
  | { form: 'packed'; bytes: Uint8Array; ends: Uint32Array }
  | {
      form: 'coded-numbers';
      digits: Float64Array;
      decimals: number;
      odd: [place: number, text: string][];
      codes: Codes;
    }
  | { form: 'numbers'; cells: Float64Array; decimals: number; odd: string[] };

const encoder = new TextEncoder();
const decoder = new TextDecoder('utf-8', { ignoreBOM: true });

/** A column as binary: a dictionary's texts are packed like cells. */
export function toBinary(column: Column): BinaryColumn {
  if (column.form === 'packed') return { form: 'packed', bytes: column.bytes, ends: column.ends };
  if (column.form === 'numbers')
    return { form: 'numbers', cells: column.cells, decimals: column.decimals, odd: [...column.odd] };
  const texts = textsToBinary(column.texts);
  return 'digits' in texts
    ? { form: 'coded-numbers', ...texts, codes: column.codes }
    : { form: 'dictionary', ...texts, codes: column.codes };
}

export function fromBinary(binary: BinaryColumn): Column {
  switch (binary.form) {
    case 'numbers':
      return new NumberColumn(binary.cells, binary.decimals, binary.odd);
    case 'packed':
      return new PackedColumn(binary.bytes, binary.ends);
    case 'dictionary':
    case 'coded-numbers':
      return new DictionaryColumn(textsFromBinary(binary), binary.codes);
  }
}

export function textsToBinary(texts: TextList): BinaryTexts {
  if (texts instanceof NumberTexts) {
    const { digits, decimals, odd } = texts;
    return { digits, decimals, odd: [...odd] };
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
  return { bytes, ends };
}

export function textsFromBinary(binary: BinaryTexts): TextList {
  if ('digits' in binary) return new NumberTexts(binary.digits, binary.decimals, new Map(binary.odd));
  const { bytes, ends } = binary;
  const whole = decoder.decode(bytes);
  const plain = bytes.length === whole.length;
  return Array.from(ends, (end, i) => {
    const begin = i === 0 ? 0 : ends[i - 1];
    return plain ? whole.slice(begin, end) : decoder.decode(bytes.subarray(begin, end));
  });
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
