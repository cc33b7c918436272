'use client';

import Modal from 'react-bootstrap/Modal';
import { COMMANDS, WHERE, type Command, type Where } from './table';

const PLACES = Object.entries(WHERE) as [Where, string][];
const READING: Command = {
  id: 'stop',
  keys: ['Escape'],
  shown: 'Esc',
  says: 'stop reading; leave a field or the profile',
};

/** The list of all keys, by where they act. */
export function KeyHelp({ shown: open, close }: { shown: boolean; close: () => void }) {
  return (
    <Modal show={open} onHide={close} size="lg" aria-labelledby="keys-title" scrollable animation={false}>
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="keys-title" className="fs-5">
          Keys
        </Modal.Title>
      </Modal.Header>
      <Modal.Body tabIndex={0}>
        <div className="keylist">
          {PLACES.map(([where, name]) => (
            <section key={where}>
              <h3 className="fs-6">{name}</h3>
              <table className="grounds">
                <tbody>
                  {[...COMMANDS[where], ...(where === 'everywhere' ? [READING] : [])].map(
                    ({ id, shown, says }) => (
                      <tr key={id}>
                        <th scope="row">
                          <kbd>{shown}</kbd>
                        </th>
                        <td>{says}</td>
                      </tr>
                    ),
                  )}
                </tbody>
              </table>
            </section>
          ))}
        </div>
      </Modal.Body>
    </Modal>
  );
}
