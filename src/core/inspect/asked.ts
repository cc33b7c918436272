import { placeReceived } from '../extract/extract';
import { emptiness, emptyTexts, gatesOf, saidOf } from '../flags/between/gates';
import { isFew } from '../flags/between/gaters';
import type { Flag, Whole } from '../flags/rule';
import { askedSaid, notAskedIn, type Named, type Universe } from '../flags/between/universe';
import type { Level, LevelList } from '../infer/level-list';

/** Who was asked a question, and the rows that contradict. */
export interface Asked {
  /** "asked where boiler is 1". */
  says: string;
  /** Rows that were not asked. */
  notAsked: number;
  /** The first rows that hold an answer though they were not asked; zero-based. */
  breaches: number[];
  /** All of them, in number. */
  breached: number;
  /** Whether a person said so; else the blanks tell. */
  accepted: boolean;
  /** The remark that a ruling accepts. */
  flag: Flag | null;
}

const MOST_SHOWN = 20;

/** @returns `null` where nothing hangs on another variable */
export function askedOf(
  name: string,
  whole: Whole,
  accepted: Universe | undefined,
  flags: readonly Flag[],
): Asked | null {
  if (accepted) return ofAccepted(name, whole, accepted);
  const { subjects } = whole;
  const gate = gatesOf(whole).find(({ variable }) => subjects[variable].name === name);
  if (!gate) return null;
  const { notAsked, breaches } = gate;
  const flag = flags.find(({ rule, variables }) => rule === 'universe-gate' && variables[0] === name) ?? null;
  return {
    says: saidOf(gate, subjects),
    notAsked,
    breaches: shownOf(breaches, whole),
    breached: breaches.length,
    accepted: false,
    flag,
  };
}

/** The first of some rows, by the places that they were received at. */
const shownOf = (rows: readonly number[], { extract }: Whole): number[] =>
  rows.slice(0, MOST_SHOWN).map((row) => placeReceived(extract, row));

/** What a person said may be another universe than the blanks tell: its rows are looked at by themselves. */
function ofAccepted(name: string, whole: Whole, accepted: Universe): Asked | null {
  const {
    extract: { rows, variables },
    subjects,
  } = whole;
  const place = variables.findIndex((variable) => variable.name === name);
  const notAskedAt = notAskedIn(
    accepted,
    (other) => variables.find((variable) => variable.name === other)?.column,
  );
  if (place < 0 || !notAskedAt) return null;
  const isEmpty = emptiness(variables[place].column, emptyTexts(subjects[place]));
  let notAsked = 0;
  const breaches: number[] = [];
  for (let row = 0; row < rows; row++) {
    if (!notAskedAt(row)) continue;
    if (isEmpty(row)) notAsked++;
    else breaches.push(row);
  }
  return {
    says: saidOfAccepted(accepted, whole),
    notAsked,
    breaches: shownOf(breaches, whole),
    breached: breaches.length,
    accepted: true,
    flag: null,
  };
}

/** Asked at all codes at which it was not said that it was not; a stray code of a few rows, such as a total, goes unnamed. */
function saidOfAccepted({ steps = [], by, shut }: Universe, { extract: { rows }, subjects }: Whole): string {
  const levelsOf = (variable: string): Level[] =>
    (subjects.find(({ name }) => name === variable)?.levels.levels ?? []).filter(
      ({ standing }) => standing !== 'unreadable',
    );
  const namedOf = (levels: LevelList): Named[] => levels.map(({ code, label }) => ({ code, label }));
  const among = (variable: string, codes: readonly string[]): Named[] =>
    namedOf(levelsOf(variable).filter(({ code }) => codes.includes(code)));
  const beside = (variable: string, codes: readonly string[]): Named[] => {
    const others = levelsOf(variable).filter(({ code }) => !codes.includes(code));
    const told = others.filter(({ count, label }) => label !== null || !isFew(count, rows));
    return namedOf(told.length ? told : others);
  };
  return `asked where ${askedSaid(
    steps.map((step) => ({
      by: step.by,
      asked: step.asked,
      codes: among(step.by, step.codes),
      rest: beside(step.by, step.codes),
    })),
    by,
    beside(by, shut),
  )}`;
}
