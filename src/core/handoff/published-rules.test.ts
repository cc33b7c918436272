import { unzipSync } from 'fflate';
import { parquetMetadata } from 'hyparquet';
import { SaxesParser } from 'saxes';
import { describe, expect, it } from 'vitest';
import * as z from 'zod';
import { column, DECISIONS, dig, ENTRIES, HOMES, written } from '../../testing/homes';

/** Rules of the open forms that a handoff writes, as their standards publish them, held against a nasty extract. */
const NASTY = {
  ...HOMES,
  'Größe, in "m²"': column((i) => (i % 9 === 0 ? '1,5' : i)),
  '_under <b>': column((i) => `<script>alert(${i})</script>`),
  control: column((i) => ['a\u0001b', 'plain', 'x\ry'][i % 3]),
  exponent: column((i) => (i % 2 ? `${i}e3` : String(i / 4))),
};
const from = dig(
  NASTY,
  [
    ...DECISIONS,
    { type: 'confirm-kind', kinds: [{ variable: 'control', kind: 'nominal' }] },
    {
      type: 'label-codes',
      variables: ['control'],
      labels: [{ code: 'a\u0001b', label: 'with a control sign \u0002' }],
    },
    { type: 'confirm-role', roles: [{ variable: 'exponent', role: 'weight' }] },
  ],
  ENTRIES,
);
const textOf = (bytes: Uint8Array | undefined): string => new TextDecoder().decode(bytes);

const number = z.number();
/** Table Schema 2.0: fields, types and constraints that its types have; names beyond it are no business of the standard. */
const common = {
  name: z.string(),
  title: z.string().optional(),
  description: z.string().optional(),
  missingValues: z
    .array(z.strictObject({ value: z.string(), label: z.string().optional() }))
    .refine((all) => all.some(({ value }) => value === '')),
};
const fieldSchema = z.discriminatedUnion('type', [
  z.object({
    ...common,
    type: z.literal('string'),
    categories: z
      .array(z.strictObject({ value: z.string(), label: z.string().optional() }))
      .min(1)
      .optional(),
    categoriesOrdered: z.boolean().optional(),
    constraints: z.undefined().optional(),
  }),
  z.object({
    ...common,
    type: z.literal('integer'),
    bareNumber: z.boolean().optional(),
    categories: z
      .array(z.strictObject({ value: number.int(), label: z.string().optional() }))
      .min(1)
      .optional(),
    categoriesOrdered: z.boolean().optional(),
    constraints: z.strictObject({ minimum: number.optional(), maximum: number.optional() }).optional(),
  }),
  z.object({
    ...common,
    type: z.literal('number'),
    bareNumber: z.boolean().optional(),
    decimalChar: z.string().length(1).optional(),
    groupChar: z.string().length(1).optional(),
    // Categories belong to string and integer alone.
    categories: z.undefined().optional(),
    constraints: z.strictObject({ minimum: number.optional(), maximum: number.optional() }).optional(),
  }),
  z.object({
    ...common,
    type: z.literal('boolean'),
    trueValues: z.array(z.string()).min(1),
    falseValues: z.array(z.string()).min(1),
  }),
  z.object({
    ...common,
    type: z.enum(['date', 'time', 'datetime']),
    format: z
      .string()
      .regex(/%Y|%y|%H/)
      .optional(),
  }),
]);
const packageSchema = z.object({
  $schema: z.literal('https://datapackage.org/profiles/2.0/datapackage.json'),
  name: z.string().regex(/^[a-z0-9._-]+$/),
  title: z.string(),
  resources: z
    .array(
      z.object({
        name: z.string().regex(/^[a-z0-9._-]+$/),
        // Neither absolute nor above its folder.
        path: z.string().regex(/^(?!\/)(?!.*\.\.\/).+$/),
        type: z.literal('table'),
        schema: z.object({ fields: z.array(fieldSchema).min(1) }),
      }),
    )
    .min(1),
});

