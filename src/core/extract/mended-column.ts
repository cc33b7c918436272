import { ColumnBuilder, columnOf, type Column } from './column';
import { DictionaryColumn, type Codes } from './dictionary-column';

/** A column in which some cells hold other texts. @param texts by zero-based row */
export function columnWith(column: Column, texts: ReadonlyMap<number, string>): Column {
  if (texts.size === 0) return column;
  if (column.form === 'dictionary') {
    const place = new Map(column.texts.map((text, code) => [text, code]));
    const more: string[] = [];
    for (const text of texts.values())
      if (!place.has(text)) {
        place.set(text, column.texts.length + more.length);
        more.push(text);
      }
    const codes = roomFor(column.codes, column.texts.length + more.length);
    for (const [row, text] of texts) codes[row] = place.get(text) ?? 0;
    return new DictionaryColumn([...column.texts, ...more], codes);
  }
  const builder = new ColumnBuilder();
  let from = 0;
  for (const row of [...texts.keys()].sort((a, b) => a - b)) {
    builder.pushColumn(column, from, row);
    builder.pushColumn(columnOf([texts.get(row) ?? '']));
    from = row + 1;
  }
  builder.pushColumn(column, from);
  return builder.finish();
}

/** A column with more cells behind its own. */
export function longerBy(column: Column, texts: readonly string[]): Column {
  if (texts.length === 0) return column;
  const builder = new ColumnBuilder();
  builder.pushColumn(column);
  builder.pushColumn(columnOf(texts));
  return builder.finish();
}

/** A copy of codes in integers that hold so many. */
function roomFor(codes: Codes, distinct: number): Codes {
  const Kind = distinct <= 0x100 ? Uint8Array : distinct <= 0x10000 ? Uint16Array : Uint32Array;
  return codes.BYTES_PER_ELEMENT >= Kind.BYTES_PER_ELEMENT ? codes.slice() : Kind.from(codes);
}
