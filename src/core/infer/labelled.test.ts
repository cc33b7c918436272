import { describe, expect, it } from 'vitest';
import { chance, type Chance } from '../../demo/random';
import { columnOf } from '../extract/column';
import { bareEntry, type CodebookEntry, type Extract } from '../extract/extract';
import type { Kind, Role, Storage } from '../extract/words';
import { Inspector } from '../inspect/inspect';

/** What an expert would say of a variable that is made as such variables are: its name, sometimes a label, its cells. */
interface Judged {
  name: string;
  kind: Kind | Kind[];
  role?: Role;
  storage?: Storage;
  label?: string;
  entry?: Partial<CodebookEntry>;
  cell: (c: Chance, row: number) => string | number;
}

const pick =
  <T>(items: readonly T[], weights?: readonly number[]) =>
  (c: Chance): T =>
    c.pick(items, weights);
const int =
  (low: number, high: number) =>
  (c: Chance): number =>
    c.whole(low, high);
const normal =
  (mean: number, sd: number, digits = 0) =>
  (c: Chance): string =>
    (mean + sd * c.normal()).toFixed(digits);
const whole =
  (mean: number, sd: number, least = -Infinity, most = Infinity) =>
  (c: Chance): number =>
    Math.min(most, Math.max(least, Math.round(mean + sd * c.normal())));
const skewed =
  (scale: number, spread: number, digits = 0) =>
  (c: Chance): string =>
    Math.exp(Math.log(scale) + spread * c.normal()).toFixed(digits);
const poisson =
  (mean: number) =>
  (c: Chance): number => {
    let n = 0;
    for (let p = c.next(); p > Math.exp(-mean); p *= c.next()) n++;
    return n;
  };
const day =
  (from: number, days: number, form: (date: Date) => string = (date) => date.toISOString().slice(0, 10)) =>
  (c: Chance): string =>
    form(new Date((from + c.whole(0, days)) * 86400000));
const sometimes =
  (p: number, other: string | number, cell: (c: Chance, row: number) => string | number) =>
  (c: Chance, row: number) => (c.odds(p) ? other : cell(c, row));
const labels = (list: Record<string, string>): Partial<CodebookEntry> => ({
  categories: Object.entries(list).map(([code, label]) => ({
    code,
    label,
    missing: false,
    reason: null,
    frequency: null,
  })),
});
const words = [
  'river',
  'stone',
  'old',
  'mill',
  'bridge',
  'warm',
  'north',
  'quiet',
  'barn',
  'field',
  'lane',
  'green',
  'small',
  'tower',
  'well',
  'path',
];
const prose =
  (least: number, most: number) =>
  (c: Chance): string =>
    Array.from({ length: c.whole(least, most) }, () => c.pick(words)).join(' ');
const NAMES = [
  'Anna',
  'Ben',
  'Clara',
  'David',
  'Eva',
  'Finn',
  'Greta',
  'Hugo',
  'Ida',
  'Jon',
  'Karla',
  'Leo',
  'Mona',
  'Nils',
  'Olga',
  'Paul',
];

