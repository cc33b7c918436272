import type { Band, Recode } from './recode';

const NAMED = 6;
const listed = (items: readonly string[]): string =>
  items.length > NAMED
    ? `${items.slice(0, NAMED).join(', ')} and ${items.length - NAMED} more`
    : items.join(', ');

/** "0 to 12 → 1 School; 13, 14 → 2": how a trial recode is made, in one line. */
export function recodeSays(recode: Recode): string {
  if ('only' in recode) return `only ${listed(recode.only)}`;
  if ('width' in recode) return `bins of ${recode.width.size} from ${recode.width.start}`;
  const rest = recode.rest === 'same' ? '; the rest as it is' : '';
  const said = recode.bands.slice(0, NAMED).map(bandSays).join('; ');
  const more = recode.bands.length - NAMED;
  return `${said}${more > 0 ? `; and ${more} more` : ''}${rest}`;
}

/** What a band holds, in words. */
function holdsSays(band: Band): string {
  if ('values' in band) return listed(band.values);
  const [from, to] = ['from' in band ? band.from : undefined, band.to];
  if (from === undefined) return `up to ${to}`;
  if (to === undefined) return `${from} or more`;
  return from === to ? String(from) : `${from} to ${to}`;
}

const bandSays = (band: Band): string =>
  `${holdsSays(band)} → ${band.code}${band.label ? ` ${band.label}` : ''}`;
