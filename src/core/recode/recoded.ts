import { DictionaryColumn, type Codes } from '../extract/dictionary-column';
import { bareEntry, type Category, type CodebookEntry } from '../extract/extract';
import { isCategorical, isNumericStorage, type Kind } from '../extract/words';
import { readNumber } from '../read/number';
import { placeIn } from '../infer/level-coding';
import { levelAt, LevelArrays, type Level, type LevelList } from '../infer/level-list';
import { valueOf } from '../infer/read-levels';
import { isBlank } from '../read/looks';
import { intervalOf, type Interval } from '../sieve/bounds';
import { placesNamed, type Sifted } from '../sieve/sift';
import { binned } from './bins';
import type { Band, Recode } from './recode';

/** What a recode is made of: a variable as all rows have it. */
export interface Source extends Sifted {
  kind: Kind;
  label: string | null;
}

/** A trial recode as a variable: a coding of its source, with what each code means. */
export interface Recoded {
  column: DictionaryColumn;
  entry: CodebookEntry;
  kind: Kind;
  /** Codes in the order in which they stand. */
  order: string[];
  /** Texts that could not be read in the source, and cannot here. */
  unreadable: ReadonlySet<string>;
  /** The text that it makes of a raw text of its source. */
  text(raw: string): string;
}

/** Why a recode cannot be made of a variable; `null` where it can. */
export function recodeMisfit(recode: Recode, source: Source): string | null {
  if ('width' in recode && !isNumericStorage(source.written.storage))
    return `${source.name} holds no numbers, and bins of equal width are of numbers`;
  if (!('bands' in recode)) return null;
  for (const band of recode.bands) {
    if ('values' in band) continue;
    const interval = intervalOf(endsOf(band), source.written.storage, source.written.utc);
    if (typeof interval === 'string') return `band ${band.code}: ${interval}`;
  }
  return overlapIn(recode.bands, source) ?? clashIn(recode.bands, source);
}

const endsOf = (
  band: Exclude<Band, { values: string[] }>,
): { from?: number | string; to?: number | string } => ({
  ...('from' in band ? { from: band.from } : {}),
  ...(band.to === undefined ? {} : { to: band.to }),
});

/** Two bands that both hold something, by range or by value, and what. */
function overlapIn(bands: readonly Band[], { written, places }: Source): string | null {
  const ranges = bands.map((band): Interval | null => {
    if ('values' in band) return null;
    const interval = intervalOf(endsOf(band), written.storage, written.utc);
    return typeof interval === 'string' ? null : interval;
  });
  const valueOf = (code: string): number | null =>
    places.levels.find((level) => level.code === code)?.value ?? readNumber(code, written.numberForm);
  for (let a = 0; a < bands.length; a++)
    for (let b = a + 1; b < bands.length; b++) {
      const [one, other, first, second] = [ranges[a], ranges[b], bands[a], bands[b]];
      const names = `bands ${first.code} and ${second.code} overlap`;
      if (one && other && one.from <= other.to && other.from <= one.to)
        return `${names} from ${Math.max(one.from, other.from)} to ${Math.min(one.to, other.to)}`;
      if ('values' in first && 'values' in second) {
        const held = first.values.find((value) =>
          second.values.some((wanted) => same(value, wanted, valueOf)),
        );
        if (held !== undefined) return `${names} at ${held}`;
      }
      for (const [band, range] of [
        [first, other],
        [second, one],
      ] as const) {
        if (!('values' in band) || !range) continue;
        const held = band.values.find((value) => {
          const number = valueOf(value);
          return number !== null && number >= range.from && number <= range.to;
        });
        if (held !== undefined) return `${names} at ${held}`;
      }
    }
  return null;
}

function same(a: string, b: string, valueOf: (code: string) => number | null): boolean {
  const value = valueOf(a);
  return a === b || (value !== null && value === valueOf(b));
}

/** A band's code that stands for no answer in rows that the bands leave as they are. */
function clashIn(bands: readonly Band[], source: Source): string | null {
  const named = new Set(bands.flatMap((band) => ('values' in band ? band.values : [])));
  const codes = new Set(bands.map(({ code }) => code));
  const clash = source.places.levels.find(
    ({ code, standing }) =>
      (standing === 'missing' || standing === 'not-asked') && codes.has(code) && !named.has(code),
  );
  return clash
    ? `the code ${clash.code} stands for no answer in ${source.name}; give the band another`
    : null;
}

/** What a place of the source becomes. */
type Becomes = { code: string; label: string | null } | 'blank' | 'same';