/** A household survey in codes, nothing documented. */
const survey: Judged[] = [
  { name: 'caseid', kind: 'identifier', role: 'identifier', cell: (_, row) => row + 1 },
  {
    name: 'respondent_id',
    kind: 'identifier',
    role: 'identifier',
    cell: (_, row) => `R${String(100000 + row * 37)}`,
  },
  { name: 'sex', kind: 'nominal', cell: pick([1, 2]) },
  { name: 'age', kind: 'continuous', storage: 'integer', cell: int(18, 94) },
  { name: 'yob', kind: 'continuous', cell: int(1925, 2002) },
  { name: 'marital', kind: 'nominal', cell: pick([1, 2, 3, 4, 5], [30, 45, 12, 9, 4]) },
  { name: 'nchild', kind: 'count', cell: poisson(1.3) },
  { name: 'hhsize', kind: 'count', cell: (c) => 1 + poisson(1.6)(c) },
  { name: 'region', kind: 'nominal', cell: pick([1, 2, 3, 4, 5, 6, 7, 8, 9]) },
  { name: 'educ', kind: ['ordinal', 'nominal'], cell: pick([1, 2, 3, 4, 5, 6]) },
  {
    name: 'occ',
    kind: 'nominal',
    label: 'Occupation code',
    cell: pick([1110, 1221, 2341, 3412, 4115, 5122, 5223, 6111, 7241, 8322, 9132]),
  },
  {
    name: 'isco',
    kind: 'nominal',
    label: 'Occupation (ISCO-08)',
    cell: (c) =>
      c.pick([1, 2, 3, 4, 5, 7, 8, 9]) * 1000 + c.whole(1, 4) * 100 + c.whole(1, 4) * 10 + c.whole(1, 4),
  },
  { name: 'income', kind: 'continuous', cell: skewed(32000, 0.7) },
  { name: 'hours_worked', kind: 'continuous', cell: whole(37, 9, 0, 80) },
  { name: 'wt', kind: 'continuous', role: 'weight', cell: (c) => (0.3 + c.next() * 2).toFixed(4) },
  {
    name: 'pweight',
    kind: 'continuous',
    role: 'weight',
    label: 'Person weight',
    cell: (c) => (300 + c.next() * 2000).toFixed(2),
  },
  { name: 'stratum', kind: 'nominal', role: 'design', cell: int(1, 24) },
  { name: 'psu', kind: 'nominal', role: 'design', cell: int(1001, 1160) },
  { name: 'q1a', kind: 'ordinal', label: 'Trust in parliament (0-10)', cell: whole(5, 2.4, 0, 10) },
  {
    name: 'q7_1',
    kind: 'ordinal',
    label: 'I often feel tired',
    entry: labels({ 1: 'Strongly disagree', 2: 'Disagree', 3: 'Neither', 4: 'Agree', 5: 'Strongly agree' }),
    cell: whole(3, 1, 1, 5),
  },
  { name: 'lifesat', kind: 'ordinal', label: 'How satisfied with life', cell: whole(4, 1, 1, 7) },
  { name: 'health', kind: 'ordinal', cell: pick(['excellent', 'very good', 'good', 'fair', 'poor']) },
  { name: 'own_car', kind: 'nominal', cell: pick([0, 1]) },
  { name: 'smokes', kind: 'nominal', cell: pick(['yes', 'no']) },
  {
    name: 'cigs',
    kind: 'count',
    label: 'Cigarettes smoked per day',
    cell: (c) => (c.odds(0.7) ? 0 : c.pick([5, 10, 15, 20, 20, 30, 8, 12])),
  },
  { name: 'intdate', kind: 'date', storage: 'date', cell: day(18600, 200) },
  { name: 'int_month', kind: ['ordinal', 'nominal'], cell: int(1, 12) },
  { name: 'year', kind: ['continuous', 'nominal', 'ordinal'], cell: pick([2018, 2019, 2020, 2021]) },
  { name: 'rooms', kind: 'count', cell: whole(4.2, 1.5, 1, 12) },
  { name: 'comment', kind: 'text', cell: sometimes(0.4, '', prose(5, 14)) },
];

