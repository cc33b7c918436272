import { TokenType } from '@streamparser/json';
import { InputError } from '../extract/problem';
import { JsonReader, type Token } from './json-reader';

/**
 * Documents that hold a table otherwise than record by record: a list or an object for each column (`columns`), an object for
 * each row under the row's name (`index`), or names and rows side by side (`split`).
 */
export const TABLE_SHAPES = ['columns', 'index', 'split'] as const;
export type TableShape = (typeof TABLE_SHAPES)[number];
export const isTableShape = (records: string): records is TableShape =>
  (TABLE_SHAPES as readonly string[]).includes(records);

/** What stands under a name of a document's first level, as far as it was seen. */
interface Member {
  name: string;
  holds: 'list' | 'object' | 'value';
  /** What the first element of it is. */
  first: 'list' | 'object' | 'value' | null;
  /** Names of an object, or the number of elements of a list. */
  names: string[];
  elements: number;
}

/** Members of the document that a text begins with; what breaks off at its end, or is no JSON, ends them. */
function membersOf(text: string): Member[] {
  const members: Member[] = [];
  let depth = 0;
  let member: Member | null = null;
  let key: string | null = null;
  let expectsKey = true;
  const holding = (token: TokenType): Member['holds'] =>
    token === TokenType.LEFT_BRACE ? 'object' : token === TokenType.LEFT_BRACKET ? 'list' : 'value';
  const take = ({ token, value }: Token): void => {
    const opens = token === TokenType.LEFT_BRACE || token === TokenType.LEFT_BRACKET;
    const closes = token === TokenType.RIGHT_BRACE || token === TokenType.RIGHT_BRACKET;
    if (closes) depth--;
    else if (depth === 1) {
      if (token === TokenType.COMMA) [key, expectsKey] = [null, true];
      else if (token === TokenType.COLON) expectsKey = false;
      else if (expectsKey) key = String(value);
      else if (key !== null) {
        member = { name: key, holds: holding(token), first: null, names: [], elements: 0 };
        members.push(member);
      }
    } else if (depth === 2 && member && token !== TokenType.COMMA) {
      if (member.holds === 'list') {
        member.first ??= holding(token);
        member.elements++;
      } else if (token === TokenType.COLON) expectsKey = false;
      else if (expectsKey) member.names.push(String(value));
      else member.first ??= holding(token);
    }
    if (depth === 2 && member?.holds === 'object' && token === TokenType.COMMA) expectsKey = true;
    if (opens) {
      depth++;
      if (depth === 2) expectsKey = true;
    }
  };
  try {
    new JsonReader('', take).write(text);
  } catch {
    // What was seen up to there tells enough.
  }
  return members;
}

const isPlace = (name: string): boolean => /^\d+$/.test(name);

/** Where the records of a document that is one object are, by its beginning. */
export function guessShape(text: string): { records: TableShape | `in ${string}`; because: string } | null {
  const members = membersOf(text);
  const list = members.find(({ holds, first }) => holds === 'list' && first === 'object');
  if (list)
    return {
      records: `in ${list.name}`,
      because: `the document’s member “${list.name}” is a list of records`,
    };
  const named = (name: string): Member | undefined => members.find((one) => one.name === name);
  if (named('columns')?.holds === 'list' && named('data')?.first === 'list')
    return { records: 'split', because: 'names and rows stand side by side, under columns and data' };
  if (members.length === 0) return null;
  if (members.every(({ holds, first }) => holds === 'list' && (first === 'value' || first === null))) {
    // The last may break off.
    const lengths = new Set(
      members.slice(0, Math.max(1, members.length - 1)).map(({ elements }) => elements),
    );
    const [length] = lengths;
    return lengths.size === 1 && length > 1
      ? { records: 'columns', because: `${members.length} lists of ${length}: a list for each column` }
      : null;
  }
  if (members.length < 2 || !members.every(({ holds, first }) => holds === 'object' && first === 'value'))
    return null;
  const inner = members[0].names;
  const known = new Set(inner);
  // The last may break off.
  const alike = members
    .slice(1, members.length > 2 ? -1 : undefined)
    .every(({ names }) => names.filter((name) => known.has(name)).length * 2 >= names.length);
  if (!alike || inner.length === 0) return null;
  const columns =
    inner.every(isPlace) || (!members.every(({ name }) => isPlace(name)) && members.length < inner.length);
  return columns
    ? { records: 'columns', because: `${members.length} objects, one for each column` }
    : { records: 'index', because: `${members.length} objects, one for each row under its name` };
}

/** A table whose cells are raw texts. */
export interface JsonTable {
  names: string[];
  rows: string[][];
}

/** What an object or a list holds: its names, where it has some, and its values as raw texts; nested ones as JSON. */
interface Parts {
  names: string[] | null;
  values: string[];
}
/** @param taken the parts of a text: what a reader of records makes of one */
export type PartsOf = (text: string) => Parts;

/** Puts a table together. @param parts of the document itself @throws InputError where it has not the shape */
export function tableOf(file: string, shape: TableShape, parts: Parts, partsOf: PartsOf): JsonTable {
  const wrong = (says: string): InputError => new InputError({ file, says });
  const names = parts.names ?? [];
  if (shape === 'split') {
    const of = (name: string): Parts | null => {
      const at = names.indexOf(name);
      return at < 0 ? null : partsOf(parts.values[at]);
    };
    const [columns, data, index] = [of('columns'), of('data'), of('index')];
    if (!columns || !data)
      throw wrong('names and rows are expected under “columns” and “data”; one of them is missing');
    const rows = data.values.map((row) => partsOf(row).values);
    const longer = rows.findIndex((row) => row.length > columns.values.length);
    if (longer >= 0)
      throw wrong(`row ${longer + 1} has ${rows[longer].length} values for ${columns.values.length} names`);
    return withKeys({ names: columns.values, rows }, index?.values ?? []);
  }
  if (shape === 'index') {
    const places = new Map<string, number>();
    const rows = parts.values.map((text) => {
      const { names: keys, values } = partsOf(text);
      if (!keys) throw wrong('an object is expected for each row');
      const row: string[] = [];
      keys.forEach((key, i) => {
        let place = places.get(key);
        if (place === undefined) places.set(key, (place = places.size));
        while (row.length <= place) row.push('');
        row[place] = values[i];
      });
      return row;
    });
    return withKeys({ names: [...places.keys()], rows }, names);
  }
  const keys = new Map<string, number>();
  const columns = parts.values.map((text) => {
    const own = partsOf(text);
    const cells: string[] = [];
    own.values.forEach((value, i) => {
      const key = own.names?.[i] ?? String(i);
      let place = keys.get(key);
      if (place === undefined) keys.set(key, (place = keys.size));
      cells[place] = value;
    });
    return cells;
  });
  const rows = Array.from(keys.keys(), (_, row) => columns.map((cells) => cells[row] ?? ''));
  return withKeys({ names, rows }, [...keys.keys()]);
}

/** A table with the names of its rows before the others, unless they only count them. */
function withKeys({ names, rows }: JsonTable, keys: readonly string[]): JsonTable {
  if (keys.length !== rows.length || keys.every((key, i) => key === String(i))) return { names, rows };
  let name = 'index';
  for (let n = 2; names.includes(name); n++) name = `index_${n}`;
  return { names: [name, ...names], rows: rows.map((row, i) => [keys[i], ...row]) };
}
