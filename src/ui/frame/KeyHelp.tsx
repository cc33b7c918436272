'use client';

import Modal from 'react-bootstrap/Modal';
import { KEYS } from './keys';

export function KeyHelp({ shown, close }: { shown: boolean; close: () => void }) {
  return (
    <Modal show={shown} onHide={close} size="lg" aria-labelledby="keys-title" scrollable>
      <Modal.Header closeButton>
        <Modal.Title as="h2" id="keys-title" className="fs-5">
          Keys
        </Modal.Title>
      </Modal.Header>
      <Modal.Body tabIndex={0}>
        <div className="row">
          {KEYS.map(({ where, keys }) => (
            <section key={where} className="col-md-6 mb-3">
              <h3 className="fs-6">{where}</h3>
              <table className="grounds">
                <tbody>
                  {keys.map(([key, does]) => (
                    <tr key={key}>
                      <th scope="row" style={{ width: '8rem' }}>
                        <kbd>{key}</kbd>
                      </th>
                      <td>{does}</td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </section>
          ))}
        </div>
      </Modal.Body>
    </Modal>
  );
}
