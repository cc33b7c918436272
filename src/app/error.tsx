'use client';

/** Where even the frame of the page could not be drawn. */
export default function Failed({ error, reset }: { error: Error; reset: () => void }) {
  return (
    <main className="sheet">
      <div className="notice" role="alert">
        <div>
          The page could not be drawn: a defect of ours ({error.message}). What you decided is kept. Try
          again, or load the page anew.
        </div>
        <button type="button" className="btn btn-quiet btn-sm" onClick={reset}>
          Try again
        </button>
      </div>
    </main>
  );
}
