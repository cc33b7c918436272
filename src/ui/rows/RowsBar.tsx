'use client';

import Dropdown from 'react-bootstrap/Dropdown';
import { whole } from '../../core/handoff/words';
import type { ListAsk } from '../../core/inspect/listing';
import { isReachable } from '../../core/extract/files';
import { MOST_SORTED } from '../../core/rows/all-rows';
import { changeTable, askFromMenu, useSession, useParts } from '../../store/session';
import { Quiet } from '../frame/Quiet';
import { FindValue, type Finding } from './FindValue';
import { listedSays } from './RecordTable';
import { FACES, useTableLook, type Face } from './tableLook';

/** What is listed, finding, sorting and what stands in the cells, above the table. */
export function RowsBar({
  rows,
  inForce,
  ...finding
}: {
  rows: number | null;
  inForce: boolean;
} & Finding) {
  const { table, draft, aside, opened, plan } = useParts('table', 'draft', 'aside', 'opened', 'plan');
  const face = useTableLook((look) => look.face);
  const list = (which: ListAsk['which']): void => changeTable({ which, flag: null, row: 0 });
  const sieve = inForce || draft !== null;
  const choices: ListAsk['which'][] = [
    'kept',
    ...(sieve ? (['dropped', 'there'] as const) : []),
    ...(aside.size ? (['received'] as const) : []),
    ...(table.which === 'flag' ? (['flag'] as const) : []),
    ...(opened?.pass && !opened.database && plan && isReachable(opened.files) ? (['whole'] as const) : []),
  ];
  const says: Record<ListAsk['which'], string> = {
    kept: sieve ? 'Kept' : opened?.pass ? 'Rows held' : 'All rows that count',
    dropped: 'Dropped',
    there: 'Both',
    received: 'Also those set aside',
    flag: 'Rows of the flag',
    whole: `${inForce ? 'Kept of all' : 'All'} ${whole(opened?.pass?.rows ?? 0)}`,
  };
  return (
    <div className="ledgerbar rowsbar">
      <span className="btn-group" role="group" aria-label="Rows listed">
        {choices.map((which) => (
          <button
            key={which}
            type="button"
            className={`btn btn-sm ${table.which === which ? 'btn-primary' : 'btn-quiet'}`}
            aria-pressed={table.which === which}
            title={
              which === 'whole'
                ? 'Every row of the files, to look at; what is decided is decided on rows that are held'
                : undefined
            }
            onClick={() => list(which)}
          >
            {says[which]}
          </button>
        ))}
      </span>
      <span role="status" className={draft ? 'tentative' : ''}>
        {rows === null ? 'counting…' : listedSays(table.which, rows)}
        {opened?.pass &&
          table.which !== 'whole' &&
          `, of the sample of ${whole(opened.pass.held)} that is held`}
        {table.which === 'whole' &&
          table.sort.length > 0 &&
          rows === MOST_SORTED &&
          ', the first in this order'}
        {draft && ['kept', 'dropped', 'there'].includes(table.which) && ' by conditions not in force'}
      </span>
      <FindValue {...finding} />
      <Quiet does={() => useSession.setState({ asking: 'gorow' })} shownKey="r">
        Go to row
      </Quiet>
      {table.sort.length > 0 && (
        <span className="sorted">
          sorted by{' '}
          {table.sort.map(({ variable, down }, i) => (
            <span key={variable}>
              {i > 0 && ', '}
              <span className="code">{variable}</span> {down ? '↓' : '↑'}
            </span>
          ))}{' '}
          <button type="button" className="btn-bare" onClick={() => changeTable({ sort: [], row: 0 })}>
            in file order
          </button>
        </span>
      )}
      <label>
        <span className="visually-hidden">What stands in the cells</span>
        <select
          className="form-select form-select-sm"
          value={face}
          title="What stands in the cells (l)"
          onChange={(event) => useTableLook.setState({ face: event.target.value as Face })}
        >
          {Object.entries(FACES).map(([value, name]) => (
            <option key={value} value={value}>
              {name}
            </option>
          ))}
        </select>
      </label>
      <CellsMenu seeAside={() => list('received')} />
    </div>
  );
}

function CellsMenu({ seeAside }: { seeAside: () => void }) {
  const aside = useSession((session) => session.aside);
  return (
    <Dropdown align="end">
      <Dropdown.Toggle as="button" type="button" className="btn btn-sm btn-quiet" id="cells-and-rows">
        Cells and rows…
      </Dropdown.Toggle>
      <Dropdown.Menu role="menu">
        <Dropdown.Item as="button" onClick={() => askFromMenu('cell')}>
          Correct this cell <kbd>e</kbd>
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={() => askFromMenu('sheet')}>
          Paste a sheet of corrections…
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={() => askFromMenu('addrow')}>
          Add a row…
        </Dropdown.Item>
        <Dropdown.Item as="button" onClick={() => askFromMenu('changed')}>
          What was corrected, added, set aside…
        </Dropdown.Item>
        {aside.size > 0 && (
          <Dropdown.Item as="button" onClick={seeAside}>
            See the {whole(aside.size)} set aside among all
          </Dropdown.Item>
        )}
      </Dropdown.Menu>
    </Dropdown>
  );
}
