'use client';

import { escapeHtml } from '../../core/handoff/words';

/** A cell of a table that is copied. */
export interface CopiedCell {
  text: string;
  head: boolean;
}

/**
 * Puts a table on the clipboard: as a table for a word processor, and as tab-separated text for anything else.
 * @returns whether the browser let it
 */
export const copyTable = (table: HTMLTableElement): Promise<boolean> =>
  copyCells(
    [...table.rows].map((row) =>
      [...row.cells].map((cell) => ({
        text: (cell.textContent ?? '').replace(/\s+/g, ' ').trim(),
        head: cell.tagName === 'TH',
      })),
    ),
  );

export async function copyCells(rows: readonly (readonly CopiedCell[])[]): Promise<boolean> {
  const html = `<table>${rows.map((row) => `<tr>${row.map(({ text, head }) => `<${head ? 'th' : 'td'}>${escapeHtml(text)}</${head ? 'th' : 'td'}>`).join('')}</tr>`).join('')}</table>`;
  const plain = rows
    .map((row) => row.map(({ text }) => text.replace(/[\t\r\n]+/g, ' ')).join('\t'))
    .join('\n');
  try {
    await navigator.clipboard.write([
      new ClipboardItem({
        'text/html': new Blob([html], { type: 'text/html' }),
        'text/plain': new Blob([plain], { type: 'text/plain' }),
      }),
    ]);
    return true;
  } catch {
    return navigator.clipboard.writeText(plain).then(
      () => true,
      () => false,
    );
  }
}

/** An SVG as a PNG, twice as fine as the screen. @throws where the browser cannot draw it */
export async function pngOf(svg: string): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = image.width * 2;
  canvas.height = image.height * 2;
  const context = canvas.getContext('2d');
  if (!context) throw new Error('the browser does not draw');
  context.fillStyle = '#ffffff';
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) =>
    canvas.toBlob(
      (blob) => (blob ? resolve(blob) : reject(new Error('the browser made no picture'))),
      'image/png',
    ),
  );
}
