'use client';

import { useEffect, useState } from 'react';
import type { Profile } from '../../core/inspect/profile';
import { engineOf } from '../../engine/client';
import { useSession } from '../../store/session';

/** How a person wants a histogram drawn: bins of a width, and what lies far out too. */
export interface Drawing {
  width: number | null;
  all: boolean;
}

/** The profile of a variable, asked again whenever a ruling was laid; the last one stays until the next is there. */
export function useProfile(name: string, { width, all }: Drawing): Profile | null {
  const laid = useSession((session) => session.laid);
  const id = useSession((session) => session.id);
  const [profile, setProfile] = useState<Profile | null>(null);
  useEffect(() => {
    let wanted = true;
    void engineOf()
      .profile(name, width, all)
      .then((found) => {
        if (wanted) setProfile(found);
      });
    return () => {
      wanted = false;
    };
  }, [name, laid, id, width, all]);
  return profile;
}
