'use client';

import { useState } from 'react';
import Dropdown from 'react-bootstrap/Dropdown';
import { counted } from '../../core/handoff/words';
import { useSession } from '../../store/session';
import { useAnswer } from '../asking/useAnswer';
import { useInView } from '../sets/useInView';

/** Chooses every variable like this one, for a decision on all of them. */
export function Like({ name }: { name: string }) {
  const [shown, setShown] = useState(false);
  const { isInside, outside } = useInView();
  const { value: answer } = useAnswer('like', shown ? [name] : null);
  const found = answer
    ?.map((one) => ({ ...one, names: one.names.filter(isInside) }))
    .filter(({ names }) => names.length > 0);
  return (
    <Dropdown as="span" onToggle={setShown}>
      <Dropdown.Toggle as="button" type="button" className="btn btn-quiet btn-sm" id="like">
        Like this one
      </Dropdown.Toggle>
      <Dropdown.Menu role="menu">
        {found?.length === 0 && (
          <Dropdown.ItemText className="soft">
            No other{outside > 0 && ' in view'} has its codes, its stem or its group.
          </Dropdown.ItemText>
        )}
        {found?.map(({ by, says, names }) => (
          <Dropdown.Item
            as="button"
            key={by}
            onClick={() => useSession.setState({ chosen: new Set(names), station: 'inventory' })}
          >
            Choose {counted(names.length, 'variable')}
            {outside > 0 && ' in view'} with {says}
          </Dropdown.Item>
        ))}
      </Dropdown.Menu>
    </Dropdown>
  );
}
