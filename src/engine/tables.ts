import type { KeptTable } from '../core/cross/kept-table';
import { baseSays } from '../core/handoff/base';
import { laidTable, tableCsv, tableRows, tableSvg, type LaidTable } from '../core/handoff/laid-table';
import type { CrossDocument } from '../core/inspect/cross-document';
import { crossDocument } from '../core/inspect/crossing';
import type { Pair } from '../core/cross/ranked';
import { Against } from '../core/inspect/everything';
import type { Inspector } from '../core/inspect/inspect';

/** Milliseconds that one variable is held against others at a stretch, so that other questions are not kept waiting. */
const AT_A_STRETCH = 60;

/** A cross-check as the screen asks for it: by the weight in force, measures of very many values in bins. */
export const crossOf = (inspector: Inspector, asked: KeptTable): Promise<CrossDocument> =>
  crossDocument(inspector, { ...asked, weight: null, binned: true });

/** The same as it leaves. */
async function laidOf(inspector: Inspector, asked: KeptTable): Promise<LaidTable> {
  const { called } = inspector.decided;
  return laidTable(
    await crossOf(inspector, asked),
    asked,
    baseSays(inspector),
    (name) => called.get(name)?.name ?? name,
  );
}

/** A table as a file, or as rows of texts to be copied. */
export async function tableFile(
  inspector: Inspector,
  asked: KeptTable,
  form: 'csv' | 'svg',
): Promise<string> {
  const laid = await laidOf(inspector, asked);
  return form === 'csv' ? tableCsv(laid) : tableSvg(laid);
}
export const tableTexts = async (inspector: Inspector, asked: KeptTable): Promise<string[][]> =>
  tableRows(await laidOf(inspector, asked));

/** One variable against some others, as many as a stretch allows; one at least. `done`: how many of the names. */
export async function againstSome(
  inspector: Inspector,
  of: string,
  names: readonly string[],
): Promise<{ pairs: Pair[]; done: number }> {
  const until = performance.now() + AT_A_STRETCH;
  const against = new Against(inspector, { down: of, weight: null });
  const pairs: Pair[] = [];
  let done = 0;
  for (const name of names) {
    const pair = await against.pair(name);
    if (pair) pairs.push(pair);
    done++;
    if (performance.now() > until) break;
  }
  return { pairs, done };
}
