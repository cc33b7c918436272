'use client';

import { useState } from 'react';
import { isCategorical, isMeasure } from '../../core/extract/words';
import { figure, percent, whole } from '../../core/handoff/words';
import { useAnswer } from '../asking/useAnswer';
import type { Group, Grouped } from '../../core/inspect/grouped';
import { useParts } from '../../store/session';
import { Box, fiveOf, scaleOf } from '../drawn/Box';
import { Stem } from '../drawn/Stem';
import { useInView } from '../sets/useInView';
import { CopyButton } from '../drawn/CopyButton';
import { useDigits } from './Figures';

const FILES = '\u0000files';
/** More levels than this are no groups. */
const MOST_LEVELS = 60;

/** The summary of a variable by wave, or within the levels of another one. */
export function Groups({ name }: { name: string }) {
  const { opened, summaries } = useParts('opened', 'summaries');
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

function GroupTable({ grouped }: { grouped: Grouped }) {
  const { groups, codes, kind, why, by, more, moreCodes, weight } = grouped;
  const digits = Math.min(5, useDigits());
  if (why) return <p className="soft">{why}.</p>;
  const measure = isMeasure(kind);
  const scale = scaleOf(groups.map(({ summary }) => fiveOf(summary)));
  return (
    <>
      <div className="groupscroll" tabIndex={0} role="region" aria-label={`Summary by ${by}`}>
        <table className="grounds">
          <thead>
            <tr>
              <th scope="col">{by === 'file' ? 'Wave' : by}</th>
              {measure && (
                <th scope="col" className="boxed">
                  {figure(scale[0], digits)} to {figure(scale[1], digits)}
                </th>
              )}
              <th scope="col" className="n">
                Rows
              </th>
              <th scope="col" className="n">
                Valid
              </th>
              {measure
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
              <GroupLine key={group.code} group={group} scale={scale} digits={digits} weight={weight} />
            ))}
          </tbody>
        </table>
        {weight !== null && measure && (
          <p className="soft small mb-0">Weighted by {weight}; rows and valid are numbers of rows.</p>
        )}
        {!measure && (
          <p className="soft small mb-0">
            Shares of the valid rows of each group{weight !== null && `, weighted by ${weight}`}.
            {moreCodes > 0 && ` ${whole(moreCodes)} more codes are not shown.`}
          </p>
        )}
        {more > 0 && <p className="soft small mb-0">{whole(more)} more groups are not shown.</p>}
      </div>
      {groups.map(
        ({ code, label, stem }) =>
          stem && <Stem key={code} stem={stem} of={`${code}${label ? ` ${label}` : ''}`} />,
      )}
    </>
  );
}

function GroupLine({
  group,
  scale,
  digits,
  weight,
}: {
  group: Group;
  scale: readonly [number, number];
  digits: number;
  weight: string | null;
}) {
  const { summary } = group;
  const five = fiveOf(summary);
  return (
    <tr>
      <th scope="row">
        <span className="code">{group.code}</span> {group.label}
      </th>
      {summary && <td className="boxed">{five && <Box five={five} scale={scale} small />}</td>}
      <td className="n">{whole(group.rows)}</td>
      <td className="n">{whole(group.valid)}</td>
      {summary
        ? [summary.mean, summary.sd, summary.min, summary.q1, summary.median, summary.q3, summary.max].map(
            (value, i) => (
              <td className="n" key={i}>
                {value === null ? '–' : figure(value, digits)}
              </td>
            ),
          )
        : group.counts.map((count, i) => (
            <td className="n" key={i} title={`${whole(count)} ${weight === null ? 'rows' : 'weighted'}`}>
              {group.base ? percent(count / group.base) : '–'}
            </td>
          ))}
    </tr>
  );
}
