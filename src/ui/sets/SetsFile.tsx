'use client';

import { useRef } from 'react';
import { counted } from '../../core/handoff/words';
import { setsFile, takeOver } from '../../core/log/carry-sets';
import { decide } from '../../store/decisions';
import { useSession, useParts } from '../../store/session';
import { Quiet } from '../frame/Quiet';
import { download } from '../handoff/download';

/** Saves the sets as a file, and takes over those of another extract by the names of their variables. */
export function SetsFile() {
  const { opened, state, summaries } = useParts('opened', 'state', 'summaries');
  const field = useRef<HTMLInputElement>(null);
  if (!opened) return null;
  const read = async (file: File): Promise<void> => {
    const { sets, misfits, problem } = takeOver(
      file.name,
      await file.text(),
      summaries.map(({ name }) => name),
      state.sets,
      () => crypto.randomUUID(),
    );
    if (problem) return useSession.setState({ problem });
    if (sets.length) await decide({ type: 'make-sets', sets, why: `taken over from ${file.name}` });
    if (misfits.length || sets.length === 0)
      useSession.setState({
        problem: {
          file: file.name,
          says: [`${counted(sets.length, 'set')} taken over`, ...misfits].join('; '),
        },
      });
  };
  return (
    <>
      {state.sets.size > 0 && (
        <Quiet
          does={() =>
            download(
              `${opened.name.replace(/[^\p{L}\p{N}._-]+/gu, '_')}-sets.json`,
              'application/json',
              setsFile(opened.name, state.sets),
            )
          }
        >
          Save the sets
        </Quiet>
      )}
      <Quiet does={() => field.current?.click()}>Take over sets from a file…</Quiet>
      <input
        ref={field}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="File of sets, or a dig log"
        data-testid="sets-file"
        onChange={(event) => {
          const [file] = event.target.files ?? [];
          event.target.value = '';
          if (file) void read(file);
        }}
      />
    </>
  );
}
