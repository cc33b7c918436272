import * as z from 'zod';

/**
 * How the cells of a column are spelt, where a form with types of its own holds their values alone: with it they are written
 * again as they came.
 */
export const spellingSchema = z.discriminatedUnion('as', [
  z.object({
    as: z.literal('number'),
    decimal: z.enum(['.', ',']),
    /** What stands between groups of three digits. */
    thousands: z.string(),
    /** What stands before and after the digits: currencies, percent. */
    before: z.string(),
    after: z.string(),
    /** Where the minus stands: before all, before the digits, after all; or brackets around. */
    minus: z.enum(['front', 'inside', 'end', 'brackets']),
    sign: z.enum(['-', '\u2212']),
    /** Digits after the decimal mark; `null` where their number differs. */
    decimals: z.number().int().nullable(),
  }),
  z.object({ as: z.literal('boolean'), true: z.string(), false: z.string() }),
  z.object({
    as: z.literal('moment'),
    /** Signs of Unicode Technical Standard 35: yyyy or yy, MM, dd, HH, mm, ss; anything else in single quotes or as it is. */
    pattern: z.string(),
    /** Decimals of a second; `null` for as many as there are. */
    fraction: z.number().int().nullable(),
    /** The one zone that all cells name. */
    zone: z.string().nullable(),
  }),
]);
export type Spelling = z.infer<typeof spellingSchema>;
export type NumberSpelling = Extract<Spelling, { as: 'number' }>;
export type MomentSpelling = Extract<Spelling, { as: 'moment' }>;

