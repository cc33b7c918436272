import { attitudes, closing } from './blocks/attitudes';
import { fieldwork } from './blocks/fieldwork';
import { heating } from './blocks/heating';
import { household } from './blocks/household';
import { things } from './blocks/things';
import type { Fault, Household, Item } from './item';
import { chance, type Chance } from './random';

/** One wave of the made-up Ostrey Upkeep Panel as it is handed out. */
export interface Wave {
  year: number;
  /** Raw texts, row by row, cells in the order of the items; rows that are no observations among them. */
  rows: string[][];
  /** Zero-based rows that are no observations: a repeated header, a total. */
  stray: number[];
}

/** Everything that the made-up archive hands out, with the truth about what is planted. */
export interface Panel {
  items: readonly Item[];
  waves: Wave[];
  truth: PlantedFault[];
}

/** A planted fault: what rule should find it, and every row it stands in. */
export interface PlantedFault {
  rule: string;
  variables: string[];
  codes: string[];
  /** Zero-based rows of each wave; empty where it is about the variable as a whole. */
  rows: { wave: number; rows: number[] }[];
}

export const ITEMS: readonly Item[] = [
  ...fieldwork,
  ...household,
  ...heating,
  ...things,
  ...attitudes,
  ...closing,
];
const SIZES: readonly (readonly [year: number, rows: number])[] = [
  [2019, 3004],
  [2020, 2961],
  [2021, 2948],
  [2022, 2987],
];
const SEED = 20220417;
/** Households leave the panel from one wave to the next with this probability. */
const LEAVING = 0.11;
/** Days of fieldwork in each wave, from the first of April. */
const FIELDWORK = 150;

/**
 * The panel, the same cells on every machine. Larger ones, for measuring, have more households a wave or more blocks of
 * the same questions.
 * @param rows of all waves together @param variables at least the 184 of the panel
 */
export function makePanel({
  rows = 11_900,
  variables = ITEMS.length,
}: { rows?: number; variables?: number } = {}): Panel {
  const items =
    variables > ITEMS.length
      ? [
          ...ITEMS,
          ...Array.from({ length: variables - ITEMS.length }, (_, i) =>
            again(ITEMS[14 + (i % 150)], 2 + Math.floor(i / 150)),
          ),
        ]
      : ITEMS;
  const source = chance(SEED);
  let members: number[] = [];
  let next = 0;
  const waves = SIZES.map(([year, usual]): Wave => {
    const size = Math.max(1, Math.round((usual * rows) / 11_900));
    members = members.filter(() => !source.odds(LEAVING)).slice(0, size);
    while (members.length < size) members.push(next++);
    return {
      year,
      stray: [],
      rows: members.map((number, row) => {
        const mine = chance(SEED + number * 97 + year);
        const home = householdIn(number, row, size, year);
        return items.map((item) => {
          const cell = item.draw(home, mine);
          return cell === null ? '' : String(cell);
        });
      }),
    };
  });
  const truth = [...repeatRows(waves, items), ...plantAll(waves, items, source), ...wholeFaults(items)];
  strayRows(waves, items, truth);
  return { items, waves, truth };
}

/** The same question asked of something else, in a larger panel. */
const again = (item: Item, block: number): Item => ({
  ...item,
  name: `${item.name.replace(/\.$/, '')}_${block}`,
  label: `${item.label}, block ${block}`,
  faults: undefined,
});

