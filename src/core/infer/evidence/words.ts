import type { Kind } from '../../extract/words';
import { is, type Cue } from './cue';
import type { Seen } from './seen';
import { levelAt } from '../level-list';

/** What a label or a question says, as whole words; the words of a name stand in the vocabulary. */
const SAID = {
  number:
    /\b(number of|how many|how many times|no\.? of|count of|anzahl|wie viele|nombre de|combien|número de|cuánt[oa]s)\b/i,
  counted:
    /\b(times|visits|children|persons|people|members|household size|rooms|adults|trees|animals|vehicles|loaves)\b/i,
  measure:
    /\b(age\b(?! group| band| class)|years?|income|earnings|wage|salary|hours?|minutes|days|cost|price|spen[dt]\w*|amount|distance|kilomet\w+|km|met(er|re)s|degrees|temperature|height|width|length|area|percent\w*|share of|rate|litres?|crowns|euros?|dollars|kg|grams|weight)\b|%/i,
  category:
    /\b(type|kind|main|reason|which|whether|region|mode|status|sex|gender|has an?|owns?|have an?|did|was|were|is|country|parish|district|tenure)\b/i,
  // Numbers that are names of people, places or lots, and never quantities.
  code: /\b(codes?|interviewer|cluster|strat(um|a)|psu|sampling unit|zone|postcode|zip|occupation|industry|batch|station|team)\b/i,
  degree:
    /\b(how (often|satisfied|likely|important|worried|much|well|good)|agree\w*|satisf\w*|scale|rating|rank|importance|likelihood|level of|frequency|band|bracket|group|class|grade|quintile|decile)\b/i,
  freeText:
    /\b(remarks?|comments?|other.*(text|specify)|verbatim|description|notes?|free text|in (their|your) own words)\b/i,
  month: /\b(\w*month|mon|monat|mois|mes)\b/i,
  money:
    /inc\b|income|earnings|\b(wage|salary|turnover|revenue|einkommen|revenu|ingreso|donation|contribution|loan|payment)s?\b/i,
  // A point or a stretch of time, as a name or a label says it.
  time: /\b(time|date|stamp|timestamp|when|updated|created|modified|period|quarter|week|semester|season|zeit|datum|fecha|heure)\b/i,
};
const said = (pattern: RegExp) => ({
  holds: ({ words }: Seen): number => is(pattern.test(words)),
  says: ({ words }: Seen): string => `its words say “${pattern.exec(words)?.[0].trim() ?? ''}”`,
});
const numeric = (seen: Seen): boolean => seen.numbers !== null;
const MOST_BANDS = 25;

/** With a label a name says less; its last word says more than the others. */
const WITH_LABEL = 0.4;
const NOT_LAST = 0.7;
function byName(kind: Kind) {
  const strength = ({ byName: found, label }: Seen): number =>
    Math.max(0, ...found.filter((one) => one.kind === kind).map(({ last }) => (last ? 1 : NOT_LAST))) *
    (label === null ? 1 : WITH_LABEL);
  return {
    holds: strength,
    says: ({ byName: found }: Seen): string =>
      `its name says “${found.find((one) => one.kind === kind)?.word ?? ''}”`,
  };
}

/** What names, labels and questions say. */
export const WORD_CUES: readonly Cue[] = [
  {
    id: 'words of a number of',
    kinds: ['count', 'continuous', 'nominal', 'ordinal'],
    holds: (seen) => is(numeric(seen)) * said(SAID.number).holds(seen),
    says: said(SAID.number).says,
  },
  {
    id: 'words of what is counted',
    kinds: ['count', 'continuous', 'nominal', 'ordinal'],
    holds: (seen) => is(numeric(seen) && seen.label !== null) * said(SAID.counted).holds(seen),
    says: said(SAID.counted).says,
  },
  {
    id: 'words of a measure',
    kinds: ['continuous', 'count', 'nominal', 'ordinal'],
    holds: (seen) => is(numeric(seen)) * said(SAID.measure).holds(seen),
    says: said(SAID.measure).says,
  },
  { id: 'words of a category', kinds: ['nominal', 'ordinal'], ...said(SAID.category) },
  {
    id: 'words of a code',
    kinds: ['nominal', 'ordinal', 'continuous', 'count', 'identifier'],
    ...said(SAID.code),
  },
  { id: 'words of degree', kinds: ['ordinal', 'nominal', 'continuous'], ...said(SAID.degree) },
  {
    id: 'words of free text',
    kinds: ['text', 'nominal'],
    holds: (seen) => is(seen.texts !== null) * said(SAID.freeText).holds(seen),
    says: said(SAID.freeText).says,
  },
  {
    id: 'name of a count',
    kinds: ['count', 'continuous', 'nominal', 'ordinal'],
    ...byName('count'),
    holds: (seen) => is(numeric(seen)) * byName('count').holds(seen),
  },
  {
    id: 'name of a measure',
    kinds: ['continuous', 'count', 'nominal', 'ordinal'],
    ...byName('continuous'),
    holds: (seen) => is(numeric(seen)) * byName('continuous').holds(seen),
  },
  {
    id: 'name of a category',
    kinds: ['nominal', 'ordinal', 'continuous', 'count', 'text', 'identifier'],
    ...byName('nominal'),
  },
  { id: 'name of a degree', kinds: ['ordinal', 'nominal', 'continuous', 'count'], ...byName('ordinal') },
  {
    id: 'months by number',
    kinds: ['ordinal', 'nominal', 'count', 'continuous'],
    holds: ({ words, numbers }) =>
      is(
        numbers !== null &&
          SAID.month.test(words) &&
          numbers.low >= 1 &&
          // A slip may make a thirteenth.
          numbers.high <= 13 &&
          numbers.distinct >= 6,
      ),
    says: ({ valid }) => `months, from ${levelAt(valid, 0).code} to ${levelAt(valid, valid.length - 1).code}`,
  },
  {
    id: 'money in few steps',
    kinds: ['ordinal', 'continuous'],
    holds: ({ words, numbers }) =>
      is(
        numbers !== null &&
          SAID.money.test(words) &&
          numbers.contiguous &&
          numbers.low >= 0 &&
          numbers.low <= 1 &&
          numbers.distinct >= 4 &&
          numbers.distinct <= MOST_BANDS,
      ),
    says: ({ numbers }) =>
      `money in ${numbers?.distinct ?? 0} steps from ${numbers?.low ?? 0} to ${numbers?.high ?? 0}, as bands are numbered`,
  },
  {
    id: 'words of time',
    kinds: ['date', 'identifier', 'nominal', 'continuous'],
    ...said(SAID.time),
  },
];
