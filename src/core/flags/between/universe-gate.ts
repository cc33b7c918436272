import { gatesOf, saidOf, universeOf } from './gates';
import { round2, type ExtractRule, type Flag } from '../rule';
import { codesSaid } from './universe';

/** The inferred universe of a variable, as a remark. */
export const universeGate: ExtractRule = {
  rule: 'universe-gate',
  needs: 'pairs',
  answers: 'whole',
  look: (whole) =>
    gatesOf(whole).map((gate): Flag => {
      const { subjects } = whole;
      const { variable, by, steps, shut, notAsked, breaches } = gate;
      const others = steps.map(({ by: place }) => subjects[place].name);
      return {
        rule: 'universe-gate',
        variables: [subjects[variable].name, subjects[by].name, ...others],
        codes: shut.map(({ code }) => code),
        rows: notAsked,
        severity: 'note',
        certainty: round2((breaches.length ? 0.85 : 0.92) - 0.07 * steps.length),
        universe: universeOf(gate, subjects),
        says: `${saidOf(gate, subjects)}; blank in ${breaches.length ? 'nearly all' : 'all'} ${notAsked} other rows${steps.length ? '' : `, where it is ${codesSaid(shut)}`}`,
      };
    }),
};
