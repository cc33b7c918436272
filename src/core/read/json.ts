import { Tokenizer, TokenParser, TokenType } from '@streamparser/json';
import { InputError } from '../extract/problem';
import { decoded, guessEncoding } from './encoding';
import { unpacked } from './gzip';
import { Notices } from './notices';
import { firstBytes, type ByteSource, type Control } from './source';
import type { FileRead, RowTaker } from './taker';

/**
 * Where the records of a JSON document are: its elements (`list`), documents one after the other (`lines`), or the
 * list that a member of the one document holds (its name after `in `).
 */
export type Records = 'list' | 'lines' | `in ${string}`;

const SAMPLE_BYTES = 1 << 18;
const BATCH = 2000;

/** Tokens with the raw text of numbers, so that `1.0` and integers of any length stay as they stand. */
class RawTokenizer extends Tokenizer {
  override parseNumber(text: string): number {
    return text as unknown as number;
  }
}

export interface Token {
  token: TokenType;
  value: unknown;
  /** Bytes before it, from the beginning of the text. */
  offset?: number;
}

/**
 * Tokens of a JSON text as it comes in, checked for their grammar.
 * @throws InputError with file and line where it is no JSON
 */
export class JsonReader {
  private line = 1;
  private before = 0;
  private readonly tokenizer = new RawTokenizer({ separator: '' });
  private readonly parser = new TokenParser({ paths: ['$.\u0000'], keepStack: false, separator: '' });
  private readonly encoder = new TextEncoder();
  private part = new Uint8Array(0);
  private failed: Error | null = null;
  /** Bytes before the last token. */
  private at = 0;
  private depth = 0;

  constructor(
    private readonly file: string,
    private readonly onToken: (token: Token) => void,
  ) {
    this.tokenizer.onToken = (found) => {
      if (this.failed) return;
      this.at = found.offset;
      const { token } = found;
      if (token === TokenType.LEFT_BRACE || token === TokenType.LEFT_BRACKET) this.depth++;
      else if (token === TokenType.RIGHT_BRACE || token === TokenType.RIGHT_BRACKET) this.depth--;
      this.parser.write(found);
      if (!this.isBroken) this.onToken(found as Token);
    };
    const fail = (error: Error): void => {
      this.failed ??= error;
    };
    this.tokenizer.onError = fail;
    this.parser.onError = fail;
    this.parser.onValue = () => undefined;
  }

  /** One-based line at which the reading stands. */
  write(text: string): void {
    this.part = this.encoder.encode(text);
    this.run(() => this.tokenizer.write(this.part));
    for (const byte of this.part) if (byte === 10) this.line++;
    this.before += this.part.length;
  }

  end(): void {
    this.part = new Uint8Array(0);
    this.run(() => {
      if (!this.tokenizer.isEnded) this.tokenizer.end();
      // The packages are content with documents that are merely not contradicted yet.
      if (this.depth > 0) throw new Error('ended in the middle');
    });
  }

  private get isBroken(): boolean {
    return this.failed !== null;
  }

  private run(work: () => void): void {
    try {
      work();
    } catch (cause) {
      if (cause instanceof InputError) throw cause;
      this.failed ??= cause as Error;
    }
    if (this.failed) throw this.problem(this.failed);
  }

  private problem({ message }: Error): InputError {
    let line = this.line;
    const told = /position "?(\d+)/.exec(message);
    const at = (told ? Number(told[1]) : this.at) - this.before;
    for (let i = 0; i < Math.min(this.part.length, at); i++) if (this.part[i] === 10) line++;
    const ended = /ended in the middle/i.test(message);
    return new InputError({
      file: this.file,
      line,
      says: ended
        ? 'the JSON ends in the middle of a value; the file is cut off, fetch it again'
        : `this is no valid JSON (${message
            .replace(/^Error: /, '')
            .split('\n')[0]
            .slice(0, 160)})`,
    });
  }
}

