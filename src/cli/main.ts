import { existsSync, mkdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import type { ZodType } from 'zod';
import { Command, CommanderError, InvalidArgumentError, Option } from 'commander';
import { linkCodebooks } from '../core/codebook/link';
import type { Codebook } from '../core/extract/extract';
import { standingRulesSchema } from '../core/flags/standing-rules';
import { FORMS, type Form } from '../core/extract/extract';
import { InputError } from '../core/extract/problem';
import { Inspector } from '../core/inspect/inspect';
import { bring } from '../core/intake/bring';
import { readExtract } from '../core/intake/receive';
import { entryOf, entryText, type DigLog, type Entry } from '../core/log/entries';
import { anyLogSchema, fittingPlaces, misfitText } from '../core/log/migrate';
import { foldLog, inForce } from '../core/log/fold';
import { ENCODINGS, type Encoding } from '../core/read/encoding';
import type { Reading } from '../core/read/look';
import { demoFiles } from '../demo/files';
import { fileSource } from './source';

const EXIT_DEFECT = 1;
const EXIT_INPUT = 2;

const say = (text: string): void => void process.stderr.write(`${text}\n`);

interface Options {
  codebook: string[];
  out?: string;
  form?: Form;
  delimiter?: string;
  quote?: string;
  encoding?: Encoding;
  header?: 'yes' | 'no';
  titles?: number;
  sheet?: string;
  records?: string;
  decimal?: '.' | ',';
  dateOrder?: 'dmy' | 'mdy';
  missing: string[];
  waveFrom?: string;
  rulings?: string;
  standingRules?: string;
  rows?: number;
  columns?: string[];
}

async function inspect(paths: string[], options: Options): Promise<void> {
  const { codebook, out } = options;
  const reading = readingOf(options);
  const handed = [...paths, ...codebook].map((path, i) => ({ key: String(i), source: fileSource(path) }));
  const chosen = new Map(
    Object.keys(reading).length ? paths.map((_, i) => [String(i), reading] as const) : [],
  );
  const { brought, notices } = await bring(handed, chosen);
  for (const one of brought) {
    if (one.what === 'problem') throw new InputError(one.problem);
    if (one.what === 'passed') say(`${one.archive}: ${one.name} was passed over (${one.says})`);
    if (one.what === 'data' && Number(one.key) >= paths.length)
      throw new InputError({
        file: one.name,
        says: 'this is no codebook document that is known here; name it as a data file if it is one',
      });
  }
  const data = brought.filter((one) => one.what === 'data');
  const codebooks: Codebook[] = brought.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : []));
  if (data.length === 0)
    throw new InputError({
      file: paths[0],
      says: 'there is no data here, only what describes it; name the data file too',
    });
  const { waveFrom = 'found' } = options;
  const part =
    options.rows !== undefined || options.columns
      ? { rows: options.rows ?? null, names: options.columns ?? null }
      : null;
  const received = await readExtract(
    data.map(({ source, look, layout }) => ({ source, look, layout })),
    {},
    {
      part,
      marks: { decimal: options.decimal, order: options.dateOrder },
      waveFrom:
        waveFrom === 'found' || waveFrom === 'file-name' || waveFrom === 'none'
          ? waveFrom
          : { variable: waveFrom },
    },
  );
  const extract = linkCodebooks(received, codebooks);
  const inspector = new Inspector(
    extract,
    options.standingRules === undefined
      ? []
      : readJson(
          options.standingRules,
          standingRulesSchema,
          'file of standing rules',
          'give the standing rules that were exported',
        ).rules,
  );
  const rulings: DigLog | null =
    options.rulings === undefined
      ? null
      : readJson(options.rulings, anyLogSchema, 'dig log', 'give the dig log that the handoff saved');
  const { entries, misfits } = rulings ? fittingPlaces(rulings, extract.name) : { entries: [], misfits: [] };
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
  if (log.length) inspector.lay(foldLog(log));
  for (const says of unfitting(log, inspector)) say(says);
  for (const says of notices) say(says);
  for (const file of extract.files) {
    for (const { line, says } of file.notices) say(`${file.name}${line ? `, line ${line}` : ''}: ${says}`);
  }
  for (const { says } of inspector.notices) say(says);
  const text = `${JSON.stringify(inspector.document(), null, 1)}\n`;
  if (out) write(out, text);
  else process.stdout.write(text);
}

