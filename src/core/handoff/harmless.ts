/**
 * A cell that a spreadsheet does not run: one that begins with = + - @, a tab or a return, and is no number, gets an
 * apostrophe before it. What is none of these is given back as it is.
 *
 * Example: `=1+1` → `'=1+1`, `-5` → `-5`
 */
export function harmless<T extends string | number>(cell: T): T | string {
  if (typeof cell !== 'string' || !/^[=+\-@\t\r]/.test(cell)) return cell;
  return cell.trim() !== '' && Number.isFinite(Number(cell)) ? cell : `'${cell}`;
}
