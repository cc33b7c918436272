import { Tokenizer, TokenParser, TokenType } from '@streamparser/json';
import { InputError } from '../extract/problem';

/** Deeper than this nothing is nested that is a table. */
const MOST_DEEP = 500;

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
      if (token === TokenType.LEFT_BRACE || token === TokenType.LEFT_BRACKET) {
        if (++this.depth > MOST_DEEP)
          throw this.refused(`values are nested more than ${MOST_DEEP} deep, which no table is`);
      } else if (token === TokenType.RIGHT_BRACE || token === TokenType.RIGHT_BRACKET) this.depth--;
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
    if (this.failed) throw this.failed instanceof InputError ? this.failed : this.problem(this.failed);
  }

  private refused(says: string): InputError {
    return new InputError({ file: this.file, line: this.line, says });
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
