/** Forms in which an extract goes out. */
export const HANDOFF_FORMS = [
  'delimited',
  'data-package',
  'csvw',
  'ddi',
  'workbook',
  'parquet',
  'json',
  'report',
  'codebook',
  'scripts',
] as const;
export type HandoffForm = (typeof HANDOFF_FORMS)[number];

/** Forms that need no row. */
export const WITHOUT_DATA: readonly HandoffForm[] = ['codebook', 'report'];
/** Whether a form writes the rows themselves. */
export const writesRows = (form: HandoffForm): boolean => !WITHOUT_DATA.includes(form);
