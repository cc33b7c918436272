'use client';

import Dropdown from 'react-bootstrap/Dropdown';
import Form from 'react-bootstrap/Form';
import { ALWAYS, COLUMN_NAMES, toggleColumn, useColumns, usualColumns, type ColumnKey } from './columns';
import { KindMark, PARTS } from './Marks';

/** Which columns the ledger has, what stands first, and what its marks mean. */
export function ColumnMenu() {
  const { shown, first } = useColumns();
  return (
    <Dropdown align="end" autoClose="outside">
      <Dropdown.Toggle as="button" type="button" className="btn-bare" id="columns">
        Columns
      </Dropdown.Toggle>
      <Dropdown.Menu className="p-3 columnmenu">
        <fieldset className="mb-3">
          <legend className="small mb-1">First comes</legend>
          <Form.Check
            inline
            type="radio"
            name="first"
            id="first-name"
            label="the name"
            checked={first === 'name'}
            onChange={() => useColumns.setState({ first: 'name' })}
          />
          <Form.Check
            inline
            type="radio"
            name="first"
            id="first-label"
            label="the label"
            checked={first === 'label'}
            onChange={() => useColumns.setState({ first: 'label' })}
          />
        </fieldset>
        <fieldset className="mb-2">
          <legend className="small mb-1">Columns besides name and label</legend>
          {(Object.keys(COLUMN_NAMES) as ColumnKey[])
            .filter((key) => !ALWAYS.includes(key))
            .map((key) => (
              <Form.Check
                key={key}
                id={`column-${key}`}
                label={COLUMN_NAMES[key]}
                checked={shown.includes(key)}
                onChange={() => toggleColumn(key)}
              />
            ))}
        </fieldset>
        <p className="soft small">Drag the right edge of a column’s head to widen it.</p>
        <button type="button" className="btn btn-quiet btn-sm mb-3" onClick={usualColumns}>
          As they were at first
        </button>
        <p className="mb-1">
          <KindMark kind="nominal" confirmed={false} /> presumed by the program
        </p>
        <p className="mb-2">
          <KindMark kind="nominal" confirmed /> confirmed by a person
        </p>
        {PARTS.map(([part, name]) => (
          <p className="mb-0" key={part}>
            <span className={`swatch part-${part}`} />
            {name}
          </p>
        ))}
        <p className="mb-0 mt-2 soft small">
          Make-up: shares of all rows. Distribution: valid values only; gaps between bars mean categories.
          Progress: ○ unseen, ◐ seen, ● signed off.
        </p>
      </Dropdown.Menu>
    </Dropdown>
  );
}
