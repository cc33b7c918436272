'use client';

import { whole } from '../../core/handoff/words';
import { confirmKinds, signOff } from '../../store/decisions';
import { useSession } from '../../store/session';

/** What can be done with all chosen variables at once. */
export function ChosenBar() {
  const chosen = useSession((session) => session.chosen);
  if (chosen.size === 0) return null;
  return (
    <div className="chosenbar" role="status">
      <strong>{whole(chosen.size)} chosen</strong>
      <button
        type="button"
        className="btn btn-quiet btn-sm"
        onClick={() => useSession.setState({ asking: 'set' })}
      >
        Make a set… <kbd>s</kbd>
      </button>
      <button type="button" className="btn btn-quiet btn-sm" onClick={confirmKinds}>
        Confirm their kinds <kbd>c</kbd>
      </button>
      <button
        type="button"
        className="btn btn-quiet btn-sm"
        onClick={() => useSession.setState({ asking: 'kind' })}
      >
        Say their kind… <kbd>k</kbd>
      </button>
      <button
        type="button"
        className="btn btn-quiet btn-sm"
        onClick={() => useSession.setState({ asking: 'codes' })}
      >
        Label their codes… <kbd>l</kbd>
      </button>
      <button type="button" className="btn btn-quiet btn-sm" onClick={signOff}>
        Sign off <kbd>x</kbd>
      </button>
      {chosen.size > 1 && (
        <button
          type="button"
          className="btn btn-quiet btn-sm"
          onClick={() => useSession.setState({ asking: 'together' })}
        >
          Side by side… <kbd>t</kbd>
        </button>
      )}
      <button type="button" className="btn-bare" onClick={() => useSession.setState({ chosen: new Set() })}>
        Choose none
      </button>
    </div>
  );
}
