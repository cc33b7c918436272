import { putUnder } from '../extract/put-under';
import { spellingsCarried, spelt, type Spelling } from '../extract/spelling';

/** The sheets of a workbook that a handoff wrote, and the heads of those that say what variables and codes are. */
export const SHEETS = { data: 'data', variables: 'variables', codes: 'codes', rulings: 'rulings' } as const;
export const VARIABLE_HEADS = [
  'name',
  'label',
  'question',
  'universe',
  'units',
  'storage',
  'kind',
  'kind_is',
  'role',
  'valid',
  'distinct',
  'sets',
  'carried',
] as const;
export const CODE_HEADS = ['variable', 'code', 'label', 'missing', 'reason', 'rows'] as const;

interface Table {
  name: string;
  rows: readonly (readonly string[])[];
}

const headed = (table: Table | undefined, heads: readonly string[]): boolean =>
  table !== undefined && heads.every((head, i) => table.rows.at(0)?.at(i) === head);

/** Whether sheets are those of a handoff. */
export const isHanded = (sheets: readonly Table[]): boolean =>
  sheets.some(({ name }) => name === SHEETS.data) &&
  headed(
    sheets.find(({ name }) => name === SHEETS.variables),
    VARIABLE_HEADS,
  ) &&
  headed(
    sheets.find(({ name }) => name === SHEETS.codes),
    CODE_HEADS,
  );

interface Writable {
  name: string;
  rows: string[][];
}

/** Puts cells back as they were spelt, in the sheets of a handoff: what stands there as a number, a day or truth. */
export function spellAgain(sheets: readonly Writable[]): void {
  const spellings = spellingsCarried(carriedIn(sheets));
  if (spellings.size === 0) return;
  const rowsOf = (wanted: string): string[][] => sheets.find(({ name }) => name === wanted)?.rows ?? [];
  const data = rowsOf(SHEETS.data);
  const columns = (data[0] ?? []).map((name) => spellings.get(name));
  const put = (row: string[], at: number, spelling: Spelling | undefined): void => {
    if (spelling && at < row.length) row[at] = spelt(row[at], spelling);
  };
  for (const row of data.slice(1)) columns.forEach((spelling, at) => put(row, at, spelling));
  for (const row of rowsOf(SHEETS.codes).slice(1))
    put(row, CODE_HEADS.indexOf('code'), spellings.get(row[0] ?? ''));
}

/** What such a workbook says of its variables, as JSON; `null` where it is none. */
export function carriedIn(sheets: readonly Table[]): string | null {
  if (!isHanded(sheets)) return null;
  const body = (wanted: string): readonly (readonly string[])[] =>
    sheets.find(({ name }) => name === wanted)?.rows.slice(1) ?? [];
  const categories = new Map<string, object[]>();
  for (const [variable, code = '', label = '', missing = '', reason = '', rows = ''] of body(SHEETS.codes))
    categories.set(variable, [
      ...(categories.get(variable) ?? []),
      {
        code,
        label: label === '' ? null : label,
        missing: missing === 'yes',
        reason: reason === '' ? null : reason,
        frequency: rows === '' ? null : Number(rows),
      },
    ]);
  const groups = new Map<string, string[]>();
  const place = (head: (typeof VARIABLE_HEADS)[number]): number => VARIABLE_HEADS.indexOf(head);
  const entries = body(SHEETS.variables).map((row) => {
    const name = row[0];
    for (const set of (row[place('sets')] ?? '').split('\n').filter(Boolean)) putUnder(groups, set, name);
    const said = (head: (typeof VARIABLE_HEADS)[number]): string | null => row[place(head)] || null;
    return {
      label: said('label'),
      question: said('question'),
      universe: said('universe'),
      units: said('units'),
      ...object(row.slice(place('carried')).join('')),
      name,
      categories: categories.get(name) ?? [],
    };
  });
  return JSON.stringify({
    entries,
    groups: [...groups].map(([name, variables]) => ({ name, variables })),
  });
}

function object(text: string): object {
  try {
    const found: unknown = JSON.parse(text);
    return typeof found === 'object' && found !== null ? found : {};
  } catch {
    return {};
  }
}
