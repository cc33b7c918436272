'use client';

import { useRef } from 'react';
import { tableSays } from '../../core/cross/kept-table';
import { readRecodes } from '../../core/recode/recode';
import { recodeSays } from '../../core/recode/says';
import { againstAll, openTable } from '../../store/cross';
import { decide } from '../../store/decisions';
import { askRecode, dropRecode, makeRecode } from '../../store/recodes';
import { useSession, useParts } from '../../store/session';
import { Quiet } from '../frame/Quiet';
import { download } from '../handoff/download';
import { useInView } from '../sets/useInView';
import { askSide } from './Sides';
import { telling } from './sideWords';

/** What belongs to the station besides the table: tables kept, trial recodes, and by what one looks for differences first. */
export function CrossAside() {
  return (
    <aside className="crossaside" aria-label="Tables kept and trial recodes">
      <KeptTables />
      <Recodes />
      <Telling />
    </aside>
  );
}

function KeptTables() {
  const state = useSession((session) => session.state);
  const called = (name: string): string => state.called.get(name)?.name ?? name;
  return (
    <section aria-label="Tables kept for the report">
      <h2>Kept for the report</h2>
      {state.tables.size === 0 ? (
        <p className="soft">
          None yet. <kbd>v</kbd> keeps the table that is shown.
        </p>
      ) : (
        <ul>
          {[...state.tables].map(([id, asked]) => (
            <li key={id}>
              <button type="button" className="btn-bare" onClick={() => openTable(asked)}>
                {tableSays(asked, called)}
              </button>
              <button
                type="button"
                className="btn-bare clear"
                aria-label={`Keep no more: ${tableSays(asked, called)}`}
                onClick={() => void decide({ type: 'drop-table', table: id })}
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

function Recodes() {
  const { state, opened } = useParts('state', 'opened');
  const recodes = [...state.recodes.values()];
  const file = useRef<HTMLInputElement>(null);
  return (
    <section aria-label="Trial recodes">
      <h2>Trial recodes</h2>
      {recodes.length === 0 ? (
        <p className="soft">
          None yet. <kbd>b</kbd> puts a variable into bands, here, in the ledger and in a profile; no data are
          touched.
        </p>
      ) : (
        <ul>
          {recodes.map((recode) => (
            <li key={recode.name}>
              <button type="button" className="btn-bare" onClick={() => askRecode(recode.name)}>
                <span className="code">{recode.name}</span> of <span className="code">{recode.of}</span>
                <span className="soft recipe">{recodeSays(recode)}</span>
              </button>
              <button
                type="button"
                className="btn-bare clear"
                aria-label={`Remove trial recode ${recode.name}`}
                onClick={() => void dropRecode(recode.name)}
              >
                ×
              </button>
            </li>
          ))}
        </ul>
      )}
      <p className="doings">
        {recodes.length > 0 && (
          <Quiet
            does={() =>
              download(
                `${opened?.name ?? 'extract'}-recodes.json`,
                'application/json',
                `${JSON.stringify({ format: 'dig-first-recodes', version: 1, recodes }, null, 1)}\n`,
              )
            }
          >
            Save as a file
          </Quiet>
        )}
        <Quiet does={() => file.current?.click()}>Take from a file…</Quiet>
      </p>
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="File of trial recodes"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = '';
          if (chosen) void takeRecodes(chosen);
        }}
      />
    </section>
  );
}

/** Recodes of a file are made one after the other; what does not fit is told among the notices of the intake. */
async function takeRecodes(file: File): Promise<void> {
  const refuse = (says: string, element?: string): void =>
    useSession.setState({ problem: { file: file.name, ...(element ? { element } : {}), says } });
  let found: unknown;
  try {
    found = JSON.parse(await file.text());
  } catch (cause) {
    return refuse(
      `this is no valid JSON (${(cause as Error).message}); choose trial recodes that were saved here`,
    );
  }
  const read = readRecodes(found);
  if (!('recodes' in read)) return refuse(read.says, read.element);
  const { summaries, state } = useSession.getState();
  const names = new Set(summaries.map(({ name }) => name));
  const left: string[] = [];
  for (const recode of read.recodes) {
    const taken = names.has(recode.name) && !state.recodes.has(recode.name);
    if (taken || !names.has(recode.of)) {
      left.push(
        taken
          ? `${recode.name} (a variable has this name)`
          : `${recode.name} (there is no variable ${recode.of})`,
      );
      continue;
    }
    names.add(recode.name);
    await makeRecode(recode, null);
  }
  if (left.length) refuse(`not taken: ${left.join(', ')}; the others are`);
}

function Telling() {
  const state = useSession((session) => session.state);
  const { inside } = useInView();
  const found = telling(inside);
  return (
    <section aria-label="Against everything">
      <h2>Against everything</h2>
      <p className="soft">What differs between waves, interviewers, modes, regions?</p>
      <p className="doings">
        {found.map(({ name, label }) => (
          <Quiet key={name} does={() => void againstAll(name)}>
            <span title={label ?? undefined} className="code">
              {state.called.get(name)?.name ?? name}
            </span>
          </Quiet>
        ))}
        <Quiet does={() => askSide('everything')} shownKey="e">
          Another…
        </Quiet>
      </p>
    </section>
  );
}
