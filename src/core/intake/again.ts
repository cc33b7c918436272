import type { Extract } from '../extract/extract';
import { InputError } from '../extract/problem';
import {
  MOST_SORTED,
  type AllRows,
  type CellCounting,
  type KeptRows,
  type Listed,
  type ListWanted,
  type RowsAsked,
} from '../rows/all-rows';
import type { Crossed, Valued } from '../rows/counting';
import { gathered } from '../rows/gathered';
import type { Categories, Numbers } from '../rows/records';
import { askedOf, rowPasses, type RowTest } from '../rows/row-test';
import type { Control } from '../read/source';
import { CellCounter, type CellsAsked } from './cell-counter';
import { filesFrom } from './from-row';
import { Page } from './page';
import { PassingCells, type PassingRows } from './passing';
import { readExtract, type Choices, type FileToRead } from './receive';

/** Goes through the files of an extract again, of whose rows only a sample is held. */
export class FilesAgain implements AllRows {
  /** @param extract as it was read of these files by these choices */
  constructor(
    private readonly extract: Extract,
    private readonly files: readonly FileToRead[],
    private readonly choices: Choices,
    private readonly control: Control = {},
  ) {}

  async kept(asked: RowsAsked, wanted: boolean): Promise<KeptRows> {
    const { tests } = asked;
    const cells = this.cellsOf(askedOf(tests));
    const sieve = this.sieve(asked, cells);
    const made = await this.read((batch) => {
      for (const one of cells.values()) one.next(batch);
      const rows = sieve.keep(batch);
      return wanted ? rows : [];
    });
    const byName = new Map(made.variables.map((one) => [one.name, one]));
    const { all, kept, conditions } = sieve;
    if (!wanted) return { all, kept, conditions, extract: null };
    const extract: Extract = {
      ...this.extract,
      rows: made.rows,
      pass: { rows: kept, places: made.pass?.places },
      files: this.extract.files.map((file, i) => ({
        ...file,
        rows: made.files[i].rows,
        read: made.files[i].read,
      })),
      variables: this.extract.variables.map((variable) => {
        const again = byName.get(variable.name);
        if (!again) throw new Error(`${variable.name} was not read again`);
        return { ...variable, column: again.column, pass: again.pass };
      }),
    };
    return { all, kept, conditions, extract };
  }

  counting(asked: RowsAsked): CellCounting {
    const count = gathered(async (asks: CellsAsked[]) => {
      const counters = asks.map((ask) => new CellCounter(ask));
      await this.count(asked, counters);
      return counters;
    });
    return {
      cross: async (
        by: readonly Categories[],
        _within: unknown,
        weight: Numbers | null = null,
      ): Promise<Crossed> => (await count({ by, weight, measure: null })).crossed,
      measured: async (
        by: readonly Categories[],
        measure: Numbers,
        _within: unknown,
        weight: Numbers | null = null,
      ): Promise<Valued[]> => (await count({ by, weight, measure })).measured,
    };
  }

