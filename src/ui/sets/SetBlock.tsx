'use client';

import { memo, type DragEvent } from 'react';
import { counted, whole } from '../../core/handoff/words';
import type { Summary } from '../../core/inspect/summary';
import type { State } from '../../core/log/fold';
import type { Block } from './blocks';

/** What is carried by the mouse: a set by its key, or variables. */
export const CARRIED = 'application/x-dig-first-set';
export const CARRIED_VARIABLES = 'application/x-dig-first-variables';

const WIDTH = 7;
const HEIGHT = 13;
/** So many marks in a row. */
const ACROSS = 24;

/** A set on the map: its name, its variables as marks in its order, and how far one is with them. */
export const SetBlock = memo(function SetBlock({
  block,
  state,
  known,
  flagged,
  current,
  opened,
  chosen,
  go,
  drop,
}: {
  block: Block;
  state: State;
  known: ReadonlyMap<string, Summary>;
  flagged: ReadonlySet<string>;
  current: boolean;
  opened: boolean;
  chosen: boolean;
  go: (key: string, open: boolean) => void;
  drop: (onto: Block, carried: { block: string | null; variables: string[] }) => void;
}) {
  const { key, sort, name, variables, depth, confirmed, flags, signedOff, inView, confidence, partOf } =
    block;
  const take = (event: DragEvent): void => {
    event.preventDefault();
    const carried = event.dataTransfer.getData(CARRIED_VARIABLES);
    drop(block, {
      block: event.dataTransfer.getData(CARRIED) || null,
      variables: carried ? (JSON.parse(carried) as string[]) : [],
    });
  };
  return (
    <div
      role="option"
      id={`set-${idOf(key)}`}
      aria-selected={current}
      className={`setblock ${sort}${current ? ' current' : ''}${opened ? ' opened' : ''}${chosen ? ' chosen' : ''}${inView ? ' inview' : ''}`}
      style={{ marginLeft: depth * 14 }}
      draggable={sort !== 'rest'}
      onDragStart={(event) => event.dataTransfer.setData(CARRIED, key)}
      onDragOver={(event) => sort === 'made' && event.preventDefault()}
      onDrop={take}
      onClick={() => go(key, true)}
    >
      <div className="title">
        {chosen && <span aria-label="chosen">✓ </span>}
        <strong title={name}>{name}</strong>
        {inView && <span className="inviewmark">in view</span>}
        <span className="soft n">{whole(variables.length)}</span>
      </div>
      <Marks variables={variables} known={known} state={state} flagged={flagged} />
      <div
        className="soft small foot"
        title={`${whole(confirmed)} kinds of ${whole(variables.length)} confirmed`}
      >
        {sort === 'found' && confirmed === 0
          ? `${Math.round(confidence * 100)} of 100 sure`
          : `${whole(confirmed)} of ${whole(variables.length)} confirmed`}
        {flags > 0 && `, ${counted(flags, 'flag')}`}
        {signedOff > 0 && `, ${whole(signedOff)} signed off`}
        {partOf && <>; part of {partOf}</>}
      </div>
    </div>
  );
});

export const idOf = (key: string): string => key.replace(/[^A-Za-z0-9_-]/g, '_');

/** Each variable a small mark: an outline where its kind is presumed, half filled where confirmed, full where signed off; a point above where a flag is open. */
function Marks({
  variables,
  known,
  state,
  flagged,
}: {
  variables: readonly string[];
  known: ReadonlyMap<string, Summary>;
  state: State;
  flagged: ReadonlySet<string>;
}) {
  const rows = Math.ceil(variables.length / ACROSS);
  return (
    <svg
      className="setmarks"
      width={Math.min(variables.length, ACROSS) * WIDTH}
      height={rows * HEIGHT}
      aria-hidden="true"
    >
      {variables.map((name, i) => {
        const [x, y] = [(i % ACROSS) * WIDTH, Math.floor(i / ACROSS) * HEIGHT];
        const is = state.signedOff.has(name) ? 'done' : known.get(name)?.confirmed ? 'confirmed' : 'presumed';
        return (
          <g key={name} className={is}>
            <rect x={x + 0.5} y={y + 4.5} width={4} height={7} className="frame" />
            {is === 'confirmed' && <rect x={x + 0.5} y={y + 8} width={4} height={3.5} className="fill" />}
            {flagged.has(name) && <rect x={x + 1} y={y + 0.5} width={3} height={2.5} className="flagged" />}
            <title>{`${name}${known.get(name)?.label ? `  ${known.get(name)?.label}` : ''}`}</title>
          </g>
        );
      })}
    </svg>
  );
}
