import type { Column } from '../../extract/column';

/** A code with its label, as a sentence names it. */
export interface Named {
  code: string;
  label: string | null;
}

/**
 * Who was not asked a question: a list of steps that settle some rows each, and a last variable that settles the others.
 * "Asked where A is 1 and B is 2" first shuts the other codes of A; "where A is 1, or B is 2" first lets A at 1 be asked.
 */
export interface Universe {
  steps?: { by: string; codes: string[]; asked: boolean }[] | undefined;
  by: string;
  shut: string[];
}

/** @returns whether a row was not asked; `null` where a variable of the universe is not there */
export function notAskedIn(
  { steps = [], by, shut }: Universe,
  columnOf: (name: string) => Column | undefined,
): ((row: number) => boolean) | null {
  const holds = (name: string, codes: readonly string[]): ((row: number) => boolean) | null => {
    const column = columnOf(name);
    if (!column) return null;
    const held = new Set(codes);
    return column.lift((text) => held.has(text.trim()));
  };
  const tests = [
    ...steps.map(({ by: name, codes, asked }) => ({ test: holds(name, codes), asked })),
    { test: holds(by, shut), asked: false },
  ];
  const known = tests.flatMap(({ test, asked }) => (test ? [{ test, asked }] : []));
  if (known.length < tests.length) return null;
  return (row) => {
    const first = known.find(({ test }) => test(row));
    return first !== undefined && !first.asked;
  };
}

const NAMED = 4;
/** Codes as a sentence names them: the labels where they are few, the first and the last of many numbers. */
export function codesSaid(codes: readonly Named[]): string {
  const one = ({ code, label }: Named): string => (label ? `${code} ${label}` : code);
  if (codes.length > NAMED && codes.every(({ code }) => Number.isFinite(Number(code))))
    return `${codes[0].code} to ${codes[codes.length - 1].code}`;
  return (
    codes.slice(0, NAMED).map(one).join(' or ') +
    (codes.length > NAMED ? ` or ${codes.length - NAMED} more` : '')
  );
}

/** "boiler is 1 and tenure is 3 or 4", for who was asked. */
export function askedSaid(
  steps: readonly { by: string; codes: readonly Named[]; rest: readonly Named[]; asked: boolean }[],
  by: string,
  open: readonly Named[],
): string {
  const last = `${by} is ${codesSaid(open)}`;
  return [...steps]
    .reverse()
    .reduce(
      ({ says, single }, { by: name, codes, rest, asked }) =>
        asked
          ? { says: `${name} is ${codesSaid(codes)}, or ${says}`, single: false }
          : { says: `${name} is ${codesSaid(rest)} and ${single ? says : `(${says})`}`, single: true },
      { says: last, single: true },
    ).says;
}
