'use client';

import { percent, whole } from '../../core/handoff/words';
import type { Recodable, RecodePreview } from '../../core/inspect/recoding';

const MOST_COLUMNS = 10;

/** Before and after side by side: for each stretch of the source the rows that come into each code, and those that come into none. */
export function BeforeAfter({ about, preview }: { about: Recodable; preview: RecodePreview }) {
  const { cells, codes, none, unanswered } = preview;
  const shown = codes.slice(0, MOST_COLUMNS);
  const most = Math.max(1, ...cells.flatMap(({ rows, none: out }) => [...rows, out]));
  return (
    <section className="beforeafter" aria-label="Before and after">
      <p className="mb-1">
        {none > 0 ? (
          <strong>
            {whole(none)} of {whole(about.valid)} valid rows ({percent(none / Math.max(1, about.valid))}) are
            in none
          </strong>
        ) : (
          <>All {whole(about.valid)} valid rows are in one.</>
        )}
        {unanswered > 0 && (
          <span className="soft"> {whole(unanswered)} without a valid answer stay without one.</span>
        )}
      </p>
      <div className="beforeafterscroll" tabIndex={0} role="region" aria-label="Rows before and after">
        <table className="grounds">
          <thead>
            <tr>
              <th scope="col">
                <span className="code">{about.name}</span> <span className="soft">becomes</span>
              </th>
              {shown.map(({ code, label }) => (
                <th scope="col" className="n" key={code} title={label ?? undefined}>
                  <span className="code">{code}</span>
                  {label && <small>{label}</small>}
                </th>
              ))}
              {none > 0 && (
                <th scope="col" className="n">
                  none
                </th>
              )}
            </tr>
          </thead>
          <tbody>
            {cells.map(({ says, rows, none: out }) => (
              <tr key={says}>
                <th scope="row">{says}</th>
                {shown.map(({ code }, i) => (
                  <td
                    key={code}
                    className="n share"
                    style={{ '--share': rows[i] / most } as React.CSSProperties}
                  >
                    {rows[i] > 0 ? whole(rows[i]) : <span className="soft">·</span>}
                  </td>
                ))}
                {none > 0 && (
                  <td className="n">
                    {out > 0 ? <strong>{whole(out)}</strong> : <span className="soft">·</span>}
                  </td>
                )}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {codes.length > shown.length && (
        <p className="soft small mb-0">{whole(codes.length - shown.length)} more codes are not shown here.</p>
      )}
    </section>
  );
}
