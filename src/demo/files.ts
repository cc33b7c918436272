import Papa from 'papaparse';
import { strToU8, zipSync } from 'fflate';
import { codebookXml, type Places } from './ddi';
import type { Item } from './item';
import { makePanel, type Panel } from './panel';

export interface DemoFile {
  name: string;
  type: string;
  /** Made when it is first asked for. */
  readonly text: string;
}

const CSV = 'text/csv; charset=utf-8';
const XML = 'application/xml; charset=utf-8';
let made: DemoFile[] | null = null;

/** The demo's files as the made-up archive hands them out, with the truth about what is planted in them. */
export function demoFiles(): DemoFile[] {
  made ??= filesOf(makePanel());
  return made;
}

/** The files of a panel: a delimited file a wave, their codebook, and the last wave in fixed width with its own codebook. */
export function filesOf({ items, waves, truth }: Panel): DemoFile[] {
  const names = items.map(({ name }) => name);
  const last = waves[waves.length - 1];
  const fixed = `upkeep_${last.year}_fixed`;
  const twin = once(() => fixedWidth(items, last.rows));
  return [
    ...waves.map(({ year, rows }) =>
      file(`upkeep_${year}.csv`, CSV, () => `${[names, ...rows].map(delimited).join('\r\n')}\r\n`),
    ),
    file('upkeep.xml', XML, () =>
      codebookXml({
        title: 'Ostrey Upkeep Panel, 2019 to 2022',
        files: waves.map(({ year }) => `upkeep_${year}.csv`),
        items,
        rows: waves.flatMap(({ rows, stray }) => rows.filter((_, row) => !stray.includes(row))),
      }),
    ),
    file(`${fixed}.dat`, 'text/plain; charset=utf-8', () => twin().text),
    file(`${fixed}.xml`, XML, () =>
      codebookXml({
        title: `Ostrey Upkeep Panel, wave of ${last.year}, fixed width`,
        files: [`${fixed}.dat`],
        items,
        rows: last.rows,
        places: twin().places,
      }),
    ),
    file(
      'truth.json',
      'application/json; charset=utf-8',
      () =>
        `${JSON.stringify({ format: 'dig-first-demo-truth', panel: 'Ostrey Upkeep Panel', faults: truth }, null, 1)}\n`,
    ),
  ];
}

function once<T extends object | string>(make: () => T): () => T {
  let known: T | null = null;
  return () => (known ??= make());
}

function file(name: string, type: string, make: () => string): DemoFile {
  const text = once(make);
  return {
    name,
    type,
    get text() {
      return text();
    },
  };
}

/** A row as delimited text (RFC 4180); hardly any needs quotes, and looking is much quicker than quoting. */
function delimited(row: readonly string[]): string {
  const joined = row.join(',');
  let commas = 0;
  for (let at = joined.indexOf(','); at >= 0; at = joined.indexOf(',', at + 1)) commas++;
  return commas === row.length - 1 && !/["\r\n]|(?:^|,) | (?:,|$)/.test(joined)
    ? joined
    : Papa.unparse([[...row]], { newline: '\r\n' });
}

/** The rows in fixed width: numbers to the right, texts to the left, decimal points left out where the codebook implies them. */
function fixedWidth(
  items: readonly Item[],
  rows: readonly (readonly string[])[],
): { text: string; places: Places } {
  const cells = items.map(({ decimals }, column) =>
    rows.map((row) => (decimals ? row[column].replace('.', '') : row[column])),
  );
  const widths = cells.map((column) => column.reduce((widest, cell) => Math.max(widest, cell.length), 1));
  const places = new Map<string, { start: number; end: number }>();
  let start = 1;
  items.forEach(({ name }, column) => {
    places.set(name, { start, end: start + widths[column] - 1 });
    start += widths[column];
  });
  const padded = cells.map((column, i) =>
    column.map((cell) => (/^-?[\d.]+$/.test(cell) ? cell.padStart(widths[i]) : cell.padEnd(widths[i]))),
  );
  return {
    text: rows.map((_, row) => `${padded.map((column) => column[row]).join('')}\r\n`).join(''),
    places,
  };
}

/** The delimited waves and their codebook in one archive, to be saved. */
export function demoArchive(): Uint8Array<ArrayBuffer> {
  const wanted = demoFiles().filter(({ name }) => /^upkeep(_\d{4}\.csv|\.xml)$/.test(name));
  return new Uint8Array(
    zipSync(
      Object.fromEntries(
        wanted.map(({ name, text }) => [name, [strToU8(text), { mtime: new Date(2023, 1, 14) }]]),
      ),
      { level: 6 },
    ),
  );
}