/** Metadata Vocabulary for Tabular Data (W3C 2015): a column's own properties; all others are common ones, with a prefix or an address. */
const ATOMIC = z.union([z.string(), number, z.boolean()]);
const columnSchema = z
  .object({
    titles: z.string(),
    name: z
      .string()
      // A variable of a template (RFC 6570, 2.3) that does not begin with an underscore.
      .regex(/^[A-Za-z0-9][A-Za-z0-9_]*(\.[A-Za-z0-9_]+)*$/)
      .optional(),
    datatype: z.union([
      z.enum(['string', 'integer', 'double', 'boolean']),
      z.strictObject({
        base: z.enum(['integer', 'double']),
        minimum: number.optional(),
        maximum: number.optional(),
        format: z
          .strictObject({ decimalChar: z.string().length(1), groupChar: z.string().length(1).optional() })
          .optional(),
      }),
      z.strictObject({ base: z.literal('boolean'), format: z.string().regex(/^[^|]+\|[^|]+$/) }),
      z.strictObject({ base: z.enum(['date', 'time', 'dateTime']), format: z.string() }),
    ]),
    null: z.array(z.string()),
  })
  .catchall(ATOMIC)
  .refine((all) =>
    Object.keys(all).every(
      (key) => ['titles', 'name', 'datatype', 'null'].includes(key) || key.includes(':'),
    ),
  );
