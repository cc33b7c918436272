'use client';

import Form from 'react-bootstrap/Form';
import type { WaveFrom } from '../../core/intake/waves';
import type { Into } from '../../store/reading';

/** What tells the wave of several files. @param names variables that may */
export function WaveChoice({
  waveFrom,
  names,
  change,
}: {
  waveFrom: WaveFrom;
  names: readonly string[];
  change: (waveFrom: WaveFrom) => void;
}) {
  return (
    <Form.Group controlId="wave-from" className="wavefrom">
      <Form.Label>What tells the wave</Form.Label>
      <Form.Select
        size="sm"
        value={typeof waveFrom === 'object' ? `is ${waveFrom.variable}` : waveFrom}
        onChange={({ target: { value } }) =>
          change(
            value === 'found' || value === 'file-name' || value === 'none'
              ? value
              : { variable: value.slice(3) },
          )
        }
      >
        <option value="found">a variable that holds one value in each file, if there is one</option>
        <option value="file-name">a new variable made of the waves named above</option>
        <option value="none">nothing: the files are parts of one delivery</option>
        {names.map((name) => (
          <option key={name} value={`is ${name}`}>
            the variable {name}
          </option>
        ))}
      </Form.Select>
    </Form.Group>
  );
}

/** What becomes of files that are read while an extract is open. */
export function IntoChoice({
  into,
  name,
  change,
}: {
  into: Into;
  /** The open extract's. */
  name: string;
  change: (into: Into) => void;
}) {
  return (
    <fieldset className="into">
      <legend className="visually-hidden">What becomes of it</legend>
      <Form.Check
        type="radio"
        name="into"
        id="into-new"
        label="an extract of its own"
        checked={into === 'new'}
        onChange={() => change('new')}
      />
      <Form.Check
        type="radio"
        name="into"
        id="into-added"
        label={`added to ${name}`}
        checked={into === 'added'}
        onChange={() => change('added')}
      />
      <Form.Check
        type="radio"
        name="into"
        id="into-whole"
        label={`in place of ${name}, under its rulings`}
        checked={into === 'whole'}
        onChange={() => change('whole')}
      />
    </fieldset>
  );
}
