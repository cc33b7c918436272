'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { WITHOUT_DATA, type HandoffForm } from '../../core/handoff/handoff-forms';
import type { LeavingAsk } from '../../core/handoff/leaving';
import { counted, whole } from '../../core/handoff/words';
import type { Summary } from '../../core/inspect/summary';
import { outside } from '../../store/outside';
import { useSession, useParts } from '../../store/session';
import { ProblemText } from '../asking/ProblemText';
import { useAnswer } from '../asking/useAnswer';
import { Quiet } from '../frame/Quiet';
import { saveBlob } from './download';
import { ALL_IN_VIEW, HandVariables, pickedOf, type How, type Picked } from './HandVariables';

/** The forms, each with what it is for. */
const FORMS: readonly (readonly [HandoffForm, string, string])[] = [
  ['delimited', 'Delimited text', 'CSV that any program reads'],
  ['data-package', 'Data Package', 'CSV with a Table Schema: labels, missing codes, limits'],
  ['csvw', 'CSV on the Web', 'CSV with W3C metadata'],
  ['ddi', 'DDI-Codebook 2.5', 'CSV with the codebook that archives exchange'],
  ['workbook', 'Workbook', 'data, variables, codes and rulings as sheets'],
  ['parquet', 'Parquet', 'typed columns, small and quick'],
  ['json', 'JSON records', 'a record a line'],
  ['scripts', 'R and Python', 'CSV with scripts that read it, labels and all'],
  ['codebook', 'Annotated codebook', 'to be read and printed'],
  ['report', 'Report', 'to be read and printed'],
];

const USUAL: readonly HandoffForm[] = ['data-package', 'codebook'];

/** A handoff of more cells than this is written to disk as it is made, where the browser can. */
const MANY_CELLS = 20_000_000;

/** The data themselves, in open forms, as one zip with a manifest. */
export function HandData({ inScope }: { inScope: readonly Summary[] }) {
  const { opened, chosen, counts, state } = useParts('opened', 'chosen', 'counts', 'state');
  const [forms, setForms] = useState<ReadonlySet<HandoffForm>>(new Set(USUAL));
  const [pick, setPick] = useState<Picked>(ALL_IN_VIEW);
  const [how, setHow] = useState<How>({
    cells: 'codes',
    missing: 'keep',
    harmless: false,
    alone: false,
  });
  const [making, setMaking] = useState<{ says: string; done: number; whole: number } | null>(null);
  const [said, say] = useState('');
  const names = pickedOf(pick, inScope, chosen, state.sets)
    .filter(({ trial }) => pick.trials || trial === null)
    .map(({ name }) => name);
  const ask: LeavingAsk = { ...how, variables: names };
  const { value: told, problem } = useAnswer('leaving', names.length ? [ask] : null);
  if (!opened) return null;
  // Where only a sample is held no data go out.
  const sampled = opened.pass !== null;
  const leaving = sampled ? new Set([...forms].filter((form) => WITHOUT_DATA.includes(form))) : forms;
  const going = told?.names.length ?? names.length;
  const file = `${opened.name.replace(/[^\p{L}\p{N}._-]+/gu, '_')}-handoff.zip`;
  const save = async (): Promise<void> => {
    let handle: FileSystemFileHandle | null = null;
    const { showSaveFilePicker } = window as {
      showSaveFilePicker?: (options: object) => Promise<FileSystemFileHandle>;
    };
    if (showSaveFilePicker && counts.kept * names.length > MANY_CELLS)
      try {
        handle = await showSaveFilePicker({ suggestedName: file });
      } catch (cause) {
        if ((cause as Error).name === 'AbortError') return;
      }
    say('');
    setMaking({ says: 'Writing', done: 0, whole: 1 });
    // What is told of the work may arrive after its end.
    let goesOn = true;
    const answer = await outside().engine.ask(
      'handoff',
      ask,
      [...leaving],
      new Date().toISOString(),
      handle,
      (now) => goesOn && setMaking(now),
    );
    goesOn = false;
    setMaking(null);
    if (!answer.ok) {
      if (answer.problem) useSession.setState({ problem: answer.problem });
      else say('Stopped: nothing was written.');
      return;
    }
    const { blob, manifest } = answer.value;
    if (blob) saveBlob(file, blob);
    say(
      `${counted(manifest.files.length, 'file')} with ${counted(manifest.variables.length, 'variable')} and ${counted(manifest.rows.kept, 'row')} handed off.`,
    );
  };
  return (
    <section className="handdata" aria-label="The extract itself">
      <h3>The extract itself</h3>
      <div className="handgrid">
        <HandVariables
          inScope={inScope}
          pick={pick}
          setPick={setPick}
          how={how}
          setHow={setHow}
          going={going}
          told={told}
        />
        <RowsAndCells how={how} setHow={setHow} />
        <Forms forms={leaving} setForms={setForms} sampled={sampled} />
      </div>
      {problem && <ProblemText problem={problem} />}
      <p className="soft small mt-2 mb-0">The first rows as they would leave:</p>
      {told && <FirstLeaving names={told.names} rows={told.rows} count={told.count} />}
      <p className="doings">
        <Button
          disabled={making !== null || leaving.size === 0 || names.length === 0}
          onClick={() => void save()}
        >
          Save <span className="code">{file}</span>
        </Button>
        {making && (
          <>
            <progress max={making.whole} value={making.done} aria-label="Files written" />
            <Quiet does={() => outside().engine.stop()}>Stop</Quiet>
          </>
        )}
        <span role="status" className="soft">
          {making
            ? making.says
            : said || 'One zip: the files, the dig log, and a manifest with the sum of each.'}
        </span>
      </p>
    </section>
  );
}

