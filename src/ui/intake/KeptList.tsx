'use client';

import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { whole } from '../../core/handoff/words';
import { holdBeside } from '../../store/beside';
import { openAgain, remove, rename } from '../../store/opening';
import { useSession, useParts } from '../../store/session';
import type { Kept } from '../../storage/records';
import { askTable } from '../../store/database';
import { StandingRules } from '../rulings/StandingRules';
import { bytesText } from './bytes';

/** Extracts that this browser keeps, with their size; open, rename, remove. */
export function KeptList() {
  const { standing, asking, station } = useParts('standing', 'asking', 'station');
  const kept = useSession((session) => session.kept);
  const unusable = useSession((session) => session.unusable);
  if (kept.length + unusable.length + standing.length === 0) return null;
  return (
    <section aria-labelledby="kept-extracts">
      <h3 id="kept-extracts">Kept in this browser</h3>
      <table className="grounds">
        <thead>
          <tr>
            <th>Extract</th>
            <th className="n">Rows</th>
            <th className="n">Variables</th>
            <th className="n">Takes</th>
            <th>Kept</th>
            <th>
              <span className="visually-hidden">What to do</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {kept.map((one) => (
            <KeptRow key={one.id} kept={one} />
          ))}
          {unusable.map(({ id, says }) => (
            <tr key={id}>
              <td colSpan={5}>{says}; it cannot be opened here.</td>
              <td>
                <button type="button" className="btn-bare" onClick={() => void remove(id)}>
                  Remove it
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="soft">
        What is kept belongs to this address, <span className="code">{location.origin}</span>: under another
        name or port the browser keeps another list.
      </p>
      {standing.length > 0 && (
        <button
          type="button"
          className="btn btn-quiet btn-sm"
          onClick={() => useSession.setState({ asking: 'standing' })}
        >
          Standing rules ({whole(standing.length)})…
        </button>
      )}
      <StandingRules
        shown={asking === 'standing' && station === 'intake'}
        close={() => useSession.setState({ asking: null })}
      />
    </section>
  );
}

function KeptRow({ kept }: { kept: Kept }) {
  const open = useSession((session) => session.id === kept.id);
  const now = useSession((session) => session.opened?.name ?? null);
  const [doing, setDoing] = useState<'nothing' | 'renaming' | 'removing'>('nothing');
  const [name, setName] = useState(kept.name);
  const saveName = async (): Promise<void> => {
    const wanted = name.trim();
    if (wanted) await rename(kept.id, wanted);
    setDoing('nothing');
  };
  return (
    <tr>
      <td>
        {doing === 'renaming' ? (
          <Form
            onSubmit={(event) => {
              event.preventDefault();
              void saveName();
            }}
          >
            <Form.Control
              size="sm"
              autoFocus
              onFocus={(event) => event.target.select()}
              aria-label={`New name for ${kept.name}`}
              value={name}
              onChange={(event) => setName(event.target.value)}
              onKeyDown={(event) => event.key === 'Escape' && setDoing('nothing')}
            />
          </Form>
        ) : (
          <strong>{kept.name}</strong>
        )}
        {open && <span className="soft"> (open now)</span>}
      </td>
      <td className="n">{whole(kept.rows)}</td>
      <td className="n">{whole(kept.variables)}</td>
      <td className="n">{kept.database ? `in ${kept.database.at}` : bytesText(kept.bytes)}</td>
      <td>{kept.keptAt.slice(0, 16).replace('T', ' ')}</td>
      <td>
        {doing === 'removing' ? (
          <span className="d-inline-flex gap-2 align-items-center">
            Remove it with its rulings?{' '}
            <Button size="sm" autoFocus onClick={() => void remove(kept.id)}>
              Remove
            </Button>
            <Button size="sm" variant="quiet" onClick={() => setDoing('nothing')}>
              Keep
            </Button>
          </span>
        ) : (
          <span className="d-inline-flex gap-2">
            {!open && (
              <button
                type="button"
                className="btn-bare"
                onClick={() => (kept.database ? askTable(kept.database) : void openAgain(kept.id))}
                aria-label={`Open ${kept.name}`}
              >
                Open
              </button>
            )}
            {!open && now && !kept.database && (
              <button
                type="button"
                className="btn-bare"
                onClick={() => void holdBeside(kept.id, kept.name)}
                title={`What came, went and changed between ${kept.name} and ${now}`}
              >
                Hold beside {now}
              </button>
            )}
            <button
              type="button"
              className="btn-bare"
              onClick={() => setDoing('renaming')}
              aria-label={`Rename ${kept.name}`}
            >
              Rename
            </button>
            <button
              type="button"
              className="btn-bare"
              onClick={() => setDoing('removing')}
              aria-label={`Remove ${kept.name}`}
            >
              Remove
            </button>
          </span>
        )}
      </td>
    </tr>
  );
}
