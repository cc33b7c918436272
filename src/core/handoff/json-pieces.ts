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

/** Line breaks in texts are written as signs of their own, so those that are left are between members. */
const indented = (value: unknown, by: number): string =>
  (JSON.stringify(value, null, 1) ?? 'null').replaceAll('\n', `\n${' '.repeat(by)}`);
