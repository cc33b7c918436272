'use client';

import { useSession } from '../../store/session';
import { Problem } from '../frame/Problem';
import { ProfilePane } from '../profile/ProfilePane';
import { Ledger } from './Ledger';

/** The ledger, and beside it the profile of the variable at hand. */
export function Inventory() {
  const wide = useSession((session) => session.wide);
  const current = useSession((session) => session.current);
  return (
    <>
      <div className="ledgerside" hidden={wide}>
        <Problem />
        <Ledger />
      </div>
      {current && <ProfilePane name={current} />}
    </>
  );
}
