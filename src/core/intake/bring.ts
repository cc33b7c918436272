import type { Codebook, Marks } from '../extract/extract';
import { fileStem } from '../codebook/by-file';
import { InputError } from '../extract/problem';
import { putUnder } from '../extract/put-under';
import { fitsLayout, type Layout } from '../read/fixed-width';
import { unpacked } from '../read/gzip';
import { lookAt, type Look, type Reading } from '../read/look';
import { notText } from '../read/signature';
import { firstBytes, type ByteSource } from '../read/source';
import { isZip, openZip } from '../read/zip';
import {
  baseOf,
  problemOf,
  remembering,
  type Brought,
  type Everything,
  type Handed,
  type Remember,
  type Unknown,
} from './brought';
import { guessCells } from './cells';
import { asCodeTable, documentOf, sheetCodebooks } from './documents';
import { handedOf, ownDocument, type OwnDocument } from './handed';
import { AS_BEFORE, layoutsOf, stepped, stepsSchema, stillFits, type Steps } from './steps';

/** Rows that are looked at for how cells are written. */
const CELL_ROWS = 30;

export interface Bringing {
  /** What a person fixed of how a file is read, by its key; a form that was chosen makes it data. */
  chosen?: ReadonlyMap<string, Partial<Reading>>;
  /** Keeps what was found before, for the next time that something else changes. */
  memo?: Map<string, unknown>;
  /** What a person fixed for cells that leave it open. */
  marks?: Marks;
  /** How an earlier extract was read; by default what a dig log says that comes along. */
  steps?: Steps | null;
}

/**
 * Finds out what every file is, by its content: data of any form, codebook documents, dig logs, archives of all. Codebooks
 * are looked at first, since they say where columns of fixed-width files stand. Nothing is read to its end but documents.
 */
export async function bring(
  handed: readonly Handed[],
  { chosen = new Map<string, Partial<Reading>>(), memo = new Map(), marks = {}, steps = null }: Bringing = {},
): Promise<Everything> {
  const remember = remembering(memo);
  const { members, refused, notices } = await opened(handed, remember);
  const { documents, rest, changed } = await documentsAmong(members, chosen, remember);
  const { found, notices: odd } = await dataAmong(rest, documents, { chosen, marks, steps }, remember);
  const brought = [...refused, ...documents];
  const tables = await Promise.all(found.map((one) => asCodeTable(one, found, chosen, remember)));
  const isData = (one: Brought): boolean => one.what === 'data' && isTable(one.look);
  for (const [i, one] of found.entries()) {
    const { key, name, bytes, archive } = one;
    if (tables[i]) brought.push({ key, name, bytes, archive, what: 'codebook', codebook: tables[i] });
    else if (one.what === 'data' && archive && !isData(one) && found.some(isData))
      brought.push({ key, name, bytes, archive, what: 'passed', says: 'it holds no table' });
    else brought.push(one);
  }
  for (const one of [...brought])
    if (one.what === 'data' && one.look.reading.form === 'workbook')
      brought.push(...(await remember(`sheets ${one.key}`, () => sheetCodebooks(one))));
  // In the order in which they were handed over.
  const place = (key: string): number =>
    handed.findIndex((one) => key === one.key || key.startsWith(`${one.key}/`));
  return {
    brought: brought.sort((a, b) => place(a.key) - place(b.key)),
    notices: [...notices, ...changed, ...odd],
  };
}

/** The files themselves and the members of archives. */
async function opened(
  handed: readonly Handed[],
  remember: Remember,
): Promise<{ members: Unknown[]; refused: Brought[]; notices: string[] }> {
  const members: Unknown[] = [];
  const refused: Brought[] = [];
  const notices: string[] = [];
  for (const one of handed) {
    try {
      const { members: own, notices: odd } = await remember(`open ${one.key}`, () => unarchive(one));
      notices.push(...odd);
      members.push(...own);
    } catch (cause) {
      const problem = problemOf(cause, one.source.name);
      refused.push({ ...baseOf({ ...one, archive: null }), what: 'problem', problem });
    }
  }
  return { members, refused, notices };
}