/** A clinical file. */
const clinic: Judged[] = [
  {
    name: 'patient',
    kind: 'identifier',
    role: 'identifier',
    cell: (_, row) => `P-${String(row + 1).padStart(4, '0')}`,
  },
  { name: 'visit', kind: ['ordinal', 'nominal', 'count'], cell: int(1, 4) },
  { name: 'dob', kind: 'date', cell: day(-12000, 16000) },
  { name: 'gender', kind: 'nominal', cell: pick(['M', 'F']) },
  { name: 'height_cm', kind: 'continuous', cell: normal(171, 9, 1) },
  { name: 'weight_kg', kind: 'continuous', role: 'analysis', cell: normal(76, 13, 1) },
  { name: 'bmi', kind: 'continuous', cell: normal(26, 4, 2) },
  { name: 'sbp', kind: 'continuous', label: 'Systolic blood pressure (mmHg)', cell: whole(128, 16, 80, 220) },
  { name: 'dbp', kind: 'continuous', cell: whole(80, 10, 40, 130) },
  { name: 'pulse', kind: 'continuous', cell: whole(72, 11, 40, 140) },
  { name: 'temp', kind: 'continuous', cell: normal(36.8, 0.4, 1) },
  { name: 'glucose', kind: 'continuous', cell: whole(105, 28, 55, 320) },
  {
    name: 'diagnosis',
    kind: 'nominal',
    cell: pick(['I10', 'E11.9', 'J45.0', 'M54.5', 'F32.1', 'I25.1', 'K21.0', 'N18.3']),
  },
  { name: 'severity', kind: 'ordinal', cell: pick(['mild', 'moderate', 'severe']) },
  { name: 'smoker', kind: 'nominal', cell: pick(['Y', 'N']) },
  { name: 'pregnancies', kind: 'count', cell: poisson(2) },
  { name: 'pain', kind: 'ordinal', label: 'Pain score (0 to 10)', cell: whole(4, 2.5, 0, 10) },
  {
    name: 'admitted',
    kind: 'date',
    storage: 'datetime',
    cell: (c) =>
      `${day(19000, 300)(c)} ${String(c.whole(0, 23)).padStart(2, '0')}:${String(c.whole(0, 59)).padStart(2, '0')}`,
  },
  { name: 'los', kind: ['count', 'continuous'], label: 'Length of stay (days)', cell: poisson(5) },
  { name: 'outcome', kind: 'nominal', cell: pick([0, 1]) },
  { name: 'asa', kind: 'ordinal', label: 'ASA class', cell: pick([1, 2, 3, 4]) },
  { name: 'ward', kind: 'nominal', cell: pick(['A1', 'A2', 'B1', 'C3']) },
  { name: 'phone', kind: 'identifier', cell: (c) => `0${c.whole(100, 999)} ${c.whole(1000000, 9999999)}` },
  { name: 'notes', kind: 'text', cell: prose(6, 20) },
  { name: 'crp', kind: 'continuous', cell: skewed(6, 1.1, 1) },
  { name: 'gfr_stage', kind: 'ordinal', cell: pick(['G1', 'G2', 'G3a', 'G3b', 'G4']) },
];

