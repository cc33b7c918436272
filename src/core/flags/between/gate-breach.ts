import { gatesOf, LEAST_ROWS, saidOf } from './gates';
import { round2, type ExtractRule, type Flag } from '../rule';
import { codesSaid } from './universe';

/** Rows that contradict a universe that otherwise holds. */
export const gateBreach: ExtractRule = {
  rule: 'gate-breach',
  needs: 'pairs',
  answers: 'rows',
  look: (whole) =>
    gatesOf(whole)
      .filter(({ breaches, notAsked }) => breaches.length > 0 && notAsked >= LEAST_ROWS)
      .map((gate): Flag => {
        const { subjects } = whole;
        const { variable, by, steps, shut, notAsked, breaches } = gate;
        const [name, gateName] = [subjects[variable].name, subjects[by].name];
        return {
          rule: 'gate-breach',
          variables: [name, gateName, ...steps.map(({ by: place }) => subjects[place].name)],
          codes: [],
          rows: breaches.length,
          severity: 'medium',
          at: breaches,
          certainty: round2((breaches.length <= notAsked * 0.01 ? 0.92 : 0.8) - 0.05 * steps.length),
          says: steps.length
            ? `${breaches.length} ${breaches.length === 1 ? 'row answers' : 'rows answer'} ${name} though it was ${saidOf(gate, subjects)}; ${notAsked} others are blank`
            : `${breaches.length} ${breaches.length === 1 ? 'row answers' : 'rows answer'} ${name} though ${gateName} is ${codesSaid(shut)}, where ${notAsked} others are blank`,
        };
      }),
};