/** Makes a recode. No text is made for a row: each level of the source becomes a code. @param rows number of all rows */
export function recoded(recode: Recode, source: Source, rows: number): Recoded {
  const { levels, size, blank, notAsked, coding } = source.places;
  const becomes = becoming(recode, source);
  const rest: Becomes = recode.rest === 'same' ? 'same' : 'blank';
  const texts: string[] = [];
  const placeOf = new Map<string, number>();
  const textAt = (text: string): number => {
    let place = placeOf.get(text);
    if (place === undefined) {
      place = texts.length;
      placeOf.set(text, place);
      texts.push(text);
    }
    return place;
  };
  const categories = new Map<string, Category>();
  const unreadable = new Set<string>();
  const to = new Int32Array(size);
  levels.forEach((level, place) => {
    const made = becomes.get(place) ?? (level.standing === 'valid' ? rest : 'same');
    if (made === 'blank') to[place] = textAt('');
    else if (made === 'same') {
      to[place] = textAt(level.code);
      if (level.standing === 'unreadable') unreadable.add(level.code);
      else categories.set(level.code, categoryOf(level));
    } else {
      to[place] = textAt(made.code);
      categories.set(made.code, {
        code: made.code,
        label: made.label,
        missing: false,
        reason: null,
        frequency: null,
      });
    }
  });
  to[blank] = textAt('');
  to[notAsked] = textAt('');
  const codes = codesFor(texts.length, rows);
  for (let row = 0; row < rows; row++) codes[row] = to[coding.to[coding.codes[row]]];
  const order = orderOf(recode, becomes, levels, rest);
  return {
    column: new DictionaryColumn(texts, codes),
    kind: kindOf(recode, source),
    order,
    unreadable,
    text: (raw) => {
      const place = placeIn(levels, raw);
      return place === undefined ? unreadText(recode, source, rest, raw) : texts[to[place]];
    },
    entry: {
      ...bareEntry(recode.name),
      label: recode.label ?? null,
      notes: [`trial recode of ${recode.of}`],
      categories: order.flatMap((code) => categories.get(code) ?? []),
    },
  };
}

/** What becomes of a text that no level has, since only a sample of the rows told the levels. */
function unreadText(recode: Recode, source: Source, rest: Becomes, raw: string): string {
  if (isBlank(raw)) return '';
  const value = valueOf(raw, source.written);
  if (value === null && source.written.storage !== 'text') return raw;
  const levels = LevelArrays.from([{ ...UNREAD, code: raw, value }]);
  const made = becoming(recode, { ...source, places: { ...source.places, levels } }).get(0) ?? rest;
  return made === 'blank' ? '' : made === 'same' ? raw : made.code;
}
const UNREAD: Omit<Level, 'code' | 'value'> = {
  label: null,
  count: 1,
  standing: 'valid',
  spellings: [],
  reason: null,
  declaredBy: null,
};

const categoryOf = ({ code, label, standing, reason }: Level): Category => ({
  code,
  label,
  missing: standing !== 'valid',
  reason: standing === 'valid' ? null : standing === 'not-asked' ? 'not-asked' : (reason ?? 'other'),
  frequency: null,
});

/** For each level of the source the code and label that it becomes, its own where it stays what it is; `null` where it becomes blank. */
export function becomesIn(recode: Recode, source: Source): ({ code: string; label: string | null } | null)[] {
  const found = becoming(recode, source);
  const rest: Becomes = recode.rest === 'same' ? 'same' : 'blank';
  return source.places.levels.map((level, place) => {
    const made = found.get(place) ?? (level.standing === 'valid' ? rest : 'same');
    if (made === 'blank') return null;
    return made === 'same' ? { code: level.code, label: level.label } : made;
  });
}

/** For each place of the source that a band, bin or pick takes what it becomes. */
function becoming(recode: Recode, source: Source): Map<number, Becomes> {
  const { levels } = source.places;
  const found = new Map<number, Becomes>();
  if ('only' in recode) {
    for (const code of recode.only) for (const place of placesNamed(source, code)) found.set(place, 'same');
    return found;
  }
  if ('width' in recode) return binned(recode.width, levels);
  for (const band of recode.bands) {
    const made = { code: band.code, label: band.label ?? null };
    if ('values' in band) {
      for (const code of band.values) for (const place of placesNamed(source, code)) found.set(place, made);
      continue;
    }
    const interval = intervalOf(endsOf(band), source.written.storage, source.written.utc);
    if (typeof interval === 'string') continue;
    levels.forEach(({ standing, value }, place) => {
      if (standing === 'valid' && value !== null && value >= interval.from && value <= interval.to)
        found.set(place, made);
    });
  }
  return found;
}

function codesFor(distinct: number, rows: number): Codes {
  const Kind = distinct <= 0x100 ? Uint8Array : distinct <= 0x10000 ? Uint16Array : Uint32Array;
  return new Kind(rows);
}

/** Bands in their order, bins upwards, then what stays as it was, in its own order. */
function orderOf(
  recode: Recode,
  becomes: ReadonlyMap<number, Becomes>,
  levels: LevelList,
  rest: Becomes,
): string[] {
  const made =
    'bands' in recode
      ? recode.bands.map(({ code }) => code)
      : 'width' in recode
        ? [...becomes]
            .sort(([a], [b]) => (levelAt(levels, a).value ?? 0) - (levelAt(levels, b).value ?? 0))
            .flatMap(([, one]) => (typeof one === 'object' ? [one.code] : []))
        : [];
  const stays = levels.flatMap(({ code, standing }, place) => {
    const one = becomes.get(place) ?? (standing === 'valid' ? rest : 'same');
    return one === 'same' && standing !== 'unreadable' ? [code] : [];
  });
  return [...new Set([...made, ...stays])];
}

/** Ranges and bins rise; groups of codes are as ordered as what they are made of. */
function kindOf(recode: Recode, { kind }: Source): Kind {
  if ('width' in recode) return 'ordinal';
  if ('only' in recode) return kind;
  if (recode.bands.some((band) => !('values' in band))) return 'ordinal';
  return isCategorical(kind) && kind !== 'nominal' ? kind : 'nominal';
}