/** Where the records of a document are, by its beginning; `null` where there can be none. */
export function guessRecords(start: string): { records: Records; because: string } | null {
  const text = start.replace(/^\uFEFF/, '').trimStart();
  if (text.startsWith('[')) return { records: 'list', because: 'the document is a list' };
  if (!text.startsWith('{')) return null;
  const [first, second = ''] = text.split(/\r?\n/, 2);
  if (second.trimStart().startsWith('{')) {
    try {
      JSON.parse(first);
      return { records: 'lines', because: 'every line is a document of its own' };
    } catch {
      // The first line is the beginning of something longer.
    }
  }
  const member = /"((?:[^"\\]|\\.)*)"\s*:\s*\[\s*\{/.exec(text)?.[1];
  return member !== undefined && depthOf(text, member) === 1
    ? { records: `in ${member}`, because: `the document’s member “${member}” is a list of records` }
    : { records: 'lines', because: 'one document, one record' };
}

/** How deep in the document a member of that name first stands. */
function depthOf(text: string, member: string): number {
  const at = text.indexOf(`"${member}"`);
  const before = text.slice(0, at).replace(/"(?:[^"\\]|\\.)*"/g, '');
  return (before.match(/[{[]/g)?.length ?? 0) - (before.match(/[}\]]/g)?.length ?? 0);
}

/** Puts records together from tokens: each becomes a row of raw texts; what is nested in a cell stays JSON. */
class RecordTaker {
  readonly names: string[] = [];
  private readonly places = new Map<string, number>();
  private rows: string[][] = [];
  private row: string[] | null = null;
  private seen = new Set<string>();
  private key: string | null = null;
  private nested = '';
  private depth = 0;
  private base: number;
  private member: string | null = null;
  private named = 0;
  count = 0;
  readonly repeated = new Set<string>();
  found = false;

  constructor(
    private readonly file: string,
    private readonly records: Records,
    private readonly most: number | null,
    private readonly taker: RowTaker,
  ) {
    this.base = records === 'list' ? 1 : records === 'lines' ? 0 : 2;
  }

  get done(): boolean {
    return this.most !== null && this.count >= this.most;
  }

  take({ token, value }: Token): void {
    const opens = token === TokenType.LEFT_BRACE || token === TokenType.LEFT_BRACKET;
    const closes = token === TokenType.RIGHT_BRACE || token === TokenType.RIGHT_BRACKET;
    if (this.row) this.inRecord(token, value, opens, closes);
    else this.outside(token, value, opens, closes);
  }

  private outside(token: TokenType, value: unknown, opens: boolean, closes: boolean): void {
    if (closes) this.depth--;
    const within = this.depth === this.base && (this.base < 2 || this.member === this.records.slice(3));
    if (this.base === 2 && this.depth === 1 && token === TokenType.STRING) this.member = String(value);
    if (within && token === TokenType.LEFT_BRACE) {
      if (this.done) return void this.depth++;
      this.row = [];
      this.seen = new Set();
      this.key = null;
      this.found = true;
      return;
    }
    const isValue =
      opens ||
      [TokenType.STRING, TokenType.NUMBER, TokenType.TRUE, TokenType.FALSE, TokenType.NULL].includes(token);
    if (within && isValue && !(this.base === 0 && token === TokenType.LEFT_BRACKET && this.depth > 0)) {
      throw new InputError({
        file: this.file,
        says: `record ${this.count + 1} is no object with names and values; bring a list of records, each {"name": value, …}`,
      });
    }
    if (opens) this.depth++;
  }

  private inRecord(token: TokenType, value: unknown, opens: boolean, closes: boolean): void {
    if (this.nested) {
      this.nest(token, value, opens, closes);
      return;
    }
    if (token === TokenType.RIGHT_BRACE) {
      this.finish();
      return;
    }
    if (token === TokenType.COLON || token === TokenType.COMMA) return;
    if (this.key === null) {
      this.key = String(value);
      return;
    }
    if (opens) {
      this.nested = token === TokenType.LEFT_BRACE ? '{' : '[';
      this.level = 1;
      return;
    }
    this.put(token === TokenType.NULL ? '' : String(value));
  }

  private level = 0;

