'use client';

import { asBefore } from '../../core/intake/steps';
import { ChooseLog } from '../handoff/ChooseLog';
import { Quiet } from '../frame/Quiet';
import type { FoundData, WaitingFiles } from './useWaiting';

/** Next year's file: read as an extract that was worked on before, whose dig log is then held against it. */
export function EarlierChoice({ files, taken }: { files: WaitingFiles; taken: readonly FoundData[] }) {
  const came = (files.found ?? []).find((one) => one.what === 'log');
  if (came?.returned) return null;
  const { earlier } = files;
  const like = earlier ? `${earlier.name} was` : came ? `the extract of ${came.name} was` : null;
  const says = [
    ...new Set(taken.flatMap(({ name, look }) => asBefore(look).map((part) => `${name}: ${part}`))),
  ];
  return (
    <section className="earlier" aria-label="An extract of an earlier year">
      {like === null ? (
        <>
          <span>Does it follow one that you worked on before?</span>{' '}
          <ChooseLog id="earlier-log" besides title="Read it as that one was…" take={files.readAs} />
        </>
      ) : (
        <>
          <span>
            <strong>Read as {like}</strong>; once it is read, the rulings are shown that fit.
          </span>{' '}
          {earlier && <Quiet does={() => files.readAs(null)}>Read it of itself</Quiet>}
          <ul className="notices mb-0">
            {says.length ? (
              says.map((one) => <li key={one}>{one}</li>)
            ) : (
              <li>It looks the same of itself: nothing had to be read otherwise.</li>
            )}
          </ul>
        </>
      )}
    </section>
  );
}
