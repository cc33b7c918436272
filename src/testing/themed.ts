/** Extracts of made-up studies with the themes and batteries that a person sorted their variables into. */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { bareEntry, type CodebookEntry, type Extract } from '../core/extract/extract';
import { columnOf } from '../core/extract/column';
import { chance } from '../demo/random';
import { labels } from './made';

export interface Themed {
  name: string;
  extract: Extract;
  /** The theme and the battery of each variable; `null` for none. */
  themes: ReadonlyMap<string, { theme: string | null; battery: string | null }>;
}

const ROWS = 240;
const folder = join(import.meta.dirname, 'themed');
type Chance = ReturnType<typeof chance>;

const SCALES: Record<string, string[]> = {
  often: ['Never', 'Seldom', 'Sometimes', 'Often', 'Always'],
  agree: ['Strongly disagree', 'Disagree', 'Neither', 'Agree', 'Strongly agree'],
};
const PLACES = [
  'Fenwater',
  'Hawmoor',
  'Pellsey',
  'Marlhope',
  'Ostbeck',
  'Tinsley Cross',
  'Cold Ash',
  'Wexcombe',
  'Thornby',
];
const two = (n: number): string => String(n).padStart(2, '0');
const day = (c: Chance): string => `20${c.whole(14, 23)}-${two(c.whole(1, 12))}-${two(c.whole(1, 28))}`;

/** A cell by what a listing says of its variable: `n5` five nominal codes, `o4often` four ordered ones with labels, and so on. */
function cellOf(spec: string, c: Chance, row: number): string {
  const many = Number(/\d+/.exec(spec)?.[0] ?? 0);
  switch (spec.replace(/\d.*$/, '')) {
    case 'id':
      return `K${10000 + row}`;
    case 'k':
      return '4471';
    case 'n':
      return String(1 + Math.floor((many * c.whole(0, 999) * c.whole(0, 999)) / 1e6));
    case 'o':
      return String(1 + c.whole(0, many - 1));
    case 's':
      return String(c.whole(many === 11 ? 0 : 1, 10));
    case 'yn':
      return String(c.whole(1, 2));
    case 'b':
      return String(c.whole(0, 1));
    case 'c':
      return String(Math.floor(40 * (c.whole(0, 999) / 1000) ** 2));
    case 'm':
      return (20 + 6 * c.normal()).toFixed(1);
    case '$':
      return String(Math.round(Math.exp(6 + 0.6 * c.normal())));
    case 'y':
      return String(c.whole(1935, 2004));
    case 'd':
      return day(c);
    case 'dt':
      return `${day(c)}T${two(c.whole(5, 23))}:${two(c.whole(0, 59))}:00`;
    case 'tm':
      return `${two(c.whole(5, 23))}:${two(c.whole(0, 59))}`;
    case 'pc':
      return String(10000 + 37 * c.whole(0, 400));
    case 'w':
      return Math.exp(0.4 * c.normal()).toFixed(4);
    default:
      return many > 12 || many === 0 ? `${c.pick(PLACES)} ${c.whole(1, 400)}` : c.pick(PLACES.slice(0, many));
  }
}

function codesFor(spec: string): CodebookEntry['categories'] {
  if (spec === 'yn') return labels({ 1: 'Yes', 2: 'No' });
  const [, many, scale] = /^o(\d+)([a-z]+)$/.exec(spec) ?? [];
  if (!scale) return [];
  return labels(Object.fromEntries(SCALES[scale].slice(0, Number(many)).map((label, i) => [i + 1, label])));
}

/** @param labelled whether the codebook is there: labels, and the lists of codes @param ordered whether what belongs together stands together */
export function themedExtracts(labelled: boolean, ordered = true): Themed[] {
  return readdirSync(folder)
    .sort()
    .map((file) => {
      const one = themed(file.replace(/\.txt$/, ''), readFileSync(join(folder, file), 'utf8'), labelled);
      return ordered ? one : shuffled(one);
    });
}

function shuffled(one: Themed): Themed {
  const c = chance(one.themes.size);
  const variables = one.extract.variables
    .map((variable) => ({ variable, by: c.whole(0, 1e6) }))
    .sort((a, b) => a.by - b.by)
    .map(({ variable }, i) => ({ ...variable, position: i + 1 }));
  return { ...one, extract: { ...one.extract, variables } };
}

export function themed(name: string, listing: string, labelled: boolean): Themed {
  const themes = new Map<string, { theme: string | null; battery: string | null }>();
  const columns = new Map<string, string[]>();
  const entries = new Map<string, CodebookEntry>();
  let [theme, battery]: (string | null)[] = [null, null];
  const c = chance(name.length * 131 + 7);
  for (const line of listing.split('\n')) {
    // A heading of nothing but a dash ends a battery, and its theme goes on.
    if (line.startsWith('## ')) battery = line === '## -' ? null : line.slice(3);
    else if (line.startsWith('# ')) [theme, battery] = [line.slice(2), null];
    const [, alone, variable, label, spec, gate, code] =
      /^(- )?(\S+) \|([^|]*)\| (\S+)(?: \?(\w+)=(\w+))?$/.exec(line) ?? [];
    if (!variable) continue;
    themes.set(variable, alone ? { theme: null, battery: null } : { theme, battery });
    const asked = gate ? columns.get(gate) : undefined;
    columns.set(
      variable,
      Array.from({ length: ROWS }, (_, row) => (asked && asked[row] !== code ? '' : cellOf(spec, c, row))),
    );
    if (labelled && label.trim())
      entries.set(variable, { ...bareEntry(variable), label: label.trim(), categories: codesFor(spec) });
  }
  return {
    name,
    themes,
    extract: {
      name,
      files: [],
      codebooks: [],
      notices: [],
      linkNotices: [],
      rows: ROWS,
      variables: [...columns].map(([variable, cells], i) => ({
        name: variable,
        position: i + 1,
        column: columnOf(cells),
        entry: entries.get(variable) ?? null,
      })),
    },
  };
}
