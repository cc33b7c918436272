import type { Recodable } from '../../core/inspect/recoding';
import { isCategorical, isMeasure, isNumericStorage, type Storage } from '../../core/extract/words';
import type { Range } from '../../core/recode/edges';
import { endText, endTyped, endValue } from '../../core/recode/ends';
import type { Band, Recode } from '../../core/recode/recode';

/** The ways in which a trial recode is made. */
export const WAYS = {
  ranges: 'Bands by range',
  groups: 'Groups of codes',
  bins: 'Equal bins',
  only: 'Only some codes',
} as const;
export type Way = keyof typeof WAYS;

/** A band by range as it is typed. */
export interface TypedBand {
  from: string;
  to: string;
  code: string;
  label: string;
}
export interface GroupForm {
  code: string;
  label: string;
  codes: readonly string[];
}

/** What is filled in; the drawing and the table are both made of it. */
export interface RecodeForm {
  name: string;
  label: string;
  way: Way;
  bands: readonly TypedBand[];
  groups: readonly GroupForm[];
  size: string;
  start: string;
  only: ReadonlySet<string>;
  rest: 'blank' | 'same';
}

/** The ways that suit a variable. */
export function waysOf({ scale, storage }: Recodable): Way[] {
  return [
    ...(scale ? (['ranges'] as const) : []),
    'groups',
    ...(scale && isNumericStorage(storage) ? (['bins'] as const) : []),
    'only',
  ];
}

/** What it begins with: what is to be changed, or a quick start. @param names that are taken */
export function formOf(about: Recodable, recode: Recode | null, names: ReadonlySet<string>): RecodeForm {
  const { scale } = about;
  const ranges = scale && (isMeasure(about.kind) || !isCategorical(about.kind));
  const first = about.starts.find(({ says }) => says.startsWith('Steps')) ?? about.starts.at(0);
  const empty: RecodeForm = {
    name: freeName(about.name, names),
    label: about.label ? `${about.label}, recoded` : '',
    way: ranges ? 'ranges' : 'groups',
    bands: (first?.bands ?? []).map((band) => typedOf(band, about.storage)),
    groups: about.groups.map(({ label, codes }, i) => ({ code: String(i + 1), label, codes })),
    size: scale ? String(scale.bins.size) : '',
    start: scale ? String(scale.bins.start) : '',
    only: new Set(),
    rest: 'blank',
  };
  if (!recode) return empty;
  const common = { ...empty, name: recode.name, label: recode.label ?? '', rest: recode.rest ?? 'blank' };
  if ('width' in recode)
    return { ...common, way: 'bins', size: String(recode.width.size), start: String(recode.width.start) };
  if ('only' in recode) return { ...common, way: 'only', only: new Set(recode.only) };
  const byRange = recode.bands.some((band) => !('values' in band));
  return byRange
    ? {
        ...common,
        way: 'ranges',
        bands: recode.bands.map((band) => ({
          from: 'from' in band ? String(band.from) : '',
          to: 'to' in band && band.to !== undefined ? String(band.to) : '',
          code: band.code,
          label: band.label ?? '',
        })),
      }
    : {
        ...common,
        way: 'groups',
        groups: recode.bands.map((band) => ({
          code: band.code,
          label: band.label ?? '',
          codes: 'values' in band ? band.values : [],
        })),
      };
}

/** `age_b`, `age_b2` … */
function freeName(of: string, names: ReadonlySet<string>): string {
  for (let i = 1; ; i++) {
    const name = `${of}_b${i === 1 ? '' : i}`;
    if (!names.has(name)) return name;
  }
}

export const typedOf = ({ from, to, code, label }: Range, storage: Storage): TypedBand => ({
  from: from === null ? '' : endText(from, storage),
  to: to === null ? '' : endText(to, storage),
  code,
  label,
});

/** Bands as they are drawn; `null` while one of their ends is none. */
export function rangesOf(bands: readonly TypedBand[], storage: Storage): Range[] | null {
  const ranges = bands.map(({ from, to, code, label }) => ({
    from: from.trim() === '' ? null : endValue(from, 'from', storage),
    to: to.trim() === '' ? null : endValue(to, 'to', storage),
    code,
    label,
  }));
  const broken = ranges.some(
    ({ from, to }, i) =>
      (from === null) !== (bands[i].from.trim() === '') ||
      (to === null) !== (bands[i].to.trim() === '') ||
      (from !== null && to !== null && from > to),
  );
  return broken ? null : ranges;
}

/** The recode that is filled in, or what is still wanting, in words. */
export function recodeIn(form: RecodeForm, about: Recodable): { recode: Recode } | { says: string } {
  const name = form.name.trim();
  if (name === '') return { says: 'It needs a name.' };
  const common = {
    name,
    of: about.name,
    ...(form.label.trim() ? { label: form.label.trim() } : {}),
    ...(form.rest === 'same' ? { rest: 'same' as const } : {}),
  };
  switch (form.way) {
    case 'only':
      return form.only.size
        ? { recode: { ...common, only: [...form.only] } }
        : { says: 'Tick the codes to keep.' };
    case 'bins': {
      const [size, start] = [Number(form.size), Number(form.start)];
      if (form.size.trim() === '' || !(size > 0)) return { says: 'Bins have a width above zero.' };
      if (form.start.trim() === '' || !Number.isFinite(start)) return { says: 'Bins begin at a number.' };
      return { recode: { ...common, width: { size, start } } };
    }
    case 'groups': {
      const groups = form.groups.filter(({ codes }) => codes.length > 0);
      if (groups.length === 0) return { says: 'Tick codes that belong together, and make a group of them.' };
      const uncoded = groups.findIndex(({ code }) => code.trim() === '');
      if (uncoded >= 0) return { says: `Group ${uncoded + 1} needs a code.` };
      return {
        recode: {
          ...common,
          bands: groups.map(({ code, label, codes }) => ({
            values: [...codes],
            code: code.trim(),
            ...(label.trim() ? { label: label.trim() } : {}),
          })),
        },
      };
    }
    case 'ranges': {
      const bands: Band[] = [];
      for (const [i, typed] of form.bands.entries()) {
        const band = bandIn(typed, about.storage);
        if ('says' in band) return { says: `Band ${i + 1} ${band.says}.` };
        bands.push(band.band);
      }
      return bands.length ? { recode: { ...common, bands } } : { says: 'Set an edge on the distribution.' };
    }
  }
}

function bandIn({ from, to, code, label }: TypedBand, storage: Storage): { band: Band } | { says: string } {
  if (code.trim() === '') return { says: 'needs a code' };
  const [low, high] = [endTyped(from, storage), endTyped(to, storage)];
  if (from.trim() !== '' && low === null) return { says: `begins at “${from}”, which is no number` };
  if (to.trim() !== '' && high === null) return { says: `ends at “${to}”, which is no number` };
  const more = { code: code.trim(), ...(label.trim() ? { label: label.trim() } : {}) };
  if (low !== null) return { band: { from: low, ...(high === null ? {} : { to: high }), ...more } };
  return high === null ? { says: 'has no end: set an edge, or type one' } : { band: { to: high, ...more } };
}
