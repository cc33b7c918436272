'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { counted, whole } from '../../core/handoff/words';
import { digLog, type DigLog } from '../../core/log/entries';
import { entryText } from '../../core/log/entry-text';
import { letterText } from '../../core/handoff/letter';
import { inForce, namesIn } from '../../core/log/fold';
import { inView } from '../../core/sets/view';
import { askOrSay } from '../../store/asking';
import { undo } from '../../store/decisions';
import { useSession, useParts } from '../../store/session';
import { download } from './download';
import { HandData } from './HandData';
import { HoldLog } from './ReplayDialog';
import { StillOpen } from './StillOpen';

const useHandoffParts = () => useParts('opened', 'summaries', 'flags', 'log', 'state', 'counts', 'account');

/** What goes out: inventory, inspection, report, log; with what is decided and what is not. */
export function Handoff() {
  const { opened, summaries, flags, log, state, counts, account } = useHandoffParts();
  const [making, setMaking] = useState<string | null>(null);
  const [harmless, setHarmless] = useState(false);
  const [letterAs, setLetterAs] = useState<string | null>(null);
  if (!opened) return null;
  const inScope = inView(summaries, state);
  const names = inScope.map(({ name }) => name);
  const openFlags = flags.filter(
    ({ variables, severity }) =>
      severity !== 'note' && (variables.length === 0 || variables.some((name) => names.includes(name))),
  ).length;
  const file = opened.name.replace(/[^\p{L}\p{N}._-]+/gu, '_');
  const hand = async (
    what: string,
    name: string,
    type: string,
    make: () => Promise<string | Blob | null>,
  ): Promise<void> => {
    setMaking(what);
    try {
      const made = await make();
      if (made !== null) download(name, type, made);
    } catch (cause) {
      useSession.setState({
        problem: { file: name, says: `could not be made (${(cause as Error).message}); try again` },
      });
    }
    setMaking(null);
  };
  const scope =
    names.length === summaries.length
      ? `all ${counted(names.length, 'variable')}`
      : `the ${whole(names.length)} of ${counted(summaries.length, 'variable')} in view`;
  const rows = account.length
    ? `the ${whole(counts.kept)} of ${counted(counts.all, 'row')} that the sieve keeps`
    : `all ${counted(counts.all, 'row')}`;
  const letter = letterText(
    opened.name,
    opened.codebooks.map(({ name }) => name),
    log,
  );
  const logFile = (): DigLog =>
    digLog({ ...opened, marks: opened.marks ?? undefined, wave: opened.wave ?? undefined }, log);
  const outputs = [
    {
      what: 'Report to read',
      form: 'HTML',
      about: `Inventory, a profile with chart for ${scope}, and the rulings, in one file that needs no network and prints well.`,
      name: `${file}-report.html`,
      type: 'text/html',
      make: () => askOrSay('report', names, new Date().toISOString()),
    },
    {
      what: 'Inventory',
      form: 'CSV',
      about: `A row for each of ${scope}: kind, counts, missing codes, figures, flags.`,
      name: `${file}-inventory.csv`,
      type: 'text/csv',
      make: () => askOrSay('inventory', names, harmless),
    },
    {
      what: 'Inspection',
      form: 'JSON',
      about: `Everything found in ${scope}, under the rulings in force, for other programs.`,
      name: `${file}-inspection.json`,
      type: 'application/json',
      make: () => askOrSay('inspection', names),
    },
    {
      what: 'Dig log',
      form: 'JSON',
      about: `Every decision, ${counted(log.length, 'entry').replace('entrys', 'entries')}, with what was taken back.`,
      name: `${file}-dig-log.json`,
      type: 'application/json',
      make: async () => `${JSON.stringify(logFile(), null, 1)}\n`,
    },
    ...(letter
      ? [
          {
            what: 'Letter to the archive',
            form: 'text',
            about: 'The questions that were written down at the flags, numbered, ready to be sent.',
            name: `${file}-questions.txt`,
            type: 'text/plain',
            make: async () => letterAs ?? letter,
          },
        ]
      : []),
  ];
  return (
    <>
      <h2>Handoff</h2>
      <p>
        Figures that go out are of {rows}
        {counts.aside > 0 && `, ${whole(counts.aside)} set aside`}, and say so; what is not done yet is said
        in them.
      </p>
      <StillOpen inScope={inScope} openFlags={openFlags} />
      <HandData inScope={inScope} />
      <h3>What was found and decided</h3>
      <div className="outputs">
        {outputs.map(({ what, form, about, name, type, make }) => (
          <article key={what}>
            <h3>
              {what} <span className="soft">{form}</span>
            </h3>
            <p>{about}</p>
            {what === 'Letter to the archive' && (
              <textarea
                className="form-control form-control-sm mb-2"
                rows={7}
                aria-label="The letter, as it will be saved"
                value={letterAs ?? letter ?? ''}
                onChange={(event) => setLetterAs(event.target.value)}
              />
            )}
            {what === 'Inventory' && (
              <p className="mb-1">
                <label>
                  <input
                    type="checkbox"
                    checked={harmless}
                    onChange={(event) => setHarmless(event.target.checked)}
                  />{' '}
                  an apostrophe before cells that a spreadsheet would run (
                  <span className="code">= + - @</span>)
                </label>
              </p>
            )}
            <Button
              variant="quiet"
              disabled={making !== null}
              onClick={() => void hand(what, name, type, make)}
            >
              {making === what ? 'Making…' : 'Save'} <span className="visually-hidden">{what}</span>{' '}
              <span className="code soft">{name}</span>
            </Button>
          </article>
        ))}
      </div>
      <LogList />
    </>
  );
}

/** Every decision in force, each to be taken back. */
function LogList() {
  const { log, state } = useParts('log', 'state');
  const standing = inForce(log);
  return (
    <>
      <h3>The dig log: what was decided</h3>
      <p className="doings">
        <HoldLog />
      </p>
      {standing.length === 0 ? (
        <p className="soft">
          Nothing yet. Every kind confirmed and every flag ruled on is listed here, and can be taken back.
        </p>
      ) : (
        <ol className="ruled">
          {standing.map((entry) => {
            const says = entryText(entry, namesIn(state));
            return (
              <li key={entry.id}>
                {says}
                {entry.why && <q className="ms-1">{entry.why}</q>}{' '}
                <span className="soft">{entry.at.slice(0, 16).replace('T', ' ')}</span>{' '}
                <button
                  type="button"
                  className="btn-bare"
                  aria-label={`Undo: ${says}`}
                  onClick={() => void undo(entry.id)}
                >
                  Undo
                </button>
              </li>
            );
          })}
        </ol>
      )}
    </>
  );
}
