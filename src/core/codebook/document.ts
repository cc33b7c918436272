import type { Codebook } from '../extract/extract';
import { InputError } from '../extract/problem';
import { JsonReader } from '../read/json-reader';
import { allBytes, type ByteSource } from '../read/source';
import { looksLikeCsvw, readCsvw } from './csvw';
import { decodeXml, looksLikeDdi, parseDdi } from './ddi';
import { looksLikeTableSchema, readTableSchema } from './table-schema';

/** Larger documents than this are no codebooks. */
const MOST_BYTES = 400 << 20;

/** Whether the beginning of a file may be that of a codebook document in XML or JSON. */
export const mayBeDocument = (start: string): 'xml' | 'json' | null =>
  looksLikeDdi(start)
    ? 'xml'
    : /^\uFEFF?\s*\{/.test(start) && /"(fields|resources|tableSchema|tables|columns)"\s*:/.test(start)
      ? 'json'
      : null;

/**
 * The codebook that a document holds; `null` where it is JSON of another kind.
 * @param source unpacked
 * @throws InputError with file, line and element for documents that are damaged or break their standard
 */
export async function readDocument(source: ByteSource, form: 'xml' | 'json'): Promise<Codebook | null> {
  const file = source.name;
  if (source.bytes > MOST_BYTES)
    throw new InputError({
      file,
      says: 'the document is too large for a codebook; choose the codebook that goes with the data',
    });
  const bytes = await allBytes(source.open());
  if (form === 'xml') return parseDdi(file, decodeXml(bytes));
  const text = new TextDecoder().decode(bytes);
  // The streaming reader finds the line of an error; what it lets through is JSON.
  const reader = new JsonReader(file, () => undefined);
  reader.write(text.replace(/^\uFEFF/, ''));
  reader.end();
  const document = JSON.parse(text.replace(/^\uFEFF/, '')) as unknown;
  if (looksLikeCsvw(document)) return readCsvw(file, document);
  return looksLikeTableSchema(document) ? readTableSchema(file, document) : null;
}