const AROUND = /^(\D*?)([.,]?\d.*\d|[.,]?\d)(\D*)$/su;
const BETWEEN = /(?<=\d)([\s\u00a0\u202f\u2009,.'\u2019])(?=\d{3})/u;

/** How numbers are spelt that stand under one form, told from some of their texts. */
export function numberSpelling(
  texts: Iterable<string>,
  form: { decimal: '.' | ','; thousands: string },
): NumberSpelling {
  const found: NumberSpelling = {
    as: 'number',
    decimal: form.decimal,
    thousands: '',
    before: '',
    after: '',
    minus: 'front',
    sign: '-',
    decimals: null,
  };
  const decimals = new Set<number>();
  for (const text of texts) {
    const parts = AROUND.exec(text.trim());
    if (!parts) continue;
    const [, head, digits, tail] = parts;
    const at = digits.lastIndexOf(form.decimal);
    const whole = at < 0 ? digits : digits.slice(0, at);
    decimals.add(at < 0 ? 0 : digits.length - at - 1);
    found.thousands ||= (form.thousands && BETWEEN.exec(whole)?.[1]) || '';
    found.before ||= head.replace(/[(+\-\u2212]/g, '');
    found.after ||= tail.replace(/[)\-\u2212]/g, '');
    const minus = /[-\u2212]/.exec(text)?.[0];
    if (head.startsWith('(')) found.minus = 'brackets';
    else if (minus) {
      found.sign = minus as NumberSpelling['sign'];
      found.minus = /[-\u2212]/.test(tail) ? 'end' : /^[-\u2212]/.test(head) ? 'front' : 'inside';
    }
  }
  if (decimals.size === 1) found.decimals = [...decimals][0];
  return found;
}

/** A number as it is spelt. @param plain its digits with a point, as programs write them */
function spelNumber(plain: string, spelling: NumberSpelling): string {
  const parts = /^(-?)(\d+)(?:\.(\d+))?$/.exec(plain);
  if (!parts) return plain;
  const { decimal, thousands, before, after, minus, sign, decimals } = spelling;
  const [, negative, whole, fraction = ''] = parts;
  const grouped = thousands ? whole.replace(/\B(?=(\d{3})+(?!\d))/g, thousands) : whole;
  const rest = fraction.length <= (decimals ?? 0) ? fraction.padEnd(decimals ?? 0, '0') : fraction;
  const digits = rest ? `${grouped}${decimal}${rest}` : grouped;
  if (!negative) return `${before}${digits}${after}`;
  if (minus === 'brackets') return `(${before}${digits}${after})`;
  if (minus === 'inside') return `${before}${sign}${digits}${after}`;
  return minus === 'end' ? `${before}${digits}${after}${sign}` : `${sign}${before}${digits}${after}`;
}

const MOMENT =
  /^(?:(?:(\d{4})([-/.])(\d{1,2})\2(\d{1,2})|(\d{1,2})([-/.])(\d{1,2})\6(\d{4}|\d{2})|(\d{4})(\d{2})(\d{2}))(?:([T ])(?=\d)|$))?(?:(\d{1,2}):(\d{2})(?::(\d{2})(?:\.(\d{1,9}))?)?(Z|UTC|[+-]\d{2}(?::?\d{2})?)?)?$/;

/** Minutes by which a zone is ahead of UTC. */
function ahead(zone: string): number {
  const found = /^([+-])(\d{2}):?(\d{2})?$/.exec(zone);
  return found ? (found[1] === '-' ? -1 : 1) * (+found[2] * 60 + +(found[3] ?? 0)) : 0;
}

/** How days, times and moments are spelt: gathered text by text. */
export class MomentsSpelt {
  /** What all have in common; `null` once one differs. */
  private common: { shape: string; zone: string | null } | null | undefined;
  /** Whether numbers of one digit are padded; open until one tells. */
  private padded: boolean | null = null;
  private readonly fractions = new Set<number>();

  /** @param order of the parts of a day whose year comes last */
  constructor(private readonly order: 'dmy' | 'mdy') {}

  /**
   * Takes a text. @returns it as ISO 8601 writes it, in UTC where it names a zone; `null` where it is spelt in no way known here
   */
  add(text: string): string | null {
    const found = MOMENT.exec(text);
    if (!found || text === '') return this.none();
    const [, y1, s1, m1, d1, a, s2, b, y2, y3, m3, d3, joint, hour, minute, second, fraction, zone] = found;
    if (joint && hour === undefined) return this.none();
    const [day, month] = this.order === 'mdy' ? [b, a] : [a, b];
    const date = y1
      ? { y: y1, m: m1, d: d1, shape: `yyyy${s1}MM${s1}dd` }
      : y3
        ? { y: y3, m: m3, d: d3, shape: 'yyyyMMdd' }
        : y2
          ? {
              y: y2.length === 4 ? y2 : String(+y2 + (+y2 >= 69 ? 1900 : 2000)),
              m: month,
              d: day,
              shape: `${this.order === 'mdy' ? `MM${s2}dd` : `dd${s2}MM`}${s2}${y2.length === 4 ? 'yyyy' : 'yy'}`,
            }
          : null;
    const parts = [...(date && !y3 ? [date.m, date.d] : []), ...(hour === undefined ? [] : [hour])];
    for (const part of parts)
      if (part.length === 1) {
        if (this.padded === true) return this.none();
        this.padded = false;
      } else if (part.startsWith('0')) {
        if (this.padded === false) return this.none();
        this.padded = true;
      }
    const time = hour === undefined ? '' : `HH:mm${second === undefined ? '' : ':ss'}`;
    const shape = `${date?.shape ?? ''}${joint === 'T' ? "'T'" : (joint ?? '')}${time}`;
    if (this.common === undefined) this.common = { shape, zone: zone ?? null };
    if (this.common?.shape !== shape || this.common.zone !== (zone ?? null)) return this.none();
    if (second !== undefined) this.fractions.add(fraction?.length ?? 0);
    const two = (part: string): string => part.padStart(2, '0');
    const iso = `${date ? `${date.y}-${two(date.m)}-${two(date.d)}` : ''}${date && hour !== undefined ? 'T' : ''}${
      hour === undefined ? '' : `${two(hour)}:${minute}:${second ?? '00'}${fraction ? `.${fraction}` : ''}`
    }`;
    return zone === undefined
      ? iso
      : date
        ? shifted(iso, -ahead(zone)) && `${shifted(iso, -ahead(zone))}Z`
        : this.none();
  }

  private none(): null {
    this.common = null;
    return null;
  }

  /** How all texts that were taken are spelt; `null` where they are not spelt alike. */
  get spelling(): MomentSpelling | null {
    if (!this.common) return null;
    const { shape, zone } = this.common;
    const pattern =
      this.padded === false ? shape.replace('MM', 'M').replace('dd', 'd').replace('HH', 'H') : shape;
    return {
      as: 'moment',
      pattern,
      fraction: this.fractions.size === 1 ? [...this.fractions][0] : null,
      zone,
    };
  }
}

/** A moment so many minutes later; `null` where there is no such moment. */
function shifted(iso: string, minutes: number): string | null {
  const [whole, fraction] = iso.split('.');
  const time = Date.parse(`${whole}Z`);
  if (Number.isNaN(time)) return null;
  const at = new Date(time + minutes * 60_000).toISOString().slice(0, 19);
  return fraction === undefined ? at : `${at}.${fraction}`;
}

/** A day, time or moment as it is spelt. @param iso as ISO 8601 writes it */
function spelMoment(iso: string, { pattern, fraction, zone }: MomentSpelling): string {
  const bare = iso.replace(/Z$/, '');
  const local = zone === null ? bare : shifted(bare, ahead(zone));
  const parts = /^(?:(\d{4})-(\d{2})-(\d{2}))?T?(?:(\d{2}):(\d{2})(?::(\d{2})(?:\.(\d+))?)?)?$/.exec(
    local ?? '',
  );
  if (!parts) return iso;
  const [, year = '', month = '', day = '', hour = '00', minute = '00', second = '00', rest = ''] = parts;
  const digits = fraction === null ? rest : rest.padEnd(fraction, '0').slice(0, fraction);
  const of: Record<string, string> = {
    yyyy: year,
    yy: year.slice(2),
    MM: month,
    M: String(+month),
    dd: day,
    d: String(+day),
    HH: hour,
    H: String(+hour),
    mm: minute,
    ss: digits ? `${second}.${digits}` : second,
  };
  const text = pattern.replace(
    /'([^']*)'|yyyy|yy|MM?|dd?|HH?|mm|ss/g,
    (sign, quoted?: string) => quoted ?? of[sign],
  );
  return `${text}${zone ?? ''}`;
}

/** What a cell holds, as it was spelt. @param plain as programs write it: a number, `true` or `false`, ISO 8601 */
export function spelt(plain: string, spelling: Spelling): string {
  if (plain === '') return '';
  if (spelling.as === 'number') return spelNumber(plain, spelling);
  if (spelling.as === 'moment') return spelMoment(plain, spelling);
  const said = plain.toLowerCase();
  return said === 'true' ? spelling.true : said === 'false' ? spelling.false : plain;
}

const carriedSchema = z.object({
  entries: z.array(
    z.object({ name: z.string(), handed: z.object({ spelling: spellingSchema.optional() }).optional() }),
  ),
});
/** How columns of a file that a handoff wrote are spelt, by name. @param said what the file carries of its variables, as JSON */
export function spellingsCarried(said: string | null | undefined): ReadonlyMap<string, Spelling> {
  if (!said) return new Map();
  try {
    const read = carriedSchema.safeParse(JSON.parse(said));
    return new Map(
      (read.success ? read.data.entries : []).flatMap(({ name, handed }) =>
        handed?.spelling ? [[name, handed.spelling] as const] : [],
      ),
    );
  } catch {
    return new Map();
  }
}
