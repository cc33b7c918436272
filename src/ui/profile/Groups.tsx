'use client';

import { useState } from 'react';
import { isCategorical, isMeasure } from '../../core/extract/words';
import { figure, percent, whole } from '../../core/handoff/words';
import { useAnswer } from '../asking/useAnswer';
import type { Grouped } from '../../core/inspect/together';
import { useSession } from '../../store/session';
import { useInView } from '../sets/useInView';
import { CopyButton } from './CopyButton';
import { useDigits } from './Figures';

const FILES = '\u0000files';
/** More levels than this are no groups. */
const MOST_LEVELS = 60;

/** The summary of a variable by wave, or within the levels of another one. */
export function Groups({ name }: { name: string }) {
  const { opened, summaries } = useSession();
  const { inside, outside } = useInView();
  const [by, setBy] = useState('');
  const { value: grouped } = useAnswer('grouped', by === '' ? null : [name, by === FILES ? null : by]);
  const one = summaries.find((summary) => summary.name === name);
  if (!opened || !one || (!isCategorical(one.kind) && !isMeasure(one.kind))) return null;
  const many = opened.files.length > 1;
  const levels = inside.filter(
    (other) =>
      other.name !== name &&
      isCategorical(other.kind) &&
      other.counts.distinct > 1 &&
      other.counts.distinct <= MOST_LEVELS,
  );
  return (
    <section aria-label="By group">
      <h3>
        <label>
          By{' '}
          <select
            className="form-select form-select-sm groupby"
            value={by}
            onChange={(event) => setBy(event.target.value)}
          >
            <option value="">no group</option>
            {many && <option value={FILES}>wave or file</option>}
            {levels.map((other) => (
              <option key={other.name} value={other.name}>
                {other.name}
                {other.label ? `  ${other.label}` : ''}
              </option>
            ))}
          </select>
        </label>{' '}
        {outside > 0 && <span className="soft small">of those in view </span>}
        {grouped && grouped.groups.length > 0 && <CopyButton what="the summary by group" />}
      </h3>
      {grouped && <GroupTable grouped={grouped} />}
    </section>
  );
}

function GroupTable({ grouped: { groups, codes, kind, why, by, more, weight } }: { grouped: Grouped }) {
  const digits = Math.min(5, useDigits());
  if (why) return <p className="soft">{why}.</p>;
  return (
    <div className="groupscroll" tabIndex={0} role="region" aria-label={`Summary by ${by}`}>
      <table className="grounds">
        <thead>
          <tr>
            <th scope="col">{by === 'file' ? 'Wave' : by}</th>
            <th scope="col" className="n">
              Rows
            </th>
            <th scope="col" className="n">
              Valid
            </th>
            {isMeasure(kind)
              ? ['Mean', 'SD', 'Lowest', 'Quartile', 'Median', 'Quartile', 'Highest'].map((head, i) => (
                  <th scope="col" className="n" key={i}>
                    {head}
                  </th>
                ))
              : codes.map(({ code, label }) => (
                  <th scope="col" className="n" key={code} title={label ?? undefined}>
                    {code}
                    {label && <small>{label}</small>}
                  </th>
                ))}
          </tr>
        </thead>
        <tbody>
          {groups.map((group) => (
            <tr key={group.code}>
              <th scope="row">
                <span className="code">{group.code}</span> {group.label}
              </th>
              <td className="n">{whole(group.rows)}</td>
              <td className="n">{whole(group.valid)}</td>
              {isMeasure(kind)
                ? [group.mean, group.sd, group.min, group.q1, group.median, group.q3, group.max].map(
                    (value, i) => (
                      <td className="n" key={i}>
                        {value === null ? '–' : figure(value, digits)}
                      </td>
                    ),
                  )
                : group.counts.map((count, i) => (
                    <td
                      className="n"
                      key={i}
                      title={`${whole(count)} ${weight === null ? 'rows' : 'weighted'}`}
                    >
                      {group.base ? percent(count / group.base) : '–'}
                    </td>
                  ))}
            </tr>
          ))}
        </tbody>
      </table>
      {weight !== null && isMeasure(kind) && (
        <p className="soft small mb-0">Weighted by {weight}; rows and valid are numbers of rows.</p>
      )}
      {!isMeasure(kind) && (
        <p className="soft small mb-0">
          Shares of the valid rows of each group{weight !== null && `, weighted by ${weight}`}.
          {more > 0 && ` ${whole(more)} more groups are not shown.`}
        </p>
      )}
    </div>
  );
}
