import { linkCodebooks } from '../core/codebook/link';
import type { Codebook, Extract, Variable } from '../core/extract/extract';
import { isNumericStorage } from '../core/extract/words';
import type { Inspector } from '../core/inspect/inspect';
import { noValues } from '../core/inspect/passed';
import { placeText } from './address';
import { described, type Wanted } from './catalogue';
import { Connection } from './connection';
import { codebookOf } from './said';
import { tableExtract, type Choices, type TableExtract } from './table-extract';
import { quartiles } from './tallying';
import { EVERYWHERE } from './where';

/** A table, or the rows of a query, that is inspected where it is. */
export class TableSource {
  private constructor(
    readonly connection: Connection,
    private readonly made: TableExtract,
    /** What is known of it; its rows stay where they are. */
    readonly extract: Extract,
  ) {}

  /** @param codebooks documents that say more than the catalogue @throws InputError in words */
  static async open(
    connection: Connection,
    wanted: Wanted,
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

  /**
   * Quartiles of all rows, for variables of so many numbers that they are not held: what stands for no answer has to be known first.
   * @param inspector the extract under the decisions in force @returns the extract with them; `null` where there is none to add
   */
  async withQuartiles(inspector: Inspector): Promise<Extract | null> {
    const many = this.extract.variables.flatMap((variable) => {
      const { others } = variable.pass ?? {};
      const column = this.made.columns.get(variable.name);
      const inspected = others && inspector.wholly(variable.name);
      if (!others || !column || !inspected?.passed || !isNumericStorage(inspected.written.storage)) return [];
      return [{ variable, column, without: noValues(inspected.passed.levels) }];
    });
    if (many.length === 0) return null;
    const found = await quartiles(
      this.connection,
      { from: this.made.table.from, where: EVERYWHERE },
      many.map(({ column, without }) => ({ column, without })),
    );
    const withoutOf = new Map(many.map(({ variable, without }) => [variable.name, without]));
    return {
      ...inspector.received,
      variables: inspector.received.variables.map((variable): Variable => {
        const told = found.get(variable.name);
        const { pass } = variable;
        if (!told || !pass?.others) return variable;
        const known = { ...told, without: withoutOf.get(variable.name) ?? [] };
        return { ...variable, pass: { ...pass, others: { ...pass.others, quartiles: known } } };
      }),
    };
  }
}
