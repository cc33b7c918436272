import { entryCarried } from '../../codebook/handed';
import { HANDED, HANDED_ALL } from '../../extract/carried';
import type { Leaving, LeavingVariable } from '../leaving';
import { declaredTypes, missingTexts, type DeclaredType } from './declared-types';
import { textFile, type FileOut } from './file';
import { webFormat } from './moment-formats';
import { descriptionOf, json, limitsKept } from './table-schema';

/** A path as part of an address: signs with a meaning of their own there are escaped. */
const urlOf = (path: string): string => path.split('/').map(encodeURIComponent).join('/');

/** Names of columns as CSV on the Web has them: variables of an RFC 6570 template that do not begin with an underscore. */
const COLUMN_NAME = /^(?!_)[A-Za-z0-9_]+(\.[A-Za-z0-9_]+)*$/;

/** How CSV on the Web reads cells of a type. */
function datatypeOf(variable: LeavingVariable, declared: DeclaredType): string | object {
  switch (declared.type) {
    case 'integer':
    case 'number': {
      const { decimal, group, around, type } = declared;
      if (around) return 'string';
      const base = type === 'integer' ? 'integer' : 'double';
      const limits = limitsKept(variable);
      const more = {
        ...(limits?.min === null || !limits ? {} : { minimum: limits.min }),
        ...(limits?.max === null || !limits ? {} : { maximum: limits.max }),
        ...(decimal === '.' && group === null
          ? {}
          : { format: { decimalChar: decimal, ...(group === null ? {} : { groupChar: group }) } }),
      };
      return Object.keys(more).length ? { base, ...more } : base;
    }
    case 'boolean':
      return declared.yes === 'true'
        ? 'boolean'
        : { base: 'boolean', format: `${declared.yes}|${declared.no}` };
    case 'date':
    case 'time':
    case 'datetime': {
      const format = webFormat(declared.spelling);
      const base = declared.type === 'datetime' ? 'dateTime' : declared.type;
      return format === null ? 'string' : { base, format };
    }
    default:
      return 'string';
  }
}

/** CSV on the Web metadata (W3C, 2015) of the delimited file beside it. */
export function csvwFile(leaving: Leaving): FileOut {
  const { name, title, variables, groups, rows } = leaving;
  return textFile(`${name}.csv-metadata.json`, () => {
    const types = declaredTypes(leaving);
    return json({
      '@context': 'http://www.w3.org/ns/csvw',
      url: urlOf(`${name}.csv`),
      'dc:title': title,
      dialect: {
        encoding: 'utf-8',
        lineTerminators: ['\r\n'],
        header: true,
        headerRowCount: 1,
        // Without it a row that begins with # would be a remark.
        commentPrefix: null,
      },
      tableSchema: {
        columns: variables.map((variable, i) => {
          const { entry } = variable;
          return {
            titles: variable.name,
            ...(COLUMN_NAME.test(variable.name) ? { name: variable.name } : {}),
            ...(entry.label ? { 'dc:title': entry.label } : {}),
            ...(descriptionOf(entry) ? { 'dc:description': descriptionOf(entry) } : {}),
            datatype: datatypeOf(variable, types[i]),
            null: ['', ...missingTexts(variable).map(({ text }) => text)],
            // A common property's value is a text: what it holds is no part of the standard.
            [HANDED]: JSON.stringify(entryCarried(entry)),
          };
        }),
      },
      [HANDED_ALL]: JSON.stringify({ cases: rows.count, groups }),
    });
  });
}
