import { both, rowsIn, sizeOf } from '../extract/bits';
import type { AllRows } from '../rows/all-rows';
import type { Inspector } from './inspect';
import { allRowsListed } from './listed-all';
import { ordered, rowsHolding } from './listed';
import { rowsOf } from './listing';
import type { RowsDocument, RowsWanted } from './rows-schema';
import { cellsTold, failedBy, placesTold } from './told-rows';

/** @param all who can list rows that are not held @returns the records wanted, in their order */
export async function rowsDocument(
  inspector: Inspector,
  ask: RowsWanted,
  all: AllRows | null = null,
): Promise<RowsDocument> {
  const { variables, sort, find, dropped, from, take } = ask;
  const base = {
    format: 'dig-first-rows' as const,
    version: 1 as const,
    rows: inspector.rowCounts,
    sieve: inspector.account,
  };
  const listedThere = all && inspector.received.pass ? await allRowsListed(inspector, all, ask) : null;
  if (listedThere) return { ...base, ...listedThere };
  const which = dropped ? 'dropped' : 'kept';
  const listed = rowsOf(inspector, { which, flag: null }, inspector.sifted?.within ?? null);
  const wanted = find === null ? listed : both(listed, rowsHolding(inspector, variables, find));
  const rows = [
    ...(sort.length ? ordered(inspector, wanted, sort) : rowsIn(wanted)).subarray(from, from + take),
  ];
  const cells = await cellsTold(
    inspector,
    rows,
    variables.flatMap((name) => inspector.wholly(name) ?? []),
  );
  return {
    ...base,
    found: find === null ? null : sizeOf(wanted),
    records: placesTold(inspector, rows).map(({ row, place, file, line }, i) => ({
      row: place,
      file,
      line,
      failed: dropped ? failedBy(inspector, row - 1) : [],
      cells: cells[i],
    })),
  };
}
