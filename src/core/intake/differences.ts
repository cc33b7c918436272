import type { FileSource, Notice } from '../extract/extract';

/** In what the columns of later files differ from those of the first: missing, extra, in another order. */
export function differencesOf(files: readonly FileSource[]): Notice[] {
  const [first, ...others] = files;
  let before = first?.rows ?? 0;
  return others.flatMap((file) => {
    const { missing, extra, reordered } = compareNames(first.names, file.names);
    const notices = [
      ...missing.map((name) => ({
        says: `${file.name} lacks ${name}, which ${first.name} has; its rows are blank there`,
      })),
      ...extra.map((name) => ({
        says: `${file.name} has ${name}, which ${first.name} lacks; the ${before} rows before are blank there`,
      })),
      ...(reordered
        ? [
            {
              says: `${file.name} has its columns in another order than ${first.name}; they are matched by name`,
            },
          ]
        : []),
    ];
    before += file.rows;
    return notices;
  });
}

/** How one file's columns differ from another's. */
export function compareNames(
  first: readonly string[],
  names: readonly string[],
): { missing: string[]; extra: string[]; reordered: boolean } {
  const here = new Set(names);
  const there = new Set(first);
  const shared = first.filter((name) => here.has(name));
  const order = names.filter((name) => there.has(name));
  return {
    missing: first.filter((name) => !here.has(name)),
    extra: names.filter((name) => !there.has(name)),
    reordered: order.some((name, i) => name !== shared[i]),
  };
}
