'use client';

import { useEffect, useRef, useState } from 'react';
import { REASONS, REASON_NAMES, type Reason } from '../../core/extract/words';
import { counted, whole } from '../../core/handoff/words';
import type { Flag } from '../../core/flags/rule';
import { useSession } from '../../store/session';
import { EvidenceView, useEvidence } from './EvidenceView';
import {
  acceptUniverse,
  askArchive,
  declareMissing,
  isAboutCodes,
  isAboutRows,
  keepValid,
  mergeSpellings,
  setAside,
} from '../rulings/answers';

const NO_REASONS: ReadonlyMap<string, Reason> = new Map();

/** A flag, or several with one cause, with the evidence and the rulings that answer it. The buttons' `data-key` is the key that presses them where the card is current. @param near the evidence is asked for before it is shown, for what it says of reasons */
export function FlagCard({
  flags,
  says,
  current = false,
  included,
  near = false,
}: {
  flags: readonly Flag[];
  says?: string;
  current?: boolean;
  included?: readonly Flag[];
  near?: boolean;
}) {
  const [flag] = flags;
  const ruled = included ?? flags;
  const [said, setSaid] = useState<Reason | null>(null);
  const [why, setWhy] = useState('');
  const [asking, setAsking] = useState(false);
  const [open, setOpen] = useState(false);
  const [question, setQuestion] = useState('');
  const shown = open || current;
  const evidence = useEvidence(flag, shown || near);
  useEffect(() => {
    setAsking(false);
    setSaid(null);
    setWhy('');
  }, [flag.says]);
  // What has just been drawn moves the rulings down: they are to stay in sight.
  const card = useRef<HTMLElement>(null);
  useEffect(() => {
    if (current && evidence) card.current?.scrollIntoView({ block: 'nearest' });
  }, [current, evidence]);
  /** Back to where keys mean rulings. */
  const leave = (): void => card.current?.closest<HTMLElement>('.flaglist, .profile')?.focus();
  const codes = isAboutCodes(flag);
  // A reason that a person chooses holds for all codes; else each has the one that speaks from the evidence.
  const known = (said === null && evidence?.reasons) || NO_REASONS;
  const reasons = new Set(flag.codes.map((code) => known.get(code) ?? null));
  const [one] = reasons;
  const reason = flag.reason ?? said ?? (reasons.size === 1 ? one : null) ?? 'no-answer';
  const others =
    reasons.size > 1 ? flag.codes.filter((code) => known.has(code) && known.get(code) !== reason) : [];
  const reasonOf = (code: string): Reason => flag.reason ?? said ?? known.get(code) ?? reason;
  const rows = flags.flatMap(({ at = [] }) => at);
  const button = (
    key: string,
    says: React.ReactNode,
    act: () => Promise<void>,
    main = true,
  ): React.ReactNode => (
    <button
      type="button"
      data-key={key}
      className={`btn btn-sm ${main ? 'btn-primary' : 'btn-quiet'}`}
      onClick={() => void act()}
    >
      {says}
      {current && <kbd>{key}</kbd>}
    </button>
  );
  return (
    <section
      ref={card}
      className={`flagcard ${flag.severity}${current ? ' current' : ''}`}
      aria-label={`${flag.rule} on ${
        flags
          .slice(0, 5)
          .flatMap(({ variables }) => variables)
          .join(', ') || 'the rows'
      }${flag.codes.length ? `: ${flag.codes.slice(0, 4).join(', ')}` : ''}`}
    >
      <p className="mb-1">
        <strong>{says ?? flag.says}</strong>
      </p>
      <p className="soft mb-2">
        {flag.rule}, severity {flag.severity}, {Math.round(flag.certainty * 100)} of 100 sure
        {rows.length > 0 && !shown && (
          <>
            ; rows{' '}
            {rows.slice(0, 3).map((row) => (
              <button
                type="button"
                key={row}
                className="btn-bare"
                onClick={() => useSession.setState({ record: row })}
                aria-label={`Record card of row ${whole(row + 1)}`}
              >
                {whole(row + 1)}
              </button>
            ))}
            {rows.length > 3 && ` and ${whole(rows.length - 3)} more`}
          </>
        )}
        {!current && (
          <>
            {' '}
            <button type="button" className="btn-bare" aria-expanded={open} onClick={() => setOpen(!open)}>
              {open ? 'Hide the evidence' : 'Evidence'}
            </button>
          </>
        )}
      </p>
      {shown && evidence && <EvidenceView evidence={evidence} />}
      <div className="rulings">
        {codes && !flag.into && (
          <>
            {button(
              'm',
              <>
                Declare {flag.codes.length === 1 ? 'it' : 'them'} missing
                {ruled.length > 1 && ` in ${whole(ruled.length)}`}
              </>,
              () => declareMissing(ruled, reasonOf, why),
            )}
            {others.map((code) => (
              <span key={code}>
                <span className="code">{code}</span> as {REASON_NAMES[reasonOf(code)]},
              </span>
            ))}
            {flag.reason ? (
              <span>as {REASON_NAMES[flag.reason]}</span>
            ) : (
              <label>
                {others.length > 0 && 'the rest '}as{' '}
                <select
                  className="form-select form-select-sm"
                  value={reason}
                  onChange={(event) =>
                    setSaid(REASONS.find((known) => known === event.target.value) ?? 'other')
                  }
                >
                  {Object.entries(REASON_NAMES).map(([value, name]) => (
                    <option key={value} value={value}>
                      {name}
                    </option>
                  ))}
                </select>
              </label>
            )}
          </>
        )}
        {flag.into &&
          button(
            'b',
            <>
              Count {flag.codes.length === 1 ? 'it' : 'them'} for{' '}
              {[...new Set(Object.values(flag.into))]
                .slice(0, 2)
                .map((target) => `“${target}”`)
                .join(' and ')}
            </>,
            () => mergeSpellings(ruled, why),
          )}
        {isAboutRows(flag) &&
          button('b', <>Set {counted(rows.length, 'row')} aside</>, () => setAside(ruled, why))}
        {flag.universe && button('b', 'Take these blanks for not asked', () => acceptUniverse(ruled, why))}
        {button('v', codes ? 'Keep as valid' : 'Leave as it is', () => keepValid(ruled, why), false)}
        <button
          type="button"
          className="btn btn-quiet btn-sm"
          data-key="q"
          aria-expanded={asking}
          onClick={() => {
            setQuestion(`${flag.says}. What does it mean?`.replace(/^./, (letter) => letter.toUpperCase()));
            setAsking(!asking);
          }}
        >
          Ask the archive…{current && <kbd>q</kbd>}
        </button>
        {shown && (
          <label className="why">
            because{' '}
            <input
              type="text"
              className="form-control form-control-sm"
              value={why}
              placeholder="your reason, if you like"
              data-key="y"
              onChange={(event) => setWhy(event.target.value)}
              onKeyDown={(event) => {
                if (event.key !== 'Escape') return;
                event.stopPropagation();
                leave();
              }}
            />
            {current && <kbd>y</kbd>}
          </label>
        )}
      </div>
      {asking && (
        <form
          className="mt-2"
          onSubmit={(event) => {
            event.preventDefault();
            setAsking(false);
            leave();
            void askArchive(ruled, question, why);
          }}
        >
          <textarea
            className="form-control form-control-sm"
            rows={3}
            autoFocus
            aria-label="Question to the archive"
            value={question}
            onChange={(event) => setQuestion(event.target.value)}
            onKeyDown={(event) => {
              if (event.key === 'Escape') {
                event.stopPropagation();
                setAsking(false);
                leave();
              }
              if (event.key === 'Enter' && (event.ctrlKey || event.metaKey))
                event.currentTarget.form?.requestSubmit();
            }}
          />
          <button type="submit" className="btn btn-primary btn-sm mt-1" disabled={!question.trim()}>
            Write it down for the letter
          </button>
        </form>
      )}
    </section>
  );
}
