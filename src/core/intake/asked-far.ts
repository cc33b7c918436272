import * as z from 'zod';
import { DictionaryColumn } from '../extract/dictionary-column';
import { textArray } from '../extract/text-list';
import type { ColumnPass, Extract, Variable } from '../extract/extract';
import { InputError } from '../extract/problem';
import { STORAGES } from '../extract/words';
import type { RowsAsked } from '../rows/all-rows';
import type { Categories, Numbers } from '../rows/records';
import { askedOf, type RowTest } from '../rows/row-test';

/** A test of rows as JSON: of each text that is known whether it holds, by its place. */
type SentTest =
  | { not: SentTest }
  | { any: SentTest[] }
  | { variable: string; yes: number[]; unread?: z.infer<typeof unreadSchema> | undefined };
/** JSON has no word for what is without end. */
const end = z.number().nullable();
const unreadSchema = z.union([
  z.object({ codes: z.array(z.string()), numbers: z.array(z.number()) }),
  z.object({ answered: z.boolean(), numeric: z.boolean() }),
  z.object({ contains: z.string() }),
  z.object({ from: end, to: end, storage: z.enum(STORAGES) }),
]);
const testSchema: z.ZodType<SentTest> = z.lazy(() =>
  z.union([
    z.object({ not: testSchema }),
    z.object({ any: z.array(testSchema) }),
    z.object({ variable: z.string(), yes: z.array(z.number()), unread: unreadSchema.optional() }),
  ]),
);

/** Which of all rows count, as JSON. */
export const rowsSentSchema = z.object({
  /** Names of all variables, in their order. */
  names: z.array(z.string()),
  /** What is known of those that are asked about: texts, and whether there are more of them. */
  known: z.array(z.object({ name: z.string(), texts: z.array(z.string()), many: z.boolean() })),
  tests: z.array(testSchema),
  /** Of rows that were set aside the texts of the key, column by column. */
  gone: z.array(z.object({ name: z.string(), texts: z.array(z.string()) })),
  /** Texts that are no values, of variables of which not all are known. */
  without: z.array(z.object({ name: z.string(), texts: z.array(z.string()) })),
});
export type RowsSent = z.infer<typeof rowsSentSchema>;

/** What is counted in the cells of a table, as JSON: of each text that is known where it belongs. */
export const cellsSentSchema = z.object({
  by: z.array(z.object({ variable: z.string().nullable(), size: z.number(), to: z.array(z.number()) })),
  weight: z.object({ variable: z.string(), to: z.array(end), from: end }).nullable(),
  measure: z.object({ variable: z.string(), to: z.array(end), from: end }).nullable(),
});
export type CellsSent = z.infer<typeof cellsSentSchema>;

/** What is asked of an extract whose rows are elsewhere, by who knows its texts. */
export class FarAsks {
  private readonly passes: Map<string, ColumnPass>;

  constructor(private readonly extract: Extract) {
    this.passes = new Map(
      extract.variables.flatMap(({ name, pass }) => (pass ? [[name, pass] as const] : [])),
    );
  }

  rows({ tests, aside }: RowsAsked, cells: readonly CellsSent[] = []): RowsSent {
    const { variables, database } = this.extract;
    const names = new Set([
      ...askedOf(tests),
      ...cells.flatMap(({ by, weight, measure }) =>
        [...by, weight, measure].flatMap((one) => one?.variable ?? []),
      ),
    ]);
    return {
      names: variables.map(({ name }) => name),
      known: [...names].map((name) => {
        const { texts, others } = this.passOf(name);
        return { name, texts: [...texts], many: others !== null };
      }),
      tests: tests.map((test) => this.test(test)),
      gone: aside.size
        ? (database?.key ?? []).flatMap((name) => {
            const column = variables.find((one) => one.name === name)?.column;
            return column ? [{ name, texts: [...aside].map((row) => column.text(row)) }] : [];
          })
        : [],
      without: variables.flatMap(({ name, pass }) => {
        const texts = pass?.others?.quartiles?.without;
        return texts ? [{ name, texts: [...texts] }] : [];
      }),
    };
  }

  cells(by: readonly Categories[], weight: Numbers | null, measure: Numbers | null): CellsSent {
    return {
      by: by.map(({ variable, size, of }) => ({
        variable,
        size,
        to: variable === null ? [] : this.allOf(variable).map(of),
      })),
      weight: weight && this.numbers(weight),
      measure: measure && this.numbers(measure),
    };
  }

  private numbers({ variable, of, from = -Infinity }: Numbers): NonNullable<CellsSent['weight']> {
    const to = this.passOf(variable).texts.map((text) => finite(of(text)));
    return { variable, to, from: finite(from) };
  }

