/** A number as programs write it, without regard to the column that it stands in. */
export { readsAsBareNumber as readsAsNumber } from './number';

/** Blanks of every width, those without any width among them. */
const BLANK = /^[\s\u200b\u200c\u200d\u2060\u180e]*$/;

/** Nothing in the cell: empty, or only white space of any width. */
export const isBlank = (text: string): boolean => text === '' || BLANK.test(text);