/** Places and trade: what registries and shops hand out. */
const registry: Judged[] = [
  { name: 'id', kind: 'identifier', role: 'identifier', cell: (_, row) => 500000 + row * 3 },
  {
    name: 'uuid',
    kind: 'identifier',
    cell: (c) =>
      `${c.whole(10000000, 99999999).toString(16)}-${c.whole(1000, 9999)}-${c.whole(1000, 9999)}-${c.whole(100000, 999999).toString(16)}`,
  },
  {
    name: 'postcode',
    kind: 'nominal',
    storage: 'text',
    cell: (c) => String(c.whole(1000, 1120)).padStart(5, '0'),
  },
  {
    name: 'zip',
    kind: 'nominal',
    cell: (c) => c.pick([10115, 10117, 10119, 20095, 20097, 50667, 50668, 80331, 80333, 99084]),
  },
  { name: 'lat', kind: 'continuous', cell: normal(52.5, 0.6, 5) },
  { name: 'lon', kind: 'continuous', cell: normal(13.4, 0.9, 5) },
  {
    name: 'city',
    kind: 'nominal',
    cell: pick(['Fenwater', 'Hawmoor', 'Pellsey', 'Quillmere', 'Saltreach', 'Marlhope']),
  },
  { name: 'country', kind: 'nominal', cell: pick(['DE', 'FR', 'ES', 'PL', 'SE']) },
  { name: 'price', kind: 'continuous', cell: skewed(240000, 0.5) },
  { name: 'area_sqm', kind: 'continuous', cell: whole(95, 30, 18, 320) },
  { name: 'bedrooms', kind: 'count', cell: whole(2.8, 1, 0, 7) },
  { name: 'floor', kind: ['count', 'ordinal', 'continuous'], cell: int(0, 9) },
  { name: 'year_built', kind: 'continuous', cell: int(1880, 2020) },
  { name: 'condition', kind: 'ordinal', cell: pick(['poor', 'fair', 'good', 'very good']) },
  { name: 'energy_class', kind: 'ordinal', cell: pick(['A', 'B', 'C', 'D', 'E', 'F', 'G']) },
  {
    name: 'sold_on',
    kind: 'date',
    cell: day(
      18000,
      900,
      (date) => `${date.getUTCDate()}.${date.getUTCMonth() + 1}.${date.getUTCFullYear()}`,
    ),
  },
  {
    name: 'period',
    kind: 'date',
    storage: 'date',
    cell: (c) => `${c.whole(2015, 2022)}-${String(c.whole(1, 12)).padStart(2, '0')}`,
  },
  { name: 'quarter', kind: 'ordinal', cell: (c) => `Q${c.whole(1, 4)}` },
  {
    name: 'month',
    kind: 'ordinal',
    cell: pick(['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']),
  },
  { name: 'agent', kind: 'nominal', cell: (c) => `${c.pick(NAMES)} ${c.pick(['Berg', 'Holm', 'Lind'])}` },
  {
    name: 'address',
    kind: 'text',
    cell: (c, row) =>
      `${c.whole(1, 180)} ${c.pick(words)} ${c.pick(['Street', 'Lane', 'Road'])} ${row % 7 ? '' : c.pick(words)}`.trim(),
  },
  { name: 'rating', kind: ['ordinal', 'continuous'], cell: pick([1, 1.5, 2, 2.5, 3, 3.5, 4, 4.5, 5]) },
  { name: 'stars', kind: 'ordinal', cell: pick([1, 2, 3, 4, 5], [4, 7, 18, 36, 35]) },
  { name: 'quantity', kind: 'count', cell: (c) => 1 + poisson(2.5)(c) },
  {
    name: 'discount',
    kind: 'continuous',
    cell: pick(['0%', '5%', '10%', '15%', '20%', '12.5%', '7%', '3%', '30%', '25%']),
  },
  { name: 'currency', kind: 'nominal', cell: pick(['EUR', 'SEK', 'PLN']) },
  { name: 'active', kind: 'nominal', cell: pick(['TRUE', 'FALSE']) },
  { name: 'share_green', kind: 'continuous', cell: (c) => c.next().toFixed(3) },
  { name: 'temperature', kind: 'continuous', cell: whole(9, 8) },
  { name: 'rain_mm', kind: 'continuous', cell: (c) => (c.odds(0.5) ? 0 : skewed(3, 1, 1)(c)) },
  { name: 'wind_dir', kind: 'nominal', cell: pick(['N', 'NE', 'E', 'SE', 'S', 'SW', 'W', 'NW']) },
  { name: 'station', kind: 'nominal', cell: pick([101, 104, 117, 122, 130]) },
  { name: 'version', kind: 'nominal', role: 'admin', cell: () => '1.2' },
  { name: 'nothing', kind: 'empty', role: 'admin', cell: () => '' },
  {
    name: 'url',
    kind: ['text', 'identifier'],
    cell: (c, row) => `https://example.org/${c.pick(words)}/${row}`,
  },
  {
    name: 'time',
    kind: 'date',
    storage: 'time',
    cell: (c) => `${String(c.whole(0, 23)).padStart(2, '0')}:${String(c.whole(0, 59)).padStart(2, '0')}`,
  },
  { name: 'size', kind: 'ordinal', cell: pick(['S', 'M', 'L', 'XL']) },
  { name: 'balance', kind: 'continuous', cell: normal(120, 900, 2) },
  { name: 'passengers', kind: 'count', cell: poisson(38) },
  { name: 'population', kind: ['count', 'continuous'], cell: skewed(4200, 1.2) },
];

