import type { Extract, Variable } from '../extract/extract';
import { InputError } from '../extract/problem';
import { batteryOf, Families, scaleOf, type Battery, type FamilyScales, type Scale } from '../infer/scale';
import { sequenceOf } from '../infer/sequence';
import type { Sequence } from '../infer/known';
import { markingOf, type Marking } from '../infer/marker';
import { filesHolding } from '../intake/waves';
import { TooManyDistinct } from '../extract/too-many';
import { tallyColumn, type Tally } from '../tally/tally';

/** What the cells of an extract hold, whatever a person decides: worked out once for each variable, when it is asked for. */
export class Cells {
  readonly byName: ReadonlyMap<string, Variable>;
  private readonly tallies = new Map<string, Tally>();
  private readonly scales = new Map<string, Scale | null>();
  private readonly families: Families;
  private readonly familyScales: FamilyScales = new Map();
  private readonly folded: ReadonlyMap<string, string>;
  private readonly sequences = new Map<string, Sequence>();
  private readonly files = new Map<string, number[]>();

  /** @param before what is known of variables that are the same objects still */
  constructor(
    readonly extract: Extract,
    before: Cells | null = null,
  ) {
    this.byName = new Map(extract.variables.map((variable) => [variable.name, variable]));
    if (before)
      for (const [name, variable] of this.byName) {
        if (before.byName.get(name) !== variable) continue;
        carry(before.tallies, this.tallies, name);
        carry(before.scales, this.scales, name);
        carry(before.sequences, this.sequences, name);
        carry(before.files, this.files, name);
      }
    this.folded = new Map([...this.byName.keys()].map((name) => [name.toLowerCase(), name]));
    this.families = new Families(this.byName.keys());
  }

  /** @throws InputError where a variable holds more different texts than can be counted in memory */
  tally(variable: Variable): Tally {
    return known(this.tallies, variable.name, () => {
      const { pass } = variable;
      if (pass && !pass.others) return { ...pass, rows: pass.counts.reduce((sum, rows) => sum + rows, 0) };
      try {
        return tallyColumn(variable.column);
      } catch (cause) {
        if (!(cause instanceof TooManyDistinct)) throw cause;
        throw new InputError({ file: variable.name, says: cause.message });
      }
    });
  }

  /** The battery that a variable is an item of. */
  battery(name: string): Battery | null {
    return batteryOf(
      name,
      this.families,
      (other) =>
        known(this.scales, other, () => {
          const variable = this.byName.get(other);
          return variable ? scaleOf(this.tally(variable)) : null;
        }),
      this.familyScales,
    );
  }

  /** What the name of a variable says that it marks. */
  marking(name: string): Marking | null {
    return markingOf(name, this.folded);
  }

  /** How the values of a variable follow each other in the file. */
  sequence({ name, position, column }: Variable): Sequence {
    return known(this.sequences, name, () => sequenceOf(column, position === 1));
  }

  /** Zero-based places of the files that hold anything of a variable; `null` where there is but one file. */
  inFiles(name: string): number[] | null {
    const { files } = this.extract;
    const variable = this.byName.get(name);
    return files.length < 2 || !variable
      ? null
      : known(this.files, name, () => filesHolding(variable.column, files));
  }
}

function carry<T>(from: ReadonlyMap<string, T>, to: Map<string, T>, name: string): void {
  const value = from.get(name);
  if (value !== undefined) to.set(name, value);
}

/** A value by its name, made when it is first asked for. */
function known<T>(values: Map<string, T>, name: string, make: () => T): T {
  const found = values.get(name);
  if (found !== undefined || values.has(name)) return found as T;
  const made = make();
  values.set(name, made);
  return made;
}
