import { linkCodebooks } from '../core/codebook/link';
import type { Codebook, Extract, Variable } from '../core/extract/extract';
import { columnOf } from '../core/extract/column';
import { isNumericStorage } from '../core/extract/words';
import type { Inspector } from '../core/inspect/inspect';
import { noValues } from '../core/inspect/passed';
import { askedFrom, type RowsSent } from '../core/intake/asked-far';
import { sampleOf } from '../core/intake/pass';
import type { TableWanted } from '../core/intake/sent';
import { placeText } from './address';
import { described } from './catalogue';
import { asked } from './cells';
import { Connection } from './connection';
import { codebookOf } from './said';
import { keptExtract, tableExtract, type Choices, type TableExtract } from './table-extract';
import { TableRows } from './table-rows';
import { quartiles } from './tallying';
import { EVERYWHERE, type Where } from './where';

/** A table, or the rows of a query, that is inspected where it is. */
export class TableSource {
  /** Texts that stand for no answer, of variables of so many numbers that they are not held. */
  private readonly without = new Map<string, readonly string[]>();

  private constructor(
    readonly connection: Connection,
    private readonly made: TableExtract,
    /** What is known of it; its rows stay where they are. */
    readonly extract: Extract,
  ) {}

  /** @param codebooks documents that say more than the catalogue @throws InputError in words */
  static async open(
    connection: Connection,
    wanted: TableWanted,
    codebooks: readonly Codebook[],
    choices: Omit<Choices, 'codebook'> = {},
  ): Promise<TableSource> {
    const table = await described(connection, wanted);
    const catalogue = await codebookOf(connection, table);
    const made = await tableExtract(connection, table, { ...choices, codebook: catalogue });
    const linked = linkCodebooks(made.extract, [...codebooks, ...(catalogue ? [catalogue] : [])]);
    const extract: Extract = {
      ...linked,
      database: {
        at: placeText(connection.place),
        ...wanted,
        key: table.key,
        get statements() {
          return connection.statements;
        },
        get bytes() {
          return connection.bytes;
        },
      },
    };
    return new TableSource(connection, made, extract);
  }

  /** All its rows, as long as only some of them are held. @param extract the same, as far as it is known by now */
  rows(extract: Extract): TableRows | null {
    const { connection, made } = this;
    return extract.pass
      ? new TableRows(connection, made, extract, async (where, rows) =>
          this.quartered(await keptExtract(connection, made, extract, where, rows), where),
        )
      : null;
  }

  /**
   * A table that somebody elsewhere knows already. @param rows what they ask of it, with what they know
   * @returns its rows, by what was sent
   */
  static async far(
    connection: Connection,
    wanted: TableWanted,
    { names, without, ...sent }: RowsSent,
  ): Promise<TableRows> {
    const table = await described(connection, wanted);
    const columns = new Map(
      table.columns.filter(({ name }) => names.includes(name)).map((one) => [one.name, asked(one)]),
    );
    const inOrder = new Map(
      names.flatMap((name) => {
        const column = columns.get(name);
        return column ? [[name, column] as const] : [];
      }),
    );
    const made: TableExtract = {
      table,
      columns: inOrder,
      room: sampleOf(names.length),
      extract: bareExtract(names),
    };
    const source = new TableSource(connection, made, made.extract);
    for (const { name, texts } of without) source.without.set(name, texts);
    return new TableRows(
      connection,
      made,
      askedFrom({ names, without, ...sent }).extract,
      async (where, rows) =>
        source.quartered(await keptExtract(connection, made, made.extract, where, rows), where),
    );
  }

  /** An extract of some of the rows with the quartiles of those: what stands for no answer is what it is in all. */
  private async quartered(kept: Extract, where: Where): Promise<Extract> {
    return this.withFound(
      kept,
      where,
      kept.variables.flatMap(({ name, pass }) => {
        const without = this.without.get(name);
        return pass?.others && without ? [{ name, without }] : [];
      }),
    );
  }

  /**
   * Quartiles of all rows, for variables of so many numbers that they are not held: what stands for no answer has to be known first.
   * @param inspector the extract under the decisions in force @returns the extract with them; `null` where there is none to add
   */
  async withQuartiles(inspector: Inspector): Promise<Extract | null> {
    for (const { name, pass } of this.extract.variables) {
      const inspected = pass?.others && inspector.wholly(name);
      if (inspected?.passed && isNumericStorage(inspected.written.storage))
        this.without.set(name, noValues(inspected.passed.levels));
    }
    const many = [...this.without].map(([name, without]) => ({ name, without }));
    return many.length ? this.withFound(inspector.received, EVERYWHERE, many) : null;
  }

  private async withFound(
    extract: Extract,
    where: Where,
    many: readonly { name: string; without: readonly string[] }[],
  ): Promise<Extract> {
    const { connection, made } = this;
    const wanted = many.flatMap(({ name, without }) => {
      const column = made.columns.get(name);
      return column ? [{ column, without }] : [];
    });
    const found = await quartiles(connection, { from: made.table.from, where }, wanted);
    return {
      ...extract,
      variables: extract.variables.map((variable): Variable => {
        const told = found.get(variable.name);
        const { pass } = variable;
        if (!told || !pass?.others) return variable;
        const known = { ...told, without: this.without.get(variable.name) ?? [] };
        return { ...variable, pass: { ...pass, others: { ...pass.others, quartiles: known } } };
      }),
    };
  }
}

/** An extract of which no more is known than how its variables are called. */
const bareExtract = (names: readonly string[]): Extract => ({
  name: '',
  files: [],
  codebooks: [],
  notices: [],
  linkNotices: [],
  rows: 0,
  variables: names.map((name, i) => ({ name, position: i + 1, entry: null, column: columnOf([]) })),
});