/** School and science. */
const school: Judged[] = [
  { name: 'student_no', kind: 'identifier', cell: (_, row) => 20230000 + row },
  { name: 'grade', kind: ['ordinal', 'nominal', 'count'], cell: int(5, 10) },
  { name: 'mark', kind: 'ordinal', cell: pick(['A', 'B', 'C', 'D', 'E', 'F']) },
  { name: 'score_math', kind: 'continuous', cell: whole(61, 17, 0, 100) },
  { name: 'absences', kind: 'count', cell: poisson(4) },
  { name: 'gpa', kind: 'continuous', cell: normal(2.9, 0.5, 2) },
  {
    name: 'school',
    kind: 'nominal',
    cell: pick(['Tarn High', 'Fenwater College', 'Old Forge School', 'Pellsey Comprehensive']),
  },
  { name: 'passed', kind: 'nominal', cell: pick(['pass', 'fail']) },
  { name: 'teacher_id', kind: 'nominal', cell: (c) => c.whole(301, 330) },
  { name: 'mother_educ', kind: 'ordinal', cell: pick(['none', 'primary', 'secondary', 'university']) },
  {
    name: 'study_time',
    kind: 'ordinal',
    cell: pick(['under 2 hours', '2 to 5 hours', '5 to 10 hours', 'over 10 hours']),
  },
  { name: 'ageband', kind: 'ordinal', cell: pick(['16-24', '25-34', '35-44', '45-54', '55-64', '65+']) },
  { name: 'sepal', kind: 'continuous', cell: normal(5.8, 0.8, 1) },
  { name: 'species', kind: 'nominal', cell: pick(['oak', 'ash', 'elm']) },
  { name: 'ph', kind: 'continuous', cell: normal(6.4, 0.5, 2) },
  { name: 'count_larvae', kind: 'count', cell: poisson(12) },
  { name: 'plot', kind: 'nominal', cell: int(1, 48) },
  { name: 'treatment', kind: 'nominal', cell: pick(['control', 'low dose', 'high dose']) },
  { name: 'dose', kind: ['continuous', 'ordinal', 'nominal'], cell: pick([0, 5, 10, 20, 50]) },
  { name: 'replicate', kind: ['nominal', 'ordinal'], cell: int(1, 3) },
  { name: 'yield_kg', kind: 'continuous', cell: normal(4200, 700) },
  { name: 'rank', kind: ['ordinal', 'identifier', 'continuous'], cell: int(1, 20) },
  {
    name: 'flag_inc',
    kind: 'nominal',
    role: 'imputation',
    label: 'Imputation flag: income',
    cell: pick([0, 1], [9, 1]),
  },
  { name: 'answered', kind: 'nominal', cell: pick(['Yes', 'No', 'Maybe']) },
  { name: 'how_often', kind: 'ordinal', cell: pick(['never', 'sometimes', 'often', 'always']) },
  { name: 'weekday', kind: 'ordinal', cell: pick(['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']) },
  {
    name: 'likert',
    kind: 'ordinal',
    cell: pick(['stimme gar nicht zu', 'stimme nicht zu', 'teils/teils', 'stimme zu', 'stimme voll zu']),
  },
  {
    name: 'satisfait',
    kind: 'ordinal',
    cell: pick(['pas du tout satisfait', 'peu satisfait', 'satisfait', 'très satisfait']),
  },
  { name: 'frecuencia', kind: 'ordinal', cell: pick(['nunca', 'a veces', 'a menudo', 'siempre']) },
  { name: 'e5_3', kind: 'nominal', cell: pick([0, 1, ''], [60, 20, 20]) },
];

