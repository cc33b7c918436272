import { Command, CommanderError, InvalidArgumentError, Option } from 'commander';
import { linkCodebooks } from '../core/codebook/link';
import type { Codebook } from '../core/extract/extract';
import { standingRulesSchema } from '../core/flags/standing-rules';
import { FORMS, type Form } from '../core/extract/extract';
import { InputError } from '../core/extract/problem';
import { Inspector } from '../core/inspect/inspect';
import { onlyOf } from '../core/inspect/sets-told';
import type { Inspection } from '../core/inspect/schema';
import { bring } from '../core/intake/bring';
import { readExtract } from '../core/intake/receive';
import { entryOf, type DigLog } from '../core/log/entries';
import { anyLogSchema, fittingPlaces, misfitText } from '../core/log/migrate';
import { foldLog } from '../core/log/fold';
import { ENCODINGS, type Encoding } from '../core/read/encoding';
import type { Reading } from '../core/read/look';
import { setNamed } from '../core/sets/named';
import { demoFiles } from '../demo/files';
import { makeFolder, readJson, write } from './files';
import { fileSource } from './source';
import { unfitting } from './unfitting';

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
  set?: string;
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
  const document = inspector.document();
  const text = `${JSON.stringify(options.set === undefined ? document : ofSet(document, options.set, inspector), null, 1)}\n`;
  if (out) write(out, text);
  else process.stdout.write(text);
}

/** The document with no variables and flags but those of a set. @throws InputError where there is no set of that name */
function ofSet(document: Inspection, name: string, inspector: Inspector): Inspection {
  const { variables: names, near } = setNamed(name, inspector.sets, inspector.proposals);
  if (names === null)
    throw new InputError({
      file: document.source.name,
      element: `--set ${name}`,
      says: near.length
        ? `there is no set of that name; near are ${near.map((one) => `“${one}”`).join(', ')}`
        : `there is no set of that name; there are ${document.sets.length} proposed, named under sets in the inspection`,
    });
  const { flags, ...narrowed } = onlyOf(document, names);
  // What is about rows as a whole is about no set.
  return { ...narrowed, flags: flags.filter(({ variables }) => variables.length > 0) };
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
  .option(
    '--set <name>',
    'only the variables and flags of a set: one of the rulings, the archive’s, or proposed',
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
