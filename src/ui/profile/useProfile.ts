'use client';

import type { Profile } from '../../core/inspect/profile';
import { useAnswer, type Heard } from '../asking/useAnswer';

/** How a person wants a histogram drawn: bins of a width, and what lies far out too. */
export interface Drawing {
  width: number | null;
  all: boolean;
}

/** The profile of a variable, and of no other, asked again whenever a ruling was laid. */
export const useProfile = (name: string, { width, all }: Drawing): Heard<Profile | null> =>
  useAnswer('profile', [name, width, all]);