const tableSchema = z
  .object({
    '@context': z.literal('http://www.w3.org/ns/csvw'),
    url: z.string().regex(/^[\w.%!*'();@&=+$,~-]+$/),
    dialect: z.strictObject({
      encoding: z.literal('utf-8'),
      lineTerminators: z.array(z.string()),
      header: z.literal(true),
      headerRowCount: z.literal(1),
      commentPrefix: z.null(),
    }),
    tableSchema: z.strictObject({ columns: z.array(columnSchema).min(1) }),
  })
  .catchall(ATOMIC);

/** DDI-Codebook 2.5: children in the order of the schema's sequences. */
const ORDER: Record<string, readonly string[]> = {
  codeBook: ['docDscr', 'stdyDscr', 'fileDscr', 'dataDscr', 'otherMat'],
  dataDscr: ['varGrp', 'nCubeGrp', 'var', 'nCube', 'notes'],
  fileDscr: ['fileTxt', 'locMap', 'notes'],
  fileTxt: [
    'fileName',
    'fileCitation',
    'dataFingerprint',
    'fileCont',
    'fileStrc',
    'dimensns',
    'fileType',
    'format',
  ],
  dimensns: ['caseQnty', 'varQnty', 'logRecL', 'recPrCas', 'recNumTot'],
  varGrp: ['labl', 'txt', 'concept', 'defntn', 'universe', 'notes'],
  var: [
    ...['location', 'labl', 'imputation', 'security', 'embargo', 'respUnit', 'anlysUnit', 'qstn', 'valrng'],
    ...['invalrng', 'undocCod', 'universe', 'TotlResp', 'sumStat', 'txt', 'stdCatgry', 'catgryGrp', 'catgry'],
    ...['codInstr', 'verStat', 'concept', 'derivation', 'varFormat', 'geoMap', 'catLevel', 'notes'],
  ],
  catgry: ['catValu', 'labl', 'txt', 'catStat', 'mrow'],
};
/** Attributes, and what they may be. */
const ATTRIBUTES: Record<string, Record<string, RegExp>> = {
  var: {
    ID: /^[A-Za-z_][\w.-]*$/,
    name: /^/,
    files: /^F1$/,
    wgt: /^(wgt|not-wgt)$/,
    intrvl: /^(contin|discrete)$/,
    measUnit: /^/,
    nature: /^(nominal|ordinal|interval|ratio|percent|other)$/,
  },
  varGrp: { ID: /^G\d+$/, type: /^subject$/, var: /^V\d+( V\d+)*$/, varGrp: /^G\d+( G\d+)*$/ },
  catgry: { missing: /^(Y|N)$/, missType: /^/ },
  catStat: { type: /^(freq|percent|crosstab|other)$/ },
  sumStat: { type: /^(mean|medn|mode|vald|invd|min|max|stdev|other)$/ },
  varFormat: { type: /^(numeric|character)$/ },
  range: { min: /^-?[\d.e+-]+$/, max: /^-?[\d.e+-]+$/ },
  item: { VALUE: /^-?[\d.e+-]+$/ },
};

describe('what a handoff writes is valid by the published rules of', () => {
  it('Data Package and Table Schema', async () => {
    const files = await written(from, ['data-package']);
    const found = packageSchema.safeParse(JSON.parse(textOf(files.get('datapackage.json'))));
    expect(found.error?.issues).toBeUndefined();
    const fields = found.data?.resources[0].schema.fields ?? [];
    expect(fields.map(({ name }) => name)).toHaveLength(Object.keys(NASTY).length);
    // A decimal comma is a number where the schema says so; an exponent is one anyway.
    expect(fields.find(({ name }) => name.startsWith('Größe'))).toMatchObject({
      type: 'number',
      decimalChar: ',',
    });
    expect(fields.find(({ name }) => name === 'exponent')?.type).toBe('number');
  });

  it('CSV on the Web', async () => {
    const files = await written(from, ['csvw']);
    const found = tableSchema.safeParse(JSON.parse(textOf(files.get('made.csv-metadata.json'))));
    expect(found.error?.issues).toBeUndefined();
  });

  it('RFC 4180: as many fields in each record as names, CRLF, quotes doubled', async () => {
    const text = textOf((await written(from, ['delimited'])).get('made.csv'));
    const field = String.raw`(?:"(?:[^"]|"")*"|[^",\r\n]*)`;
    const record = new RegExp(`${field}(?:,${field}){${Object.keys(NASTY).length - 1}}\r\n`, 'y');
    let records = 0;
    while (record.lastIndex < text.length) {
      expect(record.test(text)).toBe(true);
      records++;
    }
    expect(records).toBe(HOMES.hhid.length + 1);
  });

  it('DDI-Codebook 2.5', async () => {
    const xml = textOf((await written(from, ['ddi'])).get('made.xml'));
    const open: { name: string; at: number }[] = [];
    const ids = new Set<string>();
    const asked: string[] = [];
    let variables = 0;
    const parser = new SaxesParser();
    parser.on('error', (cause) => {
      throw cause;
    });
    parser.on('opentag', ({ name, attributes }) => {
      const above = open.at(-1);
      const order = above && ORDER[above.name];
      if (above && order) {
        const at = order.indexOf(name);
        expect([name, at]).toEqual([name, Math.max(at, above.at)]);
        above.at = at;
      }
      for (const [attribute, value] of Object.entries(attributes)) {
        const rule = ATTRIBUTES[name]?.[attribute];
        if (ATTRIBUTES[name])
          expect(`${name}/@${attribute}=${value}`).toMatch(rule ? /^/ : /^none is allowed$/);
        if (rule) expect(value).toMatch(rule);
        if (attribute === 'ID') {
          expect(ids.has(value)).toBe(false);
          ids.add(value);
        } else if (['files', 'var', 'varGrp'].includes(attribute)) asked.push(...value.split(' '));
      }
      if (name === 'var') variables++;
      open.push({ name, at: 0 });
    });
    parser.on('closetag', () => open.pop());
    parser.write(xml).close();
    expect(variables).toBe(Object.keys(NASTY).length);
    // What is referred to is there (IDREFS).
    expect(asked.filter((id) => !ids.has(id))).toEqual([]);
  });

  it('Office Open XML: parts that are listed are there, texts are well formed, rows and cells rise', async () => {
    const parts = unzipSync((await written(from, ['workbook'])).get('made.xlsx') ?? new Uint8Array());
    const listed = [...textOf(parts['[Content_Types].xml']).matchAll(/PartName="\/([^"]+)"/g)].map(
      ([, name]) => name,
    );
    for (const name of listed) expect(parts[name]?.length).toBeGreaterThan(0);
    const targets = [...textOf(parts['xl/_rels/workbook.xml.rels']).matchAll(/Target="([^"]+)"/g)];
    for (const [, name] of targets) expect(parts[`xl/${name}`]).toBeDefined();
    for (const name of Object.keys(parts)) {
      const parser = new SaxesParser();
      let row = 0;
      parser.on('error', (cause) => {
        throw cause;
      });
      parser.on('opentag', ({ name: tag, attributes }) => {
        if (tag === 'row') expect(Number(attributes.r)).toBe(++row);
        if (tag === 'c') expect(attributes.r).toMatch(new RegExp(`^[A-Z]{1,3}${row}$`));
        if (tag === 'c' && attributes.t !== undefined) expect(attributes.t).toBe('inlineStr');
        // Nothing that a spreadsheet runs.
        expect(tag).not.toBe('f');
      });
      parser.write(textOf(parts[name])).close();
    }
  });

  it('Apache Parquet: begins and ends with its mark, and has the columns and rows', async () => {
    const bytes = (await written(from, ['parquet'])).get('made.parquet') ?? new Uint8Array();
    expect([textOf(bytes.slice(0, 4)), textOf(bytes.slice(-4))]).toEqual(['PAR1', 'PAR1']);
    const { num_rows, schema } = parquetMetadata(Uint8Array.from(bytes).buffer);
    expect([Number(num_rows), schema.length - 1]).toEqual([HOMES.hhid.length, Object.keys(NASTY).length]);
  });
});
