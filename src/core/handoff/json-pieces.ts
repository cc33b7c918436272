/**
 * A document as JSON, indented by one blank, in pieces that are each as long as one member of it: together the same text as
 * `JSON.stringify(document, null, 1)` and a line break, which may be longer than a text can be.
 */
export function* jsonPieces(document: object): Generator<string> {
  const members = Object.entries(document).filter(([, value]) => value !== undefined);
  if (members.length === 0) yield '{}';
  for (const [i, [key, value]] of members.entries()) {
    yield `${i === 0 ? '{' : ','}\n ${JSON.stringify(key)}: `;
    if (!Array.isArray(value) || value.length === 0) yield indented(value, 1);
    else {
      for (const [n, one] of (value as unknown[]).entries())
        yield `${n === 0 ? '[' : ','}\n  ${indented(one ?? null, 2)}`;
      yield '\n ]';
    }
  }
  yield members.length ? '\n}\n' : '\n';
}

/** A value as it is written so deep inside of others: it is put into as many lists, and what stands around it is cut off. */
function indented(value: unknown, by: 1 | 2): string {
  const text = JSON.stringify(by === 1 ? [value] : [[value]], null, 1);
  const around = by === 1 ? '[\n ' : '[\n [\n  ';
  const after = by === 1 ? '\n]' : '\n ]\n]';
  return text.slice(around.length, -after.length);
}
