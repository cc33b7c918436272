import { looksLikeCodeTable, readCodeTable } from '../codebook/code-table';
import { mayBeDocument, readDocument } from '../codebook/document';
import type { Codebook, Marks } from '../extract/extract';
import { InputError, Stopped, type Problem } from '../extract/problem';
import { readDelimited } from '../read/delimited';
import { fitsLayout, type Layout } from '../read/fixed-width';
import { unpacked } from '../read/gzip';
import { isHanded } from '../read/handed-workbook';
import { lookAt, type Look, type Reading } from '../read/look';
import { notText } from '../read/signature';
import { firstBytes, type ByteSource } from '../read/source';
import { lookAtSheet, openWorkbook } from '../read/workbook';
import { isZip, openZip } from '../read/zip';
import { onceOf } from './handed-zip';
import { guessCells, type CellGuess } from './cells';

/** A file as it was handed over. `key` tells it from others of its name. */
export interface Handed {
  key: string;
  source: ByteSource;
}

/** What a file, a member of an archive, or a sheet turns out to be. */
export type Brought = { key: string; name: string; bytes: number; archive: string | null } & (
  | {
      what: 'data';
      source: ByteSource;
      look: Look;
      layout: Layout | null;
      layoutFrom: string | null;
      cells: CellGuess;
    }
  | { what: 'codebook'; codebook: Codebook }
  | { what: 'problem'; problem: Problem }
  /** Nothing that is read: a picture or a note in an archive. */
  | { what: 'passed'; says: string }
);

export interface Everything {
  brought: Brought[];
  notices: string[];
}

/** Rows that are looked at for how cells are written. */
const CELL_ROWS = 30;
/** Longer tables of codes than this are data. */
const MOST_CODES = 500_000;

/**
 * Finds out what every file is, by its content: data of any form, codebook documents, archives of both. Codebooks are
 * looked at first, since they say where columns of fixed-width files stand. Nothing is read to its end but codebooks.
 * @param chosen what a person fixed of how a file is read, by its key; a form that was chosen makes it data
 * @param memo keeps what was found before, for the next time that something else changes
 * @param marks what a person fixed for cells that leave it open
 */
export async function bring(
  handed: readonly Handed[],
  chosen: ReadonlyMap<string, Partial<Reading>> = new Map(),
  memo = new Map<string, unknown>(),
  marks: Marks = {},
): Promise<Everything> {
  const remember = async <T>(key: string, work: () => Promise<T>): Promise<T> => {
    const known = memo.get(key) as Promise<T> | undefined;
    if (known) return known;
    const made = work();
    memo.set(key, made);
    return made;
  };
  const notices: string[] = [];
  const brought: Brought[] = [];
  const texts: (Handed & { archive: string | null })[] = [];
  for (const one of handed) {
    try {
      const { members, notices: odd } = await remember(`open ${one.key}`, () => unarchive(one));
      notices.push(...odd);
      texts.push(...members);
    } catch (cause) {
      brought.push({
        key: one.key,
        name: one.source.name,
        bytes: one.source.bytes,
        archive: null,
        what: 'problem',
        problem: problemOf(cause, one.source.name),
      });
    }
  }
  const rest: typeof texts = [];
  for (const one of texts) {
    const { key, source, archive } = one;
    const base = { key, name: source.name, bytes: source.bytes, archive };
    try {
      const codebook = chosen.get(key)?.form
        ? null
        : await remember(`document ${key}`, () => documentOf(source));
      if (codebook) brought.push({ ...base, what: 'codebook', codebook });
      else rest.push(one);
    } catch (cause) {
      brought.push({ ...base, what: 'problem', problem: problemOf(cause, source.name) });
    }
  }
  const described = new Set(
    brought.flatMap((one) => (one.what === 'codebook' ? one.codebook.entries.map(({ name }) => name) : [])),
  );
  const layouts = brought.flatMap((one) => (one.what === 'codebook' ? layoutOf(one.codebook) : []));
  const found: Brought[] = [];
  for (const { key, source, archive } of rest) {
    const base = { key, name: source.name, bytes: source.bytes, archive };
    const choice = chosen.get(key) ?? {};
    try {
      const fit = await remember(`layout ${key} ${layouts.map(({ from }) => from).join('|')}`, () =>
        fitting(source, layouts, choice.form === 'fixed-width'),
      );
      const layout = fit?.layout ?? null;
      const look = await remember(
        `look ${key} ${fit?.from ?? ''} ${JSON.stringify(choice)} ${described.size}`,
        async () => {
          const plain = await lookAt(source, choice, layout);
          return isHeader(plain, choice, described)
            ? lookAt(source, { ...choice, header: true }, layout)
            : plain;
        },
      );
      const cells = guessCells(look.names, look.rows.slice(0, CELL_ROWS), marks);
      found.push({
        ...base,
        what: 'data',
        source,
        look,
        layout,
        layoutFrom: look.reading.form === 'fixed-width' ? (fit?.from ?? null) : null,
        cells,
      });
    } catch (cause) {
      const problem = problemOf(cause, source.name);
      // Archives carry pictures, documents and notes along; they are no reason to refuse anything.
      found.push(
        archive ? { ...base, what: 'passed', says: problem.says } : { ...base, what: 'problem', problem },
      );
    }
  }
  const tables = await Promise.all(found.map((one) => asCodeTable(one, found, chosen, remember)));
  for (const [i, one] of found.entries()) {
    if (tables[i])
      brought.push({
        key: one.key,
        name: one.name,
        bytes: one.bytes,
        archive: one.archive,
        what: 'codebook',
        codebook: tables[i],
      });
    else if (
      one.what === 'data' &&
      one.archive &&
      !isTable(one.look) &&
      found.some((other) => other.what === 'data' && isTable(other.look))
    ) {
      brought.push({
        key: one.key,
        name: one.name,
        bytes: one.bytes,
        archive: one.archive,
        what: 'passed',
        says: 'it holds no table',
      });
    } else brought.push(one);
  }
  for (const one of [...brought])
    if (one.what === 'data' && one.look.reading.form === 'workbook')
      brought.push(...(await remember(`sheets ${one.key}`, () => sheetCodebooks(one))));
  // In the order in which they were handed over.
  const place = (key: string): number =>
    handed.findIndex((one) => key === one.key || key.startsWith(`${one.key}/`));
  return { brought: brought.sort((a, b) => place(a.key) - place(b.key)), notices };
}

