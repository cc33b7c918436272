import type { ColumnMetaData, KeyValue, SchemaElement } from 'hyparquet';
import type { LeavingVariable } from '../leaving';
import type { Native } from '../native';

/**
 * What is known of a variable, as metadata of its field: label, question, universe, unit, kind, and as JSON what its codes mean
 * and which of them stand for no answer, and why. Codes stand as the cells hold them.
 */
export function fieldMetadata({ entry, inspected }: LeavingVariable, native: Native): Map<string, string> {
  const isNumber = native.type === 'number' || native.type === 'integer';
  const code = (text: string): string => {
    const plain = native.whole ? native.plain(text) : null;
    // As the shortest text of the number that the cells hold.
    return plain && isNumber && Number.isFinite(Number(plain)) && !native.beyond
      ? String(Number(plain))
      : (plain ?? text);
  };
  const labels = entry.categories.flatMap(({ code: of, label }) =>
    label === null ? [] : [[code(of), label]],
  );
  const missing = [
    ...entry.categories.flatMap(({ code: of, missing: is, reason }) =>
      is ? [[code(of), reason ?? 'other']] : [],
    ),
    ...entry.missingTexts.map((text) => [text, 'other']),
  ];
  const said: [string, string | null][] = [
    ['label', entry.label],
    ['question', entry.question],
    ['universe', entry.universe],
    ['unit', entry.units],
    ['kind', inspected.kind],
    ['labels', labels.length ? JSON.stringify(Object.fromEntries(labels)) : null],
    ['missing', missing.length ? JSON.stringify(Object.fromEntries(missing)) : null],
  ];
  return new Map(said.filter((one): one is [string, string] => Boolean(one[1])));
}

/** Keys under which readers of whole tables find what is said of each column: pandas keeps attributes of a frame so. */
export function tableMetadata(
  title: string,
  said: readonly { name: string; metadata: ReadonlyMap<string, string> }[],
): KeyValue[] {
  const variables = said.map(({ name, metadata }) => [
    name,
    Object.fromEntries(
      [...metadata].map(([key, value]) => [
        key,
        key === 'labels' || key === 'missing' ? (JSON.parse(value) as unknown) : value,
      ]),
    ),
  ]);
  return [
    { key: 'title', value: title },
    { key: 'PANDAS_ATTRS', value: JSON.stringify({ title, variables: Object.fromEntries(variables) }) },
  ];
}

/**
 * The schema as Apache Arrow writes it, with the metadata of each field: where readers that build on Arrow look for it (Arrow
 * columnar format, IPC; kept in base 64 under `ARROW:schema`).
 */
export async function arrowSchema(
  columns: readonly SchemaElement[],
  said: readonly ReadonlyMap<string, string>[],
): Promise<KeyValue> {
  const arrow = await import('apache-arrow');
  const typeOf = ({ type, logical_type: logical }: SchemaElement): InstanceType<typeof arrow.DataType> => {
    if (logical?.type === 'DATE') return new arrow.DateDay();
    if (logical?.type === 'TIME') return new arrow.TimeMicrosecond();
    if (logical?.type === 'TIMESTAMP')
      return new arrow.TimestampMicrosecond(logical.isAdjustedToUTC ? 'UTC' : null);
    if (type === 'INT32') return new arrow.Int32();
    if (type === 'INT64') return new arrow.Int64();
    if (type === 'DOUBLE') return new arrow.Float64();
    return type === 'BOOLEAN' ? new arrow.Bool() : new arrow.Utf8();
  };
  const schema = new arrow.Schema(
    columns.map((column, i) => new arrow.Field(column.name, typeOf(column), true, new Map(said[i]))),
  );
  const stream = arrow.tableToIPC(new arrow.Table(schema), 'stream');
  // The message of the schema alone, without the mark for the end of the stream.
  const length = new DataView(stream.buffer, stream.byteOffset).getInt32(4, true);
  const message = stream.subarray(0, 8 + length);
  let binary = '';
  for (const byte of message) binary += String.fromCharCode(byte);
  return { key: 'ARROW:schema', value: btoa(binary) };
}

/** Puts the metadata of a field to its columns of all row groups, where the format itself has room for it. */
export function annotate(column: ColumnMetaData | undefined, said: ReadonlyMap<string, string>): void {
  if (column && said.size) column.key_value_metadata = [...said].map(([key, value]) => ({ key, value }));
}
