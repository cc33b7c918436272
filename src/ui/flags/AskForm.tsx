'use client';

import { useState } from 'react';

/** A question to the archive, written down at a flag. @param leave back to where keys mean rulings */
export function AskForm({
  first,
  take,
  leave,
}: {
  first: string;
  take: (question: string) => void;
  leave: () => void;
}) {
  const [question, setQuestion] = useState(first);
  return (
    <form
      className="mt-2"
      onSubmit={(event) => {
        event.preventDefault();
        take(question);
      }}
    >
      <textarea
        className="form-control form-control-sm"
        rows={3}
        autoFocus
        aria-label="Question to the archive"
        value={question}
        onChange={(event) => setQuestion(event.target.value)}
        onKeyDown={(event) => {
          if (event.key === 'Escape') {
            event.stopPropagation();
            leave();
          }
          if (event.key === 'Enter' && (event.ctrlKey || event.metaKey))
            event.currentTarget.form?.requestSubmit();
        }}
      />
      <button type="submit" className="btn btn-primary btn-sm mt-1" disabled={!question.trim()}>
        Write it down for the letter
      </button>
    </form>
  );
}
