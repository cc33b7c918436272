import type { Subject } from '../rule';

/** What the values of a variable may be. */
export interface Bounds {
  min: number | null;
  max: number | null;
  why: string;
  certainty: number;
  /** By the codebook itself. */
  given?: boolean;
}

/** Bounds by the codebook; else by the words of label, units and name; `null` where nothing is said. */
export function boundsOf({ name, label, entry }: Subject): Bounds | null {
  const given = entry?.validRanges.filter(({ min, max }) => min !== null || max !== null) ?? [];
  if (given.length === 1)
    return {
      ...given[0],
      why: `the codebook allows ${given[0].min ?? '…'} to ${given[0].max ?? '…'}`,
      certainty: 0.95,
      given: true,
    };
  if (given.length > 1) return null;
  const words = `${label ?? ''} ${entry?.units ?? ''} ${name.replace(/[_.\d]+/g, ' ')}`;
  if (
    /\b(percent(age)?|per cent|pct|prozent|pourcentage|porcentaje)\b|%/i.test(words) &&
    !/change|growth|increase|decrease|difference|return/i.test(words)
  )
    return { min: 0, max: 100, why: 'it is a percentage', certainty: 0.9 };
  if (
    /\b(age|alter|edad)\b/i.test(words) &&
    !/\b(age (of )?(the )?(boiler|building|house|home|car|vehicle|tree|machine|\w+ machine)|months?|mo|mos|mon|days|weeks|mean age|average|group|band|class)\b/i.test(
      words,
    ) &&
    !/\bage of the (?!respondent|person|child|mother|father|head|patient)/i.test(words)
  )
    return { min: 0, max: 120, why: 'nobody is so old', certainty: 0.9 };
  if (
    /\b(\w*month|monat|mois|mes)\b/i.test(words) &&
    !/months|per month|a month|in a (usual )?month|monthly|income|rent|spent|paid/i.test(words)
  )
    return { min: 1, max: 12, why: 'a year has twelve months', certainty: 0.9 };
  if (/\b(day of (the )?month)\b/i.test(words))
    return { min: 1, max: 31, why: 'no month has so many days', certainty: 0.9 };
  if (
    /\b(hour|stunde|heure|hora)\b/i.test(words) &&
    !/\b(per|an|each|pay|wage|rate|price|cost|after|before|since)\b/i.test(words)
  )
    return { min: 0, max: 24, why: 'a day has 24 hours', certainty: 0.85 };
  if (/\bhours? (of the day|per day|a day|on a \w*\s?day)\b/i.test(words))
    return { min: 0, max: 24, why: 'a day has 24 hours', certainty: 0.88 };
  if (/\b(hours? (per|a) week|weekly hours|hours worked (last|per) week)\b/i.test(words))
    return { min: 0, max: 168, why: 'a week has 168 hours', certainty: 0.9 };
  if (
    /\b(\w*year|yob|jahr|ann[ée]e|a[ñn]o)\b/i.test(words) &&
    !/years|per year|last year|a year|next year|yearly/i.test(words)
  )
    return {
      min: null,
      max: new Date().getFullYear() + 1,
      why: 'the year has not come yet',
      certainty: 0.85,
    };
  return null;
}
