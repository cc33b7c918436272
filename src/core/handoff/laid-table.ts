import Papa from 'papaparse';
import { BEYOND } from '../cross/standing-out';
import { tableSays, type KeptTable } from '../cross/kept-table';
import type { CrossDocument, TableTold } from '../inspect/cross-document';
import {
  cellFigure,
  codeSays,
  figuresShown,
  leftOutSays,
  FIGURE_NAMES,
  marginFigure,
  measureFigure,
  MEASURE_NAMES,
  standsOut,
  totalFigure,
} from './cell-figures';
import { harmless } from './harmless';
import { counted, escapeHtml, whole } from './words';

/** A table as it leaves: in a document, a report, a file. Every cell is text, and what it is of stands below. */
export interface LaidTable {
  title: string;
  /** One for each level of the third variable, all together last. */
  grids: {
    title: string | null;
    head: string[];
    lines: { head: string; cells: LaidCell[] }[];
    notes: string[];
  }[];
  notes: string[];
}
export interface LaidCell {
  text: string;
  /** How far the cell stands out, where it does. */
  stands?: string;
  /** Whether the text is left out because too few rows are in the cell. */
  blanked?: true;
}

/**
 * Lays a cross-check out.
 * @param base what all figures are of, in words @param called how variables are called
 */
export function laidTable(
  told: CrossDocument,
  asked: KeptTable,
  base: string,
  called: (name: string) => string = (name) => name,
): LaidTable {
  const grids = told.tables.map((table) => gridOf(told, table, asked));
  const { rows, weighted } = told.base;
  const left = leftOutSays(told, called);
  const blanked = grids.some(({ lines }) => lines.some(({ cells }) => cells.some((cell) => cell.blanked)));
  const stands = grids.some(({ lines }) => lines.some(({ cells }) => cells.some((cell) => cell.stands)));
  const binned = [told.down, told.across, told.within].flatMap((side) =>
    side?.bins ? [`${called(side.variable)} in bins of ${side.bins.size}`] : [],
  );
  return {
    title: tableSays(asked, called),
    grids,
    notes: [
      `${counted(rows, 'row')} of ${base}${left.length ? `; left out: ${left.join(', ')}` : ''}.`,
      told.weight === null
        ? 'Unweighted.'
        : `Shares${asked.measure === null ? '' : ' and figures of the measure'} are weighted by ${called(told.weight)}; the weights come to ${whole(weighted)}.`,
      ...binned.map((one) => `${one}.`),
      ...(stands
        ? [
            `In brackets: adjusted residuals beyond ${BEYOND}, for cells with clearly more (+) or fewer (−) rows than the margins lead one to expect (Haberman 1973).`,
          ]
        : []),
      ...(blanked ? [`Cells of fewer than ${asked.small} rows are left out.`] : []),
    ],
  };
}

function gridOf(told: CrossDocument, table: TableTold, asked: KeptTable): LaidTable['grids'][number] {
  const figures = figuresShown(asked.shows, told.across !== null);
  const measured = told.tables[0].measure ? asked.measured : [];
  const columns = told.across?.codes ?? [];
  const names = [...figures.map((one) => FIGURE_NAMES[one]), ...measured.map((one) => MEASURE_NAMES[one])];
  const several = names.length > 1;
  const named = (head: string): string[] => (several ? names.map((name) => `${head}, ${name}`) : [head]);
  const texts = (
    figure: (what: KeptTable['shows'][number]) => string,
    measure: TableTold['measure'],
    stands = '',
  ): LaidCell[] => [
    ...figures.map((what, i): LaidCell => ({ text: figure(what), ...(stands && i === 0 ? { stands } : {}) })),
    ...measured.map((what): LaidCell => ({ text: measureFigure(measure, what) })),
  ];
  const width = Math.max(1, columns.length);
  const lines = told.down.codes.map((code, i) => {
    const cells = table.cells.slice(i * width, (i + 1) * width).flatMap((cell) => {
      const own = texts(
        (what) => cellFigure(cell, what),
        cell.measure,
        figures.includes('residual') ? '' : standsOut(cell.adjustedResidual),
      );
      return asked.blank && cell.small
        ? own.map((): LaidCell => ({ text: `< ${asked.small}`, blanked: true }))
        : own;
    });
    const margin = table.down[i];
    const whole_ = texts((what) => marginFigure(margin, what, 'down'), margin.measure);
    return { head: codeSays(code, told.down), cells: told.across ? [...cells, ...whole_] : cells };
  });
  const total = texts((what) => totalFigure(table, what), table.measure);
  const bottom = (table.across ?? []).flatMap((margin) =>
    texts((what) => marginFigure(margin, what, 'across'), margin.measure),
  );
  return {
    title:
      told.within === null
        ? null
        : table.within === null
          ? 'All together'
          : codeSays(
              told.within.codes.find(({ code }) => code === table.within) ?? told.within.codes[0],
              told.within,
            ),
    head: [
      told.down.variable,
      ...(told.across ? columns.flatMap((code) => named(codeSays(code, told.across ?? {}))) : []),
      ...(told.across ? named('All') : names),
    ],
    lines: [...lines, { head: 'All', cells: [...bottom, ...total] }],
    notes:
      table.cramersV === null
        ? []
        : [
            `Cramér’s V ${table.cramersV.toFixed(2)}; χ² ${(table.chiSquare ?? 0).toFixed(1)}, ${table.degreesOfFreedom} degrees of freedom; ${counted(table.rows, 'row')}.`,
          ],
  };
}