  async list(asked: RowsAsked, wanted: ListWanted): Promise<Listed> {
    const { find, dropped, order, variables, from, take } = wanted;
    if (order.length > 0 && from + take > MOST_SORTED)
      throw new InputError({
        file: this.extract.name,
        says: `sorting comes to the first ${MOST_SORTED} rows where not all are held; ask for rows before them, or hold all`,
      });
    if (asked.tests.length === 0 && !dropped && find === null && order.length === 0)
      return { found: null, rows: await this.stretch(asked.aside, wanted) };
    const cells = this.cellsOf([
      ...new Set([
        ...askedOf(find ? [...asked.tests, find] : asked.tests),
        ...order.map((one) => one.variable),
      ]),
    ]);
    const passes = asked.tests.map((test) => passing(test, cells));
    const isFound = find && passing(find, cells);
    const failedBy = (row: number): number[] => passes.flatMap((each, i) => (each(row) ? [] : [i]));
    const page = new Page(wanted);
    page.ready(cells);
    const rows: Listed['rows'] = [];
    const record = (batch: PassingRows, row: number): Listed['rows'][number] => ({
      place: batch.first + row,
      texts: this.texts(variables, batch, row, batch.file),
      failed: failedBy(row),
    });
    await this.readUntil((batch) => {
      for (const one of cells.values()) one.next(batch);
      for (let row = 0; row < batch.rows; row++) {
        if (asked.aside.has(batch.first + row)) continue;
        if (passes.every((each) => each(row)) === dropped) continue;
        // Where rows are in the order of the file, it is known at once which are told.
        if ((!isFound || isFound(row)) && page.take(row, batch.first + row)) rows.push(record(batch, row));
      }
      return find === null && page.isFull;
    });
    const places = new Map(page.sorted.map((place, i) => [place, i]));
    if (places.size > 0)
      await this.readUntil((batch) => {
        let isReady = false;
        for (let row = 0; row < batch.rows; row++) {
          const at = places.get(batch.first + row);
          if (at === undefined) continue;
          if (!isReady) for (const one of cells.values()) one.next(batch);
          isReady = true;
          rows[at] = record(batch, row);
          places.delete(batch.first + row);
        }
        return places.size === 0;
      });
    return { found: find === null ? null : page.passed, rows };
  }

  async places(asked: RowsAsked, order: ListWanted['order']): Promise<Uint32Array> {
    const { tests, aside } = asked;
    const cells = this.cellsOf([...new Set([...askedOf(tests), ...order.map((one) => one.variable)])]);
    const sieve = this.sieve({ tests, aside }, cells);
    const page = order.length > 0 ? new Page({ order, from: 0, take: MOST_SORTED }) : null;
    page?.ready(cells);
    const kept: Uint32Array[] = [];
    await this.read((batch) => {
      for (const one of cells.values()) one.next(batch);
      const rows = sieve.keep(batch);
      if (page) for (const row of rows) page.take(row, batch.first + row);
      else kept.push(Uint32Array.from(rows, (row) => batch.first + row));
      return [];
    });
    if (page) return Uint32Array.from(page.sorted);
    const places = new Uint32Array(kept.reduce((sum, some) => sum + some.length, 0));
    let at = 0;
    for (const some of kept) {
      places.set(some, at);
      at += some.length;
    }
    return places;
  }

  async textsAt(places: readonly number[], variables: readonly string[]): Promise<string[][]> {
    const wanted = [...new Set(places)].sort((a, b) => a - b);
    const texts = new Map<number, string[]>();
    for (let next = 0; next < wanted.length;) {
      const before = next;
      const at = filesFrom(this.extract, this.files, wanted[next]);
      if (at)
        await this.readUntil((batch) => {
          const begin = at.row + batch.first - at.head;
          for (; next < wanted.length && wanted[next] - begin < batch.rows; next++)
            texts.set(wanted[next], this.texts(variables, batch, wanted[next] - begin, at.file + batch.file));
          // On from here, or anew from nearer to the next.
          const ahead = next < wanted.length ? filesFrom(this.extract, this.files, wanted[next]) : null;
          return !ahead || ahead.row > begin + batch.rows;
        }, at.files);
      // A row that is not there any more holds nothing.
      if (next === before) next++;
    }
    return places.map((place) => texts.get(place) ?? variables.map(() => ''));
  }

  /** Rows that follow each other: those before them need not be read where it is known at which byte a row begins. */
  private async stretch(
    aside: ReadonlySet<number>,
    { variables, from, take }: ListWanted,
  ): Promise<Listed['rows']> {
    let place = from;
    for (const gone of [...aside].sort((a, b) => a - b)) if (gone <= place) place++;
    const at = filesFrom(this.extract, this.files, place);
    const rows: Listed['rows'] = [];
    if (at && take > 0)
      await this.readUntil((batch) => {
        for (let row = 0; row < batch.rows && rows.length < take; row++) {
          const here = at.row + batch.first + row - at.head;
          if (batch.first + row < at.head || here < place || aside.has(here)) continue;
          const texts = this.texts(variables, batch, row, at.file + batch.file);
          rows.push({ place: here, texts, failed: [] });
        }
        return rows.length >= take;
      }, at.files);
    return rows;
  }

