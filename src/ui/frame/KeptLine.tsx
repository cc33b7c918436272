'use client';

import { entryText } from '../../core/log/entry-text';
import { whole } from '../../core/handoff/words';
import { lastInForce, namesIn } from '../../core/log/fold';
import { undoLast } from '../../store/decisions';
import { keepAgain } from '../../store/keeping';
import { useParts } from '../../store/session';
import { LOOKS, type Look } from '../look/look';

const LOOK_NAMES: Record<Look, string> = { system: 'as the system', light: 'light', dark: 'dark' };

/** Saved or not, the last ruling with Undo, and the way to the keys. */
export function KeptLine({
  look,
  changeLook,
  help,
}: {
  look: Look;
  changeLook: (look: Look) => void;
  help: () => void;
}) {
  const { keeping, opened, log, state, laying, behind } = useParts(
    'keeping',
    'opened',
    'log',
    'state',
    'laying',
    'behind',
  );
  const last = lastInForce(log);
  return (
    <footer className="kept">
      <span role="status" className={keeping.state === 'memory' ? 'in-memory' : ''}>
        {keeping.state === 'memory'
          ? keeping.says
          : keeping.state === 'keeping'
            ? 'Keeping…'
            : opened
              ? opened.database
                ? 'All rulings kept in this browser, no rows'
                : 'All kept in this browser'
              : 'Nothing to keep yet'}
        {laying && <span className="soft"> Recounting…</span>}
        {behind && (
          <span
            className="soft"
            title="The figures are those of last time; profiles and rulings follow as soon as the data are read"
          >
            {' '}
            {behind.says}: {whole(behind.done)} of {whole(behind.whole)}…
          </span>
        )}
      </span>
      {keeping.state === 'memory' && keeping.again && (
        <button type="button" className="btn btn-quiet btn-sm" onClick={() => void keepAgain()}>
          Keep it now
        </button>
      )}
      <span className="last">
        {last && (
          <>
            <span title={entryText(last, namesIn(state))}>Last: {entryText(last, namesIn(state))}</span>{' '}
            <button type="button" className="btn-bare" onClick={() => void undoLast()}>
              Undo <kbd>u</kbd>
            </button>
          </>
        )}
      </span>
      <label>
        Paper{' '}
        <select
          className="form-select form-select-sm d-inline-block w-auto"
          value={look}
          onChange={(event) => changeLook(event.target.value as Look)}
        >
          {LOOKS.map((name) => (
            <option key={name} value={name}>
              {LOOK_NAMES[name]}
            </option>
          ))}
        </select>
      </label>
      <button type="button" className="btn-bare" onClick={help}>
        Keys <kbd>?</kbd>
      </button>
    </footer>
  );
}
