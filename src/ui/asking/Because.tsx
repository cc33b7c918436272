'use client';

import Form from 'react-bootstrap/Form';

/** The field for a person's own reason. */
export function Because({
  id,
  why,
  setWhy,
  small = true,
}: {
  id: string;
  why: string;
  setWhy: (why: string) => void;
  small?: boolean;
}) {
  return (
    <Form.Group controlId={id} className="mt-2">
      <Form.Label className="mb-1">
        Because <span className="soft">(if you like)</span>
      </Form.Label>
      <Form.Control
        size={small ? 'sm' : undefined}
        value={why}
        onChange={(event) => setWhy(event.target.value)}
      />
    </Form.Group>
  );
}
