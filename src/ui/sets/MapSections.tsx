'use client';

import { useMemo } from 'react';
import { whole } from '../../core/handoff/words';
import { useParts } from '../../store/session';
import { putInto } from '../../store/sets';
import { flagsByVariable } from '../ledger/rows';
import { SECTIONS, type Block } from './blocks';
import { merge } from './doings';
import { idOf, SetBlock } from './SetBlock';
import type { MapAtHand } from './useMap';

/** The sets in sections: made, the archive's, proposed, and the rest. */
export function MapSections({
  blocks,
  hand: { map, current, chosen, go, onKey },
}: {
  blocks: readonly Block[];
  hand: MapAtHand;
}) {
  const { summaries, state, flags, onMap } = useParts('summaries', 'state', 'flags', 'onMap');
  const known = useMemo(() => new Map(summaries.map((one) => [one.name, one])), [summaries]);
  const flagged = useMemo(() => new Set(flagsByVariable(flags).keys()), [flags]);
  const drop = (onto: Block, carried: { block: string | null; variables: string[] }): void => {
    const from = blocks.find(({ key }) => key === carried.block);
    if (onto.id === null) return;
    if (carried.variables.length) void putInto(onto.id, carried.variables);
    else if (from && from.key !== onto.key) void merge([onto, from], onto);
  };
  return (
    <div
      className="setsmap"
      ref={map}
      tabIndex={0}
      role="listbox"
      aria-label="Sets"
      aria-multiselectable="true"
      aria-activedescendant={current ? `set-${idOf(current.key)}` : undefined}
      onKeyDown={onKey}
    >
      {(Object.keys(SECTIONS) as Block['sort'][]).map((sort) => {
        const list = blocks.filter((block) => block.sort === sort);
        return (
          list.length > 0 && (
            <section key={sort} role="group" aria-label={SECTIONS[sort]}>
              <div className="sectionhead">
                {SECTIONS[sort]} {sort !== 'rest' && <span className="soft">{whole(list.length)}</span>}
                {current?.sort === sort && <KeysOf sort={sort} />}
              </div>
              <div className="setgrid">
                {list.map((block) => (
                  <SetBlock
                    key={block.key}
                    block={block}
                    state={state}
                    known={known}
                    flagged={flagged}
                    current={block === current}
                    opened={block.key === onMap.block}
                    chosen={chosen.has(block.key)}
                    go={go}
                    drop={drop}
                  />
                ))}
              </div>
            </section>
          )
        );
      })}
    </div>
  );
}

const OF_PROPOSALS: [key: string, says: string][] = [
  ['y', 'make it a set'],
  ['v', 'and put it in view'],
  ['d', 'send away'],
  ['Enter', 'open'],
];
const KEYS: Record<Block['sort'], [key: string, says: string][]> = {
  made: [
    ['v', 'in view'],
    ['r', 'rename'],
    ['m', 'merge chosen'],
    ['w', 'nest chosen'],
    ['Del', 'remove'],
    ['Enter', 'open'],
  ],
  archive: OF_PROPOSALS,
  found: OF_PROPOSALS,
  rest: [['Enter', 'open']],
};

/** The keys that act on a set of one sort, where they act. */
function KeysOf({ sort }: { sort: Block['sort'] }) {
  return (
    <span className="keysof soft">
      {KEYS[sort].map(([key, says]) => (
        <span key={key}>
          <kbd>{key}</kbd> {says}
        </span>
      ))}
    </span>
  );
}
