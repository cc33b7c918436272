'use client';

import Form from 'react-bootstrap/Form';
import { holdingIn, roomIn, type Hold, type Holding } from '../../core/intake/holding';
import { bytesText } from './bytes';
import type { FoundData } from './useWaiting';

/** Which way these files are read unless somebody says otherwise. */
export const usualHolding = (taken: readonly FoundData[]): Holding =>
  holdingIn(
    taken.map(({ look }) => look),
    roomIn(navigator),
  );

/** Up to so many bytes nobody need choose. */
const SMALL = 200e6;

/** Whether all rows are held, or a sample while all are counted: which way is taken and why, before anything is read. */
export function HoldChoice({
  taken,
  hold,
  change,
}: {
  taken: readonly FoundData[];
  hold: Hold | null;
  change: (hold: Hold | null) => void;
}) {
  const room = roomIn(navigator);
  const usual = usualHolding(taken);
  if (usual.hold === 'all' && hold === null && usual.takes < SMALL) return null;
  const now = hold ?? usual.hold;
  return (
    <Form.Group controlId="hold" className="wavefrom">
      <Form.Label>Hold in memory</Form.Label>
      <Form.Select
        size="sm"
        value={now}
        onChange={({ target }) => change(target.value === usual.hold ? null : (target.value as Hold))}
      >
        <option value="all">all rows: about {bytesText(usual.takes)}</option>
        <option value="sample">a sample of rows; all are read and counted once</option>
      </Form.Select>
      <Form.Text>
        {usual.hold === 'sample'
          ? `All rows would take more than the ${bytesText(room)} that a page can count on here. `
          : ''}
        {now === 'sample'
          ? 'Counts, frequencies, ends, means and flags of codes are exact. Records, sieves, cross-checks and gates are of a sample, and say so; repeated rows and identifiers are not looked for; data cannot be handed off.'
          : 'Everything is exact, as long as memory lasts.'}
      </Form.Text>
    </Form.Group>
  );
}
