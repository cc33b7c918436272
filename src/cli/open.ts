import { freemem, totalmem } from 'node:os';
import { linkCodebooks } from '../core/codebook/link';
import { nearNames } from '../core/extract/near-names';
import type { Codebook, Extract } from '../core/extract/extract';
import { InputError } from '../core/extract/problem';
import { standingRulesSchema, type StandingRule } from '../core/flags/standing-rules';
import { counted } from '../core/handoff/words';
import { Inspector } from '../core/inspect/inspect';
import { replayOf, type Replay } from '../core/inspect/replay';
import { bring } from '../core/intake/bring';
import { holdingIn, type Hold } from '../core/intake/holding';
import { FilesAgain } from '../core/intake/again';
import { readExtract, type Choices } from '../core/intake/receive';
import { asBefore, waveFromSteps } from '../core/intake/steps';
import { entryOf, type DigLog, type Entry } from '../core/log/entries';
import { foldLog } from '../core/log/fold';
import { anyLogSchema, digLogOf, fittingPlaces, misfitText } from '../core/log/migrate';
import { returned } from '../core/log/returned';
import type { AllRows } from '../core/rows/all-rows';
import { withHelper } from '../threads/with-helper';
import { completed, isOfDatabase, openTable, rowsOfTable, type DatabaseOptions } from './database';
import { filesIn, readJson, say } from './files';
import { helperFor } from './helper';
import { readingOf, type ReadingOptions } from './reading';
import { checkMade, checkNames, readRecodesFile, recodeEntries, unheldIn } from './recodes';
import { fitting, readSieveFile, sieveEntry } from './sieve';
import { fileSource } from './source';
import { unfitting } from './unfitting';

/** Options of every command that opens an extract. */
export interface OpenOptions extends ReadingOptions, DatabaseOptions {
  codebook: string[];
  out?: string;
  decimal?: '.' | ',';
  dateOrder?: 'dmy' | 'mdy';
  missing: string[];
  waveFrom?: string;
  rulings?: string;
  standingRules?: string;
  rows?: number;
  columns?: string[];
  sieve?: string;
  recodes?: string;
  /** Only where a sample of the rows does: else all are held. */
  hold?: Hold | 'auto';
  /** How many threads read; by default as many as help. */
  threads?: number;
  /** Whether all rows of a table have to be fetched. */
  allRows?: boolean;
}

/**
 * Reads the files of one extract with codebooks, rulings and sieve laid over it. What is noticed goes to standard error.
 * @param figures whether figures of variables are wanted: else tables alone @throws InputError for what cannot be used
 */
export async function openExtract(paths: string[], options: OpenOptions, figures = true): Promise<Inspector> {
  return (await openedWithLog(paths, options, figures)).inspector;
}

