import { escapeHtml } from './words';

/** How the figures of a report and a codebook are defined, in a line each; at length in docs/definitions.md. */
export const DEFINITIONS: readonly (readonly [figure: string, definition: string])[] = [
  ['of all, of asked, of valid', 'n ÷ all rows; n ÷ (all − not asked); n ÷ rows with a valid answer'],
  ['distinct', 'different valid values, numbers by value'],
  ['SD', 'divisor n − 1'],
  [
    'quartiles, median',
    'type 7 of Hyndman & Fan (1996); of ordered categories type 1, which is always one of them',
  ],
  [
    'skewness, kurtosis',
    'adjusted Fisher–Pearson; kurtosis is the excess over a normal distribution (Joanes & Gill 1998)',
  ],
  ['weighted figures', 'weights scaled to mean 1; a blank or negative weight leaves its row out'],
  ['stands out', 'an adjusted residual beyond ±3 (Haberman 1973)'],
  ['V', 'Cramér’s V, √(χ² ÷ (n·(min(lines, columns) − 1)))'],
];

/** The same as the last part of a document. */
export const definitionsHtml = (): string =>
  `<h2 id="definitions">How figures are defined</h2><dl class="soft">${DEFINITIONS.map(
    ([figure, definition]) => `<dt>${escapeHtml(figure)}</dt><dd>${escapeHtml(definition)}</dd>`,
  ).join('')}</dl>`;
