'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { counted, whole } from '../../core/handoff/words';
import type { Pattern } from '../../core/flags/patterns';
import type { Flag } from '../../core/flags/rule';
import type { Entry } from '../../core/log/entries';
import { inForce } from '../../core/log/fold';
import { flagKey } from '../../store/decisions';
import { useSession, useParts } from '../../store/session';
import { isTyping } from '../keys/keys';
import { press, type Pressed } from '../keys/table';
import { Problem } from '../frame/Problem';
import { ProfilePane } from '../profile/ProfilePane';
import { StandingRules } from '../rulings/StandingRules';
import { FlagCard } from './FlagCard';
import { Members } from './Members';
import { ORDERS, patternsInView, type Order } from './patternsInView';
import { Remarks } from './Remarks';
import { Ruled } from './Ruled';

const RULINGS: ReadonlySet<Entry['type']> = new Set([
  'declare-missing',
  'keep-valid',
  'merge-codes',
  'set-aside',
  'count-again',
  'accept-universe',
  'ask-archive',
  'confirm-role',
] as const);

const useFlagsParts = () =>
  useParts(
    'flags',
    'flagsStale',
    'counts',
    'answered',
    'log',
    'summaries',
    'state',
    'wide',
    'standing',
    'asking',
  );

/** What looks wrong, by pattern, each with its rulings; what was ruled stays listed and can be taken back. */
export function Flags() {
  const {
    flags: found,
    flagsStale,
    counts,
    answered,
    log,
    summaries,
    state,
    wide,
    standing,
    asking,
  } = useFlagsParts();
  // Flags of other rows than those that count now are none of theirs.
  const flags = useMemo(
    () => (flagsStale ? [] : found.filter((flag) => !answered.has(flagKey(flag)))),
    [found, answered, flagsStale],
  );
  const [order, setOrder] = useState<Order>('pattern');
  const [at, setAt] = useState(0);
  const [excepted, setExcepted] = useState<ReadonlySet<string>>(new Set());
  const list = useRef<HTMLDivElement>(null);
  const { open, remarks, elsewhere } = useMemo(
    () => patternsInView(flags, summaries, state, order),
    [flags, summaries, state, order],
  );
  const here = Math.min(at, open.length - 1);
  const current: Pattern | undefined = open[here];
  const included = (pattern: Pattern): Flag[] =>
    pattern.flags.filter(({ variables }) => !excepted.has(`${pattern.key} ${variables[0]}`));
  const rulings = inForce(log).filter(({ type }) => RULINGS.has(type));
  const all = open.reduce((sum, pattern) => sum + pattern.flags.length, 0);
  useEffect(() => {
    if (!wide) list.current?.focus();
  }, [wide]);
  useEffect(
    () => void list.current?.querySelector('.flagcard.current')?.scrollIntoView({ block: 'nearest' }),
    [here, open.length],
  );
  const first = current?.flags[0].variables[0];
  useEffect(() => {
    if (first) useSession.setState({ current: first });
  }, [first]);
  /** A key presses the button of the current card that it stands on. */
  const pressCard = ({ key }: Pressed): boolean => {
    const button =
      current && list.current?.querySelector<HTMLElement>(`.flagcard.current [data-key="${key}"]`);
    if (!button) return false;
    if (button.tagName === 'INPUT') button.focus();
    else button.click();
    return true;
  };
  const go = (to: number): boolean | void =>
    current ? setAt(Math.max(0, Math.min(open.length - 1, to))) : false;
  const onKey = (event: React.KeyboardEvent): void => {
    if (isTyping(event)) return;
    const meant = press('flags', event.nativeEvent, {
      standing: () => useSession.setState({ asking: 'standing' }),
      nextPattern: () => go(here + 1),
      previousPattern: () => go(here - 1),
      profileOfFlag: () => {
        if (!current || event.target !== event.currentTarget) return false;
        document.getElementById('profile')?.focus();
      },
      missing: pressCard,
      mend: pressCard,
      keep: pressCard,
      ask: pressCard,
      reason: pressCard,
    });
    if (meant) event.preventDefault();
  };
  return (
    <>
      <div
        className="sheet flaglist"
        hidden={wide}
        ref={list}
        tabIndex={0}
        onKeyDown={onKey}
        role="region"
        aria-label="Flags"
      >
        <Problem />
        <h2>
          {flagsStale
            ? `Looking for suspicious codes in ${counted(counts.kept, 'row')}…`
            : all
              ? `${counted(all, 'flag')} to rule on${open.length < all ? ` in ${counted(open.length, 'pattern')}` : ''}`
              : 'Nothing to rule on'}
          {rulings.length > 0 && <span className="soft fs-6"> {counted(rulings.length, 'ruling')} made</span>}
        </h2>
        <p className="soft">
          {all ? (
            <>
              Each says which codes, how many of the rows, and why. <kbd>↑</kbd> <kbd>↓</kbd> go through them,{' '}
              <kbd>m</kbd> declares missing, <kbd>b</kbd> mends, <kbd>v</kbd> keeps, <kbd>q</kbd> asks the
              archive. The data are not changed.
            </>
          ) : (
            'No code looks suspicious in the variables in view, or every flag has its ruling.'
          )}
          {elsewhere > 0 && ` ${counted(elsewhere, 'flag')} more on variables that are not in view.`}
        </p>
        <p className="doings">
          <button
            type="button"
            className="btn btn-quiet btn-sm"
            onClick={() => useSession.setState({ asking: 'standing' })}
          >
            Standing rules{standing.length > 0 && ` (${whole(standing.length)})`}… <kbd>s</kbd>
          </button>
          {open.length > 1 && <OrderPick order={order} pick={(wished) => (setOrder(wished), setAt(0))} />}
        </p>
        {open.map((pattern, i) => (
          <div key={pattern.key} onClick={() => setAt(i)} className="flagrow">
            <PatternHead
              pattern={pattern}
              excepted={excepted}
              toggle={(name) =>
                setExcepted((now) => {
                  const next = new Set(now);
                  if (!next.delete(`${pattern.key} ${name}`)) next.add(`${pattern.key} ${name}`);
                  return next;
                })
              }
            />
            <FlagCard
              flags={pattern.flags}
              says={pattern.says}
              current={i === here}
              included={included(pattern)}
            />
          </div>
        ))}
        <Remarks remarks={remarks} />
        <Ruled rulings={rulings} />
      </div>
      <StandingRules
        shown={asking === 'standing'}
        close={() => {
          useSession.setState({ asking: null });
          list.current?.focus();
        }}
      />
      {current && first && <ProfilePane name={first} bare />}
    </>
  );
}

function OrderPick({ order, pick }: { order: Order; pick: (order: Order) => void }) {
  return (
    <label>
      In order of{' '}
      <select
        className="form-select form-select-sm d-inline-block w-auto"
        value={order}
        onChange={(event) => pick(event.target.value as Order)}
      >
        {Object.entries(ORDERS).map(([key, name]) => (
          <option key={key} value={key}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}

/** What a pattern is about: one variable, or several of which any can be excepted. */
function PatternHead({
  pattern,
  excepted,
  toggle,
}: {
  pattern: Pattern;
  excepted: ReadonlySet<string>;
  toggle: (name: string) => void;
}) {
  const summaries = useSession((session) => session.summaries);
  return (
    <>
      {pattern.flags.length === 1 ? (
        <p className="mb-0">
          {pattern.flags[0].variables.length ? (
            <span className="code">{pattern.flags[0].variables.join(', ')}</span>
          ) : (
            'Rows and files'
          )}{' '}
          <span className="soft">
            {summaries.find(({ name }) => name === pattern.flags[0].variables[0])?.label}
          </span>
        </p>
      ) : (
        <Members pattern={pattern} excepted={excepted} toggle={toggle} />
      )}
    </>
  );
}
