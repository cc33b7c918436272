import { looksLikeCodeTable, readCodeTable } from '../codebook/code-table';
import { mayBeDocument, readDocument } from '../codebook/document';
import type { Codebook } from '../extract/extract';
import { readDelimited } from '../read/delimited';
import { unpacked } from '../read/gzip';
import { isHanded } from '../read/handed-workbook';
import type { Reading } from '../read/look';
import { firstBytes, type ByteSource } from '../read/source';
import { lookAtSheet, openWorkbook } from '../read/workbook';
import type { Brought, Remember } from './brought';

/** Longer tables of codes than this are data. */
const MOST_CODES = 500_000;

/** The codebook that a file is, if it is a document in XML or JSON. */
export async function documentOf(source: ByteSource): Promise<Codebook | null> {
  const plain = await unpacked(source);
  const { bytes } = await firstBytes(plain.open(), 1 << 16);
  const wide =
    bytes[0] === 0xff && bytes[1] === 0xfe
      ? 'utf-16le'
      : bytes[0] === 0xfe && bytes[1] === 0xff
        ? 'utf-16be'
        : 'utf-8';
  const form = mayBeDocument(new TextDecoder(wide).decode(bytes));
  return form && readDocument(plain, form);
}

/** The codebook that a delimited file is, if it is a table of variable, code and label. */
export async function asCodeTable(
  one: Brought,
  all: readonly Brought[],
  chosen: ReadonlyMap<string, Partial<Reading>>,
  remember: Remember,
): Promise<Codebook | null> {
  if (one.what !== 'data' || one.look.reading.form !== 'delimited' || chosen.get(one.key)?.form) return null;
  const { look, source } = one;
  const others = all.flatMap((other) => (other !== one && other.what === 'data' ? other.look.names : []));
  const known = others.length ? new Set(others) : null;
  if (!looksLikeCodeTable(look.names, look.rows, known)) return null;
  return remember(`table ${one.key} ${JSON.stringify(look.reading)}`, async () => {
    const rows: string[][] = [];
    await readDelimited(
      source,
      look.reading,
      {
        names: () => undefined,
        rows: (batch) => rows.push(...batch),
        spans: ({ bytes, starts, ends, rows: count }) => {
          const width = look.names.length;
          const text = new TextDecoder();
          for (let row = 0; row < count; row++)
            rows.push(
              Array.from({ length: width }, (_, c) =>
                text.decode(bytes.subarray(starts[row * width + c], ends[row * width + c])),
              ),
            );
        },
      },
      {},
      MOST_CODES,
    );
    return readCodeTable(source.name, look.names, rows);
  });
}

/** Sheets of a workbook that are tables of variable, code and label for the sheet that is read. */
export async function sheetCodebooks(one: Extract<Brought, { what: 'data' }>): Promise<Brought[]> {
  const sheets = await openWorkbook(one.source);
  // What a handoff wrote is read with the data.
  if (isHanded(sheets)) return [];
  return sheets.flatMap((sheet): Brought[] => {
    if (sheet.name === one.look.reading.sheet || sheet.rows.length < 2) return [];
    const { names, rows } = lookAtSheet(one.name, sheets, { sheet: sheet.name }, sheet.rows.length, 0);
    if (!looksLikeCodeTable(names, rows, new Set(one.look.names))) return [];
    const name = `${one.name}, sheet ${sheet.name}`;
    return [
      {
        key: `${one.key}/sheet ${sheet.name}`,
        name,
        bytes: one.bytes,
        archive: null,
        what: 'codebook',
        codebook: readCodeTable(name, names, rows),
      },
    ];
  });
}