  private nest(token: TokenType, value: unknown, opens: boolean, closes: boolean): void {
    const signs: Partial<Record<TokenType, string>> = {
      [TokenType.LEFT_BRACE]: '{',
      [TokenType.RIGHT_BRACE]: '}',
      [TokenType.LEFT_BRACKET]: '[',
      [TokenType.RIGHT_BRACKET]: ']',
      [TokenType.COLON]: ':',
      [TokenType.COMMA]: ',',
    };
    this.nested += signs[token] ?? (token === TokenType.STRING ? JSON.stringify(value) : String(value));
    if (opens) this.level++;
    if (closes && --this.level === 0) {
      this.put(this.nested);
      this.nested = '';
    }
  }

  private put(text: string): void {
    const key = this.key as string;
    this.key = null;
    if (this.seen.has(key)) this.repeated.add(key);
    this.seen.add(key);
    let place = this.places.get(key);
    if (place === undefined) {
      place = this.names.length;
      this.places.set(key, place);
      this.names.push(key);
    }
    const row = this.row as string[];
    while (row.length <= place) row.push('');
    row[place] = text;
  }

  private finish(): void {
    this.rows.push(this.row as string[]);
    this.row = null;
    this.count++;
    if (this.rows.length >= BATCH) this.flush();
  }

  flush(): void {
    if (this.names.length > this.named) {
      this.named = this.names.length;
      this.taker.names([...this.names]);
    }
    if (this.rows.length) this.taker.rows(this.rows);
    this.rows = [];
  }
}

/** Names of all records looked at, and the first rows. @throws InputError where it is no JSON, or holds no record */
export async function lookAtJson(
  source: ByteSource,
  chosen: Records | undefined,
  most: number,
): Promise<{ records: Records; because: string; names: string[]; rows: string[][]; packed: boolean }> {
  const plain = await unpacked(source);
  const { bytes, whole } = await firstBytes(plain.open(), SAMPLE_BYTES);
  const text = new TextDecoder(guessEncoding(bytes).encoding).decode(bytes);
  const guess = guessRecords(text);
  if (!guess) throw new InputError({ file: source.name, line: 1, says: 'this is no list of JSON records' });
  const records = chosen ?? guess.records;
  const rows: string[][] = [];
  const take = new RecordTaker(source.name, records, most, {
    names: () => undefined,
    rows: (batch) => rows.push(...batch),
    spans: () => undefined,
  });
  const reader = new JsonReader(source.name, (token) => take.take(token));
  reader.write(text);
  if (whole) reader.end();
  take.flush();
  return {
    records,
    because: chosen ? 'chosen' : guess.because,
    names: [...take.names],
    rows,
    packed: plain.packed,
  };
}

/** Reads the records of a JSON document or of newline-delimited JSON, piece by piece. Keys that a record lacks are blank. */
export async function readJson(
  source: ByteSource,
  records: Records,
  taker: RowTaker,
  control: Control,
  mostRows: number | null,
): Promise<FileRead> {
  const file = source.name;
  const opened = await unpacked(source);
  const { bytes } = await firstBytes(opened.open(), 4096);
  const notices = new Notices();
  const take = new RecordTaker(file, records, mostRows, taker);
  const reader = new JsonReader(file, (token) => take.take(token));
  let encoding: string = guessEncoding(bytes).encoding;
  let partial = false;
  for await (const part of decoded(opened.open(), guessEncoding(bytes).encoding, (to) => {
    if (to !== 'damaged') encoding = to;
    notices.add(undefined, 'some bytes are not valid UTF-8', 'encoding');
  })) {
    reader.write(part);
    control.progress?.(file, opened.consumed(), take.count);
    await control.breathe?.();
    if (take.done) {
      partial = true;
      break;
    }
  }
  if (!partial) reader.end();
  take.flush();
  if (!take.found)
    throw new InputError({
      file,
      says: 'the document holds no record; bring a list of records, each {"name": value, …}',
    });
  if (take.names.length === 0)
    throw new InputError({ file, says: 'the records have no names; there is nothing to read' });
  for (const key of take.repeated)
    notices.add(undefined, `a record names “${key}” twice; its last value counts`, 'names');
  return { rows: take.count, columns: take.names.length, encoding, partial, notices: notices.list() };
}