const cellText = ({ text, stands }: LaidCell): string => (stands ? `${text} (${stands})` : text);

/** As HTML for a report or a document. */
export function tableHtml({ title, grids, notes }: LaidTable): string {
  const grid = ({ title: level, head, lines, notes: own }: LaidTable['grids'][number]): string =>
    `${level === null ? '' : `<h4>${escapeHtml(level)}</h4>`}<table><thead><tr>${head.map((text, i) => `<th${i ? ' class="n"' : ''}>${escapeHtml(text)}</th>`).join('')}</tr></thead><tbody>${lines
      .map(
        ({ head: name, cells }) =>
          `<tr><th>${escapeHtml(name)}</th>${cells.map((cell) => `<td class="n">${cell.stands ? `<strong>${escapeHtml(cellText(cell))}</strong>` : escapeHtml(cell.text)}</td>`).join('')}</tr>`,
      )
      .join('')}</tbody></table>${own.map((note) => `<p class="soft">${escapeHtml(note)}</p>`).join('')}`;
  return `<h3>${escapeHtml(title)}</h3>${grids.map(grid).join('')}${notes.map((note) => `<p class="soft">${escapeHtml(note)}</p>`).join('')}`;
}

/** As rows of texts: title, tables one below the other, and what they are of. */
export function tableRows({ title, grids, notes }: LaidTable): string[][] {
  return [
    [title],
    ...grids.flatMap(({ title: level, head, lines, notes: own }) => [
      ...(level === null ? [] : [[level]]),
      head,
      ...lines.map(({ head: name, cells }) => [name, ...cells.map(cellText)]),
      ...own.map((note) => [note]),
      [],
    ]),
    ...notes.map((note) => [note]),
  ];
}

/** As delimited text (RFC 4180); no cell is one that a spreadsheet would run. */
export const tableCsv = (table: LaidTable): string =>
  `${Papa.unparse(
    tableRows(table).map((row) => row.map((text) => harmless(text))),
    { newline: '\r\n' },
  )}\r\n`;

const LINE = 20;
const SIGN = 6.6;
const GAP = 18;

/** As a picture whose text can be selected. */
export function tableSvg(table: LaidTable): string {
  const parts: string[] = [];
  let y = 24;
  let widest = 0;
  const text = (x: number, says: string, more = ''): void => {
    parts.push(`<text x="${x.toFixed(1)}" y="${y}"${more}>${escapeHtml(says)}</text>`);
  };
  const note = (says: string): void => {
    for (const line of wrapped(says, 110)) {
      text(12, line, ' class="s"');
      widest = Math.max(widest, 12 + line.length * SIGN * 0.9);
      y += LINE - 3;
    }
  };
  text(12, table.title, ' class="t"');
  widest = table.title.length * SIGN * 1.25 + 24;
  y += LINE + 4;
  for (const { title, head, lines, notes } of table.grids) {
    if (title !== null) {
      text(12, title, ' class="t"');
      y += LINE;
    }
    const rows = [head, ...lines.map(({ head: name, cells }) => [name, ...cells.map(cellText)])];
    const widths = head.map((_, i) => Math.max(...rows.map((row) => (row[i] ?? '').length * SIGN + GAP)));
    const ends = widths.map((_, i) => 12 + widths.slice(0, i + 1).reduce((sum, one) => sum + one, 0));
    const right = ends[ends.length - 1];
    widest = Math.max(widest, right + 12);
    rows.forEach((row, r) => {
      row.forEach((says, i) =>
        i === 0
          ? text(12, says, r === 0 ? ' class="h"' : '')
          : text(
              ends[i],
              says,
              ` text-anchor="end"${r === 0 ? ' class="h"' : lines[r - 1].cells[i - 1].stands ? ' class="b"' : ''}`,
            ),
      );
      if (r === 0 || r === rows.length - 2)
        parts.push(`<line x1="12" x2="${right.toFixed(1)}" y1="${y + 6}" y2="${y + 6}"/>`);
      y += LINE;
    });
    y += 4;
    notes.forEach(note);
    y += 8;
  }
  table.notes.forEach(note);
  const [width, height] = [Math.ceil(widest + 12), y + 6];
  return `<svg xmlns="http://www.w3.org/2000/svg" width="${width}" height="${height}" viewBox="0 0 ${width} ${height}"><title>${escapeHtml(table.title)}</title><style>text{font:12.5px sans-serif;fill:#26231d;white-space:pre}.t{font-size:15px;font-weight:600}.h{font-weight:600;fill:#5e574a}.b{font-weight:700}.s{fill:#5e574a;font-size:11.5px}line{stroke:#8f8672}</style><rect width="${width}" height="${height}" fill="#fff"/>${parts.join('')}</svg>`;
}

/** A text in lines of at most so many signs, broken between words. */
function wrapped(says: string, most: number): string[] {
  const lines: string[] = [''];
  for (const word of says.split(' ')) {
    const last = lines[lines.length - 1];
    if (last && last.length + word.length >= most) lines.push(word);
    else lines[lines.length - 1] = last ? `${last} ${word}` : word;
  }
  return lines;
}