/** Which rows go out, and how their cells are written. */
function RowsAndCells({ how, setHow }: { how: How; setHow: (how: How) => void }) {
  const { account, counts } = useParts('account', 'counts');
  return (
    <fieldset>
      <legend>Which rows, how written</legend>
      <p className="mb-1">
        <strong>
          {account.length
            ? `${whole(counts.kept)} of ${counted(counts.all, 'row')}`
            : `all ${counted(counts.all, 'row')}`}
        </strong>
        {account.length > 0 && ' that the sieve keeps'}
        {counts.aside > 0 && `; ${whole(counts.aside)} set aside stay behind`}.
      </p>
      <label>
        <input
          type="checkbox"
          checked={how.cells === 'labels'}
          onChange={(event) => setHow({ ...how, cells: event.target.checked ? 'labels' : 'codes' })}
        />{' '}
        labels instead of codes
      </label>
      <label>
        <input
          type="checkbox"
          checked={how.missing === 'blank'}
          onChange={(event) => setHow({ ...how, missing: event.target.checked ? 'blank' : 'keep' })}
        />{' '}
        codes for no answer become blank
      </label>
      <label>
        <input
          type="checkbox"
          checked={how.harmless}
          onChange={(event) => setHow({ ...how, harmless: event.target.checked })}
        />{' '}
        an apostrophe before cells that a spreadsheet would run
      </label>
    </fieldset>
  );
}

function Forms({
  forms,
  setForms,
  sampled,
}: {
  forms: ReadonlySet<HandoffForm>;
  setForms: (forms: ReadonlySet<HandoffForm>) => void;
  sampled: boolean;
}) {
  return (
    <fieldset className="forms">
      <legend>In which forms</legend>
      {sampled && (
        <p className="soft mb-1">
          Only a sample of the rows is held, so the data themselves cannot be written from here; the command
          line writes them.
        </p>
      )}
      {FORMS.map(([form, name, about]) => (
        <label key={form}>
          <input
            type="checkbox"
            disabled={sampled && !WITHOUT_DATA.includes(form)}
            checked={forms.has(form)}
            onChange={() => {
              const next = new Set(forms);
              if (!next.delete(form)) next.add(form);
              setForms(next);
            }}
          />{' '}
          {name} <span className="soft">{about}</span>
        </label>
      ))}
    </fieldset>
  );
}

/** The first rows as they would leave. */
function FirstLeaving({ names, rows, count }: { names: string[]; rows: string[][]; count: number }) {
  return (
    <div className="firstleaving" tabIndex={0} role="region" aria-label="The first rows as they would leave">
      <table className="grounds">
        <thead>
          <tr>
            {names.map((name) => (
              <th scope="col" key={name} className="code">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              {row.map((text, j) => (
                <td key={j} title={text.length > 24 ? text : undefined}>
                  {text.length > 24 ? `${text.slice(0, 23)}…` : text}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {count === 0 && <p className="soft mb-0">No row would go out.</p>}
    </div>
  );
}