  private texts(names: readonly string[], batch: PassingRows, row: number, file: number): string[] {
    return names.map((name) => batch.text(name, row) ?? this.without(name)(file));
  }

  private async count(asked: RowsAsked, counters: readonly CellCounter[]): Promise<void> {
    const names = counters.flatMap(({ variables }) => variables);
    const cells = this.cellsOf([...new Set([...askedOf(asked.tests), ...names])]);
    const sieve = this.sieve(asked, cells);
    for (const counter of counters) counter.ready(cells);
    await this.read((batch) => {
      for (const one of cells.values()) one.next(batch);
      const rows = sieve.keep(batch);
      for (const counter of counters) counter.count(rows, batch.file);
      return [];
    });
  }

  private read(through: (batch: PassingRows) => number[], files = this.files): Promise<Extract> {
    // Columns are called as they were when all files were read.
    const known = files === this.files ? {} : { known: this.extract.variables.map(({ name }) => name) };
    return readExtract(files, this.control, { ...this.choices, ...known, hold: 'sample', through });
  }

  /** The same, as far as rows are wanted. @param look whether that is enough */
  private async readUntil(look: (batch: PassingRows) => boolean, files = this.files): Promise<void> {
    try {
      await this.read((batch) => {
        if (look(batch)) throw new Enough();
        return [];
      }, files);
    } catch (cause) {
      if (!(cause instanceof Enough)) throw cause;
    }
  }

  private cellsOf(names: readonly string[]): Map<string, PassingCells> {
    return new Map(names.map((name) => [name, new PassingCells(name, this.without(name))]));
  }

  /** What rows of a file hold that has no column of a name: the wave is made of what the file is called. */
  private without(name: string): (file: number) => string {
    const { wave, files } = this.extract;
    return wave?.by === 'made' && wave.variable === name
      ? (file) => files[file].wave ?? files[file].name
      : () => '';
  }

  private sieve({ tests, aside }: RowsAsked, cells: ReadonlyMap<string, PassingCells>): RowSieve {
    return new RowSieve(
      aside,
      tests.map((test) => passing(test, cells)),
    );
  }
}

/** Thrown where no more rows are wanted. */
class Enough extends Error {}

/** A test made ready to be asked of the rows of the batch at hand. */
const passing = (test: RowTest, cells: ReadonlyMap<string, PassingCells>): ((row: number) => boolean) =>
  rowPasses(test, ({ variable, holds }) => {
    const at = cells.get(variable)?.asking((text) => (holds(text) ? 1 : 0));
    return at ? (row) => at(row) === 1 : () => false;
  });

/** Rows that pass all tests, with the account of what each test does. */
class RowSieve {
  all = 0;
  kept = 0;
  private readonly drops: number[];
  private readonly alone: number[];
  /** By the first test that a row fails. */
  private readonly first: number[];

  constructor(
    private readonly aside: ReadonlySet<number>,
    private readonly passes: readonly ((row: number) => boolean)[],
  ) {
    [this.drops, this.alone, this.first] = [passes, passes, passes].map((each) => each.map(() => 0));
  }

  /** @returns zero-based rows of the batch that count */
  keep({ rows, first }: PassingRows): number[] {
    const { aside, passes } = this;
    const kept: number[] = [];
    for (let row = 0; row < rows; row++) {
      if (aside.size > 0 && aside.has(first + row)) continue;
      this.all++;
      let [failed, at] = [0, -1];
      for (let i = 0; i < passes.length; i++) {
        if (passes[i](row)) continue;
        this.drops[i]++;
        if (failed++ === 0) at = i;
      }
      if (failed === 0) {
        this.kept++;
        kept.push(row);
        continue;
      }
      this.first[at]++;
      if (failed === 1) this.alone[at]++;
    }
    return kept;
  }

  get conditions(): KeptRows['conditions'] {
    let left = this.all;
    return this.passes.map((_, i) => ({
      keeps: this.all - this.drops[i],
      drops: this.drops[i],
      dropsAlone: this.alone[i],
      left: (left -= this.first[i]),
    }));
  }
}
