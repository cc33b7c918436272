import { delimiterName } from '../../core/read/dialect';
import type { Codebook, CodebookForm, FileSource, Form } from '../../core/extract/extract';

export const FORM_NAMES: Record<Form, string> = {
  delimited: 'delimited text',
  'fixed-width': 'fixed-width text',
  workbook: 'workbook',
  json: 'JSON records',
  parquet: 'Parquet',
};
export const CODEBOOK_NAMES: Record<CodebookForm, string> = {
  'ddi-codebook': 'DDI codebook',
  'table-schema': 'Table Schema',
  csvw: 'CSV on the Web metadata',
  'code-table': 'table of codes',
  catalogue: 'catalogue of the database',
};

/** How a file was or will be read, in a few words. */
export function readAs({
  form,
  encoding,
  delimiter,
  header,
  sheet,
}: Pick<FileSource, 'form' | 'encoding' | 'delimiter' | 'header'> & { sheet?: string | null }): string {
  switch (form) {
    case 'delimited':
      return `${encoding.toUpperCase()}, ${delimiter === null ? 'delimited' : delimiterName(delimiter)}, ${header ? 'names in the first row' : 'no names'}`;
    case 'fixed-width':
      return `${encoding.toUpperCase()}, fixed width by a codebook`;
    case 'workbook':
      return `workbook, sheet ${sheet ?? ''}, ${header ? 'names in the first row' : 'no names'}`;
    case 'json':
      return 'JSON records';
    case 'parquet':
      return 'Parquet, types as declared';
    case 'table':
      return 'table of a database';
  }
}

export const codebookText = ({ form, title }: Pick<Codebook, 'form' | 'title'>): string =>
  `${CODEBOOK_NAMES[form]}${title ? `: ${title}` : ''}`;
