'use client';

import { useMemo, useState } from 'react';
import { counted, whole } from '../../core/handoff/words';
import type { Summary } from '../../core/inspect/summary';
import { useSession } from '../../store/session';
import { lookAt, putInto, toggleInView } from '../../store/sets';
import { ProblemText } from '../asking/ProblemText';
import { useAnswer } from '../asking/useAnswer';
import { Quiet } from '../frame/Quiet';
import { KindMark, Sketch } from '../ledger/Marks';
import type { Block } from './blocks';
import { CARRIED_VARIABLES } from './SetBlock';
import { useMembers } from './useMembers';

/** A set opened to its variables, in its own order, with what else may belong to it. */
export function SetOpened({
  block,
  take,
  back,
}: {
  block: Block;
  take: (block: Block) => void;
  back: () => void;
}) {
  const summaries = useSession((session) => session.summaries);
  const known = useMemo(() => new Map(summaries.map((one) => [one.name, one])), [summaries]);
  const [more, setMore] = useState(false);
  const { list, listed, here, chosen, pick, onKey } = useMembers(block, () => setMore((now) => !now), back);
  const current = listed[here];
  return (
    <aside className="setopened" aria-label={`Set ${block.name}`}>
      <h2>{block.name}</h2>
      <p className="soft">
        {counted(block.variables.length, 'variable')}, {counted(block.confirmed, 'kind')} confirmed,{' '}
        {counted(block.flags, 'flag')} open, {whole(block.signedOff)} signed off.
        {block.because && ` ${sentence(block)}`}
      </p>
      <p className="doings">
        {block.sort === 'made' && block.id !== null && (
          <>
            <Quiet does={() => block.id && toggleInView(block.id)} shownKey="v" pressed={block.inView}>
              {block.inView ? 'In view' : 'Put in view'}
            </Quiet>
            <Quiet does={() => setMore(!more)} shownKey="e" pressed={more}>
              What else belongs here?
            </Quiet>
          </>
        )}
        {(block.sort === 'archive' || block.sort === 'found') && (
          <Quiet does={() => take(block)} shownKey="y">
            Make it a set
          </Quiet>
        )}
      </p>
      {more && block.sort === 'made' && block.id && (
        <Belonging id={block.id} members={block.variables} known={known} />
      )}
      <ul
        className="setlist"
        ref={list}
        tabIndex={0}
        role="listbox"
        aria-multiselectable="true"
        aria-label={`Variables of ${block.name}`}
        aria-activedescendant={current ? `member-${here}` : undefined}
        onKeyDown={onKey}
      >
        {listed.map((name, i) => (
          <Member
            key={name}
            name={name}
            at={i}
            one={known.get(name)}
            current={i === here}
            chosen={chosen}
            pick={(too) => pick(i, too)}
          />
        ))}
      </ul>
      <p className="soft small">
        <kbd>Enter</kbd> profile, <kbd>Space</kbd> chooses, <kbd>i</kbd> puts into another set
        {block.id !== null && (
          <>
            , <kbd>Del</kbd> takes out, <kbd>p</kbd> splits off, <kbd>Alt ↑</kbd> <kbd>Alt ↓</kbd> order
          </>
        )}
        , <kbd>Esc</kbd> back.
      </p>
    </aside>
  );
}

/** One variable of the set: it can be dragged into another, with all that are chosen. */
function Member({
  name,
  at,
  one,
  current,
  chosen,
  pick,
}: {
  name: string;
  at: number;
  one: Summary | undefined;
  current: boolean;
  chosen: ReadonlySet<string>;
  /** @param too whether it is chosen beside others, and not only gone to */
  pick: (too: boolean) => void;
}) {
  return (
    <li
      id={`member-${at}`}
      role="option"
      aria-selected={chosen.has(name)}
      aria-current={current}
      className={chosen.has(name) ? 'chosen' : ''}
      draggable
      onDragStart={(event) => {
        event.stopPropagation();
        event.dataTransfer.setData(
          CARRIED_VARIABLES,
          JSON.stringify(chosen.has(name) ? [...chosen] : [name]),
        );
      }}
      onClick={(event) => pick(event.ctrlKey || event.metaKey)}
      onDoubleClick={() => lookAt(name)}
    >
      <span className="code name" title={name}>
        {name}
      </span>
      <span className="label" title={one?.label ?? undefined}>
        {one?.label ?? <span className="soft">no label</span>}
      </span>
      {one && <KindMark kind={one.kind} confirmed={one.confirmed} />}
      <span className="sketchroom">{one?.sketch && <Sketch sketch={one.sketch} />}</span>
    </li>
  );
}

const sentence = ({ because }: Block): string => `${because.charAt(0).toUpperCase()}${because.slice(1)}.`;

/** Variables that may belong to a set too, each with its reason, to be put in. */
function Belonging({
  id,
  members,
  known,
}: {
  id: string;
  members: readonly string[];
  known: ReadonlyMap<string, Summary>;
}) {
  const { value, problem } = useAnswer('belongs', [[...members]]);
  if (problem) return <ProblemText problem={problem} />;
  if (!value) return null;
  return (
    <section className="belonging" aria-label="What else belongs here">
      {value.length === 0 && <p className="soft mb-0">Nothing else is like its members.</p>}
      <ul>
        {value.map(({ name, confidence, because }) => (
          <li key={name}>
            <Quiet does={() => void putInto(id, [name])}>Put in</Quiet> <span className="code">{name}</span>{' '}
            {known.get(name)?.label}{' '}
            <span className="soft">
              {Math.round(confidence * 100)} of 100 sure: {because}
            </span>
          </li>
        ))}
      </ul>
    </section>
  );
}
