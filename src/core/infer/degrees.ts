/**
 * Words of degree, from none to all, in English, German, French and Spanish: what stands before a word tells how much of
 * it there is. "Very interested", "quite interested", "hardly interested" have an order, whatever the word.
 */
const DEGREES: Readonly<Record<number, readonly string[]>> = {
  0: ['not at all', 'no', 'none', 'überhaupt nicht', 'gar nicht', 'pas du tout', 'nada', 'nada de'],
  1: [
    'hardly',
    'hardly any',
    'scarcely',
    'not very',
    'not very much',
    'not too',
    'not so',
    'not particularly',
    'not really',
    'not much',
    'very little',
    'only a little',
    'nicht sehr',
    'wenig',
    'kaum',
    'eher nicht',
    'pas très',
    'peu',
    'poco',
  ],
  2: ['a little', 'slightly', 'a bit', 'etwas', 'un peu', 'algo'],
  0.5: ['not'],
  3: [
    'some',
    'partly',
    'partially',
    'probably',
    'somewhat',
    'moderately',
    'moderate',
    'fairly',
    'rather',
    'quite',
    'quite a lot',
    'quite a lot of',
    'pretty',
    'reasonably',
    'eher',
    'ziemlich',
    'assez',
    'plutôt',
    'bastante',
  ],
  4: [
    'very',
    'very much',
    'a lot',
    'a lot of',
    'highly',
    'strongly',
    'mostly',
    'much',
    'greatly',
    'too',
    'sehr',
    'très',
    'beaucoup',
    'muy',
    'mucho',
    'mucha',
  ],
  5: [
    'a great deal',
    'a great deal of',
    'extremely',
    'completely',
    'totally',
    'entirely',
    'absolutely',
    'fully',
    'definitely',
    'far too',
    'much too',
    'völlig',
    'voll und ganz',
    'tout à fait',
    'totalmente',
  ],
};
const DEGREE_OF = new Map(
  Object.entries(DEGREES).flatMap(([degree, phrases]) =>
    phrases.map((phrase) => [phrase, Number(degree)] as const),
  ),
);
const LONGEST = 4;
/** The word alone stands between quite and very. */
const BARE = 3.5;
const MIDDLE =
  /^(neither|neutral|in between|average|both|middle|moderate|teils|weder|ni|(about |stayed |much )?the same|about right|no change|unchanged|about average)\b/;
/** Before a word it makes the opposite of it. */
const OPPOSITE = /^(un|dis|in|im)/;
const LEAST_SHARE = 0.75;

const words = (label: string): string[] =>
  label
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim()
    .split(' ');

interface Parsed {
  degree: number | null;
  rest: string;
}

/** @returns the degree before the word, as in "very high", or behind it, as in "increased a lot" */
function parse(label: string): Parsed {
  const all = words(label);
  if (all.length > 3 && all[0] === 'not' && all.slice(-2).join(' ') === 'at all')
    return { degree: 0, rest: all.slice(1, -2).join(' ') };
  for (let length = Math.min(LONGEST, all.length); length > 0; length--) {
    const degree = DEGREE_OF.get(all.slice(0, length).join(' '));
    if (degree !== undefined)
      return {
        degree,
        rest: all
          .slice(length)
          .join(' ')
          .replace(/ at all$/, ''),
      };
  }
  for (let length = Math.min(LONGEST, all.length - 1); length > 0; length--) {
    const degree = DEGREE_OF.get(all.slice(-length).join(' '));
    if (degree !== undefined) return { degree, rest: all.slice(0, -length).join(' ') };
  }
  return { degree: null, rest: all.join(' ') };
}

/** The rank of each label by its word of degree, of one thing or of two opposite ones; `null` where they have no such words in common. */
export function degreesOf(labels: readonly string[]): (number | null)[] | null {
  if (labels.length < 3) return null;
  const parsed = labels.map(parse);
  const degreed = parsed.filter(({ degree }) => degree !== null);
  const all = [...new Set(degreed.map(({ rest }) => rest))];
  // A degree alone among degrees of something is the middle, or nothing of it.
  const rests = all.length > 1 ? all.filter((rest) => rest !== '') : all;
  if (rests.length === 0 || rests.length > 2) return null;
  const [one] = rests;
  const other =
    rests[1] ?? parsed.find(({ rest }) => rest.replace(OPPOSITE, '') === one && rest !== one)?.rest ?? null;
  // Two opposite things have a degree in common: very easy, very difficult.
  if (
    rests.length > 1 &&
    !degreed.some(
      ({ degree, rest }) =>
        rest === one && degreed.some((found) => found.rest === rests[1] && found.degree === degree),
    )
  )
    return null;
  const ranks = parsed.map(({ degree, rest }, i) => {
    const side = rest === one ? 1 : rest === other ? -1 : 0;
    if (side !== 0 && (degree !== null || rest !== '')) return side * (degree ?? BARE);
    if (side === 0 && degree === 0 && rest === '') return 0;
    return other !== null && MIDDLE.test(words(labels[i]).join(' ')) ? 0 : null;
  });
  const known = ranks.filter((rank) => rank !== null);
  return known.length >= labels.length * LEAST_SHARE &&
    new Set(known).size >= 3 &&
    new Set(known).size === known.length
    ? ranks
    : null;
}
