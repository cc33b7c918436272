/** A decimal number as a whole number of units of ten to a negative power. */
export interface Decimal {
  units: bigint;
  /** Digits behind the point. */
  digits: number;
}

/** The shortest decimal that a double stands for, exactly. */
export function decimalOf(value: number): Decimal {
  const [mantissa, exponent = '0'] = String(value).toLowerCase().split('e');
  const [whole, part = ''] = mantissa.split('.');
  const digits = part.length - Number(exponent);
  const units = BigInt(whole + part);
  return digits >= 0 ? { units, digits } : { units: units * 10n ** BigInt(-digits), digits: 0 };
}

const scaled = ({ units, digits }: Decimal, to: number): bigint => units * 10n ** BigInt(to - digits);

/** How many whole steps of `size` lie between `start` and a value, counted downwards where it lies below. */
export function stepsBetween(value: number, start: number, size: number): bigint {
  const all = [value, start, size].map(decimalOf);
  const digits = all.reduce((most, one) => Math.max(most, one.digits), 0);
  const [v, s, w] = all.map((one) => scaled(one, digits));
  const apart = v - s;
  return apart >= 0n ? apart / w : -((-apart + w - 1n) / w);
}

/** `start` and so many steps of `size`, written without needless zeros. */
export function edgeText(start: number, size: number, steps: bigint): string {
  const [s, w] = [start, size].map(decimalOf);
  const digits = Math.max(s.digits, w.digits);
  const units = scaled(s, digits) + scaled(w, digits) * steps;
  const sign = units < 0n ? '-' : '';
  const text = String(units < 0n ? -units : units).padStart(digits + 1, '0');
  const [whole, part] = [
    text.slice(0, text.length - digits),
    text.slice(text.length - digits).replace(/0+$/, ''),
  ];
  return `${sign}${whole}${part ? `.${part}` : ''}`;
}
