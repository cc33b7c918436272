'use client';

import { useMemo, useState } from 'react';
import Form from 'react-bootstrap/Form';
import type { Part } from '../../core/extract/extract';
import { counted, whole } from '../../core/handoff/words';

/** Names that a person typed: parted by blanks, commas or lines, a star standing for any letters. */
export function wantedNames(typed: string, names: readonly string[]): { found: string[]; unknown: string[] } {
  const wanted = new Set<string>();
  const unknown: string[] = [];
  for (const word of typed.split(/[\s,;]+/).filter((part) => part !== '')) {
    const pattern = new RegExp(`^${word.replace(/[.+?^${}()|[\]\\]/g, '\\$&').replace(/\*/g, '.*')}$`, 'iu');
    const found = names.filter((name) => pattern.test(name));
    if (found.length === 0) unknown.push(word);
    for (const name of found) wanted.add(name);
  }
  return { found: names.filter((name) => wanted.has(name)), unknown };
}

/** Reading only the first rows, or only some variables, for a first look. */
export function FirstLook({
  names,
  part,
  change,
}: {
  names: readonly string[];
  part: Part | null;
  change: (part: Part | null) => void;
}) {
  const [rows, setRows] = useState('');
  const [typed, setTyped] = useState('');
  const { found, unknown } = useMemo(() => wantedNames(typed, names), [typed, names]);
  const say = (rowsNow: string, typedNow: string): void => {
    const most = Math.floor(Number(rowsNow));
    const wanted = wantedNames(typedNow, names).found;
    const only = {
      rows: rowsNow.trim() !== '' && most > 0 ? most : null,
      names: wanted.length > 0 && wanted.length < names.length ? wanted : null,
    };
    change(only.rows === null && only.names === null ? null : only);
  };
  return (
    <details className="firstlook" open={part !== null || undefined}>
      <summary>Only a first look: some rows, some variables</summary>
      <div className="guesses">
        <Form.Group controlId="first-rows">
          <Form.Label>Only the first rows of each file</Form.Label>
          <Form.Control
            size="sm"
            type="number"
            min={1}
            placeholder="all"
            value={rows}
            onChange={(event) => {
              setRows(event.target.value);
              say(event.target.value, typed);
            }}
          />
          <Form.Text>how many; leave it empty for all</Form.Text>
        </Form.Group>
        <Form.Group controlId="some-variables">
          <Form.Label>Only some variables</Form.Label>
          <Form.Control
            as="textarea"
            size="sm"
            rows={2}
            className="code"
            placeholder={`all ${whole(names.length)}, or for instance: ${names.slice(0, 2).join(' ')} ${(names[2] ?? 'own_x').slice(0, 3)}*`}
            value={typed}
            onChange={(event) => {
              setTyped(event.target.value);
              say(rows, event.target.value);
            }}
          />
          <Form.Text>
            {typed.trim() === ''
              ? 'names parted by blanks; * stands for any letters'
              : `${whole(found.length)} of ${counted(names.length, 'variable')}`}
            {unknown.length > 0 && <strong>; not there: {unknown.slice(0, 5).join(', ')}</strong>}
          </Form.Text>
        </Form.Group>
      </div>
    </details>
  );
}
