import { entriesFor } from './by-file';
import type { Codebook, CodebookEntry, Extract, Notice } from '../extract/extract';

/**
 * The extract with each variable joined to its codebook entry: by name, else by name without regard to case where that
 * is unambiguous. Where several codebooks describe a variable, a later one only adds what the earlier leave out. What
 * stands in one and not in the other is noticed. Linking again, with more codebooks or others, starts afresh.
 */
export function linkCodebooks(extract: Extract, given: readonly Codebook[]): Extract {
  // What files say of themselves comes last: a document that is given says more of them. A table of codes in the same file says less.
  const own = extract.files.flatMap(({ codebook }) => codebook ?? []);
  const codebooks = [...given.filter(({ name }) => !own.some((one) => one.name === name)), ...own];
  if (codebooks.length === 0)
    return {
      ...extract,
      codebooks: [],
      linkNotices: [],
      variables: extract.variables.map((variable) => ({ ...variable, entry: null })),
    };
  const exact = new Map<string, CodebookEntry>();
  const notices: Notice[] = [];
  const files = extract.files.flatMap(({ name, sheet }) => (sheet === undefined ? [name] : [name, sheet]));
  for (const codebook of codebooks) {
    const { entries, unclear } = entriesFor(codebook, files);
    for (const entry of entries) {
      const known = exact.get(entry.name);
      exact.set(entry.name, known ? completed(known, entry) : entry);
    }
    if (unclear.length)
      notices.push({
        says: `${codebook.name} describes ${listed(unclear)} for several data files, none of which has the name of one here; the first counts`,
      });
  }
  const folded = new Map<string, CodebookEntry | null>();
  for (const entry of exact.values()) {
    const key = entry.name.toLowerCase();
    folded.set(key, folded.has(key) ? null : entry);
  }
  const titled = new Map<string, CodebookEntry | null>();
  for (const entry of exact.values())
    for (const title of new Set(entry.titles)) titled.set(title, titled.has(title) ? null : entry);
  const fixed = extract.files.length > 0 && extract.files.every(({ form }) => form === 'fixed-width');
  const used = new Set<CodebookEntry>();
  const variables = extract.variables.map((variable) => {
    const { name } = variable;
    const entry = exact.get(name) ?? titled.get(name) ?? folded.get(name.toLowerCase()) ?? null;
    if (entry) used.add(entry);
    return { ...variable, entry, ...(fixed && entry?.decimals ? { implied: entry.decimals } : {}) };
  });
  const unknown = variables
    .filter(({ entry, name }) => !entry && name !== extract.wave?.variable)
    .map(({ name }) => name);
  if (unknown.length) notices.push({ says: `no codebook describes ${listed(unknown)}` });
  // Of a first look at some variables only, it says nothing that the codebook knows more.
  const absent = extract.part?.names
    ? []
    : [...exact.values()].filter((entry) => !used.has(entry)).map(({ name }) => name);
  if (absent.length) notices.push({ says: `the codebook describes ${listed(absent)}, which no file has` });
  return {
    ...extract,
    codebooks: [...codebooks],
    variables,
    linkNotices: [...notices, ...codebooks.flatMap((codebook) => codebook.notices)],
  };
}

/** An entry with what it leaves out taken from another. */
function completed(entry: CodebookEntry, more: CodebookEntry): CodebookEntry {
  const known = new Set(entry.categories.map(({ code }) => code));
  return {
    ...entry,
    label: entry.label ?? more.label,
    question: entry.question ?? more.question,
    universe: entry.universe ?? more.universe,
    units: entry.units ?? more.units,
    notes: [...new Set([...entry.notes, ...more.notes])],
    categories: [
      ...entry.categories.map((category) => ({
        ...category,
        label: category.label ?? more.categories.find(({ code }) => code === category.code)?.label ?? null,
      })),
      ...more.categories.filter(({ code }) => !known.has(code)),
    ],
    validRanges: entry.validRanges.length ? entry.validRanges : more.validRanges,
    missingRanges: entry.missingRanges.length ? entry.missingRanges : more.missingRanges,
    missingTexts: [...new Set([...entry.missingTexts, ...more.missingTexts])],
    interval: entry.interval ?? more.interval,
    isWeight: entry.isWeight || more.isWeight,
    storage: entry.storage ?? more.storage,
    nature: entry.nature ?? more.nature,
    location: entry.location ?? more.location,
    decimals: entry.decimals ?? more.decimals,
    published: { ...more.published, ...entry.published },
    ...(entry.handed || more.handed ? { handed: entry.handed ?? more.handed } : {}),
  };
}

const MOST_LISTED = 12;
const listed = (names: readonly string[]): string =>
  names.length <= MOST_LISTED
    ? names.join(', ')
    : `${names.slice(0, MOST_LISTED).join(', ')} and ${names.length - MOST_LISTED} more`;
