import { execFileSync, spawnSync } from 'node:child_process';
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { HABITS, HABITS_CELLS, HABITS_DECISIONS, HABITS_ENTRIES } from '../../../testing/habits';
import { DECISIONS, dig, ENTRIES, HOMES, written } from '../../../testing/homes';

const has = (command: string): boolean => spawnSync(command, ['--version']).status === 0;

describe('scripts', () => {
  const from = dig(HOMES, DECISIONS, ENTRIES);
  const folder = async (): Promise<string> => {
    const to = mkdtempSync(join(tmpdir(), 'dig-scripts-'));
    for (const [name, bytes] of await written(from, ['scripts'])) writeFileSync(join(to, name), bytes);
    return to;
  };
  it.skipIf(!has('python3'))(
    'of Python read the data as declared (skipped where there is no python3)',
    async () => {
      const says = execFileSync(
        'python3',
        [
          '-c',
          `import json, runpy
g = runpy.run_path("made.py")
print(json.dumps([g["extract"]["tenure"][:5], g["label"]["tenure"], g["labels"]["tenure"]["1"], g["missing"]["tenure"], g["extract"]["rent"][:3], g["extract"]["remark"][1:7], str(g["extract"]["day"][0]), g["extract"]["long"][0], len(g["extract"]["hhid"]), g["extract"]["zero"][:2]]))`,
        ],
        { cwd: await folder(), encoding: 'utf8' },
      );
      expect(JSON.parse(says)).toEqual([
        [1, 2, 3, null, 1],
        'Tenure <of> the "home"',
        'Owned',
        { '9': 'refused' },
        [null, 12.5, 25],
        ['a "quoted", one', 'two\nlines', '=1+1', ' blanks ', '🏠 Ø', null],
        '2020-01-10',
        expect.anything(),
        HOMES.hhid.length,
        expect.anything(),
      ]);
    },
  );
  it.skipIf(!has('Rscript'))(
    'of R read the data as declared (skipped where there is no Rscript)',
    async () => {
      const says = execFileSync(
        'Rscript',
        [
          '-e',
          'source("made.R", encoding = "UTF-8"); cat(class(extract$tenure), as.character(extract$tenure[1:5]), attr(extract$tenure, "label"), attr(extract$tenure, "labels")[["1"]], attr(extract$tenure, "missing")[["9"]], extract$rent[1:3], format(extract$day[1]), nrow(extract), sep = "|")',
        ],
        { cwd: await folder(), encoding: 'utf8' },
      );
      expect(says).toBe(
        'ordered|factor|1|2|3|NA|1|Tenure <of> the "home"|Owned|refused|NA|12.5|25|2020-01-10|60',
      );
    },
  );
});

