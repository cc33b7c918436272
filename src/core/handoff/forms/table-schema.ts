import { entryCarried } from '../../codebook/handed';
import { HANDED, HANDED_ALL } from '../../extract/carried';
import type { CodebookEntry, CodeRange } from '../../extract/extract';
import { isMeasure } from '../../extract/words';
import { spellingsOf, validOf } from '../../infer/levels';
import type { Leaving, LeavingVariable } from '../leaving';
import { declaredTypes, missingTexts, type DeclaredType } from './declared-types';
import { textFile, type FileOut } from './file';
import { hasPosixFormat, posixFormat } from './moment-formats';

/** A Data Package (version 2) with a Table Schema of the delimited file beside it. */
export function dataPackageFile(leaving: Leaving): FileOut {
  const { name, title, variables, groups, rows } = leaving;
  return textFile('datapackage.json', () => {
    const types = declaredTypes(leaving);
    return json({
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
            fields: variables.map((variable, i) => fieldOf(variable, types[i])),
          },
        },
      ],
      [HANDED_ALL]: { cases: rows.count, groups },
    });
  });
}

/** How Table Schema reads cells of a type. */
function readSo(declared: DeclaredType): object {
  switch (declared.type) {
    case 'integer':
    case 'number':
      return {
        ...(declared.decimal === '.' ? {} : { decimalChar: declared.decimal }),
        ...(declared.group === null ? {} : { groupChar: declared.group }),
        ...(declared.around ? { bareNumber: false } : {}),
      };
    case 'boolean':
      return { trueValues: [declared.yes], falseValues: [declared.no] };
    case 'date':
    case 'time':
    case 'datetime': {
      const format = posixFormat(declared.spelling);
      return DEFAULTS[declared.type] === format ? {} : { format };
    }
    default:
      return {};
  }
}
const DEFAULTS = { date: '%Y-%m-%d', time: '%H:%M:%S', datetime: '%Y-%m-%dT%H:%M:%SZ' };

/** The standard's name for a type: marks between thousands are for its numbers, in its first version for those alone. */
function fieldType(declared: DeclaredType): DeclaredType['type'] {
  if (declared.type === 'integer' && declared.group !== null) return 'number';
  return hasPosixFormat(declared) ? declared.type : 'string';
}

function fieldOf(variable: LeavingVariable, declared: DeclaredType): object {
  const { entry } = variable;
  const type = fieldType(declared);
  const valid = entry.categories.filter(({ missing }) => !missing);
  const missing = [
    { value: '', label: 'blank' },
    ...missingTexts(variable).map(({ text, label }) => ({ value: text, label })),
  ];
  const whole = type === 'integer' && valid.every(({ code }) => /^-?\d{1,15}$/.test(code));
  const listed = valid.length && (type === 'string' || whole) ? categoriesOf(variable, valid) : null;
  const categories = listed?.map(({ code, label }) => ({
    value: whole ? Number(code) : code,
    ...(label === null ? {} : { label }),
  }));
  const limits = type === 'integer' || type === 'number' ? limitsKept(variable) : null;
  const description = [
    descriptionOf(entry),
    valid.length && !categories
      ? `Codes: ${valid.map(({ code, label }) => `${code} = ${label ?? code}`).join('; ')}`
      : '',
  ]
    .filter(Boolean)
    .join('\n');
  return {
    name: variable.name,
    type,
    ...(type === 'string' ? {} : readSo(declared)),
    ...(entry.label ? { title: entry.label } : {}),
    ...(description ? { description } : {}),
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

/** Codes with labels beyond so many are no list of categories that a schema gives. */
const MOST_CATEGORIES = 1000;

/**
 * Every code that a cell may hold, as the standard wants it of categories; `null` where that is not a list one could give, as
 * of an amount of which two codes have labels.
 */
function categoriesOf(
  { inspected }: LeavingVariable,
  labelled: CodebookEntry['categories'],
): { code: string; label: string | null }[] | null {
  const all = new Map(labelled.map(({ code, label }) => [code, label ?? code] as [string, string | null]));
  for (const level of inspected.levels.levels)
    if (level.standing === 'valid' || level.standing === 'unreadable')
      for (const text of spellingsOf(level)) if (!all.has(text) && level.label === null) all.set(text, null);
  const bare = all.size - labelled.length;
  if (all.size > MOST_CATEGORIES || (isMeasure(inspected.kind) && bare > 0)) return null;
  return [...all].map(([code, label]) => ({ code, label }));
}

/** The ends of the valid range where the cells keep them: data do not break the schema that goes with them. */
export function limitsKept({ entry, inspected }: LeavingVariable): CodeRange | null {
  if (entry.validRanges.length !== 1) return null;
  const [{ min, max }] = entry.validRanges;
  const { values } = validOf(inspected.levels);
  return values.every((value) => (min === null || value >= min) && (max === null || value <= max))
    ? { min, max }
    : null;
}

export const descriptionOf = ({ question, universe, notes }: CodebookEntry): string =>
  [question, universe && `Asked: ${universe}`, ...notes].filter(Boolean).join('\n');

const slug = (name: string): string =>
  name
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9._-]+/g, '-')
    .replace(/^-+|-+$/g, '') || 'extract';

export const json = (document: unknown): string => `${JSON.stringify(document, null, 1)}\n`;
