import { largest } from '../tally/extent';
import type { Picture } from '../inspect/profile';
import type { Beyond, Side } from '../tally/histogram';
import { counted, escapeHtml, figure, whole } from './words';

/** A bar of a chart: what it stands for and the rows in it. */
export interface Bar {
  name: string;
  /** Where it begins, of bins. */
  from?: string;
  count: number;
}

/** The bars of a picture with their names; bins are named by their edges. */
export function barsOf(picture: Picture): Bar[] {
  switch (picture.form) {
    case 'bars':
      return [
        ...picture.bars.map(({ code, label, count }) => ({
          name: label === null ? code : `${code}  ${label}`,
          count,
        })),
        ...(picture.rest > 0 ? [{ name: 'all others', count: picture.rest }] : []),
      ];
    case 'histogram':
      return picture.histogram.counts.map((count, i) => ({
        name: binName(picture.histogram.start, picture.histogram.width, i),
        from: edgeOf(picture.histogram.start + i * picture.histogram.width),
        count,
      }));
    case 'periods':
      return picture.periods;
    case 'none':
      return [];
  }
}

/** "20 to below 25"; a bin one whole number wide is that number. */
export function binName(start: number, width: number, bin: number): string {
  const low = edgeOf(start + bin * width);
  return width === 1 && Number.isInteger(start)
    ? low
    : `${low} to below ${edgeOf(start + (bin + 1) * width)}`;
}

const edgeOf = (edge: number): string => figure(edge, 12);

const WIDTH = 460;
const LINE = 17;
const NAME_WIDTH = 190;
const PLOT_HEIGHT = 120;

/**
 * A picture as an inline SVG image with its numbers as text; empty where there is nothing to draw.
 * @param base what it is of, written below, where that is not all rows
 */
export function chartSvg(picture: Picture, title: string, base: string | null = null): string {
  const bars = barsOf(picture);
  if (bars.length === 0) return '';
  const notes = [
    ...(picture.form === 'histogram' && picture.beyond ? [beyondText(picture.beyond)] : []),
    ...(base === null ? [] : [`Based on ${base}`]),
  ];
  return picture.form === 'bars' ? lyingBars(bars, title, notes) : standingBars(bars, title, notes);
}

/** Lines of text below a drawing. @param y where it ends */
const notesBelow = (notes: readonly string[], x: number, y: number): string =>
  notes
    .map(
      (note, i) =>
        `<text x="${x}" y="${y + 15 + i * NOTE}"><title>${escapeHtml(note)}</title>${escapeHtml(short(note, 74))}</text>`,
    )
    .join('');
const NOTE = 16;

const short = (text: string, most: number): string =>
  text.length > most ? `${text.slice(0, most - 1)}…` : text;

function lyingBars(bars: readonly Bar[], title: string, notes: readonly string[]): string {
  const most = largest(bars.map(({ count }) => count));
  const height = bars.length * LINE + 4;
  const room = WIDTH - NAME_WIDTH - 60;
  const lines = bars.map(({ name, count }, i) => {
    const y = i * LINE;
    const width = Math.max(1, (room * count) / most);
    return (
      `<g><title>${escapeHtml(name)}: ${whole(count)}</title><text x="${NAME_WIDTH - 6}" y="${y + 13}" text-anchor="end">${escapeHtml(short(name, 30))}</text>` +
      `<rect x="${NAME_WIDTH}" y="${y + 3}" width="${width.toFixed(1)}" height="${LINE - 5}"/><text x="${(NAME_WIDTH + width + 5).toFixed(1)}" y="${y + 13}">${whole(count)}</text></g>`
    );
  });
  return svg(WIDTH, height + notes.length * NOTE, title, lines.join('') + notesBelow(notes, 6, height - 2));
}

/** "Not drawn, far out: 3 rows from 9,998 to 9,999". */
export function beyondText({ below, above }: Beyond): string {
  const side = (one: Side | null): string[] =>
    one
      ? [
          `${counted(one.rows, 'row')} ${one.from === one.to ? `at ${figure(one.from, 12)}` : `from ${figure(one.from, 12)} to ${figure(one.to, 12)}`}`,
        ]
      : [];
  return `Not drawn, far out: ${[...side(below), ...side(above)].join(' and ')}`;
}

function standingBars(bars: readonly Bar[], title: string, notes: readonly string[]): string {
  const most = largest(bars.map(({ count }) => count));
  const step = (WIDTH - 50) / bars.length;
  const drawn = bars.map(({ name, count }, i) => {
    const height = (PLOT_HEIGHT * count) / most;
    return `<rect x="${(44 + i * step).toFixed(1)}" y="${(PLOT_HEIGHT + 6 - height).toFixed(1)}" width="${Math.max(1, step - 1).toFixed(1)}" height="${height.toFixed(1)}"><title>${escapeHtml(name)}: ${whole(count)}</title></rect>`;
  });
  const base = PLOT_HEIGHT + 6;
  const axis =
    `<line x1="44" x2="${WIDTH - 6}" y1="${base}" y2="${base}"/><text x="40" y="14" text-anchor="end">${whole(most)}</text><text x="40" y="${base}" text-anchor="end">0</text>` +
    `<text x="44" y="${base + 15}">${escapeHtml(bars[0].from ?? bars[0].name)}</text><text x="${WIDTH - 6}" y="${base + 15}" text-anchor="end">${escapeHtml(bars[bars.length - 1].name)}</text>`;
  return svg(
    WIDTH,
    base + 20 + notes.length * NOTE + (notes.length ? 4 : 0),
    title,
    drawn.join('') + axis + notesBelow(notes, 44, base + 18),
  );
}

const svg = (width: number, height: number, title: string, body: string): string =>
  `<svg class="chart" role="img" viewBox="0 0 ${width} ${height}" width="${width}" height="${height}" xmlns="http://www.w3.org/2000/svg"><title>${escapeHtml(title)}</title>${body}</svg>`;

/** A chart that stands alone as a file: with its own colours and face. */
export function chartFile(picture: Picture, title: string, base: string | null = null): string {
  const style =
    '<style>text{font:12px sans-serif;fill:#26231d}rect{fill:#4d6754}line{stroke:#8f8672}</style>';
  return chartSvg(picture, title, base).replace('</title>', `</title>${style}`);
}
