'use client';

import { memo } from 'react';
import { percent, whole } from '../../core/handoff/words';
import type { Summary } from '../../core/inspect/summary';
import { useSession } from '../../store/session';
import type { ColumnKey } from './columns';
import { FlagMark, KindMark, MakeUp, Sketch } from './Marks';
import type { Progress } from './rows';

interface Props {
  summary: Summary;
  /** The name that a person gave, if one did. */
  called: string | null;
  noted: boolean;
  progress: Progress;
  index: number;
  top: number;
  current: boolean;
  chosen: boolean;
  flags: number;
  /** Names of the sets that it stands in. */
  sets: readonly string[];
  /** Not in view, and listed all the same. */
  out: boolean;
  /** Its numbers are of other rows than those that count now: they are not shown. */
  stale: boolean;
  /** The first of a group, where the list is grouped by set. */
  heads: boolean;
  columns: readonly ColumnKey[];
  template: string;
  toggle: (name: string) => void;
}

/** Columns that say something of the rows that count. */
const COUNTED: ReadonlySet<ColumnKey> = new Set(['values', 'distinct', 'valid', 'sketch', 'flags']);
const STANDING: Record<Progress, string> = { unseen: '○', seen: '◐', 'signed off': '●' };

export const LedgerRow = memo(function LedgerRow({
  summary,
  called,
  noted,
  progress,
  index,
  top,
  current,
  chosen,
  flags,
  sets,
  out,
  stale,
  heads,
  columns,
  template,
  toggle,
}: Props) {
  const { name, label, position, kind, confirmed, counts, storage, role, archiveLabel } = summary;
  const cell = (key: ColumnKey) => {
    if (stale && COUNTED.has(key))
      return (
        <div role="gridcell" key={key} className={`cell-${key} stale`} title="being counted">
          …
        </div>
      );
    switch (key) {
      case 'position':
        return (
          <div role="gridcell" key={key} className="cell-position n soft">
            {position}
          </div>
        );
      case 'name':
        return (
          <div
            role="gridcell"
            key={key}
            className="cell-name code"
            title={called ? `${called}, in the archive ${name}` : name}
          >
            {called ?? name}
            {called && <span className="soft"> {name}</span>}
          </div>
        );
      case 'label':
        return (
          <div
            role="gridcell"
            key={key}
            className="cell-label"
            title={label ? `${label}${archiveLabel ? ` (the archive’s: ${archiveLabel})` : ''}` : 'no label'}
          >
            {out && <span className="soft">out of view </span>}
            {summary.trial !== null && <span className="soft">on trial, of {summary.trial} </span>}
            {noted && (
              <span title="There is a note" aria-label="noted" role="img">
                ✎{' '}
              </span>
            )}
            {label ?? <span className="soft">no label</span>}
          </div>
        );
      case 'values':
        return <Values key={key} summary={summary} />;
      case 'kind':
        return (
          <div role="gridcell" key={key} className="cell-kind">
            <KindMark kind={kind} confirmed={confirmed} />
          </div>
        );
      case 'role':
        return (
          <div role="gridcell" key={key}>
            {role}
          </div>
        );
      case 'storage':
        return (
          <div role="gridcell" key={key}>
            {storage}
          </div>
        );
      case 'distinct':
        return (
          <div
            role="gridcell"
            key={key}
            className="cell-distinct n"
            title={summary.estimated ? 'an estimate' : undefined}
          >
            {`${summary.estimated ? '≈ ' : ''}${whole(counts.distinct)}`}
          </div>
        );
      case 'valid':
        return (
          <div role="gridcell" key={key} className="cell-valid">
            <MakeUp counts={counts} />
          </div>
        );
      case 'sketch':
        return (
          <div role="gridcell" key={key} className="cell-sketch">
            <Drawn summary={summary} />
          </div>
        );
      case 'sets':
        return (
          <div role="gridcell" key={key} className="cell-sets" title={sets.join(', ') || undefined}>
            {sets.join(', ')}
          </div>
        );
      case 'flags':
        return (
          <div role="gridcell" key={key} className="cell-flags">
            {flags > 0 && <FlagMark number={flags} />}
          </div>
        );
      case 'standing':
        return <ProgressCell key={key} progress={progress} />;
    }
  };
  return (
    <div
      role="row"
      id={`row-${position}`}
      aria-rowindex={index + 2}
      aria-selected={chosen}
      className={`ledgerrow${current ? ' current' : ''}${chosen ? ' chosen' : ''}${out ? ' outofview' : ''}${heads ? ' heads' : ''}`}
      style={{ transform: `translateY(${top}px)`, gridTemplateColumns: template }}
      onClick={() => useSession.setState({ current: name })}
      data-name={name}
    >
      <div
        role="gridcell"
        className="cell-choose"
        onClick={(event) => {
          event.stopPropagation();
          toggle(name);
        }}
      >
        <span className="pick" aria-hidden="true">
          {chosen ? '✓' : ''}
        </span>
        <span className="visually-hidden">{chosen ? 'chosen' : 'not chosen'}</span>
      </div>
      {columns.map(cell)}
    </div>
  );
});

function ProgressCell({ progress }: { progress: Progress }) {
  return (
    <div
      role="gridcell"
      className={`cell-standing ${progress === 'signed off' ? 'done' : 'soft'}`}
      title={progress}
    >
      <span aria-hidden="true">{STANDING[progress]}</span>
      <span className="visually-hidden">{progress}</span>
    </div>
  );
}

/** Where quantities begin and end, and the most frequent values. */
function Values({ summary: { values, span, counts } }: { summary: Summary }) {
  const often = span ? values.filter(({ share }) => share >= OFTEN) : values;
  const all = [
    ...(span ? [`${span.from} to ${span.to}`] : []),
    ...often.map(({ code, share }) => `${code}: ${percent(share)} of valid rows`),
  ];
  return (
    <div role="gridcell" className="cell-values" title={all.join('\n') || undefined}>
      {span && (
        <span className="value">
          <span className="code">{span.from}</span> to <span className="code">{span.to}</span>
        </span>
      )}
      {often.map(({ code, share }) => (
        <span key={code} className="value">
          <span className="code">{code}</span> <span className="soft">{percent(share)}</span>
        </span>
      ))}
      {all.length === 0 && <span className="soft">{counts.valid === 0 ? 'nothing' : 'no two alike'}</span>}
    </div>
  );
}
/** A value of a quantity that so many rows hold is worth a word. */
const OFTEN = 0.05;

/** The distribution in small, or in a word. */
function Drawn({ summary: { sketch, counts, kind, estimated } }: { summary: Summary }) {
  return (
    <>
      {sketch ? (
        <Sketch sketch={sketch} />
      ) : (
        <span className="soft small">
          {counts.valid === 0
            ? 'nothing'
            : counts.distinct === counts.valid
              ? 'no two alike'
              : kind === 'identifier'
                ? `${estimated ? 'about ' : ''}${(counts.valid / counts.distinct).toFixed(1)} rows each`
                : 'words'}
        </span>
      )}
    </>
  );
}
