import { bareEntry, type Codebook, type CodebookEntry } from '../extract/extract';
import { readNumber } from '../read/number';
import { reasonOfLabel } from './missing-words';

/** Which column of a table says what; `null` where none does. */
interface Columns {
  variable: number;
  code: number | null;
  label: number | null;
  name: number | null;
  missing: number | null;
  frequency: number | null;
}

/** Heads by which such tables are known, in English, German, French and Spanish; folded to lower-case letters. */
const HEADS: Record<keyof Columns, RegExp> = {
  variable:
    /^(variable|variable ?name|var|varname|field|field ?name|column|column ?name|item|name|merkmal|variablenname|nom|nombre|champ|campo)$/,
  code: /^(code|codes|value|values|category|category ?code|wert|auspragung|schlussel|valeur|modalite|valor|codigo|cat ?val(ue)?)$/,
  label:
    /^(label|value ?label|code ?label|category ?label|meaning|description|text|answer|response|bezeichnung|bedeutung|wertelabel|libelle|etiqueta|descripcion|label ?text)$/,
  name: /^(variable ?label|question|question ?text|long ?name|title|variable ?description|variablenlabel|frage|libelle ?variable|pregunta)$/,
  missing: /^(missing|is ?missing|na|fehlend|manquant|perdido)$/,
  frequency: /^(freq|frequency|n|count|cases|haufigkeit|effectif|frecuencia)$/,
};

const fold = (head: string): string =>
  head
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z]+/g, ' ')
    .trim();

function columnsOf(heads: readonly string[]): Columns | null {
  const folded = heads.map(fold);
  const find = (part: keyof Columns): number | null => {
    const at = folded.findIndex((head) => HEADS[part].test(head));
    return at < 0 ? null : at;
  };
  const variable = find('variable');
  const columns = {
    variable: variable ?? -1,
    code: find('code'),
    label: find('label'),
    name: find('name'),
    missing: find('missing'),
    frequency: find('frequency'),
  };
  // Of two labels the one before the code is the variable's: variable, label, code, meaning.
  const labels = folded.flatMap((head, i) => (HEADS.label.test(head) ? [i] : []));
  const [first, second] = labels;
  if (
    columns.name === null &&
    columns.code !== null &&
    second !== undefined &&
    first < columns.code &&
    second > columns.code
  ) {
    columns.name = first;
    columns.label = second;
  }
  if (variable === null || (columns.code === null && columns.name === null && columns.label === null))
    return null;
  return columns;
}

/**
 * Whether a table is a codebook: its heads name a variable and a code or label, and its rows are few names, again and
 * again, that fit names of columns. @param known names of columns of the data at hand, where there are any
 */
export function looksLikeCodeTable(
  heads: readonly string[],
  rows: readonly string[][],
  known: ReadonlySet<string> | null,
): boolean {
  const columns = columnsOf(heads);
  if (!columns || heads.length > 12) return false;
  const named = rows.map((row) => row[columns.variable]?.trim() ?? '').filter((name) => name !== '');
  if (named.length === 0) return false;
  if (known) {
    const folded = new Set([...known].map((name) => name.toLowerCase()));
    const hits = named.filter((name) => folded.has(name.toLowerCase())).length;
    return hits >= Math.max(1, named.length * 0.2);
  }
  return (
    columns.code !== null &&
    columns.label !== null &&
    named.every((name) => !/\s/.test(name) && readNumber(name) === null)
  );
}

/**
 * A codebook from a table of variable, code and label. A variable's name may stand only in the first of its rows. A row
 * without code describes the variable itself.
 */
export function readCodeTable(file: string, heads: readonly string[], rows: readonly string[][]): Codebook {
  const columns = columnsOf(heads);
  const entries = new Map<string, CodebookEntry>();
  const notices: Codebook['notices'] = [];
  if (columns) {
    const cell = (row: readonly string[], at: number | null): string =>
      at === null ? '' : (row[at] ?? '').trim();
    let current = '';
    rows.forEach((row, i) => {
      current = cell(row, columns.variable) || current;
      if (!current) return;
      let entry = entries.get(current);
      if (!entry) entries.set(current, (entry = bareEntry(current)));
      const code = cell(row, columns.code);
      const label = cell(row, columns.label);
      const name = cell(row, columns.name);
      if (name) entry.label ??= name;
      if (code === '') {
        if (label) entry.label ??= label;
        return;
      }
      if (entry.categories.some((known) => known.code === code)) {
        notices.push({ line: i + 2, says: `${current} lists the code ${code} twice; the first counts` });
        return;
      }
      const said = cell(row, columns.missing);
      const missing = said !== '' && !/^(0|n|no|f|false|nein|non)$/i.test(said);
      const frequency = cell(row, columns.frequency);
      entry.categories.push({
        code,
        label: label || null,
        missing,
        reason: missing ? (reasonOfLabel(label) ?? 'other') : null,
        frequency:
          frequency === '' ? null : readNumber(frequency, { decimal: '.', thousands: ',', implied: 0 }),
      });
    });
  }
  return {
    name: file,
    form: 'code-table',
    title: null,
    cases: null,
    entries: [...entries.values()],
    groups: [],
    notices,
  };
}
