/** The words of the trade, as closed lists. Everything else in the core speaks in these. */

export const STORAGES = ['integer', 'decimal', 'text', 'date', 'time', 'datetime', 'empty'] as const;
/** How the cells of a variable are written. */
export type Storage = (typeof STORAGES)[number];

export const KINDS = [
  'identifier',
  'nominal',
  'ordinal',
  'count',
  'continuous',
  'date',
  'text',
  'empty',
] as const;
/** What a variable measures, and so which figures suit it. */
export type Kind = (typeof KINDS)[number];

export const ROLES = ['analysis', 'identifier', 'weight', 'design', 'wave', 'imputation', 'admin'] as const;
/** What a variable is for. */
export type Role = (typeof ROLES)[number];

export const REASONS = ['refused', 'dont-know', 'not-asked', 'no-answer', 'suppressed', 'other'] as const;
/** Why a code stands for the absence of an answer. `not-asked` takes the row out of the universe. */
export type Reason = (typeof REASONS)[number];

export const SEVERITIES = ['high', 'medium', 'low', 'note'] as const;
export type Severity = (typeof SEVERITIES)[number];

export const isNumericStorage = (storage: Storage): boolean => storage === 'integer' || storage === 'decimal';
export const isDateStorage = (storage: Storage): storage is 'date' | 'time' | 'datetime' =>
  storage === 'date' || storage === 'time' || storage === 'datetime';
/** Kinds whose values are categories: every code counts for itself. */
export const isCategorical = (kind: Kind): boolean => kind === 'nominal' || kind === 'ordinal';
/** Kinds that are measured quantities: a mean makes sense. */
export const isMeasure = (kind: Kind): boolean => kind === 'count' || kind === 'continuous';

/** Reasons as they stand on the screen. */
export const REASON_NAMES: Record<Reason, string> = {
  'no-answer': 'no answer',
  refused: 'refused',
  'dont-know': "don't know",
  'not-asked': 'not asked',
  suppressed: 'suppressed',
  other: 'other',
};
