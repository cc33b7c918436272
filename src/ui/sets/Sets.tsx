'use client';

import { useMemo } from 'react';
import { counted, whole } from '../../core/handoff/words';
import { decide } from '../../store/decisions';
import { useSession, useParts } from '../../store/session';
import { Problem } from '../frame/Problem';
import { Quiet } from '../frame/Quiet';
import { openProposals } from '../../core/sets/open';
import { blocksOf } from './blocks';
import { splitOff, take } from './doings';
import { Ground } from './Ground';
import { MapSections } from './MapSections';
import { AskName } from '../asking/AskName';
import { SetOpened } from './SetOpened';
import { SetsFile } from './SetsFile';
import { useInView } from './useInView';
import { useProposals } from './useProposals';
import { sureOnes, useMap } from './useMap';

/** The whole extract as a map of sets: those made, the archive's, proposals, and what stands in none. */
export function Sets() {
  const { summaries, state, flags, asking, onMap } = useParts(
    'summaries',
    'state',
    'flags',
    'asking',
    'onMap',
  );
  const { inside, outside } = useInView();
  const { proposals, looking } = useProposals();
  const blocks = useMemo(
    () => blocksOf(summaries, state, proposals, flags),
    [summaries, state, proposals, flags],
  );
  const proposedNames = useMemo(
    () => new Set(openProposals(proposals, state).flatMap(({ variables }) => variables)),
    [proposals, state],
  );
  const opening = blocks.find(({ key }) => key === onMap.block) ?? null;
  const hand = useMap(blocks, opening !== null);
  const { current } = hand;
  const sure = sureOnes(blocks);
  const back = (): void => hand.map.current?.focus();
  const answered = (): void => {
    useSession.setState({ asking: null });
    back();
  };
  const setNames = [...state.sets.values()].map(({ name }) => name);
  return (
    <>
      <div className="sheet setside">
        <Problem />
        <h2>
          {state.sets.size
            ? `${counted(state.sets.size, 'set')} of ${counted(summaries.length, 'variable')}`
            : `A map of ${counted(summaries.length, 'variable')}`}{' '}
          <span className="soft fs-6">
            {outside > 0 ? `${whole(inside.length)} in view, ${whole(outside)} out of sight` : 'all in view'}
            {looking && <span role="status">; looking for what belongs together…</span>}
          </span>
        </h2>
        <Ground
          summaries={summaries}
          state={state}
          proposed={proposedNames}
          at={(opening ?? current)?.variables ?? []}
        />
        <div className="doings">
          {sure.length > 0 && (
            <Quiet does={hand.takeSure} shownKey="Y">
              Make sets of the {counted(sure.length, 'sure one')}
            </Quiet>
          )}
          <SetsFile />
          <Legend />
        </div>
        <MapSections blocks={blocks} hand={hand} />
      </div>
      {opening && (
        <SetOpened key={opening.key} block={opening} take={(block) => void take([block])} back={back} />
      )}
      <AskName
        shown={asking === 'nameset'}
        title="What is the set called?"
        before={current?.name ?? ''}
        taken={setNames}
        accept={(name) => current?.id && void decide({ type: 'rename-set', set: current.id, name })}
        close={answered}
      />
      <AskName
        shown={asking === 'split'}
        title={`What is split off: a set of ${counted(onMap.variables.length, 'variable')}, called`}
        before=""
        taken={setNames}
        accept={(name) => void splitOff(opening, name, onMap.variables)}
        close={answered}
      />
    </>
  );
}

/** What the marks mean: form and filling, not colour alone. */
function Legend() {
  return (
    <span className="legend soft small" aria-label="What the marks mean">
      <i className="presumed" /> kind presumed <i className="confirmed" /> confirmed <i className="done" />{' '}
      signed off <i className="flagged" /> flag open
    </span>
  );
}