/** Whether what was looked at has columns: prose has rows of every width, or one cell each. */
const isTable = ({ names, rows, reading }: Look): boolean =>
  names.length > 1 &&
  (reading.form !== 'delimited' ||
    rows.filter((row) => row.length === names.length).length >= rows.length * 0.7);

async function unarchive({
  key,
  source,
}: Handed): Promise<{ members: (Handed & { archive: string | null })[]; notices: string[] }> {
  const { bytes } = await firstBytes(source.open(), 1 << 16);
  const own = { members: [{ key, source, archive: null }], notices: [] };
  if (!isZip(bytes)) return own;
  const start = new TextDecoder('latin1').decode(bytes);
  if (/xl\/(workbook\.xml|worksheets|_rels|styles|theme)|\[Content_Types\]\.xml/.test(start)) {
    if (start.includes('word/') || start.includes('ppt/'))
      throw new InputError({
        file: source.name,
        says: 'this is a text document or a presentation, and no table; save its table as delimited text',
      });
    return own;
  }
  if (start.includes('mimetypeapplication/vnd.oasis'))
    throw new InputError({
      file: source.name,
      says: 'this is an OpenDocument file; save it as a workbook (.xlsx) or as delimited text',
    });
  const { members: all, notices } = await openZip(source);
  const once = onceOf(all.map(({ name }) => name));
  const members = once ? all.filter(({ name }) => once.wanted.includes(name)) : all;
  if (once?.passed.length)
    notices.push(`a handoff: the same in other forms is passed over (${once.passed.join(', ')})`);
  if (members.some(({ name }) => name === 'workbook.xml')) return own;
  return {
    members: members.map((member) => ({
      key: `${key}/${member.name}`,
      source: member,
      archive: source.name,
    })),
    notices: notices.map((says) => `${source.name}: ${says}`),
  };
}

/** The codebook that a file is, if it is a document in XML or JSON. */
async function documentOf(source: ByteSource): Promise<Codebook | null> {
  const plain = await unpacked(source);
  const { bytes } = await firstBytes(plain.open(), 1 << 16);
  const wide =
    bytes[0] === 0xff && bytes[1] === 0xfe
      ? 'utf-16le'
      : bytes[0] === 0xfe && bytes[1] === 0xff
        ? 'utf-16be'
        : 'utf-8';
  const form = mayBeDocument(new TextDecoder(wide).decode(bytes));
  return form && readDocument(plain, form);
}

