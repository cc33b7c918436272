import * as z from 'zod';
import { FORMS, type Extract } from '../extract/extract';
import { ENCODINGS } from '../read/encoding';
import type { Layout } from '../read/fixed-width';
import { delimiterName } from '../read/dialect';
import type { Look, Reading } from '../read/look';
import type { WaveFrom } from './waves';

const one = z.string().max(1);

/** How the files of an extract were read, so that the next of their form can be read the same way. */
export const stepsSchema = z.object({
  files: z.array(
    z.object({
      name: z.string(),
      form: z.enum(FORMS),
      encoding: z.enum(ENCODINGS).nullable().default(null),
      delimiter: one.nullable().default(null),
      quote: one.default('"'),
      header: z.boolean(),
      titles: z.number().int().min(0).default(0),
      sheet: z.string().nullable().default(null),
      layout: z
        .array(
          z.object({
            name: z.string(),
            start: z.number().int().min(1),
            end: z.number().int().min(1),
            record: z.number().int().min(1).optional(),
          }),
        )
        .nullable()
        .default(null),
    }),
  ),
  marks: z.object({ decimal: z.enum(['.', ',']).optional(), order: z.enum(['dmy', 'mdy']).optional() }),
  /** Whether the wave is told by a variable that is found, by what files are called, or by nothing; `null` of one file. */
  wave: z.enum(['found', 'file-name', 'none']).nullable(),
});
export type Steps = z.infer<typeof stepsSchema>;

/** How an extract was read. */
export function stepsOf({ files, marks, wave }: Pick<Extract, 'files' | 'marks' | 'wave'>): Steps {
  return {
    files: files.flatMap(({ name, form, encoding, delimiter, header, sheet, how }) =>
      // Of a table of a database there is nothing to be fixed.
      form === 'table'
        ? []
        : [
            {
              name,
              form,
              encoding: ENCODINGS.find((known) => known === encoding) ?? null,
              delimiter,
              quote: how?.quote ?? '"',
              header,
              titles: how?.titles ?? 0,
              sheet: sheet ?? null,
              layout: how?.layout ?? null,
            },
          ],
    ),
    marks: marks ?? {},
    wave: files.length < 2 ? null : wave ? (wave.by === 'made' ? 'file-name' : 'found') : 'none',
  };
}

/** Whether a wave is told as it was. @param fixed what a person chose */
export const waveFromSteps = ({ wave }: Steps): WaveFrom => wave ?? 'found';

/** Layouts by which fixed-width files were read, for those that come without a codebook. */
export const layoutsOf = ({ files }: Steps): { layout: Layout; from: string }[] =>
  files.flatMap(({ name, layout }) => (layout?.length ? [{ layout, from: `${name}, read earlier` }] : []));

/** The step of a file: the one of its name, else the last of its form. */
function stepOf(steps: Steps, name: string, form: Reading['form']): Steps['files'][number] | undefined {
  const alike = steps.files.filter((step) => step.form === form);
  return alike.find((step) => step.name === name) ?? alike.at(-1);
}

/**
 * What a file is read by where an earlier one of its form was read so. Bytes that are valid in UTF-8 beyond ASCII stay
 * that, and a sheet that is not there is no step.
 * @param look how it would be read of itself @returns only what differs from that
 */
export function stepped(steps: Steps, look: Look): Partial<Reading> {
  const { reading, because, sheets } = look;
  const step = stepOf(steps, look.name, reading.form);
  if (!step) return {};
  const wanted: Partial<Reading> = {};
  const { form } = reading;
  if (form === 'delimited') {
    if (step.delimiter !== null) wanted.delimiter = step.delimiter;
    wanted.quote = step.quote;
  }
  if (form === 'delimited' || form === 'workbook') {
    wanted.header = step.header;
    wanted.titles = step.titles;
  }
  if (form === 'workbook' && step.sheet !== null && sheets.some(({ name }) => name === step.sheet))
    wanted.sheet = step.sheet;
  const told =
    reading.encoding === 'utf-8' ? !/ASCII/.test(because.encoding ?? '') : /^utf-16/.test(reading.encoding);
  if ((form === 'delimited' || form === 'fixed-width') && step.encoding !== null && !told)
    wanted.encoding = step.encoding;
  return Object.fromEntries(
    Object.entries(wanted).filter(([part, value]) => reading[part as keyof Reading] !== value),
  );
}

/** Why a part of a reading is as it is where an earlier extract tells. */
export const AS_BEFORE = 'as the earlier extract was read';

/** What a look took from how an earlier extract was read, in words. */
export const asBefore = ({ because, reading }: Look): string[] =>
  (Object.keys(because) as (keyof Reading)[])
    .filter((part) => because[part] === AS_BEFORE)
    .map((part) => `${WORDS[part] ?? part} ${toldPart(reading, part)}, ${AS_BEFORE}`);

const WORDS: Partial<Record<keyof Reading, string>> = {
  header: 'first row:',
  titles: 'title rows above:',
  quote: 'quotes:',
};

function toldPart(reading: Reading, part: keyof Reading): string {
  if (part === 'delimiter') return delimiterName(reading.delimiter);
  if (part === 'header') return reading.header ? 'names the columns' : 'is data';
  if (part === 'quote') return reading.quote === '' ? 'none' : reading.quote;
  return String(reading[part]);
}

/**
 * Whether a file that is read by steps still has columns, and rows of one width: another delimiter than the earlier
 * file's makes one column of all, other quotes make rows ragged.
 */
export const stillFits = (plain: Look, steps: Look): boolean =>
  (steps.names.length > 1 || plain.names.length <= 1) && evenRows(steps) >= evenRows(plain);

const evenRows = ({ names, rows }: Look): number =>
  rows.length ? rows.filter((row) => row.length === names.length).length / rows.length : 1;
