import type { Picture } from '../../core/inspect/profile';
import type { Condition } from '../../core/sieve/condition';

/** For each bar the ends of the stretch that it stands for, as they are typed. */
export function endsOf(picture: Picture, isWhole: boolean): { from: string; to: string }[] {
  if (picture.form === 'histogram' && !picture.lengths) {
    const { start, width, counts } = picture.histogram;
    const short = (x: number): string => String(Number(x.toPrecision(12)));
    return counts.map((_, i) => ({
      from: short(start + i * width),
      to: short(start + (i + 1) * width - (isWhole ? 1 : 0)),
    }));
  }
  if (picture.form === 'periods') {
    if (picture.by === 'hour')
      return picture.periods.map(({ name }) => ({ from: `${name}:00`, to: `${name}:59:59` }));
    if (picture.by === 'year')
      return picture.periods.map(({ name }) =>
        /^\d{4}$/.test(name) ? { from: `${name}-01-01`, to: `${name}-12-31` } : { from: name, to: name },
      );
    return picture.periods.map(({ name }) => ({ from: name, to: name }));
  }
  return [];
}

/** The condition that keeps the rows of one bar of a picture; `null` where a bar stands for none. */
export function conditionOfBar(
  variable: string,
  picture: Picture,
  bar: number,
  isWhole: boolean,
): Condition | null {
  if (picture.form === 'bars') {
    const one = picture.bars.at(bar);
    return one ? { variable, codes: [one.code] } : null;
  }
  const ends = endsOf(picture, isWhole).at(bar);
  if (!ends) return null;
  const bound = (text: string): number | string => (picture.form === 'histogram' ? Number(text) : text);
  return { variable, from: bound(ends.from), to: bound(ends.to) };
}
