import { entryCarried } from '../../codebook/handed';
import { HANDED, HANDED_ALL } from '../../extract/carried';
import type { CodebookEntry } from '../../extract/extract';
import { isNumericStorage, type Storage } from '../../extract/words';
import { spellingsOf } from '../../infer/levels';
import type { Leaving, LeavingVariable } from '../leaving';
import { textFile, type FileOut } from './file';

const TYPES: Partial<Record<Storage, string>> = {
  integer: 'integer',
  decimal: 'number',
};

/** How the standards write numbers (XML Schema Part 2, 3.2.3 and 3.3.13, which both build on). */
const WRITTEN: Record<string, RegExp> = {
  integer: /^[-+]?\d+$/,
  number: /^[-+]?(\d+(\.\d*)?|\.\d+)(e[-+]?\d+)?$/i,
};

/** Whether every written cell is of the type that its storage says, so that a reader by the standard takes it. */
function typeOf({ storage, inspected, entry }: LeavingVariable): string {
  const type = TYPES[storage];
  if (!type) return 'string';
  const missing = new Set([
    ...entry.categories.flatMap(({ code, missing: is }) => (is ? [code] : [])),
    ...entry.missingTexts,
  ]);
  return inspected.base.levels.every((level) =>
    spellingsOf(level).every((text) => missing.has(text) || WRITTEN[type].test(text)),
  )
    ? type
    : 'string';
}

/** A Data Package (version 2) with a Table Schema of the delimited file beside it. */
export function dataPackageFile(leaving: Leaving): FileOut {
  const { name, title, variables, groups, rows } = leaving;
  return textFile('datapackage.json', () =>
    json({
      $schema: 'https://datapackage.org/profiles/2.0/datapackage.json',
      name: slug(name),
      title,
      resources: [
        {
          name: slug(name),
          path: `${name}.csv`,
          type: 'table',
          format: 'csv',
          mediatype: 'text/csv',
          encoding: 'utf-8',
          dialect: {
            delimiter: ',',
            lineTerminator: '\r\n',
            quoteChar: '"',
            doubleQuote: true,
            header: true,
          },
          schema: {
            $schema: 'https://datapackage.org/profiles/2.0/tableschema.json',
            fields: variables.map(fieldOf),
          },
        },
      ],
      [HANDED_ALL]: { cases: rows.count, groups },
    }),
  );
}

function fieldOf(variable: LeavingVariable): object {
  const { entry } = variable;
  const type = typeOf(variable);
  const valid = entry.categories.filter(({ missing }) => !missing);
  const missing = [
    { value: '', label: 'blank' },
    ...entry.categories
      .filter(({ missing: is }) => is)
      .map(({ code, label }) => ({ value: code, label: label ?? code })),
    ...entry.missingTexts.map((value) => ({ value, label: value })),
  ];
  const isNumber = type !== 'string';
  const whole = type === 'integer' && valid.every(({ code }) => /^-?\d{1,15}$/.test(code));
  const categories =
    valid.length && (type === 'string' || whole)
      ? valid.map(({ code, label }) => ({ value: whole ? Number(code) : code, label: label ?? code }))
      : null;
  const limits = entry.validRanges.length === 1 && isNumber ? entry.validRanges[0] : null;
  return {
    name: variable.name,
    type,
    ...(entry.label ? { title: entry.label } : {}),
    ...(descriptionOf(entry) ? { description: descriptionOf(entry) } : {}),
    ...(entry.units ? { unit: entry.units } : {}),
    missingValues: missing,
    ...(categories
      ? { categories, ...(variable.inspected.kind === 'ordinal' ? { categoriesOrdered: true } : {}) }
      : {}),
    ...(limits
      ? {
          constraints: {
            ...(limits.min === null ? {} : { minimum: limits.min }),
            ...(limits.max === null ? {} : { maximum: limits.max }),
          },
        }
      : {}),
    [HANDED]: entryCarried(entry),
  };
}

const descriptionOf = ({ question, universe, notes }: CodebookEntry): string =>
  [question, universe && `Asked: ${universe}`, ...notes].filter(Boolean).join('\n');

const slug = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9._-]+/g, '-')
    .replace(/^-+|-+$/g, '') || 'extract';

export const json = (document: unknown): string => `${JSON.stringify(document, null, 1)}\n`;

/** CSV on the Web metadata (W3C, 2015) of the delimited file beside it. */
export function csvwFile({ name, title, variables, groups, rows }: Leaving): FileOut {
  return textFile(`${name}.csv-metadata.json`, () =>
    json({
      '@context': 'http://www.w3.org/ns/csvw',
      url: encodeURI(`${name}.csv`),
      'dc:title': title,
      dialect: { encoding: 'utf-8', lineTerminators: ['\r\n'], header: true, headerRowCount: 1 },
      tableSchema: {
        columns: variables.map((variable) => {
          const { entry } = variable;
          const limits = entry.validRanges.length === 1 ? entry.validRanges[0] : null;
          const type = typeOf(variable);
          const base = type === 'number' ? 'double' : type;
          return {
            titles: variable.name,
            ...(/^[A-Za-z0-9._]+$/.test(variable.name) && !variable.name.startsWith('_')
              ? { name: variable.name }
              : {}),
            ...(entry.label ? { 'dc:title': entry.label } : {}),
            ...(descriptionOf(entry) ? { 'dc:description': descriptionOf(entry) } : {}),
            datatype:
              limits && isNumericStorage(variable.storage) && type !== 'string'
                ? {
                    base,
                    ...(limits.min === null ? {} : { minimum: limits.min }),
                    ...(limits.max === null ? {} : { maximum: limits.max }),
                  }
                : base,
            null: [
              '',
              ...entry.categories.flatMap(({ code, missing }) => (missing ? [code] : [])),
              ...entry.missingTexts,
            ],
            // A common property's value is a text: what it holds is no part of the standard.
            [HANDED]: JSON.stringify(entryCarried(entry)),
          };
        }),
      },
      [HANDED_ALL]: JSON.stringify({ cases: rows.count, groups }),
    }),
  );
}
