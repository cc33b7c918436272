import { rowsOf, validOf } from '../levels';
import { answersInMinutes, falling, fullEnds, isEven, middleBeyondZero } from '../shape';
import { roundedTo, shareOfFives, shareOfZeros } from '../shape';
import { between, is, type Cue } from './cue';
import type { Numbers, Seen } from './seen';

const FEW = 7;
const SEVERAL = 12;
const MANY = 25;
const LONG = 60;
/** Of a numbering a fifth are multiples of five; of answers that people round, more. */
const HEAPED = 0.35;
const LEAST_ROUNDED = 8;
const LEAST_EVEN = 13;
/** The tops of common rating scales, from one. */
const TOPS = [4, 5, 7, 10];
/** Points in time as whole numbers: seconds and milliseconds since 1970, from 1990 to 2060. */
const SECONDS = [631152000, 2840140800];

/** A cue of whole numbers. */
const whole =
  (holds: (numbers: Numbers, seen: Seen) => number | boolean) =>
  (seen: Seen): number =>
    seen.written.storage !== 'integer' || seen.numbers === null || seen.numbers.distinct === 1
      ? 0
      : Number(holds(seen.numbers, seen));
const each = ({ rows, distinct }: Numbers): number => rows / distinct;
const span = ({ low, high }: Numbers): number => high - low + 1;
const runs = ({ distinct, rows }: Numbers): boolean => distinct <= SEVERAL && rows >= distinct * 3;
const range = ({ valid, numbers }: Seen): string =>
  `${numbers?.distinct ?? 0} distinct whole numbers from ${numbers?.body.at(0)?.code ?? valid.at(0)?.code ?? ''} to ${numbers?.body.at(numbers.distinct - 1)?.code ?? ''}`;

