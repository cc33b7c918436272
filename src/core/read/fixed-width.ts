import { InputError } from '../extract/problem';
import { decoded, guessEncoding, type Encoding } from './encoding';
import { unpacked } from './gzip';
import { isBlank } from './looks';
import { Notices } from './notices';
import { firstBytes, type ByteSource, type Control } from './source';
import type { FileRead, RowTaker } from './taker';

/** One column of a fixed-width file: one-based places in the line, both included. */
export interface Place {
  name: string;
  start: number;
  end: number;
}

/** Where the columns of a fixed-width file stand. */
export type Layout = readonly Place[];

const SAMPLE_BYTES = 1 << 18;
const PIECE = 1 << 19;

/** The length that a line must have for every column to be in it. */
export const lineLength = (layout: Layout): number => Math.max(...layout.map(({ end }) => end));

/** Cuts a line at the places of a layout. The blanks and the padding around a cell belong to the form, not to the cell. */
export function cutLine(line: string, layout: Layout): string[] {
  return layout.map(({ start, end }) => line.slice(start - 1, end).trim());
}

/** Whether the first lines of a text fit a layout: long enough, and none much longer than the rest. */
export function fitsLayout(text: string, layout: Layout): boolean {
  const lines = text.split(/\r\n|\n|\r/).slice(0, 50);
  if (lines.length > 1) lines.pop();
  const filled = lines.filter((line) => line !== '');
  if (filled.length === 0) return false;
  const wanted = lineLength(layout);
  const longest = Math.max(...filled.map((line) => line.length));
  const same = filled.filter((line) => line.length === longest).length;
  // Trailing blanks may have been cut off, so lines may be somewhat short, but never all of them.
  return longest >= Math.max(1, wanted * 0.8) && longest <= wanted + 2 && same >= filled.length * 0.3;
}

/** Encoding and first lines of a fixed-width file, cut into cells. @throws InputError for an empty file */
export async function lookAtFixedWidth(
  source: ByteSource,
  layout: Layout,
  chosen: Encoding | undefined,
  most: number,
): Promise<{ encoding: Encoding; because: string; rows: string[][]; packed: boolean }> {
  const plain = await unpacked(source);
  const { bytes } = await firstBytes(plain.open(), SAMPLE_BYTES);
  const guessed = guessEncoding(bytes);
  const encoding = chosen ?? guessed.encoding;
  let text = '';
  for await (const part of decoded(one(bytes), encoding, () => undefined)) text += part;
  const lines = text.split(/\r\n|\n|\r/).filter((line) => line !== '');
  if (lines.length === 0)
    throw new InputError({ file: source.name, line: 1, says: 'the file holds no line' });
  return {
    encoding,
    because: chosen ? 'chosen' : guessed.because,
    rows: lines.slice(0, most).map((line) => cutLine(line, layout)),
    packed: plain.packed,
  };
}

/** Reads a fixed-width file to its end. Lines too short or too long are kept and noticed. */
export async function readFixedWidth(
  source: ByteSource,
  encoding: Encoding,
  layout: Layout,
  taker: RowTaker,
  control: Control,
  mostRows: number | null,
): Promise<FileRead> {
  const file = source.name;
  const opened = await unpacked(source);
  const notices = new Notices();
  const wanted = lineLength(layout);
  const lines: [number, number][] = [];
  let usual = 0;
  let read = 0;
  let line = 0;
  let partial = false;
  let as: string = encoding;
  taker.names(layout.map(({ name }) => name));

  const take = (text: string): void => {
    const batch: string[][] = [];
    for (const content of text.split('\n')) {
      line++;
      if (mostRows !== null && read + batch.length >= mostRows) {
        partial ||= content !== '';
        continue;
      }
      if (isBlank(content)) {
        if (content !== '')
          notices.add(line, 'the line holds only blanks and was passed over', 'empty lines');
        continue;
      }
      usual ||= content.length;
      if (content.length < wanted && content.length < usual)
        notices.add(
          line,
          `the line has ${content.length} characters, ${wanted} expected; what is not there is blank`,
          'short lines',
        );
      else if (content.length > Math.max(wanted, usual))
        notices.add(
          line,
          `the line has ${content.length} characters, ${wanted} expected; not read: ${content.slice(wanted).trim().slice(0, 120)}`,
          'long lines',
        );
      const row = read + batch.length;
      const before = lines.at(-1);
      if (!before || before[1] + row - before[0] !== line) lines.push([row, line]);
      batch.push(cutLine(content, layout));
    }
    if (batch.length) taker.rows(batch);
    read += batch.length;
  };

  let text = '';
  for await (const part of decoded(opened.open(), encoding, (to) => {
    if (to !== 'damaged') as = to;
    notices.add(
      undefined,
      to === 'damaged'
        ? 'some bytes are not valid UTF-8; they stand as \uFFFD'
        : 'the bytes are not valid UTF-8; read as Windows-1252',
      'encoding',
    );
  })) {
    text += part;
    if (text.length < PIECE) continue;
    const end = text.lastIndexOf('\n');
    if (end < 0) continue;
    take(text.slice(0, end).replace(/\r\n?/g, '\n'));
    text = text.slice(end + 1);
    control.progress?.(file, opened.consumed(), read);
    await control.breathe?.();
    if (partial) break;
  }
  if (text)
    take(
      text
        .replace(/\r\n?$/, '')
        .replace(/\n$/, '')
        .replace(/\r\n?/g, '\n'),
    );
  if (read === 0)
    throw new InputError({ file, says: 'the file holds no line; fetch it again or choose another' });
  control.progress?.(file, source.bytes, read);
  return { rows: read, columns: layout.length, encoding: as, partial, lines, notices: notices.list() };
}

async function* one(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}
