/** Variables whose kind is known, as the cues that hold of them: what weights are learnt from. */
import type { Kind } from '../src/core/extract/words';
import type { Extract } from '../src/core/extract/extract';
import type { Held } from '../src/core/infer/evidence/weigh';
import { heldBy, possibleFor } from '../src/core/infer/evidence/weigh';
import { seenOf } from '../src/core/infer/evidence/seen';
import { Inspector } from '../src/core/inspect/inspect';
import { extractOfJudged, type Judged } from '../src/testing/judged/judged';
import { STUDIES } from '../src/testing/judged/studies';
import { isDateStorage } from '../src/core/extract/words';

/** One variable of one file under one condition. */
export interface Sample {
  /** What is left out together. */
  file: string;
  condition: string;
  variable: string;
  held: readonly Held[];
  possible: readonly Kind[];
  /** The kinds that an expert would accept, the first the best. */
  truth: readonly Kind[];
}

/** How a made-up study is handed out. */
interface Condition {
  name: string;
  rows: number;
  labels: boolean;
  names: boolean;
  /** Files of the same units; 1 if nothing is said. */
  waves?: number;
  /** Cells that repeat another row's, are empty, or slipped by a digit or two. */
  slips?: boolean;
}
const CONDITIONS: readonly Condition[] = [
  { name: 'as it is, 900 rows', rows: 900, labels: true, names: true },
  { name: 'as it is, 120 rows', rows: 120, labels: true, names: true },
  { name: 'with slips, 1200 rows', rows: 1200, labels: true, names: true, slips: true },
  { name: 'with slips, no codebook', rows: 500, labels: false, names: true, slips: true },
  { name: 'no codebook, 2500 rows', rows: 2500, labels: false, names: true },
  { name: 'no codebook, 400 rows', rows: 400, labels: false, names: true },
  { name: 'no codebook, 70 rows', rows: 70, labels: false, names: true },
  { name: 'three waves', rows: 300, labels: true, names: true, waves: 3 },
  { name: 'names that say nothing', rows: 700, labels: true, names: false },
  { name: 'neither names nor codebook', rows: 700, labels: false, names: false },
];

/** Samples of the studies that ship with the project, the same each time. */
export function shippedSamples(): Sample[] {
  return Object.entries(STUDIES).flatMap(([study, judged], at) =>
    CONDITIONS.flatMap((condition, i) => {
      const handed = judged.map((one, k): Judged => {
        const { label, entry, ...rest } = one;
        const name = condition.names ? one.name : bareName(one, judged, k);
        const cell = condition.slips ? slipping(one.cell) : one.cell;
        return condition.labels ? { ...rest, cell, name, label, entry } : { ...rest, cell, name };
      });
      const extract = extractOfJudged(handed, 1000 * at + i + 1, condition.rows, condition.waves);
      return samplesOf(
        study,
        condition.name,
        extract,
        new Map(
          handed.map(({ name, kind, judgedBy }) =>
            // Without its words nobody could tell what it is.
            [name, judgedBy === 'words' && !condition.names ? [] : [kind].flat()],
          ),
        ),
      );
    }),
  );
}

/** Cells as people make them: one in forty is left empty, one in three hundred is another row's, and hardly one a slip of the key. */
function slipping(cell: Judged['cell']): Judged['cell'] {
  return (c, row) => {
    const text = cell(c, row);
    if (c.odds(1 / 40)) return '';
    if (row > 0 && c.odds(1 / 300)) return cell(c, row - 1);
    return c.odds(1 / 900) && /^\d+$/.test(String(text)) ? `${text}${c.whole(0, 9)}${c.whole(0, 9)}` : text;
  };
}

/** Names by number alone: items of a battery keep a stem in common. */
function bareName({ name }: Judged, judged: readonly Judged[], at: number): string {
  const stem = /^(.*?)\d+$/.exec(name)?.[1];
  const items = stem ? judged.filter((other) => new RegExp(`^${stem}\\d+$`).test(other.name)) : [];
  return items.length >= 4
    ? `v${judged.indexOf(items[0]) + 1}_${items.findIndex((one) => one.name === name) + 1}`
    : `v${at + 1}`;
}

/** @param truth accepted kinds by the name of each variable; none where the variable is left aside */
export function samplesOf(
  file: string,
  condition: string,
  extract: Extract,
  truth: ReadonlyMap<string, readonly Kind[]>,
): Sample[] {
  const dig = new Inspector(extract);
  return dig.variables.flatMap((variable) => {
    const kinds = truth.get(variable.name) ?? [];
    const { storage } = variable.written;
    // How it is stored decides these.
    if (storage === 'empty' || isDateStorage(storage) || variable.counts.valid === 0) return [];
    const seen = seenOf(variable);
    const possible = possibleFor(seen);
    const accepted = kinds.filter((kind) => possible.includes(kind));
    return accepted.length === 0
      ? []
      : [
          {
            file,
            condition,
            variable: variable.name,
            held: heldBy(seen),
            possible,
            truth: accepted,
          },
        ];
  });
}
