import * as z from 'zod';
import { DictionaryColumn, type Codes } from '../extract/dictionary-column';
import { textArray } from '../extract/text-list';
import type { ColumnPass, Extract, Variable } from '../extract/extract';
import { cellsSentSchema, keptCountsSchema, rowsSentSchema } from './asked-far';

/** What of a database is wanted: a table, named as in SQL, or the rows of a query. */
const wantedSchema = z.union([
  z.strictObject({ table: z.string().min(1).max(500) }),
  z.strictObject({ query: z.string().min(1).max(100_000) }),
]);
export type TableWanted = z.infer<typeof wantedSchema>;

/** A table as the catalogue lists it. */
const listedTableSchema = z.object({
  name: z.string(),
  sql: z.string(),
  columns: z.number(),
  rows: z.number().nullable(),
  comment: z.string().nullable(),
});
export type ListedTable = z.infer<typeof listedTableSchema>;

const session = z.string().max(100);
/** What the page asks the program that serves it. */
export const databaseAskSchema = z.discriminatedUnion('ask', [
  /** Where the database is that the program was told of when it was started. */
  z.strictObject({ ask: z.literal('known') }),
  /** The tables of a database; without an address of the one that is known. */
  z.strictObject({ ask: z.literal('tables'), address: z.string().max(4000).nullable() }),
  /** One of them. @see tablesSchema for the session */
  z.strictObject({ ask: z.literal('open'), session, wanted: wantedSchema }),
  /** What some of its rows come to, as if there were no others; `figures`: not only how many they are. */
  z.strictObject({
    ask: z.literal('kept'),
    session,
    wanted: wantedSchema,
    rows: rowsSentSchema,
    figures: z.boolean(),
  }),
  /** Rows in the cells of tables. */
  z.strictObject({
    ask: z.literal('count'),
    session,
    wanted: wantedSchema,
    rows: rowsSentSchema,
    cells: z.array(cellsSentSchema),
  }),
]);
export type DatabaseAsk = z.infer<typeof databaseAskSchema>;

const problem = z.object({ file: z.string(), element: z.string().optional(), says: z.string() });
export const knownSchema = z.object({ at: z.string().nullable() });
export const tablesSchema = z.object({
  session: z.string(),
  at: z.string(),
  tables: z.array(listedTableSchema),
});
export type Tables = z.infer<typeof tablesSchema>;
/** Lines of the answer to `open` and `kept`: how far it is, then what was counted, or what stands in its way. */
const sentSchema = z.looseObject({
  name: z.string(),
  rows: z.number(),
  files: z.array(z.looseObject({ name: z.string(), rows: z.number() })),
  codebooks: z.array(z.looseObject({ name: z.string() })),
  variables: z.array(
    z.looseObject({
      name: z.string(),
      position: z.number(),
      column: z.object({
        texts: z.array(z.string()),
        codes: z.string(),
        bytes: z.union([z.literal(1), z.literal(2), z.literal(4)]),
      }),
      pass: z
        .object({
          texts: z.array(z.string()),
          counts: z.string(),
          others: z.looseObject({ rows: z.number() }).nullable(),
        })
        .optional(),
    }),
  ),
});
type SentExtract = z.infer<typeof sentSchema>;
const progress = z.object({ says: z.string(), done: z.number(), whole: z.number(), rows: z.number() });
export const openLineSchema = z.union([
  z.object({ progress }),
  z.object({ problem }),
  z.object({ counts: keptCountsSchema }),
  z.object({ extract: sentSchema }),
]);
export type OpenLine = z.infer<typeof openLineSchema>;
export const refusedSchema = z.object({ problem });

/** An extract as it goes over the wire, as JSON. */
export function sentOf({ variables, ...rest }: Extract): object {
  return {
    ...rest,
    variables: variables.map(({ column, pass, ...variable }) => {
      const { texts, codes } = column.listed;
      return {
        ...variable,
        column: { texts: textArray(texts), codes: packed(codes), bytes: codes.BYTES_PER_ELEMENT },
        ...(pass ? { pass: { ...pass, texts: textArray(pass.texts), counts: packed(pass.counts) } } : {}),
      };
    }),
  };
}

/** The same again. @throws Error where codes do not fit the texts */
export function extractFrom(sent: SentExtract): Extract {
  const variables = sent.variables.map(({ column: { texts, codes, bytes }, pass, ...variable }) => {
    const found = codesFrom(codes, bytes);
    if (found.length !== sent.rows || found.some((code) => code >= texts.length))
      throw new Error(`the rows of ${variable.name} did not come whole`);
    const counts = pass && new Float64Array(unpacked(pass.counts).buffer);
    if (pass && counts?.length !== pass.texts.length)
      throw new Error(`the counts of ${variable.name} did not come whole`);
    return {
      ...(variable as unknown as Omit<Variable, 'column' | 'pass'>),
      column: new DictionaryColumn(texts, found),
      ...(pass && counts ? { pass: passFrom(pass as unknown as ColumnPass, counts) } : {}),
    };
  });
  return { ...(sent as unknown as Omit<Extract, 'variables'>), variables };
}

/** JSON has no word for what is without end, which the ends of no numbers are. */
function passFrom({ others, ...pass }: ColumnPass, counts: Float64Array): ColumnPass {
  if (!others) return { ...pass, counts, others };
  const { numbers } = others;
  const [min, max] = [numbers.min as number | null, numbers.max as number | null];
  return {
    ...pass,
    counts,
    others: { ...others, numbers: { ...numbers, min: min ?? Infinity, max: max ?? -Infinity } },
  };
}

function codesFrom(text: string, bytes: 1 | 2 | 4): Codes {
  const { buffer } = unpacked(text);
  return bytes === 1
    ? new Uint8Array(buffer)
    : bytes === 2
      ? new Uint16Array(buffer)
      : new Uint32Array(buffer);
}

const PIECE = 0x8000;
function packed(of: Codes | Float64Array): string {
  const bytes = new Uint8Array(of.buffer, of.byteOffset, of.byteLength);
  let text = '';
  for (let at = 0; at < bytes.length; at += PIECE)
    text += String.fromCharCode(...bytes.subarray(at, at + PIECE));
  return btoa(text);
}
const unpacked = (text: string): Uint8Array<ArrayBuffer> =>
  Uint8Array.from(atob(text), (sign) => sign.charCodeAt(0));

/** The header in which a page says the secret of this start of the program. */
export const START_HEADER = 'x-dig-start';
