'use client';

import Dropdown from 'react-bootstrap/Dropdown';
import Form from 'react-bootstrap/Form';
import { KINDS, ROLES } from '../../core/extract/words';
import { isNarrowed, NARROW_NOTHING, type Narrow } from '../../store/narrow';
import { useSession, useParts } from '../../store/session';
import { useInView } from '../sets/useInView';
import { COMPLETE, PROGRESS, wavesOf } from './rows';

/** Which variables are listed: by progress, kind, role, flags, completeness, set, wave. @param leave back to the rows, where Esc goes */
export function Narrowing({ leave }: { leave: () => void }) {
  const { narrow, flags, state, opened } = useParts('narrow', 'flags', 'state', 'opened');
  const waves = wavesOf(opened);
  const say = (part: Partial<Narrow>): void => useSession.setState({ narrow: { ...narrow, ...part } });
  const { isInside } = useInView();
  const rules = [
    ...new Set(flags.filter(({ variables }) => variables.some(isInside)).map(({ rule }) => rule)),
  ].sort();
  const choice = (part: keyof Narrow, title: string, options: readonly (readonly [string, string])[]) => (
    <Form.Group controlId={`narrow-${part}`} className="mb-2">
      <Form.Label className="mb-0 small">{title}</Form.Label>
      <Form.Select size="sm" value={narrow[part]} onChange={(event) => say({ [part]: event.target.value })}>
        <option value="">any</option>
        {options.map(([value, name]) => (
          <option key={value} value={value}>
            {name}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
  const active = Object.values(narrow).filter((value) => value !== '').length;
  return (
    <Dropdown
      autoClose="outside"
      onToggle={(open, { originalEvent }) => {
        if (open) setTimeout(() => document.getElementById('narrow-progress')?.focus());
        else if (originalEvent && 'key' in originalEvent && originalEvent.key === 'Escape') leave();
      }}
    >
      <Dropdown.Toggle
        as="button"
        type="button"
        className={`btn-bare${active ? ' narrowed' : ''}`}
        id="narrow"
      >
        Narrow{active > 0 && ` (${active})`} <kbd aria-hidden="true">f</kbd>
      </Dropdown.Toggle>
      <Dropdown.Menu className="p-3 narrowmenu">
        {choice(
          'progress',
          'Progress',
          PROGRESS.map((one) => [one, one]),
        )}
        {choice('kind', 'Kind', [
          ['presumed', 'any, still presumed'],
          ...KINDS.map((kind) => [kind, kind] as const),
        ])}
        {choice(
          'role',
          'Role',
          ROLES.map((role) => [role, role]),
        )}
        {choice('flags', 'Flags', [
          ['any', 'with a flag'],
          ['none', 'without a flag'],
          ...rules.map((rule) => [rule, rule] as const),
        ])}
        {choice(
          'complete',
          'Make-up',
          Object.entries(COMPLETE).map(([key, { says }]) => [key, says]),
        )}
        {choice(
          'set',
          'Set',
          [...state.sets.values()].map(({ id, name }) => [id, name]),
        )}
        {waves.length > 1 &&
          choice('wave', 'Wave', [
            ['every', 'held in every wave'],
            ['some', 'not in every wave'],
            ...waves.map((wave) => [`in:${wave}`, `held in ${wave}`] as const),
            ...waves.map((wave) => [`out:${wave}`, `nothing in ${wave}`] as const),
          ])}
        <button
          type="button"
          className="btn btn-quiet btn-sm"
          aria-disabled={!isNarrowed(narrow)}
          onClick={() => say(NARROW_NOTHING)}
        >
          List all again
        </button>
      </Dropdown.Menu>
    </Dropdown>
  );
}