/** A household in one wave: what it is stays, but for a year more of age and what happened to it. */
function householdIn(number: number, row: number, size: number, year: number): Household {
  const c = chance(SEED + number * 7919);
  const town = c.pick([0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10, 11], [18, 14, 11, 10, 9, 8, 7, 7, 6, 4, 4, 2]);
  const parish = town * 12 + c.whole(1, 9);
  const age = Math.round(Math.min(94, Math.max(17, 51 + 18 * c.normal()))) + year - 2019;
  const adults = c.pick([1, 2, 3, 4, 5], [32, 50, 12, 5, 1]);
  const care = c.normal() + (age - 50) / 60;
  const income = Math.min(
    14000,
    Math.max(350, Math.exp(7.3 + 0.25 * adults + 0.45 * c.normal() + 0.02 * (year - 2019))),
  );
  const children = age < 55 ? c.pick([0, 1, 2, 3, 4], [48, 22, 21, 7, 2]) : c.pick([0, 1], [95, 5]);
  const owner = c.odds(0.38 + age / 250);
  const dwelling = c.pick([1, 2, 3, 4, 5, 6], [31, 30, 27, 8, 2, 2]);
  const boiler = c.odds(0.72);
  const now = chance(SEED + number * 7919 + year);
  return {
    number,
    row,
    year,
    town,
    parish,
    age,
    adults,
    income,
    care,
    children,
    owner,
    dwelling,
    boiler,
    // Numbered in steps of three and a check sign, as archives do: unique, ten characters, leading zeros.
    id: `${String(12045 + number * 3).padStart(9, '0')}${'ACEHKMPRTX'[(number * 7) % 10]}`,
    broke: now.odds(0.58),
    day: Date.UTC(year, 3, 1) / 86400000 + Math.floor((row / size) * FIELDWORK) + now.whole(0, 12),
  };
}

/** Two households of 2019 stand in the file twice. */
function repeatRows([first]: Wave[], items: readonly Item[]): PlantedFault[] {
  const places = [
    [Math.floor(first.rows.length / 5), Math.floor(first.rows.length / 2)],
    [Math.floor(first.rows.length / 4), Math.floor(first.rows.length * 0.9)],
  ];
  if (first.rows.length < 20) return [];
  for (const [from, to] of places) first.rows[to] = [...first.rows[from]];
  const rows = [{ wave: 2019, rows: places.flat().sort((a, b) => a - b) }];
  return [
    { rule: 'duplicate-row', variables: [], codes: [], rows },
    { rule: 'duplicate-identifier', variables: [items[0].name], codes: [], rows },
  ];
}

/** Writes every item's faults over cells in rows drawn by chance; rows that stand twice are left as they are. */
function plantAll(waves: Wave[], items: readonly Item[], c: Chance): PlantedFault[] {
  const twice = new Set(
    waves[0].rows
      .filter((row, i, all) => all.findIndex((other) => other[0] === row[0]) !== i)
      .map((row) => row[0]),
  );
  return items.flatMap((item, column) => {
    const planted = (item.faults ?? []).map((fault) => plant(item.name, fault, column, waves, twice, c));
    // One cause, one fault: the same rule on the same variable.
    const together = new Map<string, PlantedFault>();
    for (const one of planted) {
      const before = together.get(one.rule);
      together.set(
        one.rule,
        before
          ? { ...before, codes: [...before.codes, ...one.codes], rows: [...before.rows, ...one.rows] }
          : one,
      );
    }
    return [...together.values()];
  });
}

function plant(
  variable: string,
  { rule, write, codes, rows, beside = [], waves: years, where = (cell) => cell !== '' }: Fault,
  column: number,
  waves: Wave[],
  twice: ReadonlySet<string>,
  c: Chance,
): PlantedFault {
  const touched = waves
    .filter(({ year }) => !years || years.includes(year))
    .map(({ year, rows: cells }) => {
      const places = cells.flatMap((row, i) => (where(row[column]) && !twice.has(row[0]) ? [i] : []));
      const found: number[] = [];
      write.forEach((text, i) => {
        for (let left = Math.min(rows[i], places.length); left > 0; left--) {
          const [row] = places.splice(c.whole(0, places.length - 1), 1);
          cells[row][column] = typeof text === 'string' ? text : text(cells[row][column]);
          found.push(row);
        }
      });
      return { wave: year, rows: found.sort((a, b) => a - b) };
    });
  return {
    rule,
    variables: [variable, ...beside],
    codes: [...(codes ?? write.filter((text) => typeof text === 'string'))],
    rows: touched,
  };
}

