/** Members and keys under which documents of a handoff carry what a standard has no room for: of a variable, and of all. */
export const HANDED = 'urn:dig-first:variable';
export const HANDED_ALL = 'urn:dig-first:codebook';
