import type { Replay } from '../core/inspect/replay';
import type { Entry } from '../core/log/entries';

/** What of a log does not fit, and what fits over something that is another here, a line each in the order of the log. */
export function unfitting({ changed, misfits }: Replay, log: readonly Entry[]): string[] {
  const place = new Map(log.map(({ id }, i) => [id, i]));
  return [
    ...misfits.map((line) => ({ ...line, fits: false })),
    ...changed.map((line) => ({ ...line, fits: true })),
  ]
    .sort((a, b) => (place.get(a.entry) ?? 0) - (place.get(b.entry) ?? 0))
    .flatMap(({ says, why, fits }) => {
      // Rows that are not found are told among the notices.
      if (why?.includes(' is not found')) return [];
      return fits && !why?.startsWith('there is no') && !why?.startsWith('no row holds')
        ? [`fits, and is another here: ${says} (${why})`]
        : [`did not fit: ${says} (${why})`];
    });
}
