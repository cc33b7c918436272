import { useEffect } from 'react';
import type { ProposedSet } from '../../core/sets/propose';
import { wantProposals } from '../../store/desk';
import { useSession } from '../../store/session';

const NONE: readonly ProposedSet[] = [];

/** Sets that might be made, looked for when they are first wanted. @param wanted whether they are */
export function useProposals(wanted = true): { proposals: readonly ProposedSet[]; looking: boolean } {
  const proposals = useSession((now) => now.opened?.proposals);
  const behind = useSession((now) => now.behind);
  const looking = wanted && proposals === null;
  useEffect(() => {
    if (looking) void wantProposals();
  }, [looking, behind === null]);
  return { proposals: proposals ?? NONE, looking };
}
