'use client';

import type { ApexOptions } from 'apexcharts';
import { useEffect, useState } from 'react';
import ApexChart from 'react-apexcharts';
import { barsOf } from '../../core/handoff/chart';
import { escapeHtml, figure, percent, whole } from '../../core/handoff/words';
import type { Picture } from '../../core/inspect/profile';

const BAR_ROOM = 24;
const PERIOD_NAMES = 5;
const MOST_TICKS = 8;

/** Values of the design tokens as they stand now, asked again when the paper changes. */
function useTokens(): { ink: string; soft: string; rule: string; moss: string } {
  const read = () => {
    const style = getComputedStyle(document.documentElement);
    const token = (name: string): string => style.getPropertyValue(name).trim();
    return { ink: token('--ink'), soft: token('--soft'), rule: token('--rule'), moss: token('--moss') };
  };
  const [tokens, setTokens] = useState(read);
  useEffect(() => {
    const watcher = new MutationObserver(() => setTokens(read()));
    watcher.observe(document.documentElement, { attributeFilter: ['data-bs-theme'] });
    return () => watcher.disconnect();
  }, []);
  return tokens;
}

/** The chart that suits the picture: lying bars for categories, a histogram with its true edges, bars over periods. */
export default function Chart({
  picture,
  name,
  curve = null,
  pie = false,
  weighted = false,
  pick,
}: {
  picture: Exclude<Picture, { form: 'none' }>;
  name: string;
  curve?: { mean: number; sd: number } | null;
  pie?: boolean;
  weighted?: boolean;
  /** A bar was clicked; by its zero-based place. */
  pick?: ((bar: number) => void) | undefined;
}) {
  const { ink, soft, rule, moss } = useTokens();
  const bars = barsOf(picture);
  const rows = bars.reduce((sum, { count }) => sum + count, 0);
  const lying = picture.form === 'bars';
  if (pie && lying)
    return (
      <Pie
        bars={bars}
        rows={rows}
        name={name}
        colours={[moss, ink, soft, rule]}
        ink={ink}
        weighted={weighted}
      />
    );
  const height = lying ? bars.length * BAR_ROOM + 44 : 220;
  const tip = ({ dataPointIndex }: { dataPointIndex: number }): string =>
    tipMarkup(bars[dataPointIndex], rows, weighted);
  const options: ApexOptions = {
    chart: {
      type: curve ? 'line' : 'bar',
      toolbar: { show: false },
      animations: { enabled: false },
      fontFamily: 'inherit',
      foreColor: ink,
      background: 'transparent',
      nonce: document.documentElement.dataset.nonce,
      parentHeightOffset: 0,
      zoom: { enabled: false },
      events: {
        dataPointSelection: (_: unknown, __: unknown, { dataPointIndex }: { dataPointIndex: number }) =>
          pick?.(dataPointIndex),
      },
    },
    colors: [moss, ink],
    stroke: { width: curve ? [0, 2] : 0, curve: 'smooth' },
    legend: { show: false },
    fill: { opacity: 1 },
    plotOptions: {
      bar: {
        horizontal: lying,
        barHeight: '68%',
        columnWidth: picture.form === 'histogram' ? '98%' : '80%',
        borderRadius: 0,
      },
    },
    dataLabels: { enabled: false },
    states: { hover: { filter: { type: 'none' } }, active: { filter: { type: 'none' } } },
    grid: {
      borderColor: rule,
      xaxis: { lines: { show: lying } },
      yaxis: { lines: { show: !lying } },
      padding: { top: -14, right: 14, bottom: 0, left: 4 },
    },
    // The title that the package would write, beside our own, takes names for markup.
    tooltip: { theme: 'light', custom: tip, x: { show: false, formatter: () => '' } },
    ...axes(
      picture,
      bars.map((bar) => bar.name),
      soft,
    ),
  };
  const data =
    picture.form === 'histogram'
      ? bars.map(({ count }, i) => ({
          x: picture.histogram.start + (i + 0.5) * picture.histogram.width,
          y: count,
        }))
      : bars.map(({ count }) => count);
  const drawn =
    curve && picture.form === 'histogram' && curve.sd > 0 ? normalOver(picture.histogram, rows, curve) : null;
  return (
    <div
      className="chartroom"
      role="img"
      aria-label={`Chart of ${name}: ${bars
        .slice(0, 12)
        .map((bar) => `${bar.name} ${whole(bar.count)}`)
        .join(', ')}${bars.length > 12 ? ' and more' : ''}`}
    >
      <ApexChart
        key={`${name} ${picture.form} ${moss} ${drawn ? 'curve' : ''}`}
        type={drawn ? 'line' : 'bar'}
        height={height}
        width="100%"
        options={options}
        series={[
          { name: 'rows', data, ...(drawn && { type: 'column' as const }) },
          ...(drawn ? [{ name: 'normal', type: 'line' as const, data: drawn }] : []),
        ]}
      />
    </div>
  );
}