/** What the numbers themselves tell. */
export const NUMBER_CUES: readonly Cue[] = [
  {
    id: 'whole numbers',
    kinds: ['identifier', 'nominal', 'ordinal', 'count', 'date'],
    holds: whole(() => 1),
  },
  {
    id: 'decimals',
    kinds: ['identifier', 'nominal', 'ordinal', 'count'],
    holds: ({ written, numbers }) => is(written.storage === 'decimal' && numbers !== null),
  },
  {
    id: 'numbers with decimals',
    kinds: ['continuous', 'nominal', 'ordinal', 'count', 'identifier'],
    holds: ({ written, numbers }) =>
      is(written.storage === 'decimal' && numbers !== null && numbers.distinct > 1),
    says: () => 'numbers with decimals',
  },
  {
    id: 'one value',
    kinds: ['nominal', 'continuous', 'count', 'ordinal'],
    holds: ({ numbers }) => is(numbers !== null && numbers.distinct === 1),
    says: ({ valid }) => `one value only, ${valid.at(0)?.code}`,
  },
  {
    id: 'two values',
    kinds: ['nominal', 'ordinal', 'count', 'continuous'],
    holds: whole(({ distinct }) => distinct === 2),
    says: (seen) => {
      const body = [...(seen.numbers?.body ?? [])];
      const beside = validOf(seen.levels).levels.filter((level) => !body.includes(level));
      const apart = beside.length
        ? `, beside ${beside
            .slice(0, 3)
            .map(({ code }) => code)
            .join(', ')}`
        : '';
      return `two values, ${body[0]?.code ?? ''} and ${body[1]?.code ?? ''}${apart}`;
    },
  },
  {
    id: 'zero and one',
    kinds: ['nominal', 'ordinal', 'count'],
    holds: whole(({ distinct, low, high }) => distinct === 2 && low === 0 && high === 1),
  },
  {
    id: 'three to seven values',
    kinds: ['nominal', 'ordinal', 'count', 'continuous'],
    holds: whole((n) => n.distinct >= 3 && n.distinct <= FEW && runs(n)),
    says: range,
  },
  {
    id: 'eight to twelve values',
    kinds: ['nominal', 'ordinal', 'count', 'continuous'],
    holds: whole((n) => n.distinct > FEW && runs(n)),
    says: range,
  },
  {
    id: 'thirteen to twenty-five values',
    kinds: ['nominal', 'ordinal', 'count', 'continuous'],
    holds: whole(({ distinct }) => distinct > SEVERAL && distinct <= MANY),
    says: range,
  },
  {
    id: 'many values',
    kinds: ['nominal', 'ordinal', 'count', 'continuous', 'identifier'],
    holds: whole(({ distinct }) => distinct > MANY),
    says: range,
  },
  {
    id: 'very many values',
    kinds: ['nominal', 'ordinal', 'count', 'continuous', 'identifier'],
    holds: whole(({ distinct }) => between(Math.log10(distinct), 1.8, 3)),
    says: range,
  },
  {
    id: 'few values without a gap',
    kinds: ['nominal', 'ordinal', 'count'],
    holds: whole((n) => runs(n) && n.distinct > 2 && n.contiguous),
    says: () => 'few values without a gap, as scales have',
  },
  {
    id: 'few values from one',
    kinds: ['nominal', 'ordinal', 'count'],
    holds: whole((n) => runs(n) && n.distinct > 2 && n.low === 1),
  },
  {
    id: 'few values from zero',
    kinds: ['nominal', 'ordinal', 'count'],
    holds: whole((n) => runs(n) && n.distinct > 2 && n.low === 0),
  },
  {
    id: 'few values up to the top of a scale',
    kinds: ['nominal', 'ordinal', 'count'],
    holds: whole((n) => runs(n) && n.contiguous && n.low === 1 && TOPS.includes(n.high)),
    says: ({ numbers }) => `from 1 to ${numbers?.high ?? ''}, as scales are`,
  },
  {
    id: 'from zero to ten',
    kinds: ['nominal', 'ordinal', 'count', 'continuous'],
    holds: whole(({ low, high }) => low === 0 && high === 10),
    says: () => 'from 0 to 10, as scales are',
  },
  {
    id: 'as far below zero as above',
    kinds: ['ordinal', 'continuous', 'nominal'],
    holds: whole((n) => runs(n) && n.contiguous && n.low < 0 && n.low === -n.high && n.distinct >= 5),
    says: ({ numbers }) =>
      `as far below zero as above, from ${numbers?.low ?? ''} to ${numbers?.high ?? ''}, as scales are`,
  },
  {
    id: 'item of a battery',
    kinds: ['ordinal', 'nominal', 'count', 'continuous'],
    holds: ({ battery = null, distinct }) =>
      is(battery !== null && battery.high - battery.low >= 2 && distinct > 1),
    says: ({ battery }) =>
      `${battery?.items ?? 0} variables of related names answer from ${battery?.low ?? 0} to ${battery?.high ?? 0}, as the items of a battery do`,
  },
  {
    id: 'gaps among few values',
    kinds: ['nominal', 'ordinal', 'count', 'continuous'],
    holds: whole((n) => runs(n) && n.shape.gaps),
    says: () => 'few values with gaps between, as codes have',
  },
  {
    id: 'gaps among many values',
    kinds: ['nominal', 'continuous', 'count'],
    // Heaped answers leave gaps too, but at round numbers.
    holds: whole(
      (n) => !runs(n) && n.shape.gaps && n.distinct <= LONG && each(n) >= 15 && shareOfFives(n.body) < 0.5,
    ),
    says: () => 'values are missing between frequent ones, as between codes',
  },
  {
    id: 'wide gaps',
    kinds: ['nominal', 'continuous', 'count', 'ordinal'],
    holds: whole(
      (n) =>
        n.distinct > 2 &&
        n.distinct <= LONG &&
        each(n) >= 15 &&
        !n.contiguous &&
        span(n) / n.distinct > 3 &&
        shareOfFives(n.body) < 0.5,
    ),
    says: ({ numbers }) =>
      `${numbers?.distinct ?? 0} values with wide gaps, each ${Math.round((numbers?.rows ?? 0) / (numbers?.distinct ?? 1))} times on average`,
  },
  {
    id: 'frequencies go up and down',
    kinds: ['nominal', 'ordinal', 'count', 'continuous'],
    holds: whole((n) => (n.distinct > 2 ? between(n.shape.turns, 1, 3) : 0)),
    says: () => 'their frequencies go up and down, as those of categories do',
  },
  {
    id: 'frequencies go up and down often',
    kinds: ['nominal', 'ordinal', 'count', 'continuous'],
    holds: whole((n) => n.distinct > SEVERAL && n.shape.turns >= n.distinct / 4),
    says: () => 'their frequencies go up and down, as those of categories do',
  },
  {
    id: 'one peak',
    kinds: ['continuous', 'count', 'ordinal', 'nominal'],
    holds: whole((n) => n.distinct >= 7 && n.low > 1 && n.shape.bell),
    says: () => 'one peak, and ever fewer on both sides, as quantities have',
  },
  {
    id: 'one peak from a low start',
    kinds: ['ordinal', 'count', 'continuous', 'nominal'],
    holds: whole((n) => n.distinct >= 4 && n.low <= 1 && n.low >= 0 && n.shape.turns <= 1),
  },
  {
    id: 'runs out, from zero',
    kinds: ['count', 'ordinal', 'nominal', 'continuous'],
    holds: whole((n) => n.low === 0 && n.shape.runsOut),
    says: () => 'many small and ever fewer large values, as counts have',
  },
  {
    id: 'runs out, from one',
    kinds: ['count', 'ordinal', 'nominal', 'continuous'],
    holds: whole((n) => n.low === 1 && n.shape.runsOut),
    says: () => 'many small and ever fewer large values, as counts have',
  },
  {
    id: 'many small values',
    kinds: ['count', 'ordinal', 'nominal', 'continuous'],
    holds: whole((n) => n.low >= 0 && n.distinct > 3 && falling(n.body)),
    says: () => 'many small and few large values, as counts have',
  },
  {
    id: 'the last step is full',
    kinds: ['ordinal', 'nominal', 'count'],
    holds: whole((n) => runs(n) && n.distinct > 2 && (n.body.at(-1)?.count ?? 0) > each(n) * 0.4),
  },
  {
    id: 'mostly zero, the rest large',
    kinds: ['continuous', 'count', 'nominal', 'ordinal'],
    holds: whole(
      (n) =>
        between(shareOfZeros(n.body, n.rows), 0.2, 0.5) *
        between(Math.log10(middleBeyondZero(n.body, n.rows)), 1.3, 2.7),
    ),
    says: () => 'mostly zero, and large where it is not, as amounts are',
  },
  {
    id: 'large numbers',
    kinds: ['continuous', 'count', 'nominal', 'ordinal', 'identifier'],
    holds: whole((n) => between(Math.log10(Math.max(1, n.high)), 2, 5)),
  },
  {
    id: 'round numbers',
    kinds: ['continuous', 'count', 'nominal'],
    holds: whole((n) => (n.distinct >= 6 && n.high >= 30 ? between(shareOfFives(n.body), 0.3, 0.8) : 0)),
    says: () => 'round numbers, as people give and firms charge',
  },
  {
    id: 'below zero',
    kinds: ['continuous', 'count', 'ordinal', 'nominal'],
    holds: whole((n) => n.low < 0 && n.distinct > SEVERAL),
    says: ({ numbers }) => `values below zero, down to ${numbers?.low ?? ''}`,
  },
  {
    id: 'rounded to a step',
    kinds: ['continuous', 'count', 'nominal'],
    holds: whole((n) => n.distinct >= LEAST_ROUNDED && roundedTo(n.body) > 0),
    says: ({ numbers }) =>
      `each value from ${numbers?.low ?? ''} to ${numbers?.high ?? ''} in steps of ${numbers ? roundedTo(numbers.body) : ''}, as rounded quantities have`,
  },
  {
    id: 'as people answer',
    kinds: ['continuous', 'count', 'nominal'],
    holds: whole((n) => n.distinct <= LONG && answersInMinutes(n.body)),
    says: () => 'round numbers that lie further apart the larger they are, as people answer',
  },
  {
    id: 'each as often as the others',
    kinds: ['nominal', 'ordinal', 'continuous', 'count', 'identifier'],
    // Of a quantity hardly each value stands in as many rows as the next.
    holds: whole((n) => n.distinct >= LEAST_EVEN && each(n) >= 5 && isEven(n.body)),
    says: ({ numbers }) =>
      `each of ${numbers?.distinct ?? 0} values stands in as many rows as the others, as lots or groups do`,
  },
  {
    id: 'numbered from one, full to the end',
    kinds: ['nominal', 'ordinal', 'continuous', 'count'],
    holds: whole(
      (n) =>
        n.distinct > SEVERAL &&
        n.distinct <= LONG &&
        n.contiguous &&
        n.low === 1 &&
        each(n) >= 15 &&
        shareOfFives(n.body) < HEAPED &&
        fullEnds(n.body),
    ),
    says: ({ numbers }) => `numbered from 1 to ${numbers?.high ?? ''}, the last as frequent as others`,
  },
  {
    id: 'parts of the calendar',
    kinds: ['ordinal', 'nominal', 'continuous', 'count'],
    holds: whole(
      (n) =>
        n.contiguous &&
        each(n) >= 3 &&
        ((n.low === 1 && (n.high === 31 || n.high === 12 || n.high === 7)) ||
          (n.low === 0 && (n.high === 23 || n.high === 6))) &&
        n.body.every(({ count }) => count > each(n) * 0.4),
    ),
    says: ({ numbers }) =>
      `from ${numbers?.low ?? ''} to ${numbers?.high ?? ''}, each about as often: a part of the calendar or of the clock`,
  },
  {
    id: 'years',
    kinds: ['continuous', 'ordinal', 'nominal', 'date', 'count', 'identifier'],
    holds: whole((n) => n.low >= 1800 && n.high <= 2100 && n.distinct > 2),
    says: () => 'the values are years',
  },
  {
    id: 'points in time as numbers',
    kinds: ['date', 'identifier', 'continuous'],
    holds: whole(
      ({ low, high, distinct }) =>
        distinct > SEVERAL && [1, 1000].some((unit) => low >= SECONDS[0] * unit && high <= SECONDS[1] * unit),
    ),
    says: ({ numbers }) =>
      `${(numbers?.high ?? 0) > 1e12 ? 'milliseconds' : 'seconds'} since 1970, such as ${numbers?.body.at(0)?.code ?? ''}`,
  },
  {
    id: 'few rows each',
    kinds: ['nominal', 'continuous', 'count', 'identifier'],
    holds: whole((n) => (n.distinct > SEVERAL ? between(3 - rowsOf(n.body) / n.distinct, 0, 2) : 0)),
  },
];
