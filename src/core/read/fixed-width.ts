import { InputError } from '../extract/problem';
import { decoded, guessEncoding, turnedNotice, type Encoding } from './encoding';
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
  /** One-based line of its case, where a case takes several; else the only one. */
  record?: number;
}

/** Where the columns of a fixed-width file stand. */
export type Layout = readonly Place[];

const SAMPLE_BYTES = 1 << 18;
const PIECE = 1 << 19;

/** Lines that a case takes. */
const recordsOf = (layout: Layout): number => Math.max(1, ...layout.map(({ record = 1 }) => record));

/** The length that a line must have for every column of it to be in it. @param record which line of a case */
const lineLength = (layout: Layout, record = 1): number =>
  Math.max(0, ...layout.filter((place) => (place.record ?? 1) === record).map(({ end }) => end));

/** Cuts the lines of a case at the places of a layout. The blanks and the padding around a cell belong to the form, not to the cell. */
function cutCase(lines: readonly string[], layout: Layout): string[] {
  return layout.map(({ start, end, record = 1 }) => (lines[record - 1] ?? '').slice(start - 1, end).trim());
}

/** Whether the first lines of a text fit a layout: long enough, and none much longer than the rest. */
export function fitsLayout(text: string, layout: Layout): boolean {
  const lines = text.split(/\r\n|\n|\r/).slice(0, 60);
  if (lines.length > 1) lines.pop();
  const filled = lines.filter((line) => line !== '');
  if (filled.length === 0) return false;
  const records = recordsOf(layout);
  return Array.from({ length: records }, (_, i) => i).every((i) => {
    const own = filled.filter((_, at) => at % records === i);
    const wanted = lineLength(layout, i + 1);
    const longest = Math.max(0, ...own.map((line) => line.length));
    const same = own.filter((line) => line.length === longest).length;
    // Trailing blanks may have been cut off, so lines may be somewhat short, but never all of them.
    return longest >= Math.max(1, wanted * 0.8) && longest <= wanted + 2 && same >= own.length * 0.3;
  });
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
    rows: casesOf(lines, recordsOf(layout))
      .slice(0, most)
      .map((one) => cutCase(one, layout)),
    packed: plain.packed,
  };
}

/** The lines of each case, one after the other. */
const casesOf = (lines: readonly string[], records: number): string[][] =>
  Array.from({ length: Math.ceil(lines.length / records) }, (_, i) =>
    lines.slice(i * records, (i + 1) * records),
  );

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
  const records = recordsOf(layout);
  const lengths = Array.from({ length: records }, (_, i) => lineLength(layout, i + 1));
  const lines: [number, number][] = [];
  /** Lines of a case that is not whole yet. */
  let open: string[] = [];
  let firstLine = 0;
  const usual: number[] = lengths.map(() => 0);
  let longest = 0;
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
      const record = open.length;
      const wanted = lengths[record];
      usual[record] ||= content.length;
      longest = Math.max(longest, content.length);
      if (content.length < wanted && content.length < usual[record])
        notices.add(
          line,
          `the line has ${content.length} characters, ${wanted} expected; what is not there is blank`,
          'short lines',
        );
      else if (content.length > Math.max(wanted, usual[record]))
        notices.add(
          line,
          `the line has ${content.length} characters, ${wanted} expected; not read: ${content.slice(wanted).trim().slice(0, 120)}`,
          'long lines',
        );
      if (record === 0) firstLine = line;
      open.push(content);
      if (open.length < records) continue;
      const row = read + batch.length;
      const before = lines.at(-1);
      if (!before || before[1] + row - before[0] !== firstLine) lines.push([row, firstLine]);
      batch.push(cutCase(open, layout));
      open = [];
    }
    if (batch.length) taker.rows(batch);
    read += batch.length;
  };

  let text = '';
  for await (const part of decoded(opened.open(), encoding, (to) => {
    if (to !== 'damaged') as = to;
    notices.add(undefined, turnedNotice(to), 'encoding');
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
  if (open.length > 0)
    notices.add(
      firstLine,
      `a case takes ${records} lines, and the file ends after ${open.length} of its last one: it was not read`,
      'short lines',
    );
  const past = layout.filter(({ start }) => start > longest);
  if (past.length > 0 && !partial)
    notices.add(
      undefined,
      `the codebook places ${past
        .slice(0, 5)
        .map(({ name, start, end }) => `${name} (${start} to ${end})`)
        .join(
          ', ',
        )}${past.length > 5 ? ` and ${past.length - 5} more` : ''} past the end of every line, which has ${longest} characters at most: nothing was read there`,
      'past the end',
    );
  if (read === 0)
    throw new InputError({ file, says: 'the file holds no line; fetch it again or choose another' });
  control.progress?.(file, source.bytes, read);
  return { rows: read, columns: layout.length, encoding: as, partial, lines, notices: notices.list() };
}

async function* one(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}