interface Located {
  layout: Layout;
  from: string;
}

function layoutOf({ name: from, entries }: Codebook): Located[] {
  const layout = entries
    .flatMap(({ name, location }) => (location ? [{ name, ...location }] : []))
    .sort((a, b) => (a.record ?? 1) - (b.record ?? 1) || a.start - b.start);
  return layout.length ? [{ layout, from }] : [];
}

/** The layout that the first lines of a text fit. @param any take the first one whatever the lines say */
async function fitting(
  source: ByteSource,
  layouts: readonly Located[],
  any: boolean,
): Promise<Located | null> {
  if (layouts.length === 0) return null;
  const { bytes } = await firstBytes((await unpacked(source)).open(), 1 << 16);
  if (notText(bytes)) return null;
  const text = new TextDecoder().decode(bytes);
  return layouts.find(({ layout }) => fitsLayout(text, layout)) ?? (any ? layouts[0] : null);
}

type Remember = <T>(key: string, work: () => Promise<T>) => Promise<T>;

/** The codebook that a delimited file is, if it is a table of variable, code and label. */
async function asCodeTable(
  one: Brought,
  all: readonly Brought[],
  chosen: ReadonlyMap<string, Partial<Reading>>,
  remember: Remember,
): Promise<Codebook | null> {
  if (one.what !== 'data' || one.look.reading.form !== 'delimited' || chosen.get(one.key)?.form) return null;
  const { look, source } = one;
  const others = all.flatMap((other) => (other !== one && other.what === 'data' ? other.look.names : []));
  const known = others.length ? new Set(others) : null;
  if (!looksLikeCodeTable(look.names, look.rows, known)) return null;
  return remember(`table ${one.key} ${JSON.stringify(look.reading)}`, async () => {
    const rows: string[][] = [];
    await readDelimited(
      source,
      look.reading,
      {
        names: () => undefined,
        rows: (batch) => rows.push(...batch),
        spans: ({ bytes, starts, ends, rows: count }) => {
          const width = look.names.length;
          const text = new TextDecoder();
          for (let row = 0; row < count; row++)
            rows.push(
              Array.from({ length: width }, (_, c) =>
                text.decode(bytes.subarray(starts[row * width + c], ends[row * width + c])),
              ),
            );
        },
      },
      {},
      MOST_CODES,
    );
    return readCodeTable(source.name, look.names, rows);
  });
}

/** Sheets of a workbook that are tables of variable, code and label for the sheet that is read. */
async function sheetCodebooks(one: Extract<Brought, { what: 'data' }>): Promise<Brought[]> {
  const sheets = await openWorkbook(one.source);
  // What a handoff wrote is read with the data.
  if (isHanded(sheets)) return [];
  return sheets.flatMap((sheet): Brought[] => {
    if (sheet.name === one.look.reading.sheet || sheet.rows.length < 2) return [];
    const { names, rows } = lookAtSheet(one.name, sheets, { sheet: sheet.name }, sheet.rows.length, 0);
    if (!looksLikeCodeTable(names, rows, new Set(one.look.names))) return [];
    const name = `${one.name}, sheet ${sheet.name}`;
    return [
      {
        key: `${one.key}/sheet ${sheet.name}`,
        name,
        bytes: one.bytes,
        archive: null,
        what: 'codebook',
        codebook: readCodeTable(name, names, rows),
      },
    ];
  });
}

export function problemOf(cause: unknown, file: string): Problem {
  if (cause instanceof Stopped) throw cause;
  if (cause instanceof InputError) return cause.problem;
  const message = cause instanceof Error ? cause.message : String(cause);
  return { file, says: `could not be read (${message}); choose the file again` };
}

/** Whether what was taken for a first row of data is the names that a codebook describes. */
function isHeader(
  { reading, rows }: Look,
  choice: Partial<Reading>,
  described: ReadonlySet<string>,
): boolean {
  const first = rows.at(0) ?? [];
  return (
    reading.form === 'delimited' &&
    !reading.header &&
    choice.header === undefined &&
    first.length > 0 &&
    first.every((cell) => described.has(cell))
  );
}
