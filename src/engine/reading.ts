import type { Codebook, Extract, Marks } from '../core/extract/extract';
import { InputError } from '../core/extract/problem';
import { bring } from '../core/intake/bring';
import type { Brought, Handed } from '../core/intake/brought';
import { holdingIn, roomIn } from '../core/intake/holding';
import { FilesAgain } from '../core/intake/again';
import { readExtract, type Choices, type FileToRead } from '../core/intake/receive';
import type { Steps } from '../core/intake/steps';
import type { DigLog } from '../core/log/entries';
import { inForce } from '../core/log/fold';
import { anyLogSchema, digLogOf } from '../core/log/migrate';
import type { Reading } from '../core/read/look';
import type { Control } from '../core/read/source';
import type { AllRows } from '../core/rows/all-rows';
import { withHelper } from '../threads/with-helper';
import { FarRows, type TableAt } from './far-rows';
import { fileSource } from './file-source';
import { helperFor } from './helper';
import type { Found, HandedFile, Plan, Tell } from './protocol';

/** Finds out what files are, and reads them. Remembers what it found of files that wait to be read. */
export class Reader {
  /** So that a change to one file does not look at all again. */
  private memo = new Map<string, unknown>();

  /** Finds out what the files are; nothing is decided yet. */
  async look(
    handed: readonly HandedFile[],
    chosen: Record<string, Partial<Reading>>,
    marks: Marks = {},
    steps: Steps | null = null,
  ): Promise<{ found: Found[]; notices: string[] }> {
    if (handed.length === 0) this.memo = new Map();
    const { brought, notices } = await this.bring({ handed, chosen, steps }, marks);
    return { found: brought.map(foundOf), notices };
  }

  /** What a plan brings besides data: codebooks, the first dig log, and whether there is data among its files. */
  async contents(plan: Plan): Promise<{
    codebooks: Codebook[];
    hasData: boolean;
    log: { name: string; log: DigLog; variables: string[] | null } | null;
  }> {
    const { brought } = await this.bring(plan);
    const kept = brought.filter(({ key }) => !plan.left.includes(key));
    const log = kept.find((one) => one.what === 'log');
    return {
      codebooks: kept.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : [])),
      hasData: kept.some(({ what }) => what === 'data'),
      log: log ? { name: log.name, log: digLogOf(log.name, log.log), variables: log.variables } : null,
    };
  }

  /**
   * Reads the data files of a plan.
   * @param breathe called now and then; throws where it is to stop
   * @param known columns that these files are to join
   */
  async receive(plan: Plan, tell: Tell, breathe: () => Promise<void>, known?: string[]): Promise<Extract> {
    const { data, files } = await this.data(plan);
    const looks = data.map(({ look }) => ({ ...look, form: look.reading.form }));
    const hold = plan.hold ?? holdingIn(looks, roomIn(globalThis.navigator)).hold;
    return withHelper(
      () => helperFor(looks),
      (helper) =>
        readExtract(
          files,
          { progress: reporting(data, 'Reading', tell), breathe },
          { ...choicesOf(plan), known, hold, helper },
        ),
    );
  }

  /**
   * Whoever can go through all rows of an extract again, of which a sample is held: its files, or the database that it is in.
   * @param control what goes on at the time @throws InputError where neither is at hand
   */
  async again(
    extract: Extract,
    { plan, at }: { plan: Plan | null; at: TableAt | null },
    control: Control,
  ): Promise<AllRows> {
    if (at) return new FarRows(extract, at, { breathe: async () => control.breathe?.() });
    if (plan) return new FilesAgain(extract, (await this.data(plan)).files, choicesOf(plan), control);
    throw new InputError({
      file: extract.name,
      says: 'its rows are not at hand; bring its files again, or connect to its database',
    });
  }

  /** The data files of a plan. @throws InputError where there are none */
  private async data(plan: Plan): Promise<{ data: BroughtData[]; files: FileToRead[] }> {
    const { brought } = await this.bring(plan);
    const data = brought.filter(({ key }) => !plan.left.includes(key)).filter((one) => one.what === 'data');
    if (data.length === 0)
      throw new InputError({
        file: plan.handed[0]?.file.name ?? 'the files',
        says: 'there is no data among the files; bring the data that the codebook describes',
      });
    return {
      data,
      files: data.map(({ key, source, look, layout }) => ({
        source,
        look,
        layout,
        ...(plan.waves[key] ? { wave: plan.waves[key] } : {}),
      })),
    };
  }

  private bring(
    { handed, chosen, steps }: { handed: readonly HandedFile[]; chosen: Plan['chosen']; steps: Steps | null },
    marks?: Marks,
  ): ReturnType<typeof bring> {
    return bring(
      handed.map(({ key, file }): Handed => ({ key, source: fileSource(file) })),
      { chosen: new Map(Object.entries(chosen)), memo: this.memo, marks, steps },
    );
  }
}

type BroughtData = Brought & { what: 'data' };

const choicesOf = ({ part, marks, waveFrom }: Plan): Choices => ({ part, marks, waveFrom });

/** Tells how far the files are gone through, all together. */
export function reporting(
  files: readonly { bytes: number }[],
  does: string,
  tell: Tell,
): NonNullable<Control['progress']> {
  const whole = files.reduce((sum, { bytes }) => sum + bytes, 0);
  let finished = 0;
  let last = '';
  let current = 0;
  return (file, bytes, rows) => {
    if (file !== last && last) finished += current;
    last = file;
    current = bytes;
    tell({ says: `${does} ${file}`, done: finished + bytes, whole, rows });
  };
}

function foundOf(one: Brought): Found {
  const { key, name, bytes, archive } = one;
  const base = { key, name, bytes, archive };
  switch (one.what) {
    case 'data':
      return { ...base, what: 'data', look: one.look, layoutFrom: one.layoutFrom, cells: one.cells };
    case 'codebook': {
      const { form, title, entries } = one.codebook;
      return { ...base, what: 'codebook', form, title, variables: entries.length };
    }
    case 'log': {
      const read = anyLogSchema.safeParse(one.log);
      if (!read.success)
        return {
          ...base,
          what: 'problem',
          problem: { file: name, says: 'this is no dig log that is known here' },
        };
      return {
        ...base,
        what: 'log',
        extract: read.data.extract,
        rulings: inForce(read.data.entries).length,
        returned: one.variables !== null,
        steps: one.variables === null ? (read.data.reading ?? null) : null,
      };
    }
    case 'problem':
      return { ...base, what: 'problem', problem: one.problem };
    case 'passed':
      return { ...base, what: 'passed', says: one.says };
  }
}
