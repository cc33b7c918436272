/** A number as programs write it, without regard to the column that it stands in. */
export { readsAsBareNumber as readsAsNumber } from './number';

/** Blanks of every width, those without any width among them. */
const BLANK = /^[\s\u200b\u200c\u200d\u2060\u180e]*$/;

/** Only what a typewriter has: letters without accents, digits, signs and blanks. */
const OTHER = /[^ -~]/;
export const isPlain = (text: string): boolean => !OTHER.test(text);

/** Nothing in the cell: empty, or only white space of any width. */
export const isBlank = (text: string): boolean => text === '' || BLANK.test(text);
