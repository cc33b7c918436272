import { carriedCodebook } from '../codebook/handed';
import type { Extract, FileSource, HowRead, Marks, Notice, Part, Variable } from '../extract/extract';
import { InputError } from '../extract/problem';
import type { Storage } from '../extract/words';
import type { Layout } from '../read/fixed-width';
import { lookAt, readFile, type Look, type Reading } from '../read/look';
import type { ByteSource, Control } from '../read/source';
import type { Spans } from '../extract/cells-in-bytes';
import { differencesOf } from './differences';
import { metNotices, namesMet } from './meet';
import type { Helper } from './helper';
import type { Hold } from './holding';
import { PassingRows } from './passing';
import { SharedColumns } from './shared-columns';
import { ColumnTakers, type Batch, type Columns, type Finished } from './takers';
import { nameWaves, type WaveFrom } from './waves';

/** A file to be read, with whatever a person fixed of how. */
export interface FileToRead {
  source: ByteSource;
  reading?: Partial<Reading>;
  /** What a first look found, so that it need not be taken again. */
  look?: Look;
  /** Where the columns of a fixed-width file stand. */
  layout?: Layout | null;
  /** What the file is called among the waves; by default what its name says. */
  wave?: string;
}

export interface Choices {
  part?: Part | null;
  marks?: Marks;
  waveFrom?: WaveFrom;
  /** Columns of files that were read before, which these are to join. */
  known?: readonly string[];
  /** Whether all rows are held, or a sample of them, all being counted as they pass. */
  hold?: Hold;
  /** Bounds of what is held of a sample; by default what a table of its width has room for. */
  bounds?: { rows: number; texts: number };
  /** Sees rows as they pass. @returns zero-based rows of the batch that are taken; all are where nobody looks */
  through?: (batch: PassingRows) => number[];
  /** Takes some of the columns in another thread. */
  helper?: Helper | null;
}

/**
 * Reads files of one structure as one extract: rows add up in the order given, variables stand in the first file's
 * order, those that only later files have come last. Columns meet by name, without regard to case where that is clear.
 * @throws InputError naming file and place; nothing of the extract is kept then
 */
export async function readExtract(
  files: readonly FileToRead[],
  control: Control = {},
  {
    part = null,
    marks,
    waveFrom = 'found',
    known = [],
    hold = 'all',
    bounds,
    through,
    helper = null,
  }: Choices = {},
): Promise<Extract> {
  if (files.length === 0)
    throw new InputError({ file: 'the files', says: 'no data among them; bring a file with rows too' });
  const wanted = part?.names ? new Set(part.names) : null;
  const columns = new ColumnTakers({ hold, bounds });
  const shared = helper ? new SharedColumns(columns, helper, { hold, bounds }) : null;
  const takers: Columns = shared ?? columns;
  /** Names of the columns that are taken, in the order in which files have them. */
  const taken = new Set<string>();
  const breathe = async (): Promise<void> => {
    await shared?.wait();
    await control.breathe?.();
  };
  const declared = new Map<string, Storage | undefined>();
  const sources: FileSource[] = [];
  let passed = 0;
  for (const { source, reading, look: seen, layout = null, wave } of files) {
    const look = seen ?? (await lookAt(source, reading, layout));
    takers.expect(expectedRows(look, files), look.names.length);
    const notices: Notice[] = [];
    let names: string[] = [];
    const file = sources.length;
    const before = columns.rows;
    const kept = (cells: string[][] | Spans): Batch => {
      if (!through) return cells;
      const batch = new PassingRows(passed, file, names, cells);
      passed += batch.rows;
      const at = through(batch);
      return at.length === batch.rows ? cells : batch.only(at);
    };
    const read = await readFile(
      source,
      look.reading,
      layout,
      {
        names(found, types) {
          const met = namesMet(found, new Set([...known, ...taken]));
          for (const notice of metNotices(found, met))
            if (!notices.some(({ says }) => says === notice.says)) notices.push(notice);
          names = met;
          met.forEach((name, i) => {
            if (wanted && !wanted.has(name)) return;
            taken.add(name);
            if (types)
              declared.set(
                name,
                declared.has(name) && declared.get(name) !== types[i] ? undefined : types[i],
              );
          });
          takers.begin(
            source.name,
            met.map((name) => (taken.has(name) ? name : null)),
          );
        },
        rows: (batch) => takers.take(kept(batch)),
        spans: (spans) => takers.take(kept(spans)),
      },
      { breathe, progress: (file, bytes) => control.progress?.(file, bytes, columns.rows) },
      part?.rows ?? null,
    );
    takers.endFile();
    const codebook = read.carried === undefined ? null : carriedCodebook(source.name, read.carried);
    sources.push({
      name: source.name,
      bytes: source.bytes,
      rows: through ? columns.rows - before : read.rows,
      columns: read.columns,
      form: look.reading.form,
      encoding: read.encoding,
      delimiter: look.reading.form === 'delimited' ? look.reading.delimiter : null,
      header: look.reading.header || look.reading.form === 'json' || look.reading.form === 'parquet',
      ...(read.sheet === undefined ? {} : { sheet: read.sheet }),
      how: howRead(look, layout),
      ...(wave === undefined ? {} : { wave }),
      ...(read.partial ? { partial: true } : {}),
      ...(read.lines && !through ? { lines: read.lines } : {}),
      ...(read.begins && hold === 'sample' && !through ? { begins: read.begins } : {}),
      ...(codebook ? { codebook } : {}),
      names,
      notices: [...notices, ...read.notices],
    });
  }
  if (taken.size === 0)
    throw new InputError({
      file: files[0].source.name,
      says: `none of the wanted variables is there (${[...(wanted ?? [])].slice(0, 5).join(', ')}); check their names`,
    });
  const finished = shared ? await shared.finish() : columns.finished;
  return madeOf(finished, columns, sources, declared, { part, marks, waveFrom, hold });
}

