/** Distinct, non-blank names for `width` columns, and what had to be made up. */
export function columnNames(row: readonly string[], width: number): { names: string[]; notices: string[] } {
  const used = new Set(row.map((cell) => cell.trim()));
  const taken = new Set<string>();
  const notices: string[] = [];
  const names = Array.from({ length: width }, (_, i) => {
    const given = row[i]?.trim() ?? '';
    if (given && !taken.has(given)) {
      taken.add(given);
      return given;
    }
    const stem = given || `column_${i + 1}`;
    let name = stem;
    for (let n = 2; taken.has(name) || (name !== stem && used.has(name)) || (given && name === stem); n++)
      name = `${stem}_${n}`;
    taken.add(name);
    if (row.length)
      notices.push(
        given
          ? `the name “${given}” stands twice; column ${i + 1} is called ${name}`
          : `column ${i + 1} has no name; it is called ${name}`,
      );
    return name;
  });
  return { names, notices };
}
