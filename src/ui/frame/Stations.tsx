'use client';

import { useSession, type Station, useParts } from '../../store/session';
import { counted, whole } from '../../core/handoff/words';
import { inView } from '../../core/sets/view';

/** The stations of the path as layers of ground, each with what is left to do there. */
export function Stations() {
  const { station, opened, summaries, flags, flagsStale, state, draft, account, counts } = useParts(
    'station',
    'opened',
    'summaries',
    'flags',
    'flagsStale',
    'state',
    'draft',
    'account',
    'counts',
  );
  const inside = inView(summaries, state);
  const isInside = new Set(inside.map(({ name }) => name));
  const narrowed = inside.length < summaries.length;
  const presumed = summaries.filter(({ confirmed }) => !confirmed).length;
  const presumedInside = inside.filter(({ confirmed }) => !confirmed).length;
  const toRule = flags.filter(({ severity }) => severity !== 'note');
  const open = toRule.length;
  const openInside = toRule.filter(
    ({ variables }) => variables.length === 0 || variables.some((name) => isInside.has(name)),
  ).length;
  /** What is left: of all, or of all in view too. */
  const left = (what: string, here: number, all: number): string =>
    `${whole(all)} ${what}${narrowed ? `, ${whole(here)} of them in view` : ''}`;
  const inSets = new Set([...state.sets.values()].flatMap(({ variables }) => variables));
  const loose = summaries.filter(({ name }) => !inSets.has(name)).length;
  const layers: { station: Station; name: string; left: string }[] = [
    {
      station: 'intake',
      name: 'Intake',
      left: opened
        ? opened.database
          ? 'a table of a database'
          : `${counted(opened.files.length, 'file')} read`
        : 'bring an extract',
    },
    ...(opened
      ? [
          {
            station: 'inventory' as const,
            name: 'Inventory',
            left: presumed ? left('kinds presumed', presumedInside, presumed) : 'all kinds confirmed',
          },
          {
            station: 'flags' as const,
            name: 'Flags',
            left: flagsStale
              ? 'looking anew…'
              : open
                ? left('to rule on', openInside, open)
                : 'nothing to rule on',
          },
          {
            station: 'sets' as const,
            name: 'Sets',
            left: narrowed
              ? `${whole(inside.length)} of ${whole(summaries.length)} in view`
              : state.sets.size
                ? `${counted(state.sets.size, 'set')}, ${whole(loose)} in none`
                : 'no set yet',
          },
          {
            station: 'rows' as const,
            name: 'Rows',
            left: draft
              ? 'a sieve not in force'
              : account.length
                ? `${whole(counts.kept)} of ${whole(counts.all)} kept`
                : `all ${whole(counts.all)} count`,
          },
          {
            station: 'cross' as const,
            name: 'Cross-checks',
            left: state.tables.size
              ? `${counted(state.tables.size, 'table')} kept`
              : state.recodes.size
                ? `${counted(state.recodes.size, 'trial recode')}`
                : 'does it hang together?',
          },
          {
            station: 'handoff' as const,
            name: 'Handoff',
            left: presumed + open ? 'work left above' : 'ready',
          },
        ]
      : []),
  ];
  return (
    <nav className="rail" aria-label="Stations">
      <h1>Dig First</h1>
      <ol>
        {layers.map((layer, i) => (
          <li key={layer.station} className={`layer-${i + 1}`}>
            <button
              type="button"
              aria-current={layer.station === station ? 'step' : undefined}
              onClick={() => useSession.setState({ station: layer.station })}
            >
              <strong>
                {layer.name} <kbd aria-hidden="true">{i + 1}</kbd>
              </strong>
              <span>{layer.left}</span>
            </button>
          </li>
        ))}
      </ol>
    </nav>
  );
}