/** Codebooks, dig logs and manifests, what a manifest passes over, and the rest, which may be data. */
async function documentsAmong(
  members: readonly Unknown[],
  chosen: ReadonlyMap<string, Partial<Reading>>,
  remember: Remember,
): Promise<{ documents: Brought[]; rest: Unknown[]; changed: string[] }> {
  const own = new Map<string, OwnDocument | null>();
  for (const { key, source } of members)
    // What cannot be read is told below.
    own.set(key, await remember(`own ${key}`, () => ownDocument(source)).catch(() => null));
  const { passed, variables, changed } = handedOf(
    members.map((one) => ({ ...baseOf(one), own: own.get(one.key) ?? null })),
  );
  const documents: Brought[] = [];
  const rest: Unknown[] = [];
  for (const one of members) {
    const { key, source } = one;
    const base = baseOf(one);
    const says = passed.get(key);
    const document = own.get(key);
    if (says !== undefined) documents.push({ ...base, what: 'passed', says });
    else if (document?.what === 'truth')
      documents.push({
        ...base,
        what: 'passed',
        says: 'it tells what is planted in the demo, and is no data',
      });
    else if (document?.what === 'damaged')
      documents.push({ ...base, what: 'problem', problem: { file: source.name, says: document.says } });
    else if (document?.what === 'log')
      documents.push({
        ...base,
        what: 'log',
        log: document.content,
        variables: variables.get(key) ?? null,
      });
    else if (chosen.get(key)?.form) rest.push(one);
    else
      try {
        const codebook = await remember(`document ${key}`, () => documentOf(source));
        if (codebook) documents.push({ ...base, what: 'codebook', codebook });
        else rest.push(one);
      } catch (cause) {
        documents.push({ ...base, what: 'problem', problem: problemOf(cause, source.name) });
      }
  }
  return { documents, rest, changed };
}

/** A look at each file that may be data. */
async function dataAmong(
  rest: readonly Unknown[],
  documents: readonly Brought[],
  { chosen, marks, steps }: Required<Omit<Bringing, 'memo'>>,
  remember: Remember,
): Promise<{ found: Brought[]; notices: string[] }> {
  const codebooks = documents.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : []));
  const described = new Set(codebooks.flatMap(({ entries }) => entries.map(({ name }) => name)));
  const read = steps ?? stepsIn(documents);
  const layouts = [...codebooks.flatMap(layoutOf), ...(read ? layoutsOf(read) : [])];
  const found: Brought[] = [];
  const notices: string[] = [];
  for (const one of rest) {
    const { key, source, archive } = one;
    const base = baseOf(one);
    const choice = chosen.get(key) ?? {};
    try {
      const fit = await remember(`layout ${key} ${layouts.map(({ from }) => from).join('|')}`, () =>
        fitting(source, layouts, choice.form === 'fixed-width'),
      );
      const layout = fit?.layout ?? null;
      const { look, notice } = await remember(
        `look ${key} ${fit?.from ?? ''} ${JSON.stringify(choice)} ${described.size} ${JSON.stringify(read)}`,
        () => lookWith(source, choice, layout, described, read),
      );
      if (notice) notices.push(notice);
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
  return { found, notices };
}

/** How an earlier extract was read, by a dig log among what was brought that is not of these very data. */
function stepsIn(brought: readonly Brought[]): Steps | null {
  for (const one of brought)
    if (one.what === 'log' && one.variables === null) {
      const said = stepsSchema.safeParse((one.log as { reading?: unknown }).reading);
      if (said.success) return said.data;
    }
  return null;
}

/** A look at a file as a person chose, else as an earlier one of its form was read, else as it looks. */
async function lookWith(
  source: ByteSource,
  choice: Partial<Reading>,
  layout: Layout | null,
  described: ReadonlySet<string>,
  steps: Steps | null,
): Promise<{ look: Look; notice: string | null }> {
  const plain = await lookAt(source, choice, layout);
  const wanted = steps ? stepped(steps, plain) : {};
  if (Object.keys(wanted).length) {
    const again = await lookAt(source, { ...wanted, ...choice }, layout);
    if (stillFits(plain, again)) {
      const as = Object.keys(wanted).filter((part) => !(part in choice));
      return {
        look: {
          ...again,
          because: { ...again.because, ...Object.fromEntries(as.map((part) => [part, AS_BEFORE])) },
        },
        notice: null,
      };
    }
  }
  const look = isHeader(plain, choice, described)
    ? await lookAt(source, { ...choice, header: true }, layout)
    : plain;
  const notice = Object.keys(wanted).length
    ? `${source.name} is read as it looks of itself: as the earlier extract was read, its rows would have no even columns`
    : null;
  return { look, notice };
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
  const { members, notices } = await openZip(source);
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

interface Located {
  layout: Layout;
  from: string;
  /** The data file that it is of, where the document tells it. */
  file?: string;
}

/** The layouts that a codebook has: one for each of the data files that it describes. */
function layoutOf({ name: from, entries }: Codebook): Located[] {
  const byFile = new Map<string, typeof entries>();
  for (const entry of entries) for (const file of entry.files ?? ['']) putUnder(byFile, file, entry);
  return [...byFile].flatMap(([file, own]) => {
    const layout = own
      .flatMap(({ name, location }) => (location ? [{ name, ...location }] : []))
      .sort((a, b) => (a.record ?? 1) - (b.record ?? 1) || a.start - b.start);
    return layout.length ? [{ layout, from, file }] : [];
  });
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
  const stem = fileStem(source.name);
  const named = layouts.filter(({ file }) => file && fileStem(file) === stem);
  const likely = [...named, ...layouts.filter((one) => !named.includes(one))];
  return likely.find(({ layout }) => fitsLayout(text, layout)) ?? (any ? likely[0] : null);
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
