import { lineOfRow, type Extract } from '../extract/extract';
import { standingOf, type Stood } from '../extract/files';
import { isDateStorage, isNumericStorage } from '../extract/words';
import { levelAt } from '../infer/level-list';
import { placeOfTexts } from '../infer/level-coding';
import { valueOf } from '../infer/read-levels';
import { isBlank } from '../read/looks';
import type { AllRows, OrderWanted } from '../rows/all-rows';
import type { RowTest } from '../rows/row-test';
import type { Inspected } from './inspected';
import { ranksOf, type Sorting } from './listed';
import type { Inspector } from './inspect';
import type { RowsDocument, RowsWanted } from './rows-schema';
import { rawIn, rowsAsked } from './settled';
import { textsTold } from './told-rows';

/** Records of all rows, of which only some are held; `null` where they cannot be listed. */
export async function allRowsListed(
  inspector: Inspector,
  all: AllRows,
  { variables, sort, find, dropped, from, take }: RowsWanted,
): Promise<Pick<RowsDocument, 'found' | 'records'> | null> {
  const asked = rowsAsked(inspector);
  if (!asked || !all.list) return null;
  const raw = rawIn(inspector);
  const shown = variables.flatMap((name) => inspector.wholly(name) ?? []);
  const { found, rows } = await all.list(asked, {
    dropped,
    order: sort.flatMap((one) => orderOf(inspector, one) ?? []),
    find: find === null ? null : { any: shown.map((one) => holding(inspector, one, find.toLowerCase())) },
    variables: shown.map(({ name }) => raw(name).name),
    from,
    take,
  });
  const cells = textsTold(
    rows.map(({ texts }) => texts.map((text, i) => raw(shown[i].name).text(text))),
    shown,
  );
  const { name: whole, files, database } = inspector.received;
  const stood = stoodAmongAll(inspector.received);
  return {
    found,
    records: rows.map(({ place, failed }, i) => ({
      row: place + 1,
      ...(database ? { file: files.at(0)?.name ?? whole, line: null } : lineAt(stood(place), whole)),
      failed: dropped ? failed : [],
      cells: cells[i],
    })),
  };
}

/** Tells where rows were received, by their zero-based places among all rows. */
export const stoodAmongAll = ({ files }: Pick<Extract, 'files'>): ((place: number) => Stood) =>
  standingOf(files.map((file) => ({ ...file, rows: file.read ?? file.rows })));

const lineAt = ({ file, inFile }: Stood, whole: string): { file: string; line: number | null } => ({
  file: file?.name ?? whole,
  line: file && lineOfRow(file, inFile),
});

/** What rows are sorted by, as who holds them is asked: by value, by a person's or the levels' order, or by their texts. */
export function orderOf(inspector: Inspector, { variable, down }: Sorting): OrderWanted | null {
  const found = inspector.wholly(variable);
  if (!found) return null;
  const { name, text } = rawIn(inspector)(variable);
  const { written, places } = found;
  const numeric = isNumericStorage(written.storage) && !inspector.isOrdered(variable);
  const measured = numeric || (isDateStorage(written.storage) && !inspector.isOrdered(variable));
  const byWord = !measured && !inspector.isOrdered(variable) && found.kind !== 'ordinal';
  const at = placeOfTexts(places.levels);
  const ranks = ranksOf(found, inspector.isOrdered(variable));
  return {
    variable: name,
    down,
    numeric,
    of: (one) => {
      const place = at.get(text(one));
      // A text that no level of those held has.
      if (place === undefined)
        return measured ? (valueOf(text(one), written) ?? NaN) : byWord && !isBlank(text(one)) ? 0 : NaN;
      if (ranks[place] < 0) return NaN;
      return measured ? (levelAt(places.levels, place).value ?? NaN) : ranks[place];
    },
    ...(byWord
      ? {
          word: (one) => {
            const place = at.get(text(one));
            return place === undefined ? text(one) : levelAt(places.levels, place).code;
          },
        }
      : {}),
  };
}

/** Whether a cell holds a text, in what the table holds or in its label, whatever the case. @param sought in small letters */
export function holding(inspector: Inspector, { name, places }: Inspected, sought: string): RowTest {
  const raw = rawIn(inspector)(name);
  const at = placeOfTexts(places.levels);
  const labelled = (text: string): boolean => {
    const place = at.get(text);
    return (
      place !== undefined && (levelAt(places.levels, place).label?.toLowerCase().includes(sought) ?? false)
    );
  };
  return {
    variable: raw.name,
    holds: (of) => {
      const text = raw.text(of);
      return text.toLowerCase().includes(sought) || labelled(text);
    },
    ...(raw.name === name ? { unread: { contains: sought } } : {}),
  };
}