/** The same, with the log that is laid over it. */
export async function openedWithLog(
  given: string[],
  options: OpenOptions,
  figures = true,
): Promise<{ inspector: Inspector; log: Entry[]; replay: Replay | null; all: AllRows | null }> {
  const rulings = rulingsIn(options.rulings);
  const ofDatabase = isOfDatabase(given, options);
  const { extract, came, again } = ofDatabase
    ? await ofTable(options)
    : await received(given.flatMap(filesIn), options, rulings);
  checkWave(extract, options.waveFrom);
  const standing = standingIn(options.standingRules);
  let inspector = new Inspector(extract, standing);
  const { entries, misfits } = came
    ? { entries: came, misfits: [] }
    : rulings
      ? fittingPlaces(rulings, extract.name)
      : { entries: [], misfits: [] };
  for (const misfit of misfits) say(misfitText(misfit));
  const log = [...entries];
  if (options.missing.length) {
    const codes = options.missing.map((code) => ({ code, reason: 'other' as const }));
    log.push(
      entryOf(
        {
          type: 'declare-missing',
          variables: extract.variables.map(({ name }) => name),
          codes,
          rule: null,
          why: 'given on the command line',
        },
        'missing',
        new Date(),
      ),
    );
  }
  const recodes = options.recodes === undefined ? [] : readRecodesFile(options.recodes);
  checkNames(recodes, options.recodes ?? '', inspector);
  log.push(...recodeEntries(recodes));
  const sieve = options.sieve === undefined ? null : readSieveFile(options.sieve);
  if (sieve) log.push(sieveEntry(sieve));
  if (log.length) inspector.lay(foldLog(log));
  const complete = ofDatabase ? await completed(inspector) : null;
  if (complete) {
    inspector = new Inspector(complete, standing);
    if (log.length) inspector.lay(foldLog(log));
  }
  const all = again ?? (ofDatabase ? rowsOfTable(inspector.received) : null);
  if (all && !(await inspector.countAll(all, figures)))
    say(
      `cells were corrected or rows added by hand, which all rows know nothing of: sieves and tables are of the ${inspector.extract.rows} rows held`,
    );
  if (recodes.length) {
    checkMade(options.recodes ?? '', inspector);
    for (const says of unheldIn(recodes, options.recodes ?? '', inspector)) say(says);
  }
  if (sieve) for (const says of fitting(sieve, options.sieve ?? '', inspector)) say(says);
  const replay = replayOf(entries, inspector);
  for (const says of unfitting(replay, entries)) say(says);
  for (const file of extract.files) {
    for (const { line, says } of file.notices) say(`${file.name}${line ? `, line ${line}` : ''}: ${says}`);
  }
  for (const { says } of inspector.notices) say(says);
  return { inspector, log, replay: rulings || came ? replay : null, all };
}

/** @throws InputError where the variable that is to tell the wave is not there, with names that are near */
function checkWave({ name: file, variables, wave }: Extract, waveFrom: string | undefined): void {
  if (waveFrom === undefined || ['found', 'file-name', 'none'].includes(waveFrom)) return;
  if (wave?.variable === waveFrom || variables.some(({ name }) => name === waveFrom)) return;
  const near = nearNames(
    waveFrom,
    variables.map(({ name }) => name),
  );
  throw new InputError({
    file,
    element: `--wave-from ${waveFrom}`,
    says: `there is no variable ${waveFrom}${near.length ? `; near are ${near.join(', ')}` : ''}; say found, file-name, none, or the name of a variable`,
  });
}

const rulingsIn = (path: string | undefined): DigLog | null =>
  path === undefined
    ? null
    : readJson(path, anyLogSchema, 'dig log', 'give the dig log that the handoff saved');

const standingIn = (path: string | undefined): StandingRule[] =>
  path === undefined
    ? []
    : readJson(
        path,
        standingRulesSchema,
        'file of standing rules',
        'give the standing rules that were exported',
      ).rules;

/** What is known of a table of a database. */
async function ofTable(
  options: OpenOptions,
): Promise<{ extract: Extract; came: null; again: AllRows | null }> {
  const handed = options.codebook.map((path, i) => ({ key: String(i), source: fileSource(path) }));
  const { brought, notices } = await bring(handed);
  for (const says of notices) say(says);
  const codebooks = brought.flatMap((one) => {
    if (one.what === 'codebook') return [one.codebook];
    throw one.what === 'problem' ? new InputError(one.problem) : notCodebook(one.name);
  });
  return { extract: await openTable(options, codebooks), came: null, again: null };
}

const notCodebook = (name: string): InputError =>
  new InputError({
    file: name,
    says: 'this is no codebook document that is known here; name it as a data file if it is one',
  });

