import { counted, figure, whole } from '../../core/handoff/words';
import type { AsWeight } from '../../core/inspect/weighted';
import { useDigits } from './Figures';

/** What a weight rests on, and what weighting by it costs. */
export function AsWeightOf({ weight }: { weight: AsWeight }) {
  const { positive, zero, negative, without, sum, kish, grosses, inForce } = weight;
  const digits = useDigits();
  const lines: [string, string][] = [
    ['Rows with a positive weight', whole(positive)],
    ['Weight zero', whole(zero)],
    ['Below zero, left out', whole(negative)],
    ['Without one, left out', whole(without)],
    ['Sum of weights', figure(sum, digits)],
    ...(kish
      ? ([
          ['Effective sample size', `${figure(kish.effective, digits)} of ${whole(positive)} rows`],
          ['Design effect of the weights', figure(kish.designEffect, digits)],
        ] as [string, string][])
      : []),
  ];
  return (
    <section aria-label="As a weight">
      <h3>
        As a weight <span className="soft">{inForce ? 'in force' : 'not in force'}, by Kish’s formula</span>
      </h3>
      <table className="grounds">
        <tbody>
          {lines.map(([name, value]) => (
            <tr key={name}>
              <th scope="row" className="fw-normal">
                {name}
              </th>
              <td className="n">
                <strong>{value}</strong>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="soft small">
        {grosses
          ? `The weights add up to ${figure(sum / Math.max(1, positive + zero), 3)} times the rows: sums by it are figures of the population.`
          : `The weights do not add up to more than ${counted(positive + zero, 'row')} would: shares by it are of the population, sums are not.`}
      </p>
    </section>
  );
}
