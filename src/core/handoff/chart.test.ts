import { describe, expect, it } from 'vitest';
import type { Picture } from '../inspect/profile';
import { barsOf, binName, chartSvg } from './chart';

const CODES: Picture = {
  form: 'bars',
  bars: [
    { code: '1', label: 'Owned <outright>', count: 30 },
    { code: '2', label: null, count: 10 },
  ],
  rest: 4,
};
const MEASURE: Picture = { form: 'histogram', histogram: { start: 0, width: 2.5, counts: [3, 0, 6] } };

describe('charts', () => {
  it('name every bar by code and label, or by its edges', () => {
    expect(barsOf(CODES).map(({ name, count }) => [name, count])).toEqual([
      ['1  Owned <outright>', 30],
      ['2', 10],
      ['all others', 4],
    ]);
    expect(barsOf(MEASURE).map(({ name }) => name)).toEqual([
      '0 to below 2.5',
      '2.5 to below 5',
      '5 to below 7.5',
    ]);
    expect(binName(16, 1, 2)).toBe('18');
    expect(binName(0, 0.1, 3)).toBe('0.3 to below 0.4');
  });

  it('draw a bar for each, to scale, with text that cannot break the page', () => {
    const svg = chartSvg(CODES, 'Tenure & home');
    expect(svg.match(/<rect/g)).toHaveLength(3);
    const widths = [...svg.matchAll(/width="([\d.]+)" height="12"/g)].map(([, width]) => Number(width));
    expect(widths[0] / widths[1]).toBeCloseTo(3, 1);
    expect(svg).toContain('Tenure &amp; home');
    expect(svg).toContain('Owned &lt;outright&gt;');
    expect(chartSvg(MEASURE, 'x').match(/<rect/g)).toHaveLength(3);
  });

  it('are absent where there is nothing to draw', () => {
    expect(chartSvg({ form: 'none', why: 'text' }, 'x')).toBe('');
  });
});
