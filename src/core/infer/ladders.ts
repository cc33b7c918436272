import { degreesOf } from './degrees';
import { putUnder } from '../extract/put-under';

/** Ordered vocabularies: each word or phrase with its place. A label belongs where the longest phrase in it stands. */
const LADDERS: Readonly<Record<string, readonly string[][]>> = {
  severity: [
    ['none', 'absent'],
    ['mild', 'slight', 'light'],
    ['moderate'],
    ['severe', 'serious'],
    ['very severe', 'critical', 'extreme'],
  ],
  number: [
    ['none', 'no', 'zero', 'nobody'],
    ['one', 'once'],
    ['two', 'twice'],
    ['three'],
    ['four'],
    ['five'],
    ['six'],
    ['seven'],
    ['eight'],
    ['nine'],
    ['ten'],
  ],
  level: [
    ['low', 'lower', 'lowest', 'bottom'],
    ['lower middle', 'second'],
    ['middle', 'mid', 'third'],
    ['upper middle', 'fourth'],
    ['high', 'upper', 'higher', 'highest', 'top'],
  ],
  class: [
    ['lower class', 'poor'],
    ['working class'],
    ['lower middle class'],
    ['middle class'],
    ['upper middle class'],
    ['upper class', 'rich'],
  ],
  wealth: [['poorest'], ['poorer', 'poor'], ['middle'], ['richer', 'rich'], ['richest']],
  settlement: [
    ['farm', 'open country', 'countryside', 'farm or home in the countryside'],
    ['village', 'country village', 'hamlet'],
    ['small town', 'town', 'town or small city'],
    ['suburb', 'suburbs', 'outskirts', 'suburbs or outskirts of big city'],
    ['big city', 'large city', 'city', 'a big city'],
  ],
  usual: [
    ['much less than usual', 'much worse than usual'],
    ['less than usual', 'less so than usual', 'worse than usual', 'not at all'],
    ['same as usual', 'about same as usual', 'no more than usual'],
    ['more than usual', 'rather more than usual', 'better than usual', 'more so than usual'],
    ['much more than usual', 'much better than usual'],
  ],
  season: [['spring'], ['summer'], ['autumn', 'fall'], ['winter']],
  skill: [['novice', 'beginner', 'basic'], ['intermediate'], ['advanced'], ['expert', 'proficient']],
  'body weight': [
    ['underweight'],
    ['normal', 'normal weight', 'healthy weight'],
    ['overweight'],
    ['obese'],
    ['severely obese'],
  ],
  completeness: [
    ['none', 'not at all'],
    ['partial', 'partly', 'in part'],
    ['full', 'fully', 'complete', 'entirely'],
  ],
  problem: [
    ['not a problem', 'no problem'],
    ['minor problem', 'small problem', 'slight problem'],
    ['moderate problem'],
    ['major problem', 'big problem', 'serious problem'],
  ],
  means: [
    ['very difficult', 'finding it very difficult'],
    ['difficult', 'finding it difficult', 'quite difficult'],
    ['coping', 'getting by', 'just about getting by', 'managing'],
    ['doing alright', 'doing all right'],
    ['living comfortably', 'comfortable'],
  ],
  quarter: [
    ['q1', 't1', '1st quarter', 'first quarter'],
    ['q2', 't2', '2nd quarter', 'second quarter'],
    ['q3', 't3', '3rd quarter', 'third quarter'],
    ['q4', 't4', '4th quarter', 'fourth quarter'],
  ],
  place: [
    ['first', '1st'],
    ['second', '2nd'],
    ['third', '3rd'],
    ['fourth', '4th'],
    ['fifth', '5th'],
    ['sixth', '6th'],
  ],
  grade: [['fail', 'unsatisfactory'], ['pass', 'sufficient'], ['merit', 'credit'], ['distinction']],
  Häufigkeit: [
    ['nie', 'niemals'],
    ['fast nie', 'sehr selten'],
    ['selten'],
    ['manchmal', 'gelegentlich', 'ab und zu'],
    ['oft', 'häufig'],
    ['sehr oft', 'fast immer', 'meistens'],
    ['immer', 'täglich'],
  ],
  Zustimmung: [
    ['stimme gar nicht zu', 'stimme überhaupt nicht zu', 'trifft überhaupt nicht zu', 'trifft gar nicht zu'],
    ['stimme nicht zu', 'stimme eher nicht zu', 'lehne ab', 'trifft eher nicht zu', 'trifft nicht zu'],
    ['teils teils', 'weder noch', 'unentschieden'],
    ['stimme zu', 'stimme eher zu', 'trifft eher zu', 'trifft zu'],
    [
      'stimme voll zu',
      'stimme voll und ganz zu',
      'stimme völlig zu',
      'trifft voll zu',
      'trifft voll und ganz zu',
    ],
  ],
  Zufriedenheit: [
    ['sehr unzufrieden', 'gar nicht zufrieden'],
    ['unzufrieden', 'eher unzufrieden'],
    ['teils teils', 'weder noch'],
    ['zufrieden', 'eher zufrieden'],
    ['sehr zufrieden', 'völlig zufrieden'],
  ],
  Güte: [
    ['sehr schlecht'],
    ['schlecht', 'weniger gut'],
    ['mittelmäßig', 'zufriedenstellend', 'mittel'],
    ['gut'],
    ['sehr gut', 'ausgezeichnet'],
  ],
  fréquence: [
    ['jamais'],
    ['rarement', 'presque jamais'],
    ['parfois', 'quelquefois', 'de temps en temps'],
    ['souvent'],
    ['très souvent', 'presque toujours'],
    ['toujours'],
  ],
  accord: [
    ['pas du tout d accord'],
    ['plutôt pas d accord', 'pas d accord'],
    ['ni d accord ni pas d accord'],
    ['plutôt d accord', 'd accord'],
    ['tout à fait d accord'],
  ],
  'satisfaction (français)': [
    ['pas du tout satisfait', 'très insatisfait'],
    ['peu satisfait', 'plutôt pas satisfait', 'insatisfait'],
    ['plutôt satisfait', 'assez satisfait', 'satisfait'],
    ['très satisfait'],
  ],
  frecuencia: [
    ['nunca'],
    ['casi nunca', 'rara vez'],
    ['a veces', 'algunas veces'],
    ['a menudo', 'frecuentemente'],
    ['casi siempre', 'muy a menudo'],
    ['siempre'],
  ],
  acuerdo: [
    ['totalmente en desacuerdo', 'muy en desacuerdo'],
    ['en desacuerdo', 'algo en desacuerdo'],
    ['ni de acuerdo ni en desacuerdo'],
    ['de acuerdo', 'algo de acuerdo'],
    ['totalmente de acuerdo', 'muy de acuerdo'],
  ],
  'Monat, mois, mes': [
    ['januar', 'janvier', 'enero'],
    ['februar', 'février', 'febrero'],
    ['märz', 'mars', 'marzo'],
    ['avril', 'abril'],
    ['mai', 'mayo'],
    ['juni', 'juin', 'junio'],
    ['juli', 'juillet', 'julio'],
    ['août', 'agosto'],
    ['septembre', 'septiembre'],
    ['oktober', 'octobre', 'octubre'],
    ['novembre', 'noviembre'],
    ['dezember', 'décembre', 'diciembre'],
  ],
  Wochentag: [
    ['montag', 'lundi', 'lunes'],
    ['dienstag', 'mardi', 'martes'],
    ['mittwoch', 'mercredi', 'miércoles'],
    ['donnerstag', 'jeudi', 'jueves'],
    ['freitag', 'vendredi', 'viernes'],
    ['samstag', 'samedi', 'sábado'],
    ['sonntag', 'dimanche', 'domingo'],
  ],
  frequency: [
    ['never', 'not at all', 'none of the time', 'not in the past month'],
    ['almost never', 'hardly ever', 'very rarely'],
    [
      'rarely',
      'seldom',
      'once or twice',
      'less often',
      'less than once a year',
      'less than once a month',
      'less than monthly',
      'a little of the time',
    ],
    ['sometimes', 'occasionally', 'now and then', 'once a year', 'several times a year', 'some of the time'],
    [
      'often',
      'frequently',
      'usually',
      'once a month',
      'monthly',
      'several times a month',
      'most of the time',
    ],
    [
      'very often',
      'almost always',
      'nearly always',
      'once a week',
      'weekly',
      'several times a week',
      'most days',
    ],
    [
      'always',
      'daily',
      'every day',
      'once a day',
      'more than once a day',
      'several times a day',
      'all the time',
      'all of the time',
    ],
  ],
  agreement: [
    [
      'strongly disagree',
      'disagree strongly',
      'disagree completely',
      'completely disagree',
      'totally disagree',
    ],
    ['disagree', 'somewhat disagree', 'tend to disagree', 'disagree somewhat', 'slightly disagree'],
    ['neither', 'neither agree nor disagree', 'neutral', 'undecided'],
    ['agree', 'somewhat agree', 'tend to agree', 'agree somewhat', 'slightly agree'],
    ['strongly agree', 'agree strongly', 'completely agree', 'totally agree'],
  ],
  satisfaction: [
    ['very dissatisfied', 'completely dissatisfied'],
    ['dissatisfied', 'fairly dissatisfied', 'rather dissatisfied'],
    ['neither satisfied nor dissatisfied', 'neither'],
    ['satisfied', 'fairly satisfied', 'rather satisfied'],
    ['very satisfied', 'completely satisfied'],
  ],
  quality: [
    ['very poor', 'very bad', 'terrible'],
    ['poor', 'bad'],
    ['fair', 'average', 'neither good nor bad'],
    ['good', 'fairly good'],
    ['very good'],
    ['excellent'],
  ],
  importance: [
    ['not important', 'not at all important', 'unimportant', 'not worried', 'not at all worried'],
    ['slightly important', 'a little worried', 'not very important', 'not very worried'],
    ['fairly important', 'moderately important', 'somewhat important', 'fairly worried', 'somewhat worried'],
    ['important', 'quite important', 'worried'],
    ['very important', 'very worried'],
  ],
  likelihood: [
    ['very unlikely', 'definitely not', 'certainly not'],
    ['unlikely', 'fairly unlikely', 'probably not'],
    ['possibly', 'perhaps', 'maybe'],
    ['likely', 'fairly likely', 'probably'],
    ['very likely', 'definitely', 'certain', 'certainly'],
  ],
  certainty: [
    ['never', 'in no case', 'by no means'],
    ['hardly', 'rather not', 'i doubt it'],
    ['perhaps', 'it depends', 'not sure'],
    ['rather yes', 'i think so'],
    ['surely', 'gladly', 'in any case'],
  ],
  thickness: [
    ['none', 'no', 'bare'],
    ['thin', 'very thin', 'light'],
    ['medium', 'middling'],
    ['thick', 'heavy', 'dense'],
    ['very thick', 'solid', 'pack', 'packed'],
  ],
  wind: [
    ['calm', 'still', 'none'],
    ['light', 'light air', 'light breeze'],
    ['gentle', 'gentle breeze', 'moderate', 'breeze'],
    ['fresh', 'fresh breeze', 'brisk'],
    ['strong', 'strong breeze'],
    ['gale', 'near gale', 'strong gale'],
    ['storm', 'violent storm', 'hurricane'],
  ],
  speed: [
    ['standing', 'stopped', 'still', 'none', 'blocked'],
    ['very slow', 'poor'],
    ['slow'],
    ['medium', 'moderate', 'normal'],
    ['fast', 'quick', 'free', 'good'],
    ['very fast', 'very quick'],
  ],
  warmth: [
    ['freezing', 'icy', 'very cold'],
    ['cold'],
    ['cool'],
    ['mild', 'lukewarm', 'moderate'],
    ['warm'],
    ['hot'],
    ['very hot', 'boiling'],
  ],
  wetness: [
    ['dry', 'very dry'],
    ['moist', 'damp', 'slightly moist'],
    ['wet'],
    ['very wet', 'soaked', 'flooded', 'standing water'],
  ],
  course: [
    ['none', 'no course', 'untrained'],
    ['evening class', 'talk', 'one day', 'introduction'],
    ['short course', 'course', 'basic course'],
    ['certificate'],
    ['diploma', 'advanced course'],
    ['master', 'master s test', 'master test', 'instructor'],
  ],
  size: [
    ['very small', 'xs', 'tiny'],
    ['small', 's'],
    ['medium', 'm'],
    ['large', 'l', 'big'],
    ['very large', 'xl', 'huge'],
  ],
  amount: [
    ['none', 'nothing'],
    ['very low', 'very little'],
    ['low', 'a little', 'few', 'minor'],
    ['medium', 'moderate', 'some', 'average'],
    ['high', 'a lot', 'many', 'major'],
    ['very high', 'a great deal', 'severe'],
  ],
  age: [
    ['infant', 'baby'],
    ['child'],
    ['adolescent', 'teenager'],
    ['young adult'],
    ['adult'],
    ['elderly', 'senior'],
  ],
  condition: [
    ['much worse'],
    ['worse', 'a little worse', 'got worse'],
    ['the same', 'same', 'about the same', 'unchanged', 'stayed the same'],
    ['better', 'a little better', 'got better'],
    ['much better'],
  ],
  education: [
    ['no schooling', 'none', 'no qualification', 'no education', 'no formal education'],
    ['preschool', 'nursery', 'kindergarten'],
    ['primary', 'elementary', '1st 4th', '1st to 4th'],
    ['5th 6th', '5th to 6th'],
    ['lower secondary', 'middle school', 'junior high', '7th 8th', '7th to 8th'],
    ['9th', '9th grade'],
    ['10th', '10th grade'],
    ['11th', '11th grade'],
    ['12th', '12th grade', 'some high school'],
    ['secondary', 'upper secondary', 'high school', 'hs grad', 'high school graduate', 'ged'],
    ['vocational', 'apprenticeship', 'college', 'some college'],
    [
      'associate',
      'associates',
      'associate s',
      'assoc voc',
      'assoc acdm',
      'associate degree',
      'associate s degree',
    ],
    [
      'tertiary',
      'higher',
      'higher education',
      'degree',
      'university',
      'bachelor',
      'bachelors',
      'bachelor s',
      'college graduate',
      'bachelor s degree',
    ],
    [
      'postgraduate',
      'master',
      'masters',
      'master s',
      'master s degree',
      'graduate school',
      'prof school',
      'professional',
    ],
    ['doctorate', 'doctoral', 'phd'],
  ],
  month: [
    ['january', 'jan'],
    ['february', 'feb'],
    ['march', 'mar'],
    ['april', 'apr'],
    ['may'],
    ['june', 'jun'],
    ['july', 'jul'],
    ['august', 'aug'],
    ['september', 'sep', 'sept'],
    ['october', 'oct'],
    ['november', 'nov'],
    ['december', 'dec'],
  ],
  weekday: [
    ['monday', 'mon'],
    ['tuesday', 'tue'],
    ['wednesday', 'wed'],
    ['thursday', 'thu'],
    ['friday', 'fri'],
    ['saturday', 'sat'],
    ['sunday', 'sun'],
  ],
  'time since': [
    ['today', 'this week'],
    ['this month', 'last week'],
    ['last month'],
    ['this year', 'within a year'],
    ['last year'],
    ['earlier', 'longer ago'],
  ],
};

