import { describe, expect, it } from 'vitest';
import { extractOf, labels, make, type Cells } from '../../testing/made';
import type { CodebookEntry } from '../extract/extract';
import { Inspector } from '../inspect/inspect';
import { markingOf } from './marker';

const ROWS = 200;
const weights = make(ROWS, (c) => (0.4 + 3 * c.next()).toFixed(3));
const marks = make(ROWS, (c) => (c.odds(0.1) ? 1 : 0));
const amounts = make(ROWS, (c) => c.whole(100, 9000));

/** The role of the first variable, beside others. */
function roleOf(
  name: string,
  cells: Cells,
  entry: Partial<CodebookEntry> | null = null,
  others: Record<string, Cells> = {},
): string | undefined {
  const extract = extractOf(
    { [name]: cells, ...others, age: make(ROWS, (c) => c.whole(18, 90)) },
    entry ? { [name]: entry } : {},
  );
  return new Inspector(extract).named(name)?.role;
}

describe('weights of rows', () => {
  it.each([
    ['gf3', 'Grossing factor, calibrated in three rounds'],
    ['poids', null],
    ['x7', 'Poids de sondage'],
    ['fex', 'Factor de expansión'],
    ['hrf', 'Hochrechnungsfaktor Personen'],
    ['repwt12', null],
    ['wtsamp', null],
    ['v200', 'Post-stratification weight'],
  ])('are known by name or label: %s, %s', (name, label) => {
    expect(roleOf(name, weights, label === null ? null : { label })).toBe('weight');
  });

  it('are known by their mean of one alone', () => {
    const drawn = make(400, (c) => 0.3 + 2.5 * c.next()).map(Number);
    const mean = drawn.reduce((sum, x) => sum + x, 0) / drawn.length;
    const extract = extractOf({
      k1: drawn.map((x) => (x / mean).toFixed(4)),
      k2: drawn.map((x) => x.toFixed(4)),
    });
    const dig = new Inspector(extract);
    expect([dig.named('k1')?.role, dig.named('k2')?.role]).toEqual(['weight', 'analysis']);
  });

  it.each([
    ['Weight_in_lbs', make(ROWS, (c) => c.whole(1600, 5100)), null],
    ['wt_loaf_g', make(ROWS, (c) => (900 + 200 * c.next()).toFixed(1)), 'Weight of the standard loaf (g)'],
    ['weight', make(ROWS, (c) => (76 + 12 * c.normal()).toFixed(1)), null],
    ['birthwt', make(ROWS, (c) => (3.4 + 0.5 * c.normal()).toFixed(2)), 'Birth weight'],
    ['wt', make(ROWS, (c) => c.whole(0, 3)), 'Waiting room'],
  ])('are not what is put on scales: %s', (name, cells, label) => {
    expect(roleOf(name, cells, label === null ? null : { label })).toBe('analysis');
  });
});

describe('markers of filled-in values', () => {
  it.each([
    ['turnover_i', 'Turnover estimated by the office', { 0: 'As reported', 1: 'Estimated' }],
    [
      'edit_st',
      'Number of staff: filled in or edited by the producer',
      { 0: 'As given', 1: 'Filled in', 2: 'Edited' },
    ],
    ['turnover_f', null, null],
    ['imp_turnover', null, null],
    ['turnover_src', null, null],
    ['v12', 'Carried forward from last quarter', null],
    ['v13', 'Turnover', { 0: 'Observed', 1: 'Imputed' }],
  ])('are known by name, label or codes: %s', (name, label, codes) => {
    const entry = label || codes ? { label, categories: codes ? labels(codes) : [] } : null;
    expect(roleOf(name, marks, entry, { turnover: amounts })).toBe('imputation');
  });

  it.each([
    ['married', null, null],
    ['fill', 'Questionnaire filled in by', { 0: 'Respondent', 1: 'Somebody else' }],
    ['sex_f', null, null],
    ['important', null, null],
    ['status', 'Status of the order', { 0: 'Open', 1: 'Closed' }],
    ['repaired', 'Windows replaced', { 0: 'No', 1: 'Yes' }],
  ])('are not whatever has two codes: %s', (name, label, codes) => {
    const entry = label || codes ? { label, categories: codes ? labels(codes) : [] } : null;
    expect(roleOf(name, marks, entry, { turnover: amounts })).toBe('analysis');
  });

  it('name the variable that they mark', () => {
    const names = new Map(['income', 'weight_kg', 'kcal'].map((name) => [name, name]));
    expect(markingOf('kcal_fl', names)).toEqual({ of: 'kcal', surely: 1 });
    expect(markingOf('weight_imp', names)).toEqual({ of: 'weight_kg', surely: 1 });
    expect(markingOf('z_inc', names)).toEqual({ of: 'income', surely: 0.75 });
    expect(markingOf('kcal_x9', names)).toBeNull();
    expect(markingOf('rough_f', names)).toBeNull();
  });
});

describe('how the sample was drawn', () => {
  it.each([
    ['vstrat', null],
    ['ea_no', null],
    ['k9', 'Unité primaire'],
    ['k9', 'Enumeration area'],
  ])('is told by %s, %s', (name, label) => {
    expect(
      roleOf(
        name,
        make(ROWS, (c) => c.whole(1, 30)),
        label === null ? null : { label },
      ),
    ).toBe('design');
  });
});
