'use client';

import { useEffect, useMemo, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { counted } from '../../core/handoff/words';
import { missingYears, waveOf } from '../../core/intake/waves';
import type { Reading } from '../../core/read/look';
import type { Opened } from '../../engine/protocol';
import { readPlan, type Into } from '../../store/reading';
import { IntoChoice, WaveChoice } from './BeforeChoices';
import { Cells } from './Cells';
import { EarlierChoice } from './EarlierChoice';
import { FileCard } from './FileCard';
import { FilesTable } from './FilesTable';
import { FirstLook } from './FirstLook';
import { HoldChoice, usualHolding } from './HoldChoice';
import type { FoundData, WaitingFiles } from './useWaiting';

/** What was brought, before anything is read: a line per file, one file's guesses and rows, and what holds for all. */
export function Before({
  files,
  opened,
  pick,
}: {
  files: WaitingFiles;
  opened: Opened | null;
  pick: () => void;
}) {
  const { plan, found, looking, notices } = files;
  const [shown, setShown] = useState<string | null>(null);
  const [together, setTogether] = useState(true);
  const [missing, setMissing] = useState<ReadonlySet<string>>(new Set());
  const [wanted, setInto] = useState<Into>('new');
  const readButton = useRef<HTMLButtonElement>(null);

  const all = found ?? [];
  const data = all.filter((one): one is FoundData => one.what === 'data');
  const taken = data.filter(({ key }) => !plan.left.includes(key));
  const codebooks = all.filter(({ what, key }) => what === 'codebook' && !plan.left.includes(key));
  const onlyCodebooks = data.length === 0 && codebooks.length > 0 && opened !== null;
  const one = data.find(({ key }) => key === shown) ?? taken[0] ?? data[0];
  const ready = found !== null && !looking && (taken.length > 0 || onlyCodebooks);
  const into: Into = onlyCodebooks ? 'added' : opened ? wanted : 'new';
  const names = useMemo(() => [...new Set(taken.flatMap(({ look }) => look.names))], [found, plan.left]);
  const wave = taken.map(
    ({ key, name }) =>
      plan.waves[key] ??
      waveOf(
        name,
        data.map((other) => other.name),
      ),
  );
  const gaps = taken.length > 1 ? missingYears(wave) : [];
  useEffect(() => {
    if (ready) readButton.current?.focus({ preventScroll: true });
    // Once, when it first can be read: later changes leave the focus with what is being changed.
  }, [ready && found !== null && Object.keys(plan.chosen).length === 0]);
  // Where the open extract was only looked at in part and the same files come again, they are most likely meant to make it whole.
  useEffect(() => {
    if (opened?.part && taken.some(({ name }) => opened.files.some((file) => file.name === name)))
      setInto('whole');
  }, [found]);

  const choose = (part: Partial<Reading>): void => {
    if (!one) return;
    const same = data.filter(
      ({ look }) => look.reading.form === one.look.reading.form && part.form === undefined,
    );
    files.choose(together && same.length ? same.map(({ key }) => key) : [one.key], part);
  };
  const read = async (): Promise<void> => {
    const hold = plan.hold ?? usualHolding(taken).hold;
    const done = await readPlan({ ...plan, hold }, into, [...missing], files.earlier);
    if (done) files.clear();
  };
  const verb = into === 'added' ? 'Add' : 'Read';
  const what =
    taken.length === 0
      ? counted(codebooks.length, 'codebook')
      : taken.length > 1
        ? `${taken.length} files${into === 'new' ? ' as one extract' : ''}`
        : 'the file';

  return (
    <section aria-label="Before reading" className="before">
      <h2>Before reading: is it understood?</h2>
      <p className="soft">
        Nothing is read yet.{' '}
        {data.length > 0 && 'The rows are shown as they would be read; change what was guessed wrongly.'}
      </p>
      {found === null && (
        <p className="soft" role="status">
          Looking…
        </p>
      )}
      {notices.length > 0 && (
        <ul className="notices">
          {notices.map((says) => (
            <li key={says}>{says}</li>
          ))}
        </ul>
      )}
      {all.length > 0 && <FilesTable files={files} found={all} at={one?.key ?? null} show={setShown} />}
      {taken.length > 0 && into !== 'added' && <EarlierChoice files={files} taken={taken} />}
      {gaps.length > 0 && (
        <p className="notice">
          <span>No file for {gaps.join(', ')}, though there are files before and after.</span>
        </p>
      )}
      {one && (
        <FileCard
          one={one}
          others={
            data.filter(({ key, look }) => key !== one.key && look.reading.form === one.look.reading.form)
              .length
          }
          together={together}
          setTogether={setTogether}
          change={choose}
        />
      )}
      {one && (
        <Cells
          one={one}
          data={taken}
          marks={plan.marks}
          change={(marks) => files.change({ marks })}
          missing={missing}
          setMissing={setMissing}
        />
      )}
      {taken.length > 1 && into !== 'added' && (
        <WaveChoice
          waveFrom={plan.waveFrom}
          names={names}
          change={(waveFrom) => files.change({ waveFrom })}
        />
      )}
      {taken.length > 0 && into !== 'added' && (
        <HoldChoice taken={taken} hold={plan.hold} change={(hold) => files.change({ hold })} />
      )}
      {taken.length > 0 && into !== 'added' && (
        <FirstLook names={names} part={plan.part} change={(part) => files.change({ part })} />
      )}
      <div className="sticky-bottom reading-bar">
        {opened && taken.length > 0 && <IntoChoice into={into} name={opened.name} change={setInto} />}
        <div className="d-flex gap-2 align-items-center flex-wrap">
          <Button ref={readButton} disabled={!ready} onClick={() => void read()}>
            {verb} {what}
            {codebooks.length && taken.length ? ' with its codebook' : ''}
            {into === 'added' ? ` to ${opened?.name ?? ''}` : ''}
            {plan.part && into !== 'added' ? ', in part' : ''} <kbd>Enter</kbd>
          </Button>
          <Button variant="quiet" onClick={pick}>
            More files…
          </Button>
          <Button variant="quiet" onClick={files.clear}>
            Put them all away
          </Button>
          {!ready && found !== null && !looking && (
            <span className="soft">
              {codebooks.length
                ? `${counted(codebooks.length, 'codebook')}, and no data file yet`
                : 'No file here can be read'}
            </span>
          )}
        </div>
      </div>
    </section>
  );
}
