import Papa from 'papaparse';
import { Command, CommanderError, InvalidArgumentError, Option } from 'commander';
import { FORMS } from '../core/extract/extract';
import { InputError } from '../core/extract/problem';
import { ENCODINGS } from '../core/read/encoding';
import { HANDOFF_FORMS } from '../core/handoff/handoff-forms';
import { demoFiles } from '../demo/files';
import { makeFolder, say, write } from './files';
import { cross } from './cross';
import { closeTable } from './database';
import { handoff } from './handoff';
import { inspect } from './inspect';
import { rows } from './rows';

const EXIT_DEFECT = 1;
const EXIT_INPUT = 2;

function wholeNumber(text: string): number {
  if (!/^\d+$/.test(text)) throw new InvalidArgumentError('a whole number is needed.');
  return Number(text);
}

function fromOne(text: string): number {
  const number = wholeNumber(text);
  if (number < 1) throw new InvalidArgumentError('it has to be 1 or more.');
  return number;
}

function threads(text: string): number {
  const number = wholeNumber(text);
  if (number !== 1 && number !== 2) throw new InvalidArgumentError('it has to be 1 or 2.');
  return number;
}

const collect = (value: string, before: string[]): string[] => [...before, value];
/** Names with commas between; one with a comma in it stands in quotation marks, as in delimited text. */
function names(text: string): string[] {
  const [row = []] = Papa.parse<string[]>(text.replace(/,\s+(?=")/g, ',')).data;
  const found = row.map((name) => name.trim()).filter(Boolean);
  if (found.length === 0) throw new InvalidArgumentError('it names no variable.');
  const twice = found.find((name, i) => found.indexOf(name) !== i);
  if (twice !== undefined) throw new InvalidArgumentError(`it names ${twice} twice.`);
  return found;
}

const program = new Command('dig')
  .description('Know what is in an extract before you analyse it.')
  .exitOverride()
  .configureOutput({
    writeErr: (text) => process.stderr.write(text),
    // One line, whatever else there is to say.
    outputError: (text, write) => write(`${text.trim().replace(/\s*\n\s*/g, ' ')}\n`),
  });

// Whoever reads what is printed may have enough of it: that is no defect.
process.stdout.on('error', (cause: NodeJS.ErrnoException) => {
  if (cause.code !== 'EPIPE') throw cause;
  process.exit(0);
});

/**
 * A command that opens the files of one extract, with all that says how they are read and what is laid over them. What writes
 * data says by `--form` and `--missing` how they are written.
 */
const opening = (name: string, description: string, writes = false): Command => {
  const command = program
    .command(name)
    .description(description)
    .argument(
      '[file...]',
      'delimited or fixed-width text, workbooks, JSON records, Parquet; gzip and zip of these; several files of one structure are one extract',
    )
    .option(
      '--database <address>',
      'instead of files: a database that speaks PostgreSQL’s protocol, postgres://user@host:port/name; by default DIG_DATABASE. The password comes from there, PGPASSWORD or a pgpass file',
    )
    .option('--table <name>', 'the table of the database, as SQL names it: schema.table')
    .option('--query <sql>', 'a query in place of a table; it may only read')
    .option('--timeout <seconds>', 'how long one statement may take', wholeNumber)
    .option(
      '--codebook <file>',
      'a codebook document (DDI, Table Schema, CSV on the Web, a table of codes); may be given more than once',
      collect,
      [],
    )
    .option('--out <file>', 'write there instead of standard output')
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
      'where the records of a JSON document are: list, lines, the name of the member that holds them; or columns, index, split',
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
      '--wave-from <source>',
      'what tells the wave: found (a variable, if one does), file-name, none, or the name of a variable',
    )
    .option('--rulings <file>', 'a dig log that is laid over the extract first; what does not fit is told')
    .option(
      '--standing-rules <file>',
      'what you know of the archive’s codes, as exported: proposals among the flags',
    )
    .option('--rows <number>', 'only the first rows of each file', fromOne)
    .option('--columns <names>', 'only these variables, with commas between', names)
    .option('--recodes <file>', 'trial recodes, used like any variable; they stand at the end')
    .option('--sieve <file>', 'only the rows that a sieve keeps')
    .option(
      '--threads <number>',
      'how many threads read: 1 or 2; by default 2 where a file is large and the machine has them',
      threads,
    );
  if (writes) return command;
  return command
    .addOption(
      new Option('--form <form>', 'what the data files are, if not what they look like').choices([...FORMS]),
    )
    .option(
      '--missing <text>',
      'a text that stands for no answer in every variable; may be given more than once',
      collect,
      [],
    );
};

const hold = new Option(
  '--hold <rows>',
  'all rows in memory, or a sample while all are counted as they pass; auto: as memory allows',
)
  .choices(['auto', 'all', 'sample'])
  .default('auto');

opening('inspect', 'inspect the files of one extract and print the inspection as JSON')
  .addOption(hold)
  .option(
    '--set <name>',
    'only the variables and flags of a set: one of the rulings, the archive’s, or proposed',
  )
  .action(inspect);

opening('rows', 'print records of an extract as JSON, sorted, sieved or found')
  .addOption(hold)
  .option('--dropped', 'the rows that the sieve drops, each with the conditions that it fails')
  .option(
    '--sort <name>',
    'sort by a variable, NAME or NAME:down; may be given more than once, the first leads',
    collect,
    [],
  )
  .option('--find <text>', 'only rows where a cell shown holds the text, in the file or in a label')
  .option('--variables <names>', 'only these variables, in this order, with commas between', names)
  .option('--from <number>', 'the first row to print, from 1', wholeNumber, 1)
  .option('--take <number>', 'how many to print', wholeNumber, 50)
  .action(rows);

opening('cross', 'hold one variable against another, or against every other, and print the table as JSON')
  .addOption(hold)
  .requiredOption('--down <name>', 'the variable that stands down')
  .option('--across <name>', 'the variable that stands across')
  .option('--within <name>', 'the variable within whose levels the table is repeated')
  .option('--weight <name>', 'weigh rows by this; else by the weight of the rulings, if there is one')
  .option('--measure <name>', 'a count or continuous variable, summarised in each cell')
  .option('--with-missing', 'missing, not asked, blank and unreadable as lines and columns of their own')
  .option('--small <number>', 'cells of fewer rows are marked small', wholeNumber, 10)
  .option('--everything', 'against every other variable, the strongest first')
  .action(cross);

opening(
  'handoff',
  'write the chosen variables and rows in open forms, with codebook, dig log and manifest',
  true,
)
  .requiredOption('--to <folder>', 'where to')
  .requiredOption(
    '--form <forms>',
    `forms with commas between: ${HANDOFF_FORMS.join(', ')}; may be given more than once`,
    collect,
    [],
  )
  .option(
    '--variables <names>',
    'only these variables, with commas between; identifiers, waves, weights and design go along',
    names,
  )
  .option('--alone', 'nothing goes along that was not named')
  .addOption(
    new Option('--cells <what>', 'what stands in labelled cells')
      .choices(['codes', 'labels'])
      .default('codes'),
  )
  .addOption(
    new Option('--missing <how>', 'whether codes for no answer stay')
      .choices(['keep', 'blank'])
      .default('keep'),
  )
  .option('--harmless', 'an apostrophe before cells that a spreadsheet would run')
  .option('--replace', 'write over files of the same names')
  .action(handoff);

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
} finally {
  await closeTable();
}
