/** The manifest that a handoff puts beside its files. */
const MANIFEST = 'manifest.json';
const DATA = [/\.csv$/, /\.parquet$/, /\.xlsx$/, /\.ndjson$/];
const BOOKS = [/^datapackage\.json$/, /\.xml$/, /\.csv-metadata\.json$/];

/**
 * Of the files of a handoff those that say all once: the data in one form, and the codebook that says most.
 * @returns `null` where the files are no handoff
 */
export function onceOf(names: readonly string[]): { wanted: string[]; passed: string[] } | null {
  if (!names.includes(MANIFEST)) return null;
  const first = (forms: readonly RegExp[]): string | undefined => {
    for (const form of forms) {
      const found = names.find((name) => form.test(name));
      if (found !== undefined) return found;
    }
    return undefined;
  };
  const data = first(DATA);
  if (data === undefined) return null;
  // A workbook and a Parquet file carry their codebook.
  const book = /\.(csv|ndjson)$/.test(data) ? first(BOOKS) : undefined;
  const wanted = [data, ...(book === undefined ? [] : [book])];
  return { wanted, passed: names.filter((name) => !wanted.includes(name) && name !== MANIFEST) };
}