/** The extract that columns of files come to. */
function madeOf(
  finished: readonly Finished[],
  columns: ColumnTakers,
  sources: readonly FileSource[],
  declared: ReadonlyMap<string, Storage | undefined>,
  { part, marks, waveFrom = 'found', hold }: Pick<Choices, 'part' | 'marks' | 'waveFrom' | 'hold'>,
): Extract {
  const variables = finished.map(([name, column, pass], i): Variable => ({
    name,
    position: i + 1,
    column,
    entry: null,
    ...(declared.get(name) ? { declared: declared.get(name) } : {}),
    ...(pass ? { pass } : {}),
  }));
  const partial = part && (part.names !== null || sources.some((file) => file.partial));
  return nameWaves(
    {
      name: extractName(sources.map(({ name }) => name)),
      files: columns.filesHeld(sources),
      codebooks: [],
      notices: differencesOf(sources),
      linkNotices: [],
      rows: columns.held,
      variables,
      ...(hold === 'sample' ? { pass: { rows: columns.rows, places: columns.places } } : {}),
      ...(partial ? { part } : {}),
      ...(marks && (marks.decimal || marks.order) ? { marks } : {}),
    },
    waveFrom,
  );
}

/** About how many rows the files have together, by what a first look at one of them shows. */
function expectedRows({ all, about, bytes }: Look, files: readonly FileToRead[]): number {
  const whole = files.reduce((sum, { source }) => sum + source.bytes, 0);
  return Math.max(1, ((all ?? about ?? bytes / USUAL_ROW) * whole) / Math.max(1, bytes));
}
/** Bytes of a row, where nothing tells. */
const USUAL_ROW = 100;

/** The files' common name, without endings: "upkeep_2021.csv.gz" → "upkeep_2021". */
export function extractName(files: readonly string[]): string {
  const bare = files.map((file) =>
    file.replace(/\.(gz|csv|tsv|tab|txt|dat|psv|json|jsonl|ndjson|parquet|xlsx|xlsm)\b/gi, ''),
  );
  if (bare.length === 1) return bare[0] || files[0];
  let common = bare[0];
  for (const name of bare) while (!name.startsWith(common)) common = common.slice(0, -1);
  // What the names begin with, without the beginning of a year or number that they do not share.
  return common.replace(/[\s_.-]*\d{0,3}$/, '').replace(/[\s_.-]+$/, '') || bare[0];
}

/** What else was fixed of how a file is read. */
const howRead = ({ reading: { quote, titles, records } }: Look, layout: Layout | null): HowRead => ({
  quote,
  titles,
  records,
  layout:
    layout?.map(({ name, start, end, record }) => ({
      name,
      start,
      end,
      ...(record === undefined ? {} : { record }),
    })) ?? null,
});
