'use client';

import { useRef } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import { readSieve, type Part } from '../../core/sieve/condition';
import { decide } from '../../store/decisions';
import { outside } from '../../store/outside';
import { askFromMenu, useSession } from '../../store/session';
import { partsAtHand } from '../../store/sieve';
import { SieveChoices } from './SieveChoices';
import { download } from '../handoff/download';

/** Sieves that there are: put in force, named, saved, taken from a file, removed. */
export function SieveMenu() {
  const session = useSession();
  const { state, opened, draft } = session;
  const file = useRef<HTMLInputElement>(null);
  const { parts } = partsAtHand(session);
  const name = draft?.name || (state.sieve === null ? '' : (state.sieves.get(state.sieve)?.name ?? ''));
  return (
    <>
      <Dropdown align="end">
        <Dropdown.Toggle as="button" type="button" className="btn btn-sm btn-quiet" id="sieves">
          Sieves…
        </Dropdown.Toggle>
        <Dropdown.Menu role="menu" className="scopemenu">
          <SieveChoices />
          <Dropdown.Divider />
          <Dropdown.Item as="button" disabled={parts.length === 0} onClick={() => askFromMenu('namesieve')}>
            Name this sieve…
          </Dropdown.Item>
          <Dropdown.Item
            as="button"
            disabled={!parts.some(({ on }) => on)}
            onClick={() =>
              download(`${opened?.name ?? 'extract'}-sieve.json`, 'application/json', sieveFile(name, parts))
            }
          >
            Save it as a file
          </Dropdown.Item>
          <Dropdown.Item as="button" onClick={() => file.current?.click()}>
            Take one from a file…
          </Dropdown.Item>
          {state.sieve !== null && (
            <Dropdown.Item
              as="button"
              onClick={() => void decide({ type: 'drop-sieve', sieve: state.sieve ?? '' })}
            >
              Remove the sieve in force
            </Dropdown.Item>
          )}
        </Dropdown.Menu>
      </Dropdown>
      <input
        ref={file}
        type="file"
        accept=".json,application/json"
        hidden
        aria-label="File of a sieve"
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          event.target.value = '';
          if (chosen) void takeSieve(chosen);
        }}
      />
    </>
  );
}

const sieveFile = (name: string, parts: readonly Part[]): string =>
  `${JSON.stringify(
    {
      format: 'dig-first-sieve',
      version: 1,
      name,
      conditions: parts.filter(({ on }) => on).map(({ condition }) => condition),
    },
    null,
    1,
  )}\n`;

/** A sieve of a file becomes the one at hand, not in force; what does not fit is said beside each condition. */
async function takeSieve(file: File): Promise<void> {
  let found: unknown;
  try {
    found = JSON.parse(await file.text());
  } catch (cause) {
    useSession.setState({
      problem: {
        file: file.name,
        says: `this is no valid JSON (${(cause as Error).message}); choose a sieve that was saved here`,
      },
    });
    return;
  }
  const read = readSieve(found);
  if (!('sieve' in read)) {
    useSession.setState({ problem: { file: file.name, element: read.element, says: read.says } });
    return;
  }
  const { name, conditions } = read.sieve;
  useSession.setState({
    draft: {
      sieve: null,
      name,
      parts: conditions.map((condition) => ({ id: outside().newId(), condition, on: true })),
    },
  });
}