/** What a bar or slice says under the pointer. The chart package takes it for markup: nothing that came from a file may be any. */
function tipMarkup(
  bar: { name: string; count: number } | undefined,
  rows: number,
  weighted: boolean,
): string {
  if (!bar) return '';
  const count = `${whole(bar.count)} ${weighted ? 'weighted' : 'rows'}, ${percent(bar.count / rows)} of valid`;
  return `<div class="charttip"><strong>${escapeHtml(bar.name)}</strong><br>${escapeHtml(count)}</div>`;
}

/** The rows that a normal distribution of that mean and spread would put into each bin. */
function normalOver(
  { start, width, counts }: { start: number; width: number; counts: number[] },
  rows: number,
  { mean, sd }: { mean: number; sd: number },
): { x: number; y: number }[] {
  return counts.map((_, i) => {
    const x = start + (i + 0.5) * width;
    return {
      x,
      y: (rows * width * Math.exp(-((x - mean) ** 2) / (2 * sd * sd))) / (sd * Math.sqrt(2 * Math.PI)),
    };
  });
}

/** Few categories as slices, with their names and shares beside. */
function Pie({
  bars,
  rows,
  name,
  colours,
  ink,
  weighted,
}: {
  bars: { name: string; count: number }[];
  rows: number;
  name: string;
  colours: string[];
  ink: string;
  weighted: boolean;
}) {
  const options: ApexOptions = {
    chart: {
      type: 'pie',
      animations: { enabled: false },
      fontFamily: 'inherit',
      foreColor: ink,
      background: 'transparent',
      nonce: document.documentElement.dataset.nonce,
    },
    // Names reach the page through the formatters below alone, which make them harmless.
    labels: bars.map((_, i) => String(i + 1)),
    colors: bars.map((_, i) => colours[i % colours.length]),
    fill: { opacity: bars.map((_, i) => 1 - 0.35 * Math.floor(i / colours.length)) },
    dataLabels: { enabled: false },
    legend: {
      position: 'right',
      formatter: (_: string, { seriesIndex }: { seriesIndex: number }) =>
        escapeHtml(`${bars[seriesIndex]?.name ?? ''}  ${percent((bars[seriesIndex]?.count ?? 0) / rows)}`),
    },
    tooltip: {
      theme: 'light',
      custom: ({ seriesIndex }: { seriesIndex: number }) => tipMarkup(bars[seriesIndex], rows, weighted),
    },
  };
  return (
    <div
      className="chartroom"
      role="img"
      aria-label={`Pie of ${name}: ${bars.map((bar) => `${bar.name} ${bar.count}`).join(', ')}`}
    >
      <ApexChart
        type="pie"
        height={210}
        width="100%"
        options={options}
        series={bars.map(({ count }) => count)}
      />
    </div>
  );
}

/** Characters that stand side by side under a chart of the usual width. */
const ROOM = 38;

function axes(picture: Picture, names: string[], soft: string): ApexOptions {
  const counts = {
    formatter: (n: number | string) => (Number.isInteger(Number(n)) ? whole(Number(n)) : ''),
    style: { colors: soft },
  };
  if (picture.form === 'histogram') {
    const { start, width, counts: bins } = picture.histogram;
    // Ticks stand on edges of bins; the axis reaches to the next one.
    const said = (x: number): string =>
      Number.isInteger(x) && Math.abs(x) >= 10_000 ? whole(x) : figure(x, 6);
    const widest = Math.max(said(start).length, said(start + bins.length * width).length);
    const apart = Math.ceil(
      bins.length / Math.max(2, Math.min(MOST_TICKS, Math.floor(ROOM / (widest + 1.5)))),
    );
    const steps = Math.ceil(bins.length / apart);
    return {
      xaxis: {
        type: 'numeric',
        min: start,
        max: start + steps * apart * width,
        tickAmount: steps,
        decimalsInFloat: 0,
        labels: { formatter: (x) => said(Number(x)), hideOverlappingLabels: true, rotate: 0 },
        axisTicks: { show: true },
      },
      yaxis: { labels: { ...counts, maxWidth: 60 }, forceNiceScale: true },
    };
  }
  if (picture.form === 'bars') {
    return {
      xaxis: { categories: names, labels: counts, tickAmount: 4 },
      yaxis: { labels: { maxWidth: 190, style: { fontSize: '12.5px' } } },
    };
  }
  // As many names as there is room for; the tooltip and the table tell the others.
  const every = Math.ceil(names.length / PERIOD_NAMES);
  return {
    xaxis: {
      categories: names,
      labels: {
        rotate: 0,
        formatter: (name) => (names.indexOf(String(name)) % every === 0 ? String(name) : ''),
      },
    },
    yaxis: { labels: counts, forceNiceScale: true },
  };
}