describe('scripts, of numbers and days as people write them', () => {
  const folder = async (): Promise<string> => {
    const to = mkdtempSync(join(tmpdir(), 'dig-habits-'));
    const files = await written(dig(HABITS_CELLS, HABITS_DECISIONS, HABITS_ENTRIES), ['scripts']);
    for (const [name, bytes] of files) writeFileSync(join(to, name), bytes);
    return to;
  };
  const NUMBERS = Object.keys(HABITS).filter((name) =>
    HABITS[name].values.some((one) => typeof one === 'number'),
  );
  /** What stands for no answer or is no number is nothing. */
  const numbers = (name: string): (number | null)[] =>
    HABITS[name].values.map((value) => (typeof value === 'number' ? value : null));

  it.skipIf(!has('python3'))('of Python (skipped where there is no python3)', async () => {
    const says = execFileSync(
      'python3',
      [
        '-c',
        `import json, runpy
g = runpy.run_path("made.py")
print(json.dumps({name: [str(one) if isinstance(one, int) and abs(one) > 2**53 else one if isinstance(one, (int, float, bool, str)) or one is None else one.isoformat() for one in values] for name, values in g["extract"].items()}))`,
      ],
      { cwd: await folder(), encoding: 'utf8', env: { ...process.env, LC_ALL: 'C', PYTHONUTF8: '0' } },
    );
    const read = JSON.parse(says) as Record<string, unknown[]>;
    for (const name of NUMBERS) expect([name, read[name]]).toEqual([name, numbers(name)]);
    for (const name of ['day', 'dmy', 'moment', 'zoned', 'truth', 'long20'])
      expect([name, read[name]]).toEqual([name, HABITS[name].values]);
  });

  it.skipIf(!has('Rscript'))(
    'of R, in a C locale (skipped where there is no Rscript)',
    { timeout: 60_000 },
    async () => {
      const says = execFileSync(
        'Rscript',
        [
          '-e',
          `source("made.R"); for (name in names(extract)) { x <- extract[[name]]; if (inherits(x, "POSIXct")) x <- format(x, "%Y-%m-%dT%H:%M:%S"); x <- as.character(if (is.numeric(x)) sprintf("%.17g", x) else x); cat(enc2utf8(name), ifelse(is.na(x) | x == "NA", "", x), sep = "\\t"); cat("\\n") }`,
        ],
        { cwd: await folder(), encoding: 'utf8', env: { ...process.env, LC_ALL: 'C' } },
      );
      const read = new Map(
        says
          .trimEnd()
          .split('\n')
          .map((line) => {
            const [name, ...cells] = line.split('\t');
            return [name, cells];
          }),
      );
      for (const name of NUMBERS)
        expect([name, read.get(name)?.map((text) => (text === '' ? null : Number(text)))]).toEqual([
          name,
          numbers(name),
        ]);
      for (const name of ['day', 'dmy', 'moment', 'zoned', 'long20', 'big'])
        expect([name, read.get(name)]).toEqual([name, HABITS[name].values]);
      expect(read.get('truth')).toEqual(HABITS.truth.cells);
    },
  );

  it.skipIf(!has('Rscript'))('of R stop where rows are lost', async () => {
    const to = await folder();
    writeFileSync(join(to, 'made.csv'), 'zeros\r\n1\r\n');
    const { status, stderr } = spawnSync('Rscript', ['-e', 'source("made.R")'], {
      cwd: to,
      encoding: 'utf8',
    });
    expect(status).not.toBe(0);
    expect(stderr).toContain('40 rows were written, and 1 are read');
  });

  it.skipIf(!has('Rscript'))('of R give levels that are labels where that is wanted', async () => {
    const says = execFileSync(
      'Rscript',
      ['-e', 'labels_as_levels <- TRUE; source("made.R"); cat(levels(extract$satisfied), sep = "|")'],
      { cwd: await folder(), encoding: 'utf8' },
    );
    expect(says).toBe('Very|So so (2)|So so (3)|5');
  });

  const pandas = ['/usr/bin/python3', 'python3'].find(
    (command) => spawnSync(command, ['-c', 'import pandas']).status === 0,
  );
  it.skipIf(!pandas)(
    'of Python give a data frame with categories (skipped where there is no pandas)',
    async () => {
      const says = execFileSync(
        pandas ?? '',
        [
          '-c',
          `import json, runpy
g = runpy.run_path("made.py")
f, named = g["frame"](), g["frame"](True)
print(json.dumps([[str(one) for one in f.dtypes], [int(one) for one in f.satisfied.cat.categories], list(named.satisfied.cat.categories), bool(f.satisfied.cat.ordered), f.attrs["label"]["satisfied"], round(float(f.commas.sum()), 2)]))`,
        ],
        { cwd: await folder(), encoding: 'utf8' },
      );
      const [types, codes, labels, ordered, label, sum] = JSON.parse(says) as unknown[];
      expect(types).toEqual(
        expect.arrayContaining(['Int64', 'float64', 'datetime64[ns]', 'boolean', 'category']),
      );
      expect([codes, labels, ordered, label]).toEqual([
        [1, 2, 3, 5],
        ['Very', 'So so (2)', 'So so (3)', '5'],
        true,
        'How satisfied',
      ]);
      expect(sum).toBeCloseTo(
        numbers('commas').reduce<number>((all, one) => all + (one ?? 0), 0),
        2,
      );
    },
  );

  it.skipIf(!has('python3'))('of Python hold labels where labels were written', async () => {
    const labels = Object.fromEntries([['tenure', HOMES.tenure.filter((code) => code !== '9')]]);
    const to = mkdtempSync(join(tmpdir(), 'dig-labels-'));
    const entries = ENTRIES.filter(({ name }) => name === 'tenure');
    for (const [name, bytes] of await written(dig(labels, [], entries), ['scripts'], { cells: 'labels' }))
      writeFileSync(join(to, name), bytes);
    const says = execFileSync(
      'python3',
      ['-c', 'import runpy; print(runpy.run_path("made.py")["extract"]["tenure"][:2])'],
      { cwd: to, encoding: 'utf8' },
    );
    expect(says.trim()).toBe("['Owned', 'Rented']");
  });
});