/** Names that say nothing, or say it in another language: the cells have to tell. */
const terse: Judged[] = [
  { name: 'V1', kind: 'identifier', cell: (_, row) => row + 1 },
  { name: 'V2', kind: 'continuous', cell: normal(3.1, 1.2, 2) },
  { name: 'V3', kind: 'nominal', cell: pick([0, 1]) },
  { name: 'V4', kind: ['ordinal', 'nominal'], cell: whole(3, 1, 1, 5) },
  { name: 'V5', kind: 'nominal', cell: pick([1, 2, 3, 4, 8, 9], [30, 12, 31, 8, 14, 5]) },
  { name: 'V6', kind: ['count'], cell: poisson(1) },
  { name: 'V7', kind: 'continuous', cell: whole(480, 110) },
  { name: 'V8', kind: 'text', cell: prose(8, 20) },
  { name: 'V9', kind: 'nominal', cell: pick(words) },
  {
    name: 'V10',
    kind: 'date',
    cell: day(
      17000,
      2000,
      (date) =>
        `${String(date.getUTCMonth() + 1).padStart(2, '0')}/${String(date.getUTCDate()).padStart(2, '0')}/${date.getUTCFullYear()}`,
    ),
  },
  { name: 'V11', kind: ['count', 'continuous'], cell: poisson(9) },
  { name: 'V12', kind: 'ordinal', cell: whole(5.5, 2.2, 0, 10) },
  { name: 'a_12', kind: 'nominal', cell: pick(['a', 'b', 'c', 'x']) },
  { name: 'x4', kind: 'continuous', cell: skewed(900, 1.4, 2) },
  { name: 'geschlecht', kind: 'nominal', cell: pick(['männlich', 'weiblich']) },
  {
    name: 'einkommen',
    kind: 'continuous',
    cell: (c) => skewed(2400, 0.5)(c).replace(/\B(?=(\d{3})+$)/g, '.'),
  },
  { name: 'bildung', kind: 'nominal', cell: pick(['Hauptschule', 'Realschule', 'Abitur', 'Studium']) },
  {
    name: 'monat',
    kind: 'ordinal',
    cell: pick([
      'Januar',
      'Februar',
      'März',
      'April',
      'Mai',
      'Juni',
      'Juli',
      'August',
      'September',
      'Oktober',
      'November',
      'Dezember',
    ]),
  },
  {
    name: 'date_naissance',
    kind: 'date',
    cell: day(
      -9000,
      15000,
      (date) =>
        `${String(date.getUTCDate()).padStart(2, '0')}-${String(date.getUTCMonth() + 1).padStart(2, '0')}-${date.getUTCFullYear()}`,
    ),
  },
  { name: 'sexe', kind: 'nominal', cell: pick(['H', 'F']) },
  { name: 'dept_code', kind: 'nominal', cell: (c) => String(c.whole(1, 95)).padStart(2, '0') },
  { name: 'nb_enfants', kind: 'count', cell: poisson(1.2) },
  {
    name: 'k201',
    kind: 'ordinal',
    label: 'Wie zufrieden sind Sie mit Ihrer Wohnung?',
    entry: labels({
      1: 'sehr unzufrieden',
      2: 'unzufrieden',
      3: 'teils, teils',
      4: 'zufrieden',
      5: 'sehr zufrieden',
    }),
    cell: whole(4, 1, 1, 5),
  },
  {
    name: 'k202',
    kind: 'nominal',
    label: 'Heizung',
    entry: labels({ 1: 'Gas', 2: 'Öl', 3: 'Holz', 4: 'Strom' }),
    cell: int(1, 4),
  },
  {
    name: 'D_POL',
    kind: ['ordinal', 'continuous'],
    label: 'Political left-right placement',
    cell: whole(5, 2, 0, 10),
  },
  { name: 'SERNO', kind: 'identifier', cell: (_, row) => 4000 + row },
  { name: 'MARKER', kind: 'nominal', cell: sometimes(0.8, '', () => 'x') },
  {
    name: 'DT_CREATED',
    kind: 'date',
    storage: 'datetime',
    cell: (c) =>
      `${day(18500, 400)(c)}T${String(c.whole(0, 23)).padStart(2, '0')}:12:${String(c.whole(0, 59)).padStart(2, '0')}Z`,
  },
  {
    name: 'ym',
    kind: 'date',
    cell: (c) => `${c.whole(2012, 2020)}${String(c.whole(1, 12)).padStart(2, '0')}`,
  },
  { name: 'TIMEDIARY_MIN', kind: 'continuous', cell: (c) => c.whole(0, 96) * 5 },
  { name: 'PCT_URBAN', kind: 'continuous', cell: (c) => (100 * c.next()).toFixed(1) },
  { name: 'EMPSTAT', kind: 'nominal', cell: pick([1, 2, 3, 4, 5, 6]) },
  {
    name: 'EDUCD',
    kind: ['ordinal', 'nominal'],
    cell: pick([
      2, 11, 12, 14, 15, 16, 17, 22, 23, 25, 26, 30, 40, 50, 60, 61, 63, 64, 65, 71, 81, 101, 114, 115, 116,
    ]),
  },
  {
    name: 'BPL',
    kind: 'nominal',
    label: 'Birthplace',
    cell: (c) =>
      c.pick([
        1, 2, 4, 5, 6, 8, 9, 10, 11, 12, 13, 15, 16, 17, 18, 200, 210, 260, 300, 400, 410, 453, 500, 515,
      ]),
  },
  {
    name: 'INCTOT',
    kind: 'continuous',
    cell: (c) => (c.odds(0.2) ? 0 : Math.round(Number(skewed(28000, 0.8)(c)) / 100) * 100),
  },
  { name: 'PERWT', kind: 'continuous', role: 'weight', label: 'Person weight', cell: int(20, 420) },
  { name: 'LINE', kind: ['nominal', 'ordinal', 'count'], cell: int(1, 6) },
  { name: 'hhid', kind: ['identifier', 'nominal'], cell: (_, row) => 10000 + Math.floor(row / 3) },
  { name: 'flag', kind: 'nominal', cell: pick(['', '', '', '*', '**']) },
  {
    name: 'gps',
    kind: ['text', 'identifier'],
    cell: (c) => `${normal(52, 1, 4)(c)}, ${normal(13, 1, 4)(c)}`,
  },
];

