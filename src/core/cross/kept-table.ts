import * as z from 'zod';

/** Figures that a cell can show. */
export const FIGURES = ['rows', 'weighted', 'ofRow', 'ofColumn', 'ofAll', 'expected', 'residual'] as const;
/** Figures of a measure that a cell can show. */
export const MEASURE_FIGURES = ['n', 'mean', 'median', 'sd'] as const;
export type Figure = (typeof FIGURES)[number];
export type MeasureFigure = (typeof MEASURE_FIGURES)[number];

const name = z.string().min(1);

/** A cross-check as a person looks at it: what is held against what, and which figures stand in the cells. */
export const tableSchema = z.object({
  down: name,
  across: name.nullable(),
  within: name.nullable(),
  measure: name.nullable(),
  /** Whether states without a valid answer are lines and columns too. */
  withMissing: z.boolean(),
  /** Cells of fewer rows than this are small. */
  small: z.number().int().min(1),
  /** Whether small cells are left out of what is copied, saved and reported. */
  blank: z.boolean(),
  /** Bins that a measure is put into for this table alone, by variable. */
  bins: z.record(z.string(), z.object({ size: z.number().positive(), start: z.number() })).default({}),
  shows: z.array(z.enum(FIGURES)),
  measured: z.array(z.enum(MEASURE_FIGURES)),
});
export type KeptTable = z.infer<typeof tableSchema>;

/** "tenure by age, within region; rent in each cell". */
export function tableSays(
  { down, across, within, measure }: KeptTable,
  called = (one: string): string => one,
): string {
  const by = across === null ? called(down) : `${called(down)} by ${called(across)}`;
  return `${by}${within === null ? '' : `, within ${called(within)}`}${measure === null ? '' : `; ${called(measure)} in each cell`}`;
}
