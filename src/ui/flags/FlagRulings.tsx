'use client';

import { REASONS, REASON_NAMES, type Reason } from '../../core/extract/words';
import type { Flag } from '../../core/flags/rule';
import { counted, whole } from '../../core/handoff/words';
import type { Evidence } from '../../core/inspect/evidence';
import {
  acceptUniverse,
  declareMissing,
  isAboutCodes,
  isAboutRows,
  keepValid,
  mergeSpellings,
  setAside,
} from '../rulings/answers';

const NO_REASONS: ReadonlyMap<string, Reason> = new Map();

/** Rows of flags, each once, as far as they are told; of more than are told, their number. */
const countedRows = (flags: readonly Flag[]): number =>
  flags.some(({ atAll }) => atAll !== undefined)
    ? flags.reduce((sum, { at = [], atAll = at.length }) => sum + atAll, 0)
    : new Set(flags.flatMap(({ at = [] }) => at)).size;

/** The rulings that answer a flag. The buttons' `data-key` is the key that presses them where the card is current. */
export function FlagRulings({
  flags,
  ruled,
  current,
  shown,
  evidence,
  said,
  say,
  why,
  setWhy,
  asking,
  ask,
  leave,
}: {
  flags: readonly Flag[];
  /** Those of them that a ruling is about. */
  ruled: readonly Flag[];
  current: boolean;
  shown: boolean;
  evidence: Evidence | null;
  /** The reason that the person chose. */
  said: Reason | null;
  say: (reason: Reason) => void;
  why: string;
  setWhy: (why: string) => void;
  asking: boolean;
  ask: () => void;
  leave: () => void;
}) {
  const [flag] = flags;
  const codes = isAboutCodes(flag);
  // A reason that a person chooses holds for all codes; else each has the one that speaks from the evidence.
  const known = (said === null && evidence?.reasons) || NO_REASONS;
  const reasons = new Set(flag.codes.map((code) => known.get(code) ?? null));
  const [one] = reasons;
  const reason = flag.reason ?? said ?? (reasons.size === 1 ? one : null) ?? 'no-answer';
  const others =
    reasons.size > 1 ? flag.codes.filter((code) => known.has(code) && known.get(code) !== reason) : [];
  const reasonOf = (code: string): Reason => flag.reason ?? said ?? known.get(code) ?? reason;
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
                onChange={(event) => say(REASONS.find((known) => known === event.target.value) ?? 'other')}
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
        button('b', <>Set {counted(countedRows(ruled), 'row')} aside</>, () => setAside(ruled, why))}
      {flag.universe && button('b', 'Take these blanks for not asked', () => acceptUniverse(ruled, why))}
      {button('v', codes ? 'Keep as valid' : 'Leave as it is', () => keepValid(ruled, why), false)}
      <button
        type="button"
        className="btn btn-quiet btn-sm"
        data-key="q"
        aria-expanded={asking}
        onClick={ask}
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
  );
}