/** A saved document of ours. @param what its name, in words @throws InputError where it is none, with what to do */
function readJson<T>(path: string, schema: ZodType<T>, what: string, now: string): T {
  let text: string;
  try {
    text = readFileSync(path, 'utf8');
  } catch (cause) {
    throw new InputError({
      file: path,
      says: `cannot be read (${(cause as NodeJS.ErrnoException).code}); ${now}`,
    });
  }
  let found: unknown;
  try {
    found = JSON.parse(text);
  } catch (cause) {
    throw new InputError({ file: path, says: `this is no valid JSON (${(cause as Error).message}); ${now}` });
  }
  const read = schema.safeParse(found);
  if (read.success) return read.data;
  const [{ path: at, message }] = read.error.issues;
  throw new InputError({
    file: path,
    element: at.join('.') || undefined,
    says: `this is no ${what} that is known here (${message})`,
  });
}

/** What a log says of variables, codes and rows that this extract does not have. */
function unfitting(log: readonly Entry[], inspector: Inspector): string[] {
  return inForce(log).flatMap((entry) => {
    if (entry.id === 'missing') return [];
    const names =
      'variables' in entry
        ? entry.variables
        : 'variable' in entry
          ? [entry.variable]
          : entry.type === 'confirm-kind'
            ? entry.kinds.map(({ variable }) => variable)
            : entry.type === 'confirm-role'
              ? entry.roles.map(({ variable }) => variable)
              : [];
    const gates =
      entry.type === 'accept-universe'
        ? [entry.by, ...(entry.steps ?? []).map(({ by }) => by)]
        : entry.type === 'weigh' && entry.by !== null
          ? [entry.by]
          : [];
    const gone = [...new Set([...names, ...gates])].filter((name) => !inspector.named(name));
    const ruled =
      entry.type === 'declare-missing'
        ? entry.codes.map(({ code }) => code)
        : entry.type === 'merge-codes'
          ? entry.codes
          : [];
    const codes = ruled.filter((code) =>
      names.every(
        (name) =>
          !inspector
            .named(name)
            ?.levels.levels.some((level) => level.code === code || level.spellings.includes(code)),
      ),
    );
    return [
      ...(gone.length ? [`did not fit: ${entryText(entry)} (there is no ${gone.join(', ')} here)`] : []),
      ...(codes.length && names.some((name) => inspector.named(name))
        ? [`did not fit: ${entryText(entry)} (no row holds ${codes.join(', ')})`]
        : []),
    ];
  });
}

/** What the command line fixes of how files are read. */
function readingOf({
  form,
  delimiter,
  quote,
  encoding,
  header,
  titles,
  sheet,
  records,
}: Options): Partial<Reading> {
  return {
    ...(form ? { form } : {}),
    ...(delimiter === undefined ? {} : { delimiter: signOf(delimiter) }),
    ...(quote === undefined ? {} : { quote: quote === 'none' ? '' : quote }),
    ...(encoding ? { encoding } : {}),
    ...(header ? { header: header === 'yes' } : {}),
    ...(titles === undefined ? {} : { titles }),
    ...(sheet === undefined ? {} : { sheet }),
    ...(records === undefined
      ? {}
      : { records: records === 'list' || records === 'lines' ? records : (`in ${records}` as const) }),
  };
}

const SIGNS: ReadonlyMap<string, string> = new Map([
  ['tab', '\t'],
  ['\\t', '\t'],
  ['comma', ','],
  ['semicolon', ';'],
  ['bar', '|'],
  ['pipe', '|'],
  ['blank', ' '],
  ['space', ' '],
  ['colon', ':'],
]);

function signOf(text: string): string {
  const sign = SIGNS.get(text) ?? text;
  if (sign.length !== 1)
    throw new InputError({
      file: '--delimiter',
      says: `“${text}” is no single character; give one, or tab, comma, semicolon, bar, blank`,
    });
  return sign;
}

function wholeNumber(text: string): number {
  if (!/^\d+$/.test(text)) throw new InvalidArgumentError('a whole number is needed.');
  return Number(text);
}