/** What is read, and the log that came along with it: a handoff that came back, or one that was named among the files. */
async function received(
  paths: string[],
  options: OpenOptions,
  rulings: DigLog | null,
): Promise<{ extract: Extract; came: Entry[] | null; again: AllRows | null }> {
  const { codebook, waveFrom } = options;
  const reading = readingOf(options);
  const handed = [...paths, ...codebook].map((path, i) => ({ key: String(i), source: fileSource(path) }));
  const chosen = new Map(
    Object.keys(reading).length ? paths.map((_, i) => [String(i), reading] as const) : [],
  );
  const { brought, notices } = await bring(handed, { chosen, steps: rulings?.reading ?? null });
  for (const says of notices) say(says);
  for (const one of brought) {
    if (one.what === 'problem') throw new InputError(one.problem);
    if (one.what === 'passed')
      say(`${one.archive ?? 'the files'}: ${one.name} was passed over (${one.says})`);
    if (one.what === 'data' && Number(one.key) >= paths.length) throw notCodebook(one.name);
  }
  const data = brought.filter((one) => one.what === 'data');
  const codebooks: Codebook[] = brought.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : []));
  if (data.length === 0)
    throw new InputError({
      file: paths[0],
      says: 'there is no data here, only what describes it; name the data file too',
    });
  for (const { name, look } of data) for (const says of asBefore(look)) say(`${name}: ${says}`);
  const logs = rulings ? [] : brought.flatMap((one) => (one.what === 'log' ? [one] : []));
  const along = logs.map((one) => ({ ...one, log: digLogOf(one.name, one.log) })).at(0) ?? null;
  const steps = rulings?.reading ?? (along && along.variables === null ? along.log.reading : null);
  const part =
    options.rows !== undefined || options.columns
      ? { rows: options.rows ?? null, names: options.columns ?? null }
      : null;
  const files = data.map(({ source, look, layout }) => ({ source, look, layout }));
  const choices: Choices = {
    part,
    hold: heldOf(
      data.map(({ look }) => look),
      options.hold ?? 'all',
    ),
    marks: {
      decimal: options.decimal ?? steps?.marks.decimal,
      order: options.dateOrder ?? steps?.marks.order,
    },
    waveFrom:
      waveFrom === undefined
        ? steps
          ? waveFromSteps(steps)
          : 'found'
        : waveFrom === 'found' || waveFrom === 'file-name' || waveFrom === 'none'
          ? waveFrom
          : { variable: waveFrom },
  };
  const forms = data.map(({ look }) => ({ ...look, form: look.reading.form }));
  const read = await withHelper(
    () => helperFor(forms, options.threads),
    (helper) => readExtract(files, {}, { ...choices, helper }),
  );
  if (along?.variables) {
    const back = returned(read, codebooks, along.log, along.variables);
    say(`${along.name} is laid: ${counted(back.entries.length, 'ruling')}`);
    for (const says of back.stands) say(`stands in the data already: ${says}`);
    return { extract: linkCodebooks(back.extract, back.codebooks), came: back.entries, again: null };
  }
  const extract = linkCodebooks(read, codebooks);
  const again = extract.pass ? new FilesAgain(extract, files, choices) : null;
  if (!along) return { extract, came: null, again };
  const { entries, misfits } = fittingPlaces(along.log, extract.name);
  for (const misfit of misfits) say(misfitText(misfit));
  return { extract, came: entries, again };
}

/** Of the memory that is free so much may be used, and of all there is in any case: what is called free leaves out much that is. */
const OF_FREE = 0.7;
const OF_ALL = 0.25;

/** Which way the files are read, as said or as the memory of this machine allows; the latter is told where it is a sample. */
function heldOf(files: readonly { bytes: number; packed: boolean }[], wanted: Hold | 'auto'): Hold {
  if (wanted !== 'auto') return wanted;
  const room = Math.max(freemem() * OF_FREE, totalmem() * OF_ALL);
  const { hold, takes } = holdingIn(files, room);
  if (hold === 'sample')
    say(
      `all rows together would take about ${gigabytes(takes)} of memory, of which ${gigabytes(room)} can be used: all are counted as they pass, and a sample is held (--hold all holds them all the same)`,
    );
  return hold;
}
const gigabytes = (bytes: number): string => `${(bytes / 1e9).toFixed(1)} GB`;