/** A label as bare words: "  Very often (weekly)" → "very often weekly". */
const bare = (label: string): string =>
  label
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();

interface Place {
  ladder: string;
  rank: number;
  length: number;
}

/** Places of each phrase, so that a label is looked up and not searched through every ladder. */
const PLACES = new Map<string, Place[]>();
for (const [ladder, ranks] of Object.entries(LADDERS)) {
  ranks.forEach((phrases, rank) =>
    phrases.forEach((phrase) => {
      putUnder(PLACES, phrase, { ladder, rank, length: phrase.split(' ').length });
    }),
  );
}
const LONGEST_PHRASE = 5;

/** The ladder places of a label: by its longest phrase, and only where that is most of the label. */
function placesOf(label: string): Place[] {
  const words = bare(label).split(' ');
  for (let length = Math.min(LONGEST_PHRASE, words.length); length > 0; length--) {
    if (length < words.length / 2) break;
    for (let at = 0; at + length <= words.length; at++) {
      const found = PLACES.get(words.slice(at, at + length).join(' '));
      if (found) return found;
    }
  }
  return [];
}

/** An order that words themselves give: what ladder it is, and the rank of each label (`null`: it stands on none). */
export interface WordOrder {
  ladder: string;
  ranks: (number | null)[];
}

/** At least this share of the labels must stand on one ladder. */
const LEAST_SHARE = 0.6;

