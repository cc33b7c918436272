'use client';

import { useState } from 'react';
import { whole } from '../../core/handoff/words';
import type { Look } from '../../core/read/look';

/** So many of the first rows, where the last ones are shown too. */
const FIRST = 7;

/** So many columns are shown at once: drawing thousands of them takes longer than looking at the file. */
const MOST_COLUMNS = 120;

/** The first and the last rows of a file as they would be read, before they are. */
export function FirstRows({ look, columns }: { look: Look; columns: readonly string[] }) {
  const [all, setAll] = useState<string | null>(null);
  const names = all === look.name ? look.names : look.names.slice(0, MOST_COLUMNS);
  const more = look.names.length - names.length;
  const beyond = [...look.rows, ...look.last].some((row) => row.length > look.names.length);
  const line = (row: string[], n: string) => (
    <tr key={n}>
      <td className="n soft">{n}</td>
      {names.map((_, c) => (
        <td key={c}>{row[c] ?? ''}</td>
      ))}
      {more > 0 && <td className="soft">…</td>}
      {beyond && <td className="beyond">{row.slice(look.names.length).join(' | ')}</td>}
    </tr>
  );
  return (
    <div className="firstrows" tabIndex={0} role="region" aria-label={`First and last rows of ${look.name}`}>
      <table>
        <thead>
          <tr>
            <th scope="col" className="n">
              Row
            </th>
            {names.map((name, i) => (
              <th scope="col" key={i}>
                {name}
                <small>{columns[i]}</small>
              </th>
            ))}
            {more > 0 && (
              <th scope="col">
                <button type="button" className="btn btn-quiet btn-sm" onClick={() => setAll(look.name)}>
                  Show {whole(more)} more
                </button>
              </th>
            )}
            {beyond && (
              <th scope="col" className="beyond">
                beyond the last name, not read
              </th>
            )}
          </tr>
        </thead>
        <tbody>
          {look.rows.slice(0, look.last.length ? FIRST : FIRST + 4).map((row, i) => line(row, whole(i + 1)))}
          {look.last.length > 0 && (
            <tr className="between">
              <td colSpan={names.length + (more ? 1 : 0) + (beyond ? 2 : 1)}>
                the last {look.last.length === 1 ? 'row' : `${look.last.length} rows`}:
              </td>
            </tr>
          )}
          {look.last.map((row, i) =>
            line(
              row,
              look.all === null
                ? `last${i < look.last.length - 1 ? ` −${look.last.length - 1 - i}` : ''}`
                : whole(look.all - look.last.length + i + 1),
            ),
          )}
        </tbody>
      </table>
    </div>
  );
}
