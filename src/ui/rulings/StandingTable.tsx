'use client';

import { REASON_NAMES } from '../../core/extract/words';
import { fits, STANDING_RULE } from '../../core/flags/standing-rules';
import { counted } from '../../core/handoff/words';
import { useParts } from '../../store/session';
import { standBy } from '../../store/standing';

/** The standing rules that there are, with what each proposes here. */
export function StandingTable() {
  const { standing, flags } = useParts('standing', 'flags');
  if (standing.length === 0) return null;
  return (
    <table className="grounds mb-3">
      <thead>
        <tr>
          <th scope="col">Code</th>
          <th scope="col">Is</th>
          <th scope="col">In</th>
          <th scope="col">Your words</th>
          <th scope="col" className="n">
            Proposed here
          </th>
          <th>
            <span className="visually-hidden">Remove</span>
          </th>
        </tr>
      </thead>
      <tbody>
        {standing.map((rule) => {
          const here = flags.filter(
            (flag) =>
              flag.rule === STANDING_RULE &&
              flag.codes[0] === rule.code &&
              flag.reason === rule.reason &&
              fits(flag.variables[0], rule.names),
          ).length;
          return (
            <tr key={rule.id}>
              <td className="code">{rule.code}</td>
              <td>{REASON_NAMES[rule.reason]}</td>
              <td className={rule.names === '*' ? '' : 'code'}>
                {rule.names === '*' ? 'every variable' : rule.names}
              </td>
              <td>{rule.note}</td>
              <td className="n">{here ? counted(here, 'variable') : 'none'}</td>
              <td>
                <button
                  type="button"
                  className="btn-bare"
                  aria-label={`Remove the rule on ${rule.code}`}
                  onClick={() => void standBy(standing.filter(({ id }) => id !== rule.id))}
                >
                  Remove
                </button>
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
