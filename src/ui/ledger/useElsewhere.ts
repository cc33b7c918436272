import { useEffect, useMemo } from 'react';
import { useSession, useParts } from '../../store/session';
import { useInView } from '../sets/useInView';
import { ledgerRows, wavesOf } from './rows';

/**
 * How many variables that are searched for are out of sight; what leaves the view is neither chosen nor at hand any
 * more, since no decision is about what one does not see.
 * @param listed how many are listed
 */
export function useElsewhere(listed: number, numbers: ReadonlyMap<string, number>): number {
  const { summaries, state, search, sort, narrow, beyond, seen, flags, opened } = useParts(
    'summaries',
    'state',
    'search',
    'sort',
    'narrow',
    'beyond',
    'seen',
    'flags',
    'opened',
  );
  const { inside, isInside, outside } = useInView();
  useEffect(() => {
    const { chosen } = useSession.getState();
    const kept = [...chosen].filter((name) => beyond || isInside(name));
    if (kept.length < chosen.size) useSession.setState({ chosen: new Set(kept) });
    const { current } = useSession.getState();
    if (!beyond && current !== null && !isInside(current) && inside.length)
      useSession.setState({ current: inside[0].name });
  }, [isInside, beyond]);
  return useMemo(() => {
    if (!search || beyond || outside === 0) return 0;
    const wanted = { search, sort, narrow, beyond: true, seen, flags, numbers, waves: wavesOf(opened) };
    return ledgerRows(summaries, state, wanted).length - listed;
  }, [search, beyond, outside, listed, summaries, state]);
}
