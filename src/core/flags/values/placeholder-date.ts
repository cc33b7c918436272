import { validOf } from '../../infer/levels';
import { PLACEHOLDERS } from './days';
import { usualAround } from './quantities';
import { round2, rowsHold, type Flag, type Subject, type VariableRule } from '../rule';

/**
 * Days that stand for no day: the first or last that a program knows, or that a form begins with.
 *
 * Example: 1900-01-01 six times among days of 2019 to 2022.
 */
export const placeholderDate: VariableRule = {
  rule: 'placeholder-date',
  needs: 'tally',
  answers: 'codes',
  precedence: 20,
  look: placeholders,
};
/** Years between it and the nearest other days for it to stand apart; or as many times as frequent as days around it. */
const YEARS_APART = 5;
const LEAST_RATIO = 8;

function placeholders({ name, written, levels }: Subject): Flag[] {
  const valid = validOf(levels);
  if (written.storage === 'integer') return inYears(name, valid);
  if (written.storage !== 'date' && written.storage !== 'datetime') return [];
  const scale = written.storage === 'datetime' ? 86400 : 1;
  const found = valid.levels.flatMap((level, i) => {
    if (
      level.value === null ||
      !(written.storage === 'datetime'
        ? isStamp(level.value)
        : PLACEHOLDERS.has(Math.floor(level.value / scale)))
    )
      return [];
    // The nearest day on each side that is no placeholder itself.
    const other = (step: 1 | -1): number | null => {
      for (let j = i + step; j >= 0 && j < valid.levels.length; j += step)
        if (!PLACEHOLDERS.has(Math.floor((valid.values[j] ?? 0) / scale))) return valid.values[j] / scale;
      return null;
    };
    const [before, after] = [other(-1), other(1)];
    const here = level.value / scale;
    const apart =
      Math.min(before === null ? Infinity : here - before, after === null ? Infinity : after - here) / 365.25;
    const ratio = level.count / Math.max(0.5, usualAround(valid.counts, i));
    const stands = Number.isFinite(apart) && apart >= YEARS_APART;
    return stands || (level.count >= 5 && ratio >= LEAST_RATIO) ? [{ level, stands, ratio, apart }] : [];
  });
  if (found.length === 0 || valid.levels.length <= found.length) return [];
  const rows = found.reduce((sum, { level }) => sum + level.count, 0);
  if (rows > valid.rows * 0.6) return [];
  return [
    {
      rule: 'placeholder-date',
      variables: [name],
      codes: found.map(({ level }) => level.code),
      rows,
      severity: 'high',
      certainty: round2(found.some(({ stands }) => stands) ? 0.96 : 0.85),
      says: `${rowsHold(rows)} ${found.map(({ level }) => level.code).join(' or ')}, ${found[0].stands ? `${Math.round(found[0].apart)} years from the nearest other day` : `${Math.round(found[0].ratio)} times as often as the days around it`}: a day that stands for none`,
    },
  ];
}

const HOUR = 3600;
/** Midnight of such a day, or a whole hour as far from it as clocks of the world differ. */
function isStamp(seconds: number): boolean {
  if (seconds % HOUR !== 0) return false;
  for (let hours = -14; hours <= 14; hours++)
    if ((seconds + hours * HOUR) % 86400 === 0 && PLACEHOLDERS.has((seconds + hours * HOUR) / 86400))
      return seconds % 86400 === 0 || EPOCH.has((seconds + hours * HOUR) / 86400);
  return false;
}
/** Only the day from which programs count is moved by clocks. */
const EPOCH = new Set([0]);

/** Years that forms and programs begin or end with. */
const YEARS = new Set([1000, 1111, 1800, 1900, 1901, 2099, 2100, 2999, 3000]);
const LEAST_YEARS = 10;

/** The same among years written as numbers. */
function inYears(name: string, { levels, values, counts, rows }: ReturnType<typeof validOf>): Flag[] {
  if (values.length < LEAST_YEARS || values[0] < 1000 || values[values.length - 1] > 3000) return [];
  const among = levels.filter(({ value }) => value !== null && !YEARS.has(value));
  if (
    among.length < LEAST_YEARS ||
    values.length !== levels.length ||
    among.some(({ value }) => (value as number) < 1700 || (value as number) > 2100)
  )
    return [];
  const found = levels.filter(({ value, count }, i) => {
    if (value === null || !YEARS.has(value) || count < 2) return false;
    const gap = Math.min(value - (values[i - 1] ?? -Infinity), (values[i + 1] ?? Infinity) - value);
    return gap >= YEARS_APART || (count >= 5 && count >= Math.max(0.5, usualAround(counts, i)) * LEAST_RATIO);
  });
  const held = found.reduce((sum, { count }) => sum + count, 0);
  if (found.length === 0 || held > rows * 0.6) return [];
  return [
    {
      rule: 'placeholder-date',
      variables: [name],
      codes: found.map(({ code }) => code),
      rows: held,
      severity: 'medium',
      certainty: 0.85,
      says: `${rowsHold(held)} ${found.map(({ code }) => code).join(' or ')}, apart from all other years: a year that stands for none`,
    },
  ];
}