/** Microdata of persons within households, registers and repeated items, in bare numbers. */
const microdata: Judged[] = [
  {
    name: 'SERIAL',
    kind: 'identifier',
    role: 'identifier',
    cell: (_, row) => 100 * (1 + Math.floor(row / 2.4)),
  },
  {
    name: 'STATEFIP',
    kind: 'nominal',
    cell: pick([1, 2, 4, 5, 6, 8, 9, 10, 11, 12, 13, 15, 16, 17, 18, 19, 20, 21, 36, 48, 55, 56]),
  },
  { name: 'phq1', kind: 'ordinal', cell: pick([0, 1, 2, 3], [48, 30, 15, 7]) },
  { name: 'phq2', kind: 'ordinal', cell: pick([0, 1, 2, 3, 9], [50, 29, 14, 7, 2]) },
  { name: 'phq3', kind: 'ordinal', cell: pick([0, 1, 2, 3], [52, 28, 14, 6]) },
  { name: 'phq4', kind: 'ordinal', cell: pick([0, 1, 2, 3], [45, 32, 15, 8]) },
  { name: 'phq5', kind: 'ordinal', cell: pick([0, 1, 2, 3], [60, 25, 10, 5]) },
  { name: 'HHWT', kind: 'continuous', role: 'weight', cell: skewed(90, 0.6, 2) },
  { name: 'birthwt', kind: 'continuous', role: 'analysis', cell: normal(3.4, 0.5, 2) },
  {
    name: 'serv_mon',
    kind: 'ordinal',
    label: 'Month of the last boiler service',
    cell: sometimes(0.005, 13, int(1, 12)),
  },
  { name: 'bmonth', kind: ['ordinal', 'nominal'], cell: int(1, 12) },
  {
    name: 'nace',
    kind: 'nominal',
    cell: pick(['01.11', '01.13', '10.51', '25.62', '41.20', '47.11', '56.10', '62.01']),
  },
  { name: 'village', kind: 'nominal', cell: (_, row) => 1 + Math.floor(row / 40) },
  {
    name: 'TRANTIME',
    kind: 'continuous',
    cell: pick(
      [5, 10, 15, 20, 25, 30, 35, 40, 45, 60, 90, 12, 18],
      [6, 14, 18, 17, 8, 20, 4, 6, 9, 8, 3, 1, 1],
    ),
  },
  { name: 'weight', kind: 'continuous', role: 'analysis', cell: normal(76, 13, 1) },
  { name: 'kids_1', kind: 'count', label: 'Number of children under 5', cell: poisson(0.4) },
];

