'use client';

import { counted, whole } from '../../core/handoff/words';
import type { PartTold, Preview } from '../../core/inspect/preview';
import type { Part } from '../../core/sieve/condition';
import { useSession } from '../../store/session';
import { groupParts, movePart, putInForce, removeParts, switchPart, turnPart } from '../../store/sieve';
import { Quiet } from '../frame/Quiet';
import { isTyping } from '../keys/keys';
import { press } from '../keys/table';
import { Stream } from './Stream';

/** The stream of rows from all to those kept, through the conditions, each with what it does and what can be done with it. */
export function Conditions({
  parts,
  preview,
  at: here,
  go,
  chosen,
  choose,
  change,
}: {
  parts: readonly Part[];
  preview: Preview | null;
  /** Place of the condition at hand. */
  at: number;
  go: (at: number) => void;
  chosen: ReadonlySet<string>;
  choose: (chosen: ReadonlySet<string>) => void;
  /** Opens a condition to be changed. */
  change: (id: string) => void;
}) {
  const draft = useSession((session) => session.draft);
  const id = parts.at(here)?.id;
  const all = chosen.size ? [...chosen] : id === undefined ? [] : [id];
  const backToRows = (): void => document.querySelector<HTMLElement>('.recordtable')?.focus();
  const onKey = (event: React.KeyboardEvent): void => {
    if (isTyping(event) && !(event.altKey && event.key.startsWith('Arrow'))) return;
    // A button has the keys that press it.
    if ((event.key === 'Enter' || event.key === ' ') && (event.target as HTMLElement).tagName === 'BUTTON')
      return;
    const on = (does: (one: string) => void): boolean => {
      if (id === undefined) return false;
      does(id);
      return true;
    };
    const meant = press('conditions', event.nativeEvent, {
      partUp: () => on((one) => (movePart(one, -1), go(here - 1))),
      partDown: () => on((one) => (movePart(one, 1), go(here + 1))),
      partBefore: () => on(() => go(here - 1)),
      partAfter: () => on(() => go(here + 1)),
      choosePart: () =>
        on((one) => {
          const next = new Set(chosen);
          if (!next.delete(one)) next.add(one);
          choose(next);
        }),
      switchPart: () => on(switchPart),
      turnPart: () => on(turnPart),
      groupParts: () => on(() => (groupParts(all), choose(new Set()))),
      changePart: () => on((one) => change(one)),
      dropPart: () => on(() => removeParts(all)),
      putInForce: () => {
        if (!draft) return false;
        void putInForce();
      },
      toTable: backToRows,
    });
    if (meant) event.preventDefault();
  };
  return (
    <div
      className="conditions"
      tabIndex={0}
      role="listbox"
      aria-multiselectable="true"
      aria-label="Conditions"
      aria-activedescendant={id ? `part-${id}` : undefined}
      onKeyDown={onKey}
    >
      <p className="flow all">
        <Stream all={preview?.rows.all ?? 0} before={preview?.rows.all ?? 0} after={preview?.rows.all ?? 0} />
        <span>{preview ? `all ${counted(preview.rows.all, 'row')}` : 'counting…'}</span>
      </p>
      {parts.map((part, i) => {
        const told = preview?.parts.find((one) => one.id === part.id);
        const before = preview
          ? (preview.parts.slice(0, i).findLast(({ on, misfit }) => on && misfit === null)?.left ??
            preview.rows.all)
          : 0;
        return (
          <div
            key={part.id}
            id={`part-${part.id}`}
            role="option"
            aria-selected={chosen.has(part.id)}
            className={`flow condition${i === here ? ' at' : ''}${chosen.has(part.id) ? ' chosen' : ''}${part.on ? '' : ' off'}`}
            onClick={() => go(i)}
          >
            <Stream
              all={preview?.rows.all ?? 0}
              before={before}
              after={part.on ? (told?.left ?? before) : before}
              tentative={draft !== null}
            />
            <ConditionTold number={i + 1} told={told} on={part.on} />
            <p className="doings">
              <Quiet does={() => switchPart(part.id)} shownKey={i === here && 's'}>
                {part.on ? 'Off' : 'On'}
              </Quiet>
              <Quiet does={() => turnPart(part.id)} shownKey={i === here && 't'}>
                Turn round
              </Quiet>
              <Quiet does={() => change(part.id)} shownKey={i === here && 'e'}>
                Change
              </Quiet>
              <Quiet does={() => removeParts([part.id])} shownKey={i === here && 'Del'}>
                Remove
              </Quiet>
              {'any' in part.condition && part.condition.any.length > 1 && (
                <Quiet does={() => groupParts([part.id])} shownKey={i === here && 'm'}>
                  Apart
                </Quiet>
              )}
            </p>
          </div>
        );
      })}
      <p className="flow all">
        <Stream
          all={preview?.rows.all ?? 0}
          before={preview?.rows.kept ?? 0}
          after={preview?.rows.kept ?? 0}
          tentative={draft !== null}
        />
        <strong>{preview ? `${counted(preview.rows.kept, 'row')} kept` : 'counting…'}</strong>
      </p>
    </div>
  );
}

function ConditionTold({ number, told, on }: { number: number; told: PartTold | undefined; on: boolean }) {
  if (!told) return <div className="says soft">{number}. counting…</div>;
  return (
    <div className="says">
      <span className="soft">{number}.</span> {told.says}
      {!on && <span className="soft"> (switched off)</span>}
      <br />
      {told.misfit !== null ? (
        <strong className="warn">does not fit this extract and drops nothing: {told.misfit}</strong>
      ) : (
        <span className="soft">
          keeps {whole(told.keeps)}, drops {whole(told.drops)}
          {on && told.drops > 0 && `, ${whole(told.dropsAlone)} of them it alone`}
        </span>
      )}
    </div>
  );
}
