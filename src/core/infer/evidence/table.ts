import { CODEBOOK_CUES } from './codebook';
import type { Cue } from './cue';
import { IDENTITY_CUES } from './identity';
import { NUMBER_CUES } from './numbers';
import { TEXT_CUES } from './texts';
import { WORD_CUES } from './words';

/** All evidence by which kinds are told. */
export const CUES: readonly Cue[] = [
  ...CODEBOOK_CUES,
  ...WORD_CUES,
  ...IDENTITY_CUES,
  ...TEXT_CUES,
  ...NUMBER_CUES,
];
