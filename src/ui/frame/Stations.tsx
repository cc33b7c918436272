'use client';

import { useSession, type Station } from '../../store/session';
import { counted, whole } from '../../core/handoff/words';

/** The stations of the path as layers of ground, each with what is left to do there. */
export function Stations() {
  const { station, opened, summaries, flags } = useSession();
  const presumed = summaries.filter(({ confirmed }) => !confirmed).length;
  const open = flags.filter(({ severity }) => severity !== 'note').length;
  const layers: { station: Station; name: string; left: string }[] = [
    {
      station: 'intake',
      name: 'Intake',
      left: opened ? `${counted(opened.files.length, 'file')} read` : 'bring an extract',
    },
    ...(opened
      ? [
          {
            station: 'inventory' as const,
            name: 'Inventory',
            left: presumed ? `${whole(presumed)} kinds presumed` : 'all kinds confirmed',
          },
          {
            station: 'flags' as const,
            name: 'Flags',
            left: open ? `${whole(open)} to rule on` : 'nothing to rule on',
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
