import type { Marks, Variable } from '../extract/extract';
import { isMeasure } from '../extract/words';
import { Declarations } from '../infer/declared';
import { commonMarks } from '../infer/marks';
import { inferStorage, type Hints, type Written } from '../infer/storage';
import type { State } from '../log/fold';
import { isBlank } from '../read/looks';
import type { Bits } from '../extract/bits';
import { tallyWithin, type Tally } from '../tally/tally';
import type { Cells } from './cells';

/** Of more distinct texts than this it is not looked again how they are written when rows are set aside. */
const MOST_RETALLIED = 50_000;

/**
 * How the cells of each variable are written, by the file and its codebook. Derived from the cells and from whether rows
 * that repeat the names of the columns are among them.
 */
export class Writing {
  private readonly found = new Map<string, Written>();
  private common: Marks | null = null;
  private readonly fixed: boolean;

  /**
   * @param hasHeaders whether the names of the columns stand in some rows too: they are none of the values
   * @param there rows that are there; all where it is `null`
   * @param before what is known of variables that are the same objects still
   */
  constructor(
    private readonly cells: Cells,
    private readonly hasHeaders: boolean,
    private readonly there: Bits | null = null,
    before: Writing | null = null,
  ) {
    const { files } = cells.extract;
    this.fixed = files.length > 0 && files.every(({ form }) => form === 'fixed-width');
    if (before?.hasHeaders !== hasHeaders) return;
    for (const [name, variable] of cells.byName) {
      const known = before.cells.byName.get(name) === variable ? before.found.get(name) : undefined;
      const same = before.there === there || cells.tally(variable).texts.length > MOST_RETALLIED;
      if (known && same && !known.open) this.found.set(name, known);
    }
  }

  /** The texts of the rows that are there. Where very many rows each have a text of their own, a few less say nothing else. */
  private tally(variable: Variable): Tally {
    const all = this.cells.tally(variable);
    return this.there === null || all.texts.length > MOST_RETALLIED
      ? all
      : tallyWithin(variable.column, this.there);
  }

  of(variable: Variable): Written {
    const known = this.found.get(variable.name);
    if (known) return known;
    const tally = this.tally(variable);
    const hints = this.hints(variable);
    let written = inferStorage(tally, hints);
    // What holds nothing but its own name is text.
    if (written.storage === 'empty' && tally.texts.some((text) => !isBlank(text)))
      written = { ...written, storage: 'text' };
    if (written.open) {
      // What a variable leaves open, a person's word or the other variables decide.
      const { decimal, order } = this.marks();
      if ((written.open === 'decimal-mark' && decimal) || (written.open === 'date-order' && order))
        written = inferStorage(tally, { ...hints, mark: decimal, order });
    }
    this.found.set(variable.name, written);
    return written;
  }

  /** Where a person says that words are numbers or dates, as many are read as can be, and the others not. */
  under(variable: Variable, { kinds, missing }: State): Written {
    const written = this.of(variable);
    const said = kinds.get(variable.name);
    const force =
      said === undefined || written.storage !== 'text'
        ? null
        : isMeasure(said)
          ? 'number'
          : said === 'date'
            ? 'date'
            : null;
    if (force === null) return written;
    const declared = new Set(missing.get(variable.name)?.map(({ code }) => code.trim()));
    const hints = this.hints(variable);
    return inferStorage(this.tally(variable), {
      ...hints,
      force,
      skip: (text) => declared.has(text.trim()) || (hints.skip?.(text) ?? false),
    });
  }

  hints({ name, entry, declared, implied }: Variable): Hints {
    const byCodebook = new Declarations(entry);
    const ownName = this.hasHeaders ? name : null;
    return {
      skip:
        byCodebook.none && ownName === null
          ? undefined
          : (text) => text === ownName || byCodebook.missing(text) !== null,
      declared,
      implied,
      padded: this.fixed && (entry?.storage === 'integer' || entry?.storage === 'decimal'),
    };
  }

  /** Decimal mark and order of days and months that the other variables agree on, or a person chose. */
  private marks(): Marks {
    const { extract } = this.cells;
    return (this.common ??= {
      ...commonMarks(
        extract.variables.map((variable) => inferStorage(this.tally(variable), this.hints(variable))),
      ),
      ...extract.marks,
    });
  }
}
