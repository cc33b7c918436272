import type { MomentSpelling } from '../../extract/spelling';
import { spellingsOf } from '../../infer/levels';
import { everyCell, nativesOf, type Native } from '../native';
import type { Leaving, LeavingVariable } from '../leaving';

/** How the cells of delimited text are to be read, as a document beside it declares them. */
export type DeclaredType =
  | { type: 'string' }
  /** @param decimal the mark before decimals @param group between thousands @param around whether something stands around the digits */
  | { type: 'integer' | 'number'; decimal: '.' | ','; group: string | null; around: boolean }
  | { type: 'boolean'; yes: string; no: string }
  | { type: 'date' | 'time' | 'datetime'; spelling: MomentSpelling };

const STRING: DeclaredType = { type: 'string' };
const MOMENTS = { day: 'date', time: 'time', instant: 'datetime' } as const;

/** The types of the variables of a handoff: text where a cell that goes out would not be read as another. */
export function declaredTypes(leaving: Leaving): DeclaredType[] {
  const natives = nativesOf(leaving);
  return leaving.variables.map((_, i) => declaredType(leaving, i, natives[i]));
}

const escaped = (text: string): string => text.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&');

function declaredType(leaving: Leaving, at: number, native: Native): DeclaredType {
  const { type, spelling, wholeButMissing, beyond } = native;
  // Readers that keep numbers as doubles would change, or refuse, whole numbers beyond those.
  if (type === 'text' || !wholeButMissing || beyond) return STRING;
  const every = (test: RegExp): boolean => everyCell(leaving, at, (text) => test.test(text));
  if (type === 'boolean')
    return spelling?.as === 'boolean' ? { type, yes: spelling.true, no: spelling.false } : STRING;
  if (type === 'day' || type === 'time' || type === 'instant')
    return spelling?.as === 'moment' && everyCell(leaving, at, (text) => text.trim() === text)
      ? { type: MOMENTS[type], spelling }
      : STRING;
  // XML Schema Part 2, 3.2.3 and 3.3.13, which the standards build on.
  if (type === 'integer' && every(/^[-+]?\d+$/)) return { type, decimal: '.', group: null, around: false };
  if (every(/^[-+]?(\d+(\.\d*)?|\.\d+)(e[-+]?\d+)?$/i))
    return { type: 'number', decimal: '.', group: null, around: false };
  if (spelling?.as !== 'number') return STRING;
  const { decimal, thousands, before, after } = spelling;
  const digits = `${thousands ? `\\d{1,3}(${escaped(thousands)}\\d{3})*|` : ''}\\d+`;
  const number = `(${digits})(${escaped(decimal)}\\d+)?`;
  const declared = {
    type: type === 'integer' && every(new RegExp(`^\\D*(${digits})\\D*$`, 'u')) ? type : 'number',
    decimal,
    group: thousands || null,
  } as const;
  if (every(new RegExp(`^[-+]?${number}$`, 'u'))) return { ...declared, around: false };
  return every(new RegExp(`^(${escaped(before)})?-?${number}(${escaped(after)})?$`, 'u'))
    ? { ...declared, around: true }
    : STRING;
}

/** Texts that stand for no answer in the cells of a variable, with what they mean: as the codebook has them and as cells do. */
export function missingTexts({ entry, inspected }: LeavingVariable): { text: string; label: string }[] {
  const said = new Map<string, string>();
  for (const { code, label, missing } of entry.categories) if (missing) said.set(code, label ?? code);
  for (const level of inspected.levels.levels)
    if (level.standing === 'missing' || level.standing === 'not-asked') {
      const label = said.get(level.code);
      if (label !== undefined)
        for (const text of spellingsOf(level)) if (!said.has(text)) said.set(text, label);
    }
  for (const text of entry.missingTexts) said.set(text, text);
  return [...said].map(([text, label]) => ({ text, label }));
}