/** Whether labels are ordered by their words: a common ladder, or bands of numbers. */
export function orderOfWords(labels: readonly string[]): WordOrder | null {
  // Of two words there is no telling whether they are an order.
  if (labels.length < 3) return null;
  const places = labels.map(placesOf);
  const hits = new Map<string, number>();
  for (const found of places) for (const { ladder } of found) hits.set(ladder, (hits.get(ladder) ?? 0) + 1);
  for (const [ladder, count] of [...hits].sort((a, b) => b[1] - a[1])) {
    const ranks = places.map((found) => found.find((place) => place.ladder === ladder)?.rank ?? null);
    const distinct = new Set(ranks.filter((rank) => rank !== null)).size;
    if (count >= labels.length * LEAST_SHARE && distinct >= Math.min(3, labels.length))
      return { ladder, ranks };
  }
  const degrees = degreesOf(labels);
  return degrees ? { ladder: 'how much', ranks: degrees } : bands(labels);
}

/** "under 500", "500 to 999", "2,000 or more": the first number of each label gives its place. */
function bands(labels: readonly string[]): WordOrder | null {
  const withNumbers = labels.filter((label) => /\d/.test(label));
  const asBands = labels.filter((label) =>
    /\d\s*(-|–|to|and|bis|à|a|or|und|years|%|\+)|(under|over|below|above|less|more|before|after|up to|at least)\b.*\d/i.test(
      label,
    ),
  );
  // Numbers of which the last is open: 0, 1, 2, 3+.
  const open = labels.filter((label) => /^\d+\s*(\+|or more|and more|and over|or over)/i.test(label.trim()));
  const counted =
    open.length === 1 && labels.every((label) => open.includes(label) || /^\d+$/.test(label.trim()));
  if (
    labels.length < 3 ||
    withNumbers.length < labels.length * LEAST_SHARE ||
    (asBands.length < labels.length * 0.5 && !counted)
  )
    return null;
  const ranks = labels.map((label) => {
    const first = /\d[\d,. ]*/.exec(label)?.[0].replace(/[, ]|\.(?=\d{3})/g, '');
    if (first === undefined) return null;
    const below = /(under|below|less|before|up to)\b|^\s*[<≤]/i.test(label) ? -0.5 : 0;
    return Number.parseFloat(first) + below;
  });
  return new Set(ranks).size === labels.length ? { ladder: 'bands of numbers', ranks } : null;
}

