import type { Weights } from './fit';
import { CUES } from '../src/core/infer/evidence/table';

/** The table of weights as it stands in the project, a line for each cue. */
export const tableText = (weights: Weights, temperature: number): string =>
  `import type { Kind } from '../../extract/words';

/** Learnt by \`npm run calibrate -- --write\`; not to be changed by hand. */

/** How far certainties are drawn together, so that of those given 0.9 nine in ten are right. */
export const TEMPERATURE = ${temperature};

/** What each cue weighs for each kind, in log odds where it holds fully. */
// prettier-ignore
export const WEIGHTS: Readonly<Record<string, Partial<Record<Kind, number>>>> = {
${CUES.filter(({ id }) => weights[id])
  .map(
    ({ id, kinds }) =>
      `  '${id}': { ${kinds
        .filter((kind) => weights[id][kind] !== undefined)
        .map((kind) => `${kind}: ${weights[id][kind]}`)
        .join(', ')} },`,
  )
  .join('\n')}
};
`;