/** Writes a file whole or not at all: beside its place first, then into it. @throws InputError where that cannot be */
function write(path: string, text: string | Uint8Array): void {
  const beside = `${path}.${process.pid}.part`;
  try {
    // What is no file, such as a pipe, is written as it is.
    if (existsSync(path) && !statSync(path).isFile()) return writeFileSync(path, text);
    writeFileSync(beside, text);
    renameSync(beside, path);
  } catch (cause) {
    rmSync(beside, { force: true });
    throw new InputError({
      file: path,
      says: `cannot be written (${(cause as NodeJS.ErrnoException).code}); nothing was changed there`,
    });
  }
}

function makeFolder(path: string): void {
  try {
    mkdirSync(path, { recursive: true });
  } catch (cause) {
    throw new InputError({
      file: path,
      says: `cannot be made a folder (${(cause as NodeJS.ErrnoException).code}); name another`,
    });
  }
}

const collect = (value: string, before: string[]): string[] => [...before, value];

const program = new Command('dig')
  .description('Know what is in an extract before you analyse it.')
  .exitOverride()
  .configureOutput({ writeErr: (text) => process.stderr.write(text) });

program
  .command('inspect')
  .description('inspect the files of one extract and print the inspection as JSON')
  .argument(
    '<file...>',
    'delimited or fixed-width text, workbooks, JSON records, Parquet; gzip and zip of these; several files of one structure are one extract',
  )
  .option(
    '--codebook <file>',
    'a codebook document (DDI, Table Schema, CSV on the Web, a table of codes); may be given more than once',
    collect,
    [],
  )
  .option('--out <file>', 'write there instead of standard output')
  .addOption(
    new Option('--form <form>', 'what the data files are, if not what they look like').choices([...FORMS]),
  )
  .option('--delimiter <sign>', 'what parts the cells: a character, or tab, comma, semicolon, bar, blank')
  .option('--quote <sign>', 'what cells are quoted with, or none')
  .addOption(new Option('--encoding <encoding>', 'how the text is encoded').choices([...ENCODINGS]))
  .addOption(
    new Option('--header <yes or no>', 'whether the first row names the columns').choices(['yes', 'no']),
  )
  .option('--titles <rows>', 'rows above the names that hold no data', wholeNumber)
  .option('--sheet <name>', 'the sheet of a workbook')
  .option(
    '--records <place>',
    'where the records of a JSON document are: list, lines, or the name of the member that holds them',
  )
  .addOption(
    new Option('--decimal <mark>', 'the decimal mark, where cells leave it open').choices(['.', ',']),
  )
  .addOption(
    new Option('--date-order <order>', 'day or month first, where cells leave it open').choices([
      'dmy',
      'mdy',
    ]),
  )
  .option(
    '--missing <text>',
    'a text that stands for no answer in every variable; may be given more than once',
    collect,
    [],
  )
  .option(
    '--wave-from <source>',
    'what tells the wave: found (a variable, if one does), file-name, none, or the name of a variable',
  )
  .option('--rulings <file>', 'a dig log that is laid over the extract first; what does not fit is told')
  .option(
    '--standing-rules <file>',
    'what you know of the archive’s codes, as exported: proposals among the flags',
  )
  .option('--rows <number>', 'only the first rows of each file', wholeNumber)
  .option('--columns <names>', 'only these variables, with commas between', (text: string) =>
    text
      .split(',')
      .map((name) => name.trim())
      .filter(Boolean),
  )
  .action(inspect);

program
  .command('demo')
  .description('write the files of the made-up Ostrey Upkeep Panel')
  .argument('[folder]', 'where to', '.')
  .action((folder: string) => {
    makeFolder(folder);
    for (const { name, text } of demoFiles()) {
      write(`${folder}/${name}`, text);
      say(`${folder}/${name}`);
    }
  });

try {
  await program.parseAsync();
} catch (cause) {
  if (cause instanceof CommanderError) process.exitCode = cause.exitCode === 0 ? 0 : EXIT_INPUT;
  else if (cause instanceof InputError) {
    say(cause.message);
    process.exitCode = EXIT_INPUT;
  } else {
    say(`a defect of ours: ${cause instanceof Error ? cause.stack : String(cause)}`);
    process.exitCode = EXIT_DEFECT;
  }
}