/** Whether ranks go one way along the list, gaps allowed. */
export function monotone(ranks: readonly (number | null)[]): boolean {
  const known = ranks.filter((rank) => rank !== null);
  const up = known.every((rank, i) => i === 0 || rank >= known[i - 1]);
  const down = known.every((rank, i) => i === 0 || rank <= known[i - 1]);
  return known.length > 1 && (up || down);
}

/** Letters or codes with letters that are counted off: A, B, C …; G1, G2, G3a. @returns why, or `null` */
export function letterGrades(codes: readonly string[]): string | null {
  if (codes.length < 3 || codes.length > 12) return null;
  const upper = codes.map((code) => code.trim().toUpperCase());
  if (upper.every((code) => /^[A-Z][+-]?$/.test(code))) {
    const letters = [...new Set(upper.map((code) => code.charCodeAt(0) - 65))].sort((a, b) => a - b);
    return letters[0] === 0 && letters.length >= 3 && letters[letters.length - 1] <= letters.length
      ? `letters counted off from A to ${String.fromCharCode(65 + letters[letters.length - 1])}`
      : null;
  }
  const parts = upper.map((code) => /^(\D{0,8}?)(\d{1,2})[A-C]?$/.exec(code));
  if (
    !parts.every((part) => part !== null) ||
    new Set(parts.map((part) => part?.[1])).size !== 1 ||
    parts[0]?.[1] === ''
  )
    return null;
  const numbers = [...new Set(parts.map((part) => Number(part?.[2])))].sort((a, b) => a - b);
  return numbers.length >= 3 && numbers[0] <= 1 && numbers[numbers.length - 1] - numbers[0] < numbers.length
    ? `${codes[0]} to ${codes[codes.length - 1]} are counted off`
    : null;
}
