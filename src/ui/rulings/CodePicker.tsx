'use client';

import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { whole } from '../../core/handoff/words';
import { useAnswer } from '../asking/useAnswer';
import type { CodeHeld } from '../../core/inspect/questions';

const MOST_LISTED = 60;

/** Codes that variables hold, asked for anew after each ruling. */
export const useCodes = (names: readonly string[], wanted: boolean): CodeHeld[] =>
  useAnswer('codes', wanted && names.length ? [[...names]] : null).value ?? NONE;
const NONE: CodeHeld[] = [];

/** Codes to tick, found by typing; one that no row holds can be typed too. */
export function CodePicker({
  id,
  title,
  codes,
  picked,
  pick,
  autoFocus = false,
}: {
  id: string;
  title: string;
  codes: readonly CodeHeld[];
  picked: ReadonlySet<string>;
  pick: (codes: ReadonlySet<string>) => void;
  autoFocus?: boolean;
}) {
  const [typed, setTyped] = useState('');
  const word = typed.trim().toLowerCase();
  const fitting = codes.filter(
    ({ code, label }) => word === '' || `${code} ${label ?? ''}`.toLowerCase().includes(word),
  );
  const known = new Set(codes.map(({ code }) => code));
  const toggle = (code: string): void => {
    const next = new Set(picked);
    if (!next.delete(code)) next.add(code);
    pick(next);
  };
  const strange = [...picked].filter((code) => !known.has(code));
  return (
    <Form.Group controlId={id} className="mb-2">
      <Form.Label className="mb-1">{title}</Form.Label>
      <Form.Control
        size="sm"
        value={typed}
        autoFocus={autoFocus}
        autoComplete="off"
        spellCheck={false}
        placeholder="find a code or a label; Enter takes it"
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => {
          if (event.key !== 'Enter' || event.ctrlKey || event.metaKey || !typed.trim()) return;
          event.preventDefault();
          // What is typed in full wins over what merely contains it.
          toggle(
            codes.find(({ code }) => code === typed.trim())?.code ??
              (fitting.length === 1 ? fitting[0].code : typed.trim()),
          );
          setTyped('');
        }}
      />
      <div className="codepick" role="group" aria-label={`${title}: to tick`}>
        {strange.map((code) => (
          <Form.Check
            key={`strange ${code}`}
            type="checkbox"
            id={`${id} strange ${code}`}
            checked
            onChange={() => toggle(code)}
            label={
              <>
                <span className="code">{code}</span> <span className="soft">no row holds it</span>
              </>
            }
          />
        ))}
        {fitting.slice(0, MOST_LISTED).map(({ code, label, count, standing }) => (
          <Form.Check
            key={code}
            type="checkbox"
            id={`${id} ${code}`}
            checked={picked.has(code)}
            onChange={() => toggle(code)}
            label={
              <>
                <span className="code">{code}</span> {label}{' '}
                <span className="soft n">
                  {whole(count)}
                  {standing === 'missing'
                    ? ', missing'
                    : standing === 'not-asked'
                      ? ', not asked'
                      : standing === 'unreadable'
                        ? ', unreadable'
                        : ''}
                </span>
              </>
            }
          />
        ))}
        {fitting.length > MOST_LISTED && (
          <span className="soft">and {whole(fitting.length - MOST_LISTED)} more: type to find one</span>
        )}
        {fitting.length === 0 && (
          <span className="soft">
            {typed.trim() ? `No row holds “${typed.trim()}”; Enter takes it all the same.` : 'No codes.'}
          </span>
        )}
      </div>
    </Form.Group>
  );
}