/** What is the matter with variables as they are drawn, or with what the codebook says of them. */
function wholeFaults(items: readonly Item[]): PlantedFault[] {
  const named = (prefix: string): string[] =>
    items.map(({ name }) => name).filter((name) => name.startsWith(prefix));
  const whole = (rule: string, variables: string[], codes: string[] = []): PlantedFault => ({
    rule,
    variables,
    codes,
    rows: [],
  });
  return [
    whole('documented-unused', ['dwelling'], ['7']),
    whole('nonresponse-label', ['plan_buy'], ['8']),
    whole('partly-labelled', ['n_tools']),
    whole('spike', ['sp_rep'], ['63', '58', '61', '66']),
    whole('top-code', ['age'], ['90']),
    whole('heaping', ['income']),
    whole('constant', ['fileid']),
    ...['spare1', 'remark', 'advice', 'wish'].map((name) => whole('mostly-missing', [name])),
    whole('unportable-name', ['sp_oth.']),
    whole('repeat-column', ['sp_tools', 'sp_tls']),
    whole('repeat-column', ['intdate', 'intdmy']),
    whole('weight-like', ['wt_hh']),
    whole('weight-like', ['wt_pop']),
    ...named('z_').map((name) => whole('imputation-marker', [name])),
    ...[...named('boil_'), 'serv_mon', 'serv_yr'].map((name) => whole('universe-gate', [name, 'boiler'])),
    whole('battery-outlier', ['agr_c']),
    whole('wave-drift', ['agr_h'], ['0']),
    whole('wave-drift', ['fuel'], ['2', '4']),
    ...MISPUBLISHED.map(({ variable, codes }) => whole('codebook-mismatch', [variable], [...codes])),
  ];
}

/** Variables whose published frequencies are off: so many rows are counted under the second code instead of the first. */
export const MISPUBLISHED: readonly { variable: string; codes: readonly [string, string]; rows: number }[] = [
  { variable: 'coldroom', codes: ['3', '5'], rows: 37 },
  { variable: 'rep_who', codes: ['1', '2'], rows: 12 },
  { variable: 'toss_3', codes: ['0', '1'], rows: 54 },
];

/** A total at the end of 2020, a header in the middle of 2021. They come last, and rows after them move down. */
function strayRows(waves: Wave[], items: readonly Item[], truth: PlantedFault[]): void {
  const summed = new Set([
    'hhsize',
    'adults',
    'children',
    'n_broke',
    'rep_days',
    'sp_new',
    'sp_heat',
    ...items.map(({ name }) => name).filter((name) => name.startsWith('toss_') && name !== 'toss_oth'),
  ]);
  const total = waves.find(({ year }) => year === 2020);
  if (total) {
    const row = items.map(({ name }, column) =>
      column === 0
        ? 'TOTAL'
        : name === 'wave'
          ? '2020'
          : summed.has(name)
            ? String(total.rows.reduce((sum, cells) => sum + (Number(cells[column]) || 0), 0))
            : '',
    );
    total.stray.push(total.rows.length);
    truth.push({
      rule: 'summary-row',
      variables: [items[0].name],
      codes: ['TOTAL'],
      rows: [{ wave: 2020, rows: [total.rows.length] }],
    });
    total.rows.push(row);
  }
  const headed = waves.find(({ year }) => year === 2021);
  if (headed) {
    const at = headed.rows.length >> 1;
    for (const { rows } of truth)
      for (const one of rows)
        if (one.wave === 2021) one.rows = one.rows.map((row) => (row >= at ? row + 1 : row));
    headed.rows.splice(
      at,
      0,
      items.map(({ name }) => name),
    );
    headed.stray.push(at);
    truth.push({
      rule: 'repeated-header',
      variables: [items[0].name],
      codes: [items[0].name],
      rows: [{ wave: 2021, rows: [at] }],
    });
  }
}
