'use client';

import { useEffect, useRef, useState } from 'react';
import type { Reason } from '../../core/extract/words';
import { whole } from '../../core/handoff/words';
import type { Flag } from '../../core/flags/rule';
import { lookAtRows, useSession } from '../../store/session';
import { addCondition } from '../../store/sieve';
import { EvidenceView, useEvidence } from './EvidenceView';
import { askArchive, isAboutCodes } from '../rulings/answers';
import { AskForm } from './AskForm';
import { FlagRulings } from './FlagRulings';

/** The rows of a flag in the record table, and a condition that keeps or drops them. */
function FlagRows({ flag }: { flag: Flag }) {
  const [variable] = flag.variables;
  const byCode = flag.codes.length > 0 && variable !== undefined && isAboutCodes(flag);
  const condition = { variable, codes: [...flag.codes] };
  return (
    <>
      <button
        type="button"
        className="btn-bare"
        onClick={() =>
          lookAtRows({
            which: 'flag',
            flag: { rule: flag.rule, variables: flag.variables, codes: flag.codes },
            ...(variable === undefined ? {} : { column: variable }),
          })
        }
      >
        Look at its rows
      </button>
      {byCode && (
        <>
          ; sieve:{' '}
          <button type="button" className="btn-bare" onClick={() => addCondition({ not: condition })}>
            without them
          </button>
          ,{' '}
          <button type="button" className="btn-bare" onClick={() => addCondition(condition)}>
            only them
          </button>
        </>
      )}
    </>
  );
}

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
  const rows = flags.flatMap(({ at = [] }) => at);
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
        {(flag.codes.length > 0 || rows.length > 0) && (
          <>
            {' '}
            <FlagRows flag={flag} />
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
      <FlagRulings
        flags={flags}
        ruled={ruled}
        current={current}
        shown={shown}
        evidence={evidence}
        said={said}
        say={setSaid}
        why={why}
        setWhy={setWhy}
        asking={asking}
        ask={() => setAsking(!asking)}
        leave={leave}
      />
      {asking && (
        <AskForm
          first={`${flag.says}. What does it mean?`.replace(/^./, (letter) => letter.toUpperCase())}
          leave={() => {
            setAsking(false);
            leave();
          }}
          take={(question) => {
            setAsking(false);
            leave();
            void askArchive(ruled, question, why);
          }}
        />
      )}
    </section>
  );
}
