'use client';

import { whole } from '../../core/handoff/words';
import { holdAgainst } from '../../store/cross';
import { confirmKinds, signOff } from '../../store/decisions';
import { askFor, useSession } from '../../store/session';
import { Quiet } from '../frame/Quiet';

/** What can be done with all chosen variables at once. */
export function ChosenBar() {
  const chosen = useSession((session) => session.chosen);
  if (chosen.size === 0) return null;
  return (
    <div className="chosenbar" role="status">
      <strong>{whole(chosen.size)} chosen</strong>
      <Quiet does={() => askFor('set')} shownKey="s">
        Make a set…
      </Quiet>
      <Quiet does={confirmKinds} shownKey="c">
        Confirm their kinds
      </Quiet>
      <Quiet does={() => askFor('kind')} shownKey="k">
        Say their kind…
      </Quiet>
      <Quiet does={() => askFor('codes')} shownKey="l">
        Label their codes…
      </Quiet>
      <Quiet does={signOff} shownKey="x">
        Sign off
      </Quiet>
      {chosen.size > 1 && (
        <Quiet does={() => askFor('together')} shownKey="t">
          Side by side…
        </Quiet>
      )}
      {chosen.size > 1 && (
        <Quiet does={() => holdAgainst([...chosen])} shownKey="v">
          Against each other
        </Quiet>
      )}
      <button type="button" className="btn-bare" onClick={() => useSession.setState({ chosen: new Set() })}>
        Choose none
      </button>
    </div>
  );
}
