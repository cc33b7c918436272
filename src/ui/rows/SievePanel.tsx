'use client';

import { useEffect, useState } from 'react';
import { whole } from '../../core/handoff/words';
import type { Preview } from '../../core/inspect/preview';
import { askCondition, changeTable, useSession } from '../../store/session';
import { groupParts, leaveDraft, partsAtHand, putInForce, sieveBy } from '../../store/sieve';
import { useAnswer } from '../asking/useAnswer';
import { Quiet } from '../frame/Quiet';
import { Conditions } from './Conditions';
import { SieveMenu } from './SieveMenu';

/** The conditions at hand, with what each keeps and drops, and the stream of rows through them. */
export function SievePanel({ ask }: { ask: () => void }) {
  const session = useSession();
  const { draft, state } = session;
  const { parts, inForce } = partsAtHand(session);
  const { value: preview } = useAnswer('preview', parts.length ? [[...parts]] : null);
  const [at, setAt] = useState(0);
  const [chosen, setChosen] = useState<ReadonlySet<string>>(new Set());
  const here = Math.max(0, Math.min(parts.length - 1, at));
  useEffect(() => {
    setChosen((now) => new Set([...now].filter((one) => parts.some((part) => part.id === one))));
  }, [parts]);
  const name =
    draft?.name ||
    (draft?.sieve
      ? state.sieves.get(draft.sieve)?.name
      : inForce && state.sieve
        ? state.sieves.get(state.sieve)?.name
        : '');
  const change = (one: string): void => {
    const part = parts.find((other) => other.id === one);
    if (part) askCondition(null, part.condition, one);
  };
  return (
    <aside className={`sieve${draft ? ' tentative' : ''}`} aria-label="Sieve">
      <header>
        <h2>
          Sieve{name && <span className="fs-6"> “{name}”</span>}{' '}
          <span className="soft fs-6">
            {draft ? 'not in force' : inForce ? 'in force' : 'none: all rows count'}
          </span>
        </h2>
        <SieveMenu />
      </header>
      {draft && (
        <p className="doings">
          <Quiet does={() => void putInForce()} shownKey="Z" more="btn-main">
            {parts.length ? 'Put in force' : 'Take the sieve away'}
          </Quiet>
          <Quiet does={leaveDraft}>{inForceNow(state) ? 'Leave it as it was' : 'Throw away'}</Quiet>
        </p>
      )}
      <p className="doings">
        <Quiet does={ask} shownKey="z">
          Condition…
        </Quiet>
        {!draft && inForce && (
          <Quiet does={() => sieveBy(null)} shownKey="9">
            All rows again
          </Quiet>
        )}
      </p>
      {parts.length === 0 ? (
        <p className="soft">
          A sieve keeps the rows that belong. Press <kbd>k</kbd> on a cell to keep the rows with its code,{' '}
          <kbd>d</kbd> to drop them, or make a condition by picking with <kbd>z</kbd>, here and in a profile.
          Nothing counts otherwise until it is put in force.
        </p>
      ) : (
        <>
          {preview && <Warnings preview={preview} />}
          <Conditions
            parts={parts}
            preview={preview}
            at={here}
            go={setAt}
            chosen={chosen}
            choose={setChosen}
            change={change}
          />
          <p className="doings">
            {chosen.size > 1 && (
              <Quiet does={() => (groupParts([...chosen]), setChosen(new Set()))} shownKey="m">
                Any of these {whole(chosen.size)} is enough
              </Quiet>
            )}
            {preview && preview.rows.kept < preview.rows.all && (
              <Quiet does={() => changeTable({ which: 'dropped', flag: null, row: 0 })} shownKey="v">
                Look at the {whole(preview.rows.all - preview.rows.kept)} dropped
              </Quiet>
            )}
          </p>
          <p className="soft small">
            <kbd>c</kbd> goes into the conditions, <kbd>↑</kbd> <kbd>↓</kbd> through them; <kbd>Alt ↑</kbd>{' '}
            <kbd>Alt ↓</kbd> move one, <kbd>Space</kbd> chooses several, <kbd>m</kbd> makes any of them
            enough.
          </p>
        </>
      )}
    </aside>
  );
}

const inForceNow = ({ sieve }: { sieve: string | null }): boolean => sieve !== null;

/** What is plainly not meant, in plain words. */
function Warnings({ preview }: { preview: Preview }) {
  const on = preview.parts.filter((part) => part.on && part.misfit === null);
  const says = [
    ...(preview.rows.kept === 0 && preview.rows.all > 0 ? ['Nobody is left.'] : []),
    ...on.flatMap((part) => [
      ...(part.keeps === 0 ? [`“${part.says}” keeps nobody.`] : []),
      ...(part.drops === 0 ? [`“${part.says}” drops nobody.`] : []),
      ...(part.unanswered > 0
        ? [
            `“${part.says}” drops ${part.unanswered === 1 ? 'the one row' : `all ${whole(part.unanswered)} rows`} without an answer as well.`,
          ]
        : []),
    ]),
  ];
  return says.length ? (
    <ul className="warnings" role="status">
      {says.map((one) => (
        <li key={one}>{one}</li>
      ))}
    </ul>
  ) : null;
}
