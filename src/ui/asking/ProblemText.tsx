import { problemText, type Problem } from '../../core/extract/problem';

/** What stands in the place of something that could not be had. */
export function ProblemText({ problem }: { problem: Problem }) {
  return (
    <div className="notice" role="alert">
      <div>{problemText(problem)}.</div>
    </div>
  );
}
