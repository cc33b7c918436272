'use client';

import Dropdown from 'react-bootstrap/Dropdown';
import type { Part } from '../../core/sieve/condition';
import { useSession } from '../../store/session';
import { sieveBy } from '../../store/sieve';

/** All rows, or a sieve that there is: lines of a menu, of which one is in force. */
export function SieveChoices() {
  const { sieve: inForce, sieves } = useSession((session) => session.state);
  const choice = (id: string | null, says: React.ReactNode) => (
    <Dropdown.Item
      as="button"
      key={id ?? ''}
      role="menuitemradio"
      aria-checked={inForce === id}
      onClick={() => sieveBy(id)}
    >
      <span aria-hidden="true">{inForce === id ? '●' : '○'}</span> {says}
    </Dropdown.Item>
  );
  return (
    <>
      {choice(
        null,
        <>
          All rows <kbd>9</kbd>
        </>,
      )}
      {[...sieves.values()].map(({ id, name, parts }) => choice(id, sieveSays(name, parts)))}
    </>
  );
}

/** A name, or how many conditions it has. */
const sieveSays = (name: string, parts: readonly Part[]): string =>
  name || `${parts.length === 1 ? 'one condition' : `${parts.length} conditions`}, no name`;
