/** What a name adds to that of the variable whose values it marks, and how surely it is a marker's. */
const AFFIXES: readonly (readonly [RegExp, number])[] = [
  [/^(.{2,}?)[_.](imp|impf|imputed|imputation|flag|flg|fl|est|edit|edited|ed|alloc)$/i, 1],
  [/^(.{2,}?)(imputed|flag|flg)$/i, 1],
  [/^(imp|impf|imputed|flag|flg|fl|alloc|edit)[_.](.{2,})$/i, 1],
  [/^(.{2,}?)[_.](i|f|q|z|st|stat|status|src|source|qual)$/i, 0.75],
  [/^(z|f|q|x|i|s|st|src)[_.](.{2,})$/i, 0.75],
];
const AFFIX = /^(imp\w*|flag|flg|fl|est|edit|edited|ed|alloc|i|f|q|z|x|s|st|stat|status|src|source|qual)$/i;

/** A name that says it marks another variable. */
export interface Marking {
  /** The variable whose values it marks; `null` where none of that name is there. */
  of: string | null;
  /** 1 where the word means nothing else, less where it is but a letter. */
  surely: number;
}

/**
 * What a name says that it marks: "turnover_i" beside "turnover", "weight_imp" beside "weight_kg".
 * @param names of all variables, in lower case, each with its own spelling
 */
export function markingOf(name: string, names: ReadonlyMap<string, string>): Marking | null {
  for (const [pattern, surely] of AFFIXES) {
    const found = pattern.exec(name);
    if (!found) continue;
    const base = (AFFIX.test(found[1]) ? found[2] : found[1]).toLowerCase();
    if (AFFIX.test(base)) continue;
    const exact = names.get(base);
    if (exact !== undefined) return { of: exact, surely };
    // "weight_imp" may mark "weight_kg", and "z_inc" "income".
    const longer = [...names.keys()].find(
      (other) =>
        other !== name.toLowerCase() &&
        other.startsWith(base) &&
        (base.length > 2 || /^[_.]/.test(other.slice(base.length))),
    );
    if (longer !== undefined || surely === 1) return { of: names.get(longer ?? '') ?? null, surely };
  }
  return null;
}
