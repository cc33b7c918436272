'use client';

import { useState } from 'react';
import Form from 'react-bootstrap/Form';
import { percent, whole } from '../../core/handoff/words';
import type { Recodable, RecodePreview } from '../../core/inspect/recoding';
import { press } from '../keys/table';
import type { GroupForm } from './recodeForm';

/** Codes to tick that belong together, and the groups that are made of them. */
export function Ticks({
  about,
  groups,
  preview,
  change,
}: {
  about: Recodable;
  groups: readonly GroupForm[];
  preview: RecodePreview | null;
  change: (groups: readonly GroupForm[]) => void;
}) {
  const [at, setAt] = useState(0);
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const [sought, setSought] = useState('');
  const word = sought.trim().toLowerCase();
  const codes = about.codes.filter(
    ({ code, label, standing }) =>
      standing !== 'unreadable' && (word === '' || `${code} ${label ?? ''}`.toLowerCase().includes(word)),
  );
  const here = Math.max(0, Math.min(codes.length - 1, at));
  const groupOf = (code: string): number => groups.findIndex((group) => group.codes.includes(code));
  const meant = (): string[] => (ticked.size ? [...ticked] : codes.at(here) ? [codes[here].code] : []);
  /** @param place of the group; behind the last for a new one, −1 for none */
  const put = (place: number): void => {
    const moved = meant();
    const without = groups.map((group) => ({
      ...group,
      codes: group.codes.filter((code) => !moved.includes(code)),
    }));
    while (place >= without.length) without.push({ code: String(without.length + 1), label: '', codes: [] });
    change(
      without.map((group, i) =>
        i === place
          ? {
              ...group,
              codes: [...group.codes, ...moved],
              label: group.label || (labelOf(about, moved[0]) ?? moved[0] ?? ''),
            }
          : group,
      ),
    );
    setTicked(new Set());
    if (!ticked.size) setAt(here + 1);
  };
  const go = (to: number, ticking: boolean): void => {
    const next = Math.max(0, Math.min(codes.length - 1, to));
    if (ticking) setTicked(new Set([...ticked, codes[here].code, codes[next].code]));
    setAt(next);
    document.getElementById(`tick-${next}`)?.scrollIntoView({ block: 'nearest' });
  };
  const toggle = (code: string): void => {
    const next = new Set(ticked);
    if (!next.delete(code)) next.add(code);
    setTicked(next);
  };
  const onKey = (event: React.KeyboardEvent): void => {
    if (codes.length === 0) return;
    const done = press('ticks', event.nativeEvent, {
      codeBefore: () => go(here - 1, event.shiftKey),
      codeAfter: () => go(here + 1, event.shiftKey),
      tick: () => toggle(codes[here].code),
      intoGroup: ({ key }) => put(Math.min(groups.length, Number(key) - 1)),
      newGroup: () => put(groups.length),
      outOfGroup: () => put(-1),
    });
    if (!done) return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <div className="ticks">
      <div>
        <Form.Control
          size="sm"
          placeholder="find a code or a label"
          aria-label="Find a code or a label"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
        />
        <div
          className="ticklist"
          tabIndex={0}
          role="listbox"
          aria-multiselectable="true"
          aria-label={`Codes of ${about.name}`}
          aria-activedescendant={`tick-${here}`}
          onKeyDown={onKey}
        >
          {codes.map(({ code, label, count, standing }, i) => {
            const group = groupOf(code);
            return (
              <div
                key={code}
                id={`tick-${i}`}
                role="option"
                aria-selected={ticked.has(code)}
                className={`tickline${i === here ? ' at' : ''}${ticked.has(code) ? ' ticked' : ''}`}
                onClick={() => {
                  setAt(i);
                  toggle(code);
                }}
              >
                <span aria-hidden="true">{ticked.has(code) ? '☑' : '☐'}</span>
                <span className="what" title={label ?? undefined}>
                  <span className="code">{code}</span> {label}
                  {standing !== 'valid' && <span className="soft"> (missing)</span>}
                </span>
                <span className="n soft">{whole(count)}</span>
                <span className="into">{group >= 0 ? `→ ${groups[group].code}` : ''}</span>
              </div>
            );
          })}
        </div>
        {about.more > 0 && (
          <p className="soft small mb-0">
            The {whole(about.codes.length)} most frequent; {whole(about.more)} more.
          </p>
        )}
        <p className="doings">
          <button type="button" className="btn btn-sm btn-quiet" onClick={() => put(groups.length)}>
            New group of {ticked.size > 1 ? `these ${whole(ticked.size)}` : 'it'} <kbd>n</kbd>
          </button>
          <span className="soft small">
            <kbd>Space</kbd> ticks, <kbd>1</kbd> to <kbd>9</kbd> put into a group, <kbd>0</kbd> takes out.
          </span>
        </p>
      </div>
      <GroupTable about={about} groups={groups} preview={preview} change={change} put={put} />
    </div>
  );
}

/** The groups with their codes and labels, typed, and what each holds. */
function GroupTable({
  about,
  groups,
  preview,
  change,
  put,
}: {
  about: Recodable;
  groups: readonly GroupForm[];
  preview: RecodePreview | null;
  change: (groups: readonly GroupForm[]) => void;
  put: (place: number) => void;
}) {
  return (
    <table className="grounds bandtable" aria-label="Groups">
      <thead>
        <tr>
          <th scope="col">Group</th>
          <th scope="col">Code</th>
          <th scope="col">Label</th>
          <th scope="col">Holds</th>
          <th scope="col" className="n">
            Rows
          </th>
          <th scope="col" className="n">
            of valid
          </th>
        </tr>
      </thead>
      <tbody>
        {groups.map((group, i) => {
          const held = preview?.codes.find((one) => one.code === group.code.trim());
          return (
            <tr key={i}>
              <td>
                <button
                  type="button"
                  className="btn-bare"
                  onClick={() => put(i)}
                  aria-label={`Put into group ${i + 1}`}
                >
                  → {i + 1}
                </button>
              </td>
              {(['code', 'label'] as const).map((part) => (
                <td key={part} className={part === 'code' ? 'coded' : 'labelled'}>
                  <Form.Control
                    size="sm"
                    value={group[part]}
                    className={part === 'code' ? 'code' : undefined}
                    aria-label={`${part === 'code' ? 'Code' : 'Label'} of group ${i + 1}`}
                    onChange={(event) =>
                      change(
                        groups.map((one, other) =>
                          other === i ? { ...one, [part]: event.target.value } : one,
                        ),
                      )
                    }
                  />
                </td>
              ))}
              <td className="soft">
                {group.codes.slice(0, 8).join(', ')}
                {group.codes.length > 8 && ` and ${whole(group.codes.length - 8)} more`}
              </td>
              <td className="n">{held ? whole(held.rows) : '–'}</td>
              <td className="n">{held && about.valid ? percent(held.rows / about.valid) : '–'}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

const labelOf = ({ codes }: Recodable, code: string | undefined): string | null =>
  codes.find((one) => one.code === code)?.label ?? null;
