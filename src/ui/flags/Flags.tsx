'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import { counted, whole } from '../../core/handoff/words';
import { patternsOf, type Pattern } from '../../core/flags/patterns';
import type { Flag } from '../../core/flags/rule';
import { entryText, type Entry } from '../../core/log/entries';
import { inForce } from '../../core/log/fold';
import { inView } from '../../core/sets/view';
import { flagKey, undo } from '../../store/decisions';
import { useSession } from '../../store/session';
import { isTyping } from '../frame/keys';
import { Problem } from '../frame/Problem';
import { ProfilePane } from '../profile/ProfilePane';
import { StandingRules } from '../rulings/StandingRules';
import { FlagCard } from './FlagCard';

const RULINGS: ReadonlySet<Entry['type']> = new Set([
  'declare-missing',
  'keep-valid',
  'merge-codes',
  'set-aside',
  'accept-universe',
  'ask-archive',
  'confirm-role',
] as const);
type Order = 'pattern' | 'variable' | 'rule';
const ORDERS: Record<Order, string> = { pattern: 'the gravest first', variable: 'variable', rule: 'rule' };

/** What looks wrong, by pattern, each with its rulings; what was ruled stays listed and can be taken back. */
export function Flags() {
  const { flags: found, answered, log, summaries, state, wide, standing, asking } = useSession();
  const flags = useMemo(() => found.filter((flag) => !answered.has(flagKey(flag))), [found, answered]);
  const [order, setOrder] = useState<Order>('pattern');
  const [at, setAt] = useState(0);
  const [excepted, setExcepted] = useState<ReadonlySet<string>>(new Set());
  const list = useRef<HTMLDivElement>(null);
  const { open, remarks, elsewhere } = useMemo(() => {
    const shown = new Set(
      inView(
        summaries.map(({ name }) => name),
        state.sets.values(),
        state.shown,
      ),
    );
    const inScope = flags.filter(
      ({ variables }) => variables.length === 0 || variables.some((name) => shown.has(name)),
    );
    const codeLists = new Map(summaries.map(({ name, codeList }) => [name, codeList]));
    const patterns = patternsOf(
      inScope.filter(({ severity }) => severity !== 'note'),
      codeLists,
    );
    const position = new Map(summaries.map(({ name, position: place }) => [name, place]));
    if (order === 'variable')
      patterns.sort(
        (a, b) => (position.get(a.flags[0].variables[0]) ?? 0) - (position.get(b.flags[0].variables[0]) ?? 0),
      );
    if (order === 'rule') patterns.sort((a, b) => a.rule.localeCompare(b.rule));
    // A remark is no work: it stands apart.
    return {
      open: patterns,
      remarks: patternsOf(
        inScope.filter(({ severity }) => severity === 'note'),
        codeLists,
      ),
      elsewhere: flags.length - inScope.length,
    };
  }, [flags, summaries, state, order]);
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
  const onKey = (event: React.KeyboardEvent): void => {
    if (isTyping(event)) return;
    if (event.key === 's') {
      event.preventDefault();
      useSession.setState({ asking: 'standing' });
      return;
    }
    if (!current) return;
    if (event.key === 'ArrowDown') setAt(Math.min(open.length - 1, here + 1));
    else if (event.key === 'ArrowUp') setAt(Math.max(0, here - 1));
    else if (event.key === 'Enter' && event.target === event.currentTarget)
      document.getElementById('profile')?.focus();
    else {
      // A key presses the button of the current card that it stands on.
      const pressed =
        /^[a-z]$/.test(event.key) &&
        list.current?.querySelector<HTMLElement>(`.flagcard.current [data-key=${event.key}]`);
      if (!pressed) return;
      if (pressed.tagName === 'INPUT') pressed.focus();
      else pressed.click();
    }
    event.preventDefault();
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
          {all
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
          {open.length > 1 && (
            <label>
              In order of{' '}
              <select
                className="form-select form-select-sm d-inline-block w-auto"
                value={order}
                onChange={(event) => {
                  setOrder(event.target.value as Order);
                  setAt(0);
                }}
              >
                {Object.entries(ORDERS).map(([key, name]) => (
                  <option key={key} value={key}>
                    {name}
                  </option>
                ))}
              </select>
            </label>
          )}
        </p>
        {open.map((pattern, i) => (
          <div key={pattern.key} onClick={() => setAt(i)} className="flagrow">
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
              <Members
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
            )}
            <FlagCard
              flags={pattern.flags}
              says={pattern.says}
              current={i === here}
              included={included(pattern)}
            />
          </div>
        ))}
        {remarks.length > 0 && (
          <details className="remarks">
            <summary>
              {counted(
                remarks.reduce((sum, pattern) => sum + pattern.flags.length, 0),
                'remark',
              )}
              , which ask for nothing
            </summary>
            {remarks.map((pattern) => (
              <div key={pattern.key} className="flagrow">
                <p className="mb-0">
                  {pattern.flags.slice(0, 8).map(({ variables: [name] }) => (
                    <button
                      type="button"
                      key={name}
                      className="btn-bare code"
                      onClick={() => useSession.setState({ station: 'inventory', current: name })}
                    >
                      {name}
                    </button>
                  ))}
                  {pattern.flags.length > 8 && ` and ${whole(pattern.flags.length - 8)} more`}
                </p>
                <FlagCard flags={pattern.flags} says={pattern.says} />
              </div>
            ))}
          </details>
        )}
        {rulings.length > 0 && (
          <>
            <h3>Ruled on</h3>
            <ul className="ruled">
              {rulings.map((entry) => (
                <li key={entry.id}>
                  {entryText(entry)}
                  {entry.why && <q className="ms-1">{entry.why}</q>}{' '}
                  <span className="soft">{entry.at.slice(0, 16).replace('T', ' ')}</span>{' '}
                  <button
                    type="button"
                    className="btn-bare"
                    onClick={() => void undo(entry.id)}
                    aria-label={`Undo: ${entryText(entry)}`}
                  >
                    Undo
                  </button>
                </li>
              ))}
            </ul>
          </>
        )}
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

/** The variables of a pattern with what each would lose; any can be excepted. */
function Members({
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
    <ul className="members" aria-label="Variables of this pattern">
      {pattern.flags.map(({ variables: [name], codes, rows, certainty }) => {
        const summary = summaries.find((one) => one.name === name);
        return (
          <li key={name}>
            <label>
              <input
                type="checkbox"
                checked={!excepted.has(`${pattern.key} ${name}`)}
                onChange={() => toggle(name)}
              />{' '}
              <span className="code">{name}</span> <span className="soft">{summary?.label}</span>
            </label>
            <span className="n soft">
              {codes.length < pattern.codes.length && (
                <>
                  only <span className="code">{codes.join(', ')}</span>;{' '}
                </>
              )}
              {certainty < pattern.certainty - 0.2 && `${Math.round(certainty * 100)} of 100 sure; `}
              {counted(rows, 'row')} of {whole(summary?.counts.valid ?? 0)} valid
            </span>
          </li>
        );
      })}
    </ul>
  );
}
