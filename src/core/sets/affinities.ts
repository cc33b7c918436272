import { pulse } from '../extract/pulse';
import { putUnder } from '../extract/put-under';
import { baseOf } from './affinity';
import type { Common, Compared } from './compared';
import { CUES } from './cues';

/**
 * How alike units are, in log odds, on the average of all pairs of those who speak for them: the same as comparing each pair,
 * which most of many have nothing to share for. A cue is asked of those alone that have something of it in common, or stand
 * near each other; what it is of all others is known.
 * @param units speakers of each; the units in the order of the file
 * @returns an n × n table, symmetric, 0 in its diagonal
 */
export function affinitiesOf(units: readonly (readonly Compared[])[], common: Common): Float32Array {
  const n = units.length;
  const table = new Float32Array(n * n);
  const speakers = units.flat();
  const having = new Having(speakers, common);
  const sums = new Float64Array(n);
  /** Of each speaker behind the one at hand. */
  const scores = new Float64Array(speakers.length);
  const sizes = Uint32Array.from(units, ({ length }) => length);
  const unitOf = Uint32Array.from(units.flatMap((unit, i) => unit.map(() => i)));
  let first = 0;
  for (let i = 0; i < n; i++) {
    pulse();
    const behind = first + sizes[i];
    sums.fill(0, i + 1);
    for (let own = first; own < behind; own++) {
      scores.fill(baseOf(common), behind);
      having.addTo(scores, own, behind);
      for (let at = behind; at < scores.length; at++) sums[unitOf[at]] += scores[at];
    }
    for (let j = i + 1; j < n; j++) table[i * n + j] = sums[j] / (sizes[i] * sizes[j]);
    first = behind;
  }
  mirror(table, n);
  return table;
}

/** Which speakers have what, by cue. */
class Having {
  /** Speakers that have each thing, ascending; by the place of the cue. */
  private readonly lists: readonly Map<number, number[]>[];
  /** Speakers in the order of the file, and the place of each in it. */
  private readonly inFile: Uint32Array;
  private readonly placeInFile: Uint32Array;
  /** Of each speaker the last question, by number, of which it was told that it has something in common. */
  private readonly met: Uint32Array;
  private asked = 0;
  private readonly speaks: Int32Array;

  constructor(
    private readonly speakers: readonly Compared[],
    private readonly common: Common,
  ) {
    this.lists = CUES.map((cue) => {
      const lists = new Map<number, number[]>();
      if ('shares' in cue)
        speakers.forEach((one, at) => {
          for (const thing of cue.shares(one, common.says)) putUnder(lists, thing, at);
        });
      return lists;
    });
    this.inFile = Uint32Array.from(speakers.keys()).sort((a, b) => speakers[a].at - speakers[b].at);
    this.placeInFile = new Uint32Array(speakers.length);
    this.inFile.forEach((at, place) => (this.placeInFile[at] = place));
    this.met = new Uint32Array(speakers.length);
    this.speaks = Int32Array.from(speakers, ({ speaks }) => speaks);
  }

  /** Adds to the scores of all speakers from `behind` on what cues say of each and one before them, cue by cue. */
  addTo(scores: Float64Array, own: number, behind: number): void {
    const { speakers, common, met, speaks } = this;
    const one = speakers[own];
    for (let c = 0; c < CUES.length; c++) {
      const cue = CUES[c];
      const bit = 1 << c;
      if (!(one.speaks & bit)) continue;
      const add = (at: number): void => {
        scores[at] += cue.weight * cue.strength(one, speakers[at], common);
      };
      if ('reach' in cue) {
        this.nearBy(own, cue.reach, behind, add);
        continue;
      }
      const lists = cue.shares(one, common.says).map((thing) => this.lists[c].get(thing) ?? []);
      // Nobody is apart where all have it.
      if (cue.isOnlyApart && lists.some(({ length }) => length === speakers.length)) continue;
      const question = ++this.asked;
      for (const list of lists) {
        for (let k = list.length - 1; k >= 0 && list[k] >= behind; k--) {
          if (met[list[k]] === question) continue;
          met[list[k]] = question;
          if (!cue.isOnlyApart) add(list[k]);
        }
      }
      if (cue.apart === undefined) continue;
      const apart = cue.weight * cue.apart;
      for (let at = behind; at < speakers.length; at++)
        if (speaks[at] & bit && met[at] !== question) scores[at] += apart;
    }
  }

  private nearBy(own: number, reach: number, behind: number, add: (at: number) => void): void {
    const { speakers, inFile, placeInFile } = this;
    const { at } = speakers[own];
    for (const step of [-1, 1])
      for (
        let place = placeInFile[own] + step;
        place >= 0 && place < inFile.length && Math.abs(speakers[inFile[place]].at - at) < reach;
        place += step
      )
        if (inFile[place] >= behind) add(inFile[place]);
  }
}

/** So many lines are mirrored at a time: their cells are near each other in memory. */
const NEAR = 32;
/** Fills what is below the diagonal of an n × n table by what is above it. */
function mirror(table: Float32Array, n: number): void {
  for (let up = 0; up < n; up += NEAR)
    for (let left = up; left < n; left += NEAR)
      for (let i = up; i < Math.min(up + NEAR, n); i++)
        for (let j = Math.max(left, i + 1); j < Math.min(left + NEAR, n); j++)
          table[j * n + i] = table[i * n + j];
}
