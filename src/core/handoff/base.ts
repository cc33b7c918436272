import type { Inspector } from '../inspect/inspect';
import { counted, whole } from './words';

/** What every figure that leaves is of: "10,203 of 11,902 rows (sieve: agreed, of working age), 2 set aside". */
export function baseSays({ rowCounts, sifted, account }: Inspector): string {
  const { all, aside, kept } = rowCounts;
  const name = sifted?.sieve.name;
  const conditions = account.map(({ says }) => says).join('; ');
  const rows = sifted
    ? `${whole(kept)} of ${counted(all, 'row')} (sieve${name ? ` “${name}”` : ''}: ${conditions})`
    : `all ${counted(all, 'row')}`;
  return `${rows}${aside ? `, ${whole(aside)} set aside` : ''}`;
}
