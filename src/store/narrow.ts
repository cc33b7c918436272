/** Which variables are listed; an empty text asks nothing. */
export interface Narrow {
  progress: string;
  kind: string;
  role: string;
  flags: string;
  complete: string;
  set: string;
  /** `every`, `some`, `in:` or `out:` and the name of a wave. */
  wave: string;
}
export const NARROW_NOTHING: Narrow = {
  progress: '',
  kind: '',
  role: '',
  flags: '',
  complete: '',
  set: '',
  wave: '',
};
export const isNarrowed = (narrow: Narrow): boolean => Object.values(narrow).some((value) => value !== '');
