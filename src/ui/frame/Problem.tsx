'use client';

import { problemText } from '../../core/extract/problem';
import { dismissProblem, useSession } from '../../store/session';
import { startAgain } from '../../store/trouble';

/** What went wrong, where, and what to do now; the page goes on working. */
export function Problem() {
  const problem = useSession((session) => session.problem);
  const trouble = useSession((session) => session.trouble);
  return (
    <>
      {trouble && (
        <div className="notice" role="alert">
          <div>{trouble.says}</div>
          {trouble.restart && (
            <button
              type="button"
              className="btn btn-quiet btn-sm"
              onClick={() => void startAgain('it was started again by you')}
            >
              Start it again
            </button>
          )}
        </div>
      )}
      {problem && (
        <div className="notice" role="alert">
          <div>{problemText(problem)}</div>
          <button type="button" className="btn-bare" onClick={dismissProblem}>
            Dismiss
          </button>
        </div>
      )}
    </>
  );
}
