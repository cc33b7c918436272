import type { Extract, Variable } from '../extract/extract';
import type { State } from '../log/fold';
import type { Recode } from '../recode/recode';
import { recoded, recodeMisfit, type Source } from '../recode/recoded';
import type { Inspected } from './inspected';
import { siftedBy } from './sieving';

/** What a recode may know of the variable that it is made of. */
export const sourceOf = (inspected: Inspected, state: State): Source => ({
  ...siftedBy(inspected, state),
  kind: inspected.kind,
  label: inspected.label,
});

/** Trial recodes as variables behind all others; made anew when what they are made of has changed. */
export class Trials {
  private readonly made = new Map<string, { recode: Recode; places: unknown; variable: Variable }>();
  /** The extract with the first one, two, three of the recodes behind it. */
  private readonly last: { of: Extract; variables: readonly Variable[]; extract: Extract }[] = [];
  /** Recodes that cannot be made of this extract, in words. */
  misfits: string[] = [];

  /**
   * @param wholly a variable as all rows have it, received or made before
   * @param enter makes a recode known under its name, for those that are made of it
   * @returns the extract with the recodes behind its own variables
   */
  over(
    extract: Extract,
    state: State,
    wholly: (name: string) => Inspected | undefined,
    enter: (extract: Extract) => void,
  ): Extract {
    this.misfits = [];
    const variables: Variable[] = [];
    const names = new Set(extract.variables.map(({ name }) => name));
    for (const recode of state.recodes.values()) {
      const misfit = (says: string): number =>
        this.misfits.push(`trial recode ${recode.name} is not made: ${says}`);
      const source = wholly(recode.of);
      if (names.has(recode.name)) misfit('a variable has this name');
      else if (!source || (!names.has(recode.of) && !variables.some(({ name }) => name === recode.of)))
        misfit(`there is no variable ${recode.of}`);
      else {
        const from = sourceOf(source, state);
        const says = recodeMisfit(recode, from);
        if (says !== null) misfit(says);
        else {
          variables.push(
            this.variable(recode, from, extract, extract.variables.length + variables.length + 1),
          );
          enter(this.behind(extract, variables));
        }
      }
    }
    return this.behind(extract, variables);
  }

  private variable(recode: Recode, source: Source, { rows }: Extract, position: number): Variable {
    const known = this.made.get(recode.name);
    if (known?.recode === recode && known.places === source.places && known.variable.position === position)
      return known.variable;
    const { column, entry, kind, order, unreadable, text } = recoded(recode, source, rows);
    const variable: Variable = {
      name: recode.name,
      position,
      column,
      entry,
      trial: { of: recode.of, kind, order, unreadable, text },
    };
    this.made.set(recode.name, { recode, places: source.places, variable });
    return variable;
  }

  /** The same extract as long as it and the recodes are the same. */
  private behind(extract: Extract, variables: readonly Variable[]): Extract {
    if (variables.length === 0) return extract;
    const last = this.last.at(variables.length);
    if (
      last?.of === extract &&
      last.variables.length === variables.length &&
      last.variables.every((one, i) => one === variables[i])
    )
      return last.extract;
    const made = { ...extract, variables: [...extract.variables, ...variables] };
    this.last[variables.length] = { of: extract, variables: [...variables], extract: made };
    return made;
  }
}
