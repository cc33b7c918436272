import { SaxesParser } from 'saxes';
import {
  bareEntry,
  type Codebook,
  type CodebookEntry,
  type CodebookGroup,
  type CodeRange,
  type Location,
  type Notice,
} from '../extract/extract';
import type { Storage } from '../extract/words';
import { InputError } from '../extract/problem';
import { HANDED } from '../extract/carried';
import { carriedEntry } from './handed';
import { reasonOfLabel } from './missing-words';

type Attributes = Record<string, string>;

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
const number = (text: string | undefined): number | null =>
  text === undefined || text.trim() === '' || !Number.isFinite(Number(text)) ? null : Number(text);
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
  private readonly notices: Notice[] = [];
  private collected: string[] = [];
  private readonly attributes: Attributes[] = [];

  open(name: string, attributes: Attributes): void {
    this.attributes.push(attributes);
    this.collected.push('');
    if (name === 'var') this.openVariable(attributes);
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
    else if (name === 'caseQnty') this.cases = (this.cases ?? 0) + (number(text) ?? 0) || null;
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
      else if (this.entries.some(({ name: known }) => known === entry.name))
        this.notices.push({ says: `the codebook describes ${entry.name} twice; the first counts` });
      else this.entries.push(this.withCarried(entry));
      this.entry = null;
      this.carried = null;
    }
  }

  /** What a handoff carried beside the standard says all; published figures are the document's own. */
  private withCarried(entry: CodebookEntry): CodebookEntry {
    const carried = this.carried === null ? null : carriedEntry(this.carried);
    return carried ? { ...carried, name: entry.name, published: entry.published } : entry;
  }

  private closeInGroup(group: OpenGroup, name: string, text: string): void {
    if (name === 'labl' && text) group.name = text;
    else if (name === 'varGrp') {
      this.groups.push(group);
      this.group = null;
    }
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
      entries: this.entries,
      groups,
      notices: this.notices,
    };
  }
}

const rangeOf = ({ min, max, minExclusive, maxExclusive }: Attributes): CodeRange => ({
  min: number(min ?? minExclusive),
  max: number(max ?? maxExclusive),
});

const NATURES = ['nominal', 'ordinal', 'interval', 'ratio'] as const;

/** One-based columns, from start and end, or start and width, or end and width; `null` where they make no sense. */
function locationOf(attributes: Attributes): Location | null {
  const whole = (name: 'StartPos' | 'EndPos' | 'width' | 'RecSegNo'): number | null => {
    const value = number(attributes[name]);
    return value !== null && Number.isInteger(value) && value >= 1 ? value : null;
  };
  const [startPos, endPos, width, record] = [
    whole('StartPos'),
    whole('EndPos'),
    whole('width'),
    whole('RecSegNo'),
  ];
  const start = startPos ?? (endPos !== null && width !== null ? endPos - width + 1 : null);
  const end = endPos ?? (start !== null && width !== null ? start + width - 1 : null);
  return start !== null && end !== null && start >= 1 && end >= start && end <= LAST_COLUMN
    ? { start, end, ...(record !== null && record > 1 && record <= MOST_RECORDS ? { record } : {}) }
    : null;
}
/** No case takes more lines. */
const MOST_RECORDS = 1000;
/** No line of a data file is longer. */
const LAST_COLUMN = 1_000_000;

function storageOf({ type, category }: Attributes, decimals: number | null): Storage | null {
  if (category === 'date') return 'date';
  if (category === 'time') return 'time';
  if (type === 'character') return 'text';
  return type === 'numeric' ? (decimals ? 'decimal' : 'integer') : null;
}

function publish({ published }: CodebookEntry, type: string | undefined, value: number | null): void {
  if (value === null) return;
  switch (type) {
    case 'vald':
      published.valid = value;
      break;
    case 'invd':
      published.invalid = value;
      break;
    case 'min':
      published.min = value;
      break;
    case 'max':
      published.max = value;
      break;
    case 'mean':
      published.mean = value;
      break;
    case 'stdev':
      published.sd = value;
      break;
    default:
  }
}