const ROWS = 800;
function inspectorOf(judged: readonly Judged[], seed: number): Inspector {
  const extract: Extract = {
    name: 'made',
    files: [],
    codebooks: [],
    notices: [],
    linkNotices: [],
    rows: ROWS,
    variables: judged.map(({ name, label, entry, cell }, i) => {
      const c = chance(seed + i * 31);
      const texts = Array.from({ length: ROWS }, (_, row) => String(cell(c, row)));
      return {
        name,
        position: i + 1,
        column: columnOf(texts),
        entry: label || entry ? { ...bareEntry(name), label: label ?? null, ...entry } : null,
      };
    }),
  };
  return new Inspector(extract);
}

describe('an expert would agree', () => {
  const all = Object.entries({ survey, clinic, registry, school, terse, microdata });
  const judge = (seed: number) =>
    all.flatMap(([, judged]) => {
      const dig = inspectorOf(judged, seed);
      return judged.map((one) => ({ one, found: dig.named(one.name) }));
    });
  const right = ({ one, found }: ReturnType<typeof judge>[number]): boolean =>
    [one.kind].flat().includes(found?.kind ?? 'empty');
  const told = (wrong: ReturnType<typeof judge>): string[] =>
    wrong.map(
      ({ one, found }) =>
        `${one.name}: ${found?.kind} ${found?.confidence} (${found?.because.join('; ')}), not ${[one.kind].flat().join(' or ')}`,
    );

  it('with the kinds of at least 95 in 100 variables', () => {
    const found = judge(1);
    const wrong = found.filter((one) => !right(one));
    expect(wrong.length / found.length, told(wrong).join('\n')).toBeLessThanOrEqual(0.05);
  });

  it('with storage and role wherever they are telling', () => {
    const wrong = judge(2).filter(
      ({ one, found }) =>
        (one.storage && found?.written.storage !== one.storage) || (one.role && found?.role !== one.role),
    );
    expect(wrong.map(({ one, found }) => `${one.name}: ${found?.written.storage} ${found?.role}`)).toEqual(
      [],
    );
  });

  it('nine times in ten where it is nine tenths sure', () => {
    const sure = [3, 4, 5].flatMap(judge).filter(({ found }) => (found?.confidence ?? 0) >= 0.9);
    const wrong = sure.filter((one) => !right(one));
    expect(wrong.length / sure.length, told(wrong).join('\n')).toBeLessThanOrEqual(0.1);
  });

  it('and every kind comes with a reason or two', () => {
    for (const { one, found } of judge(6)) {
      expect(found?.because.length, one.name).toBeGreaterThanOrEqual(1);
      expect(found?.because.length, one.name).toBeLessThanOrEqual(4);
    }
  });
});
