'use client';

import { counted, whole } from '../../core/handoff/words';
import type { Summary } from '../../core/inspect/summary';
import { NARROW_NOTHING, type Narrow } from '../../store/narrow';
import { useSession, useParts } from '../../store/session';

/** What is not done yet, each with the way to go through it. */
export function StillOpen({ inScope, openFlags }: { inScope: readonly Summary[]; openFlags: number }) {
  const { seen, state } = useParts('seen', 'state');
  const presumed = inScope.filter(({ confirmed }) => !confirmed).length;
  const unseen = inScope.filter(({ name }) => !seen.has(name) && !state.signedOff.has(name)).length;
  const unsigned = inScope.filter(({ name }) => seen.has(name) && !state.signedOff.has(name)).length;
  const ledger = (narrow: Partial<Narrow>): void =>
    useSession.setState({ station: 'inventory', search: '', narrow: { ...NARROW_NOTHING, ...narrow } });
  const open = [
    {
      n: unseen,
      says: `${counted(unseen, 'variable')} nobody has looked at`,
      go: () => ledger({ progress: 'unseen' }),
    },
    {
      n: presumed,
      says: `${counted(presumed, 'kind')} presumed only`,
      go: () => ledger({ kind: 'presumed' }),
    },
    {
      n: openFlags,
      says: `${counted(openFlags, 'flag')} without a ruling`,
      go: () => useSession.setState({ station: 'flags' }),
    },
    {
      n: unsigned,
      says: `${counted(unsigned, 'variable')} looked at and not signed off`,
      go: () => ledger({ progress: 'seen' }),
    },
  ].filter(({ n }) => n > 0);
  return (
    <section aria-label="Still open">
      <h3>Still open</h3>
      {open.length === 0 ? (
        <p>
          Nothing: all {whole(inScope.length)} in view are signed off, every kind is confirmed, every flag has
          its ruling.
        </p>
      ) : (
        <ul className="stillopen">
          {open.map(({ says, go }) => (
            <li key={says}>
              {says}{' '}
              <button type="button" className="btn-bare" onClick={go}>
                Go through them
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}
