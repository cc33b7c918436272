import type { Extract } from '../extract/extract';
import { leftOutOf } from '../flags/registry';
import { toldFlag, type Flag } from '../flags/rule';
import type { State } from '../log/fold';
import type { ProposedSet } from '../sets/propose';
import { documented, type Inspected, type Said } from './inspected';
import type { Inspection, RowCounts } from './schema';
import { setsTold } from './sets-told';

/** What a document is made of: an extract under inspection. */
export interface Documentable {
  extract: Extract;
  notices: Inspection['source']['notices'];
  /** The sieve in force; `null` where none is. */
  sifted: unknown;
  account: NonNullable<Inspection['source']['sieve']>;
  rowCounts: RowCounts;
  variables: readonly Inspected[];
  said: (name: string) => Said;
  flags: readonly Flag[];
  proposals: readonly ProposedSet[];
  decided: State;
}

/** The inspection document, as the decisions in force leave it. */
export function documentOf(inspector: Documentable): Inspection {
  const { extract, sifted, account, rowCounts } = inspector;
  return {
    format: 'dig-first-inspection',
    version: 1,
    source: {
      name: extract.name,
      files: extract.files.map(fileTold),
      codebooks: extract.codebooks.map(({ name, form }) => ({ name, form })),
      notices: inspector.notices,
      ...(extract.part ? { part: extract.part } : {}),
      ...(extract.database ? { database: databaseTold(extract.database) } : {}),
      ...(sifted ? { sieve: account, rows: rowCounts } : {}),
      ...(extract.pass
        ? { pass: { rows: extract.pass.rows, held: extract.rows, leftOut: leftOutOf(extract) } }
        : {}),
    },
    rows: sifted ? rowCounts.kept : (extract.pass?.rows ?? extract.rows),
    variables: inspector.variables.map((inspected) => documented(inspected, inspector.said(inspected.name))),
    flags: inspector.flags.map(toldFlag),
    sets: setsTold(inspector.proposals, inspector.decided),
  };
}

const databaseTold = ({
  at,
  table,
  query,
  statements,
  bytes,
}: NonNullable<Extract['database']>): Inspection['source']['database'] => ({
  at,
  ...(table === undefined ? {} : { table }),
  ...(query === undefined ? {} : { query }),
  statements,
  bytes,
});

/** A file as the inspection tells it. */
const fileTold = ({
  name,
  bytes,
  rows,
  read,
  columns,
  form,
  encoding,
  delimiter,
  header,
  sheet,
  wave,
  partial,
  notices,
}: Extract['files'][number]): Inspection['source']['files'][number] => ({
  name,
  bytes,
  rows: read ?? rows,
  columns,
  form,
  encoding,
  delimiter,
  header,
  ...(sheet === undefined ? {} : { sheet }),
  ...(wave === undefined ? {} : { wave }),
  ...(partial ? { partial } : {}),
  notices,
});
