/** Names of the variables that are seen at this moment: counted first, when other rows count. Nothing is drawn of it. */
let seen: readonly string[] = [];

export const lookingAt = (names: readonly string[]): void => {
  seen = names;
};
export const lookedAt = (): readonly string[] => seen;
