'use client';

import type { Pattern } from '../../core/flags/patterns';
import { counted, whole } from '../../core/handoff/words';
import { useSession } from '../../store/session';

/** The variables of a pattern with what each would lose; any can be excepted. */
export function Members({
  pattern,
  excepted,
  toggle,
}: {
  pattern: Pattern;
  excepted: ReadonlySet<string>;
  toggle: (name: string) => void;
}) {
  const summaries = useSession((session) => session.summaries);
  return (
    <ul className="members" aria-label="Variables of this pattern">
      {pattern.flags.map(({ variables: [name], codes, rows, certainty }) => {
        const summary = summaries.find((one) => one.name === name);
        return (
          <li key={name}>
            <label>
              <input
                type="checkbox"
                checked={!excepted.has(`${pattern.key} ${name}`)}
                onChange={() => toggle(name)}
              />{' '}
              <span className="code">{name}</span> <span className="soft">{summary?.label}</span>
            </label>
            <span className="n soft">
              {codes.length < pattern.codes.length && (
                <>
                  only <span className="code">{codes.join(', ')}</span>;{' '}
                </>
              )}
              {certainty < pattern.certainty - 0.2 && `${Math.round(certainty * 100)} of 100 sure; `}
              {counted(rows, 'row')} of {whole(summary?.counts.valid ?? 0)} valid
            </span>
          </li>
        );
      })}
    </ul>
  );
}
