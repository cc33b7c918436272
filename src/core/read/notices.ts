import type { Notice } from '../extract/extract';

/** More notices of one kind than this are counted, not listed. */
const MOST_NOTICES = 50;

/** Notices of one file, each kind bounded, with the number that is not listed. */
export class Notices {
  private readonly listed: Notice[] = [];
  private readonly times = new Map<string, number>();

  add(line: number | undefined, says: string, kind: string): void {
    const times = (this.times.get(kind) ?? 0) + 1;
    this.times.set(kind, times);
    if (times <= MOST_NOTICES) this.listed.push(line === undefined ? { says } : { line, says });
  }

  list(): Notice[] {
    const more = [...this.times].filter(([, times]) => times > MOST_NOTICES);
    return [
      ...this.listed,
      ...more.map(([kind, times]) => ({ says: `${kind}: ${times - MOST_NOTICES} more like these` })),
    ];
  }
}
