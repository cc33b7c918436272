'use client';

import { problemText } from '../../core/extract/problem';
import { dismissProblem, useSession } from '../../store/session';

/** What went wrong, where, and what to do now; the page goes on working. */
export function Problem() {
  const problem = useSession((session) => session.problem);
  if (!problem) return null;
  return (
    <div className="notice" role="alert">
      <div>{problemText(problem)}</div>
      <button type="button" className="btn-bare" onClick={dismissProblem}>
        Dismiss
      </button>
    </div>
  );
}
