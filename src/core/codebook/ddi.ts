import { SaxesParser } from 'saxes';
import {
  bareEntry,
  type Codebook,
  type CodebookEntry,
  type CodebookGroup,
  type Notice,
} from '../extract/extract';
import { InputError } from '../extract/problem';
import { HANDED } from '../extract/carried';
import { carriedEntry } from './handed';
import {
  locationOf,
  nameInUri,
  NATURES,
  number,
  publish,
  rangeOf,
  storageOf,
  type Attributes,
} from './ddi-attributes';
import { reasonOfLabel } from './missing-words';

/** Whether the beginning of a file is a DDI-Codebook document. */
export function looksLikeDdi(start: string): boolean {
  return /^\uFEFF?\s*</.test(start) && /<(\w+:)?codeBook[\s>]/i.test(start);
}

/** The decoder of an encoding by any of its names; of one that is unknown, UTF-8's. */
function decoderOf(encoding: string): TextDecoder {
  try {
    return new TextDecoder(encoding);
  } catch {
    return new TextDecoder();
  }
}

/** Text of an XML document, decoded as its mark or its first line says. */
export function decodeXml(bytes: Uint8Array): string {
  const wide =
    bytes[0] === 0xff && bytes[1] === 0xfe
      ? 'utf-16le'
      : bytes[0] === 0xfe && bytes[1] === 0xff
        ? 'utf-16be'
        : null;
  const head = new TextDecoder('latin1').decode(bytes.subarray(0, 200));
  const declared = /encoding=["']([A-Za-z0-9._-]+)["']/.exec(head)?.[1]?.toLowerCase();
  return decoderOf(wide ?? declared ?? 'utf-8').decode(bytes);
}

/**
 * Reads a DDI-Codebook document, 2.5 or its 1.x/2.x forebears, with or without namespace. Element and attribute names
 * are those of the DDI-Codebook 2.5 schema; other elements are passed over. Entities beyond the five of XML itself are
 * not expanded and nothing external is fetched.
 * @throws InputError with line and element for XML that is not well formed, or that describes no variable
 */
export function parseDdi(file: string, xml: string): Codebook {
  const reader = new DdiReader();
  const parser = new SaxesParser({ xmlns: false, position: true });
  const stack: string[] = [];
  parser.on('error', (error) => {
    throw new InputError({
      file,
      line: parser.line,
      column: parser.column,
      element: stack.at(-1),
      says: `not well-formed XML (${error.message.replace(/^.*?:\d+:\d+: /, '')})`,
    });
  });
  parser.on('opentag', (tag) => {
    const name = local(tag.name);
    stack.push(name);
    reader.open(
      name,
      Object.fromEntries(
        Object.entries(tag.attributes as Attributes).map(([key, value]) => [local(key), value]),
      ),
    );
  });
  parser.on('text', (text) => reader.text(text));
  parser.on('cdata', (text) => reader.text(text));
  parser.on('closetag', () => {
    reader.close(stack);
    stack.pop();
  });
  parser.write(xml).close();
  const codebook = reader.finish(file);
  if (codebook.entries.length === 0)
    throw new InputError({
      file,
      element: 'dataDscr',
      says: 'the document describes no variable; choose the codebook that goes with the data',
    });
  return codebook;
}

const local = (name: string): string => name.slice(name.indexOf(':') + 1);
const clean = (text: string): string => text.replace(/\s+/g, ' ').trim();

interface OpenCategory {
  code: string;
  label: string | null;
  declared: boolean;
  frequency: number | null;
}

/** Collects entries while the elements of a document go by. */
/** A group as it stands in the document. */
interface OpenGroup {
  id: string;
  name: string;
  /** Of its variables. */
  ids: string[];
  /** Ids of the groups within it. */
  parts: string[];
}
const listOf = (ids: string | undefined): string[] => (ids ?? '').split(/\s+/).filter(Boolean);

/** Ids of a group's variables with those of the groups within it; a group that holds itself ends there. */
function idsIn(
  group: OpenGroup,
  byId: ReadonlyMap<string, OpenGroup>,
  passed: ReadonlySet<string> = new Set(),
): string[] {
  if (passed.has(group.id)) return [];
  const above = new Set([...passed, group.id]);
  return [
    ...group.ids,
    ...group.parts.flatMap((id) => {
      const part = byId.get(id);
      return part ? idsIn(part, byId, above) : [];
    }),
  ];
}

class DdiReader {
  private title: string | null = null;
  private cases: number | null = null;
  private readonly entries: CodebookEntry[] = [];
  private readonly nameOfId = new Map<string, string>();
  private readonly groups: OpenGroup[] = [];
  private group: OpenGroup | null = null;
  private entry: CodebookEntry | null = null;
  private category: OpenCategory | null = null;
  private carried: string | null = null;
  /** Data files that the document names, with the number of rows of each. */
  private readonly files: { id: string; file: string; cases: number | null }[] = [];
  private readonly notices: Notice[] = [];
  private collected: string[] = [];
  private readonly attributes: Attributes[] = [];

  open(name: string, attributes: Attributes): void {
    this.attributes.push(attributes);
    this.collected.push('');
    if (name === 'var') this.openVariable(attributes);
    else if (name === 'fileDscr')
      this.files.push({ id: attributes.ID ?? '', file: nameInUri(attributes.URI), cases: null });
    else if (name === 'varGrp')
      this.group = {
        id: attributes.ID ?? '',
        name: attributes.name ?? attributes.ID ?? '',
        ids: listOf(attributes.var),
        parts: listOf(attributes.varGrp),
      };
    else if (name === 'catgry' && this.entry)
      this.category = { code: '', label: null, declared: attributes.missing === 'Y', frequency: null };
  }

  text(text: string): void {
    if (this.collected.length) this.collected[this.collected.length - 1] += text;
  }

  /** @param stack element names, the one that closes last */
  close(stack: readonly string[]): void {
    const attributes = this.attributes.pop() ?? {};
    const raw = this.collected.pop() ?? '';
    const text = clean(raw);
    const name = stack[stack.length - 1];
    const parent = stack[stack.length - 2];
    if (this.category) this.closeInCategory(name, attributes, text);
    else if (this.entry) this.closeInVariable(this.entry, name, parent, attributes, text, raw);
    else if (this.group) this.closeInGroup(this.group, name, text);
    else if (name === 'titl' && this.title === null && text) this.title = text;
    else if (name === 'caseQnty') {
      this.cases = (this.cases ?? 0) + (number(text) ?? 0) || null;
      const file = this.files.at(-1);
      if (file) file.cases ??= number(text);
    } else if (name === 'fileName' && text) {
      const file = this.files.at(-1);
      if (file) file.file = text;
    }
  }

  private openVariable(attributes: Attributes): void {
    const name = attributes.name ?? attributes.ID ?? '';
    if (attributes.ID) this.nameOfId.set(attributes.ID, name);
    this.entry = {
      ...bareEntry(name),
      units: attributes.measUnit ?? null,
      interval:
        attributes.intrvl === 'contin' ? 'continuous' : attributes.intrvl === 'discrete' ? 'discrete' : null,
      isWeight: attributes.wgt === 'wgt',
      nature: NATURES.find((nature) => nature === attributes.nature) ?? null,
      decimals: number(attributes.dcml),
      ...(attributes.files ? { files: listOf(attributes.files) } : {}),
    };
  }

  private closeInCategory(name: string, attributes: Attributes, text: string): void {
    const category = this.category as OpenCategory;
    if (name === 'catValu') category.code = text;
    else if (name === 'labl' && category.label === null) category.label = text || null;
    else if (name === 'catStat' && (attributes.type ?? 'freq') === 'freq' && attributes.wgtd !== 'wgtd')
      category.frequency ??= number(text);
    else if (name === 'catgry') {
      const reason = category.declared ? (reasonOfLabel(category.label ?? '') ?? 'other') : null;
      if (category.code !== '') {
        this.entry?.categories.push({
          code: category.code,
          label: category.label,
          missing: category.declared,
          reason,
          frequency: category.frequency,
        });
      }
      this.category = null;
    }
  }

  private closeInVariable(
    entry: CodebookEntry,
    name: string,
    parent: string,
    attributes: Attributes,
    text: string,
    raw: string,
  ): void {
    const ranges =
      parent === 'invalrng' ? entry.missingRanges : parent === 'valrng' ? entry.validRanges : null;
    if (name === 'labl' && parent === 'var' && entry.label === null) entry.label = text || null;
    else if ((name === 'qstnLit' || name === 'qstn') && text && entry.question === null)
      entry.question = text;
    else if (name === 'universe' && parent === 'var') entry.universe = text || null;
    else if (name === 'notes' && attributes.type === HANDED) this.carried = raw;
    else if ((name === 'notes' || name === 'txt') && parent === 'var' && text) entry.notes.push(text);
    else if (name === 'location') entry.location ??= locationOf(attributes);
    else if (name === 'varFormat') entry.storage ??= storageOf(attributes, entry.decimals);
    else if (name === 'sumStat' && attributes.wgtd !== 'wgtd') publish(entry, attributes.type, number(text));
    else if (name === 'range' && ranges) {
      ranges.push(rangeOf(attributes));
      entry.units ??=
        attributes.UNITS && attributes.UNITS !== 'INT' && attributes.UNITS !== 'REAL'
          ? attributes.UNITS
          : null;
    } else if (name === 'item' && ranges)
      ranges.push({ min: number(attributes.VALUE), max: number(attributes.VALUE) });
    else if (name === 'var') {
      if (!entry.name) this.notices.push({ says: 'a variable of the codebook has no name and is left out' });
      else if (this.entries.some((known) => known.name === entry.name && sameFiles(known, entry)))
        this.notices.push({ says: `the codebook describes ${entry.name} twice; the first counts` });
      else this.entries.push(this.withCarried(entry));
      this.entry = null;
      this.carried = null;
    }
  }

  /** What a handoff carried beside the standard says all; published figures are the document's own. */
  private withCarried(entry: CodebookEntry): CodebookEntry {
    const carried = this.carried === null ? null : carriedEntry(this.carried);
    const { files, published } = entry;
    return carried ? { ...carried, name: entry.name, published, ...(files ? { files } : {}) } : entry;
  }

  private closeInGroup(group: OpenGroup, name: string, text: string): void {
    if (name === 'labl' && text) group.name = text;
    else if (name === 'varGrp') {
      this.groups.push(group);
      this.group = null;
    }
  }

  /** The data file that an id of the document stands for. */
  private fileOf(id: string): string {
    const found = this.files.find((file) => file.id === id);
    return found?.file || id;
  }

  finish(name: string): Codebook {
    const byId = new Map(this.groups.map((group) => [group.id, group]));
    const parentOf = new Map(
      this.groups.flatMap((group) => group.parts.map((part) => [part, group] as const)),
    );
    const groups = this.groups
      .map((group): CodebookGroup => ({
        name: group.name,
        variables: [...new Set(idsIn(group, byId))].map((id) => this.nameOfId.get(id) ?? id),
        within: parentOf.get(group.id)?.name ?? null,
      }))
      .filter((group) => group.name && group.variables.length);
    return {
      name,
      form: 'ddi-codebook',
      title: this.title,
      cases: this.cases,
      ...(this.files.length > 1 ? { parts: this.files.map(({ file, cases }) => ({ file, cases })) } : {}),
      entries: this.entries.map(({ files, ...entry }) =>
        files && this.files.length > 1 ? { ...entry, files: files.map((id) => this.fileOf(id)) } : entry,
      ),
      groups,
      notices: this.notices,
    };
  }
}

/** Whether two entries of one name speak of one data file. */
const sameFiles = (a: CodebookEntry, b: CodebookEntry): boolean =>
  !a.files || !b.files || a.files.some((file) => b.files?.includes(file));