  private test(test: RowTest): SentTest {
    if ('not' in test) return { not: this.test(test.not) };
    if ('any' in test) return { any: test.any.map((one) => this.test(one)) };
    const { variable, unread } = test;
    const yes = textArray(this.passOf(variable).texts).flatMap((text, place) =>
      test.holds(text) ? [place] : [],
    );
    if (!unread) return { variable, yes };
    const sent = 'from' in unread ? { ...unread, from: finite(unread.from), to: finite(unread.to) } : unread;
    return {
      variable,
      yes,
      unread: 'codes' in sent ? { codes: [...sent.codes], numbers: [...sent.numbers] } : sent,
    };
  }

  /** All texts of a variable. @throws InputError where there are more than are known */
  private allOf(name: string): readonly string[] {
    const { texts, others } = this.passOf(name);
    if (others) throw tooManyToPlace(name, others.distinct);
    return textArray(texts);
  }

  private passOf(name: string): ColumnPass {
    const pass = this.passes.get(name);
    if (!pass) throw new Error(`nothing is known of all rows of ${name}`);
    return pass;
  }
}

/** Said of a variable whose texts are not all known, where each is to be put somewhere. */
export const tooManyToPlace = (name: string, distinct: number): InputError =>
  new InputError({
    file: name,
    says: `it holds ${distinct} different values, more than are fetched to be put into categories; put it into bands in a query`,
  });

const finite = (value: number): number | null => (Number.isFinite(value) ? value : null);

/** The same questions again, for who holds the rows: an extract that knows no more than what was sent, and what is asked of it. */
export function askedFrom({ known, tests, gone }: RowsSent): {
  extract: Extract;
  asked: RowsAsked;
  categories: (of: CellsSent['by'][number]) => Categories;
  numbers: (of: NonNullable<CellsSent['weight']>) => Numbers;
} {
  const textsOf = new Map(known.map(({ name, texts }) => [name, texts]));
  const places = new Map(known.map(({ name, texts }) => [name, new Map(texts.map((text, i) => [text, i]))]));
  const placeOf = (name: string, text: string): number => places.get(name)?.get(text) ?? -1;
  const test = (sent: SentTest): RowTest => {
    if ('not' in sent) return { not: test(sent.not) };
    if ('any' in sent) return { any: sent.any.map(test) };
    const { variable, yes, unread } = sent;
    const holding = new Set(yes.map((place) => textsOf.get(variable)?.[place]));
    const asked: RowTest = { variable, holds: (text) => holding.has(text) };
    if (!unread) return asked;
    return {
      ...asked,
      unread:
        'from' in unread ? { ...unread, from: unread.from ?? -Infinity, to: unread.to ?? Infinity } : unread,
    };
  };
  const rows = gone.at(0)?.texts.length ?? 0;
  const names = new Set([...known, ...gone].map(({ name }) => name));
  const variables = [...names].map((name, i): Variable => {
    const texts = textsOf.get(name) ?? [];
    const many = known.find((one) => one.name === name)?.many ?? true;
    const column = gone.find((one) => one.name === name)?.texts ?? [];
    return {
      name,
      position: i + 1,
      entry: null,
      column: new DictionaryColumn(
        column,
        Uint32Array.from(column, (_, row) => row),
      ),
      pass: { texts, counts: new Float64Array(texts.length), others: many ? UNKNOWN : null },
    };
  });
  return {
    extract: { name: '', files: [], codebooks: [], notices: [], linkNotices: [], rows, variables },
    asked: { tests: tests.map(test), aside: new Set(Array.from({ length: rows }, (_, row) => row)) },
    categories: ({ variable, size, to }) => ({
      variable,
      size,
      of: (text) => (variable === null ? -1 : (to[placeOf(variable, text)] ?? -1)),
    }),
    numbers: ({ variable, to, from }) => ({
      variable,
      from: from ?? -Infinity,
      of: (text) => to[placeOf(variable, text)] ?? NaN,
    }),
  };
}
const UNKNOWN: NonNullable<ColumnPass['others']> = {
  rows: 0,
  blank: 0,
  numbers: { n: 0, min: Infinity, max: -Infinity, middle: 0, sums: [0, 0, 0, 0] },
  distinct: Infinity,
  error: 0,
};

/** Counts as JSON, as they come back. */
const figures = z.array(z.number());
const crossedSchema = z.object({
  rows: figures,
  sums: figures,
  positive: figures,
  leftOut: figures,
  without: z.number(),
});
const valuedSchema = z.array(z.object({ values: figures, rows: figures, weights: figures }));
export const countedSchema = z.object({ counted: z.array(z.union([crossedSchema, valuedSchema])) });
/** What a sieve keeps, without the rows. */
export const keptCountsSchema = z.object({
  all: z.number(),
  kept: z.number(),
  conditions: z.array(
    z.object({ keeps: z.number(), drops: z.number(), dropsAlone: z.number(), left: z.number() }),
  ),
});
