/**
 * Multinomial logistic regression with a ridge, over the cues that hold of each variable.
 *
 * Source: Hastie, Tibshirani and Friedman, The Elements of Statistical Learning, 2nd edition, sections 4.4 and 18.3.2.
 * Where several kinds are right, their joint probability counts; kinds that a storage rules out are left out of the sum.
 */
import type { Kind } from '../src/core/extract/words';
import { probabilities, scoresOf } from '../src/core/infer/evidence/weigh';
import { CUES } from '../src/core/infer/evidence/table';
import type { Sample } from './samples';

export type Weights = Record<string, Partial<Record<Kind, number>>>;

/** How strongly weights are drawn to zero: in samples that speak against each. */
const RIDGE = 1.5;
const STEPS = 400;
const FAST = 0.15;
const DECAY = { first: 0.9, second: 0.999 };

/** Weights of all cues, fitted by gradient descent with momentum: the same samples give the same weights. */
export function fit(samples: readonly Sample[], from: Weights = {}): Weights {
  const places = CUES.flatMap(({ id, kinds }) => kinds.map((kind) => ({ id, kind })));
  const placeOf = new Map(places.map(({ id, kind }, i) => [`${id}|${kind}`, i]));
  const rows = samples.map(({ held, possible, truth }) => ({
    truth: possible.map((kind) => truth.includes(kind)),
    // For each possible kind, which weights add to its score, and how far.
    terms: possible.map((kind) =>
      held.flatMap(({ cue, strength }) => {
        const place = placeOf.get(`${cue.id}|${kind}`);
        return place === undefined ? [] : [[place, strength] as const];
      }),
    ),
  }));
  const total = rows.length;
  const w = Float64Array.from(places, ({ id, kind }) => from[id]?.[kind] ?? 0);
  const [m, v, g] = [new Float64Array(w.length), new Float64Array(w.length), new Float64Array(w.length)];
  for (let step = 1; step <= STEPS; step++) {
    for (let i = 0; i < w.length; i++) g[i] = (RIDGE * w[i]) / total;
    for (const { terms, truth } of rows) {
      const scores = terms.map((one) => one.reduce((sum, [place, strength]) => sum + strength * w[place], 0));
      const most = Math.max(...scores);
      const odds = scores.map((score) => Math.exp(score - most));
      const sum = odds.reduce((a, b) => a + b, 0);
      const right = odds.reduce((a, b, k) => (truth[k] ? a + b : a), 0);
      terms.forEach((one, k) => {
        const off = (odds[k] / sum - (truth[k] ? odds[k] / right : 0)) / total;
        for (const [place, strength] of one) g[place] += off * strength;
      });
    }
    for (let i = 0; i < w.length; i++) {
      m[i] = DECAY.first * m[i] + (1 - DECAY.first) * g[i];
      v[i] = DECAY.second * v[i] + (1 - DECAY.second) * g[i] * g[i];
      const rate = FAST * (1 - (step / STEPS) * 0.9);
      w[i] -=
        (rate * (m[i] / (1 - DECAY.first ** step))) / (Math.sqrt(v[i] / (1 - DECAY.second ** step)) + 1e-9);
    }
  }
  const weights: Weights = {};
  places.forEach(({ id, kind }, i) => {
    const rounded = Math.round(w[i] * 100) / 100;
    if (rounded !== 0) (weights[id] ??= {})[kind] = rounded;
  });
  return weights;
}

/** What is said of a sample, with the probability of each kind. */
export interface Guess {
  sample: Sample;
  kind: Kind;
  confidence: number;
  right: boolean;
}

export function guess(sample: Sample, weights: Weights, temperature: number): Guess {
  const [[kind, confidence]] = [
    ...probabilities(scoresOf(sample.held, sample.possible, weights), temperature),
  ].sort((a, b) => b[1] - a[1]);
  return { sample, kind, confidence, right: sample.truth.includes(kind) };
}

/** Guesses for each file by weights that were fitted on all others. */
export function leaveOneOut(
  samples: readonly Sample[],
  from: Weights,
): { sample: Sample; weights: Weights }[] {
  return [...new Set(samples.map(({ file }) => file))].flatMap((file) => {
    const weights = fit(
      samples.filter((one) => one.file !== file),
      from,
    );
    return samples.filter((one) => one.file === file).map((sample) => ({ sample, weights }));
  });
}

/** The temperature at which what was left out is likeliest: above 1 where guesses are too sure. */
export function temperatureOf(left: readonly { sample: Sample; weights: Weights }[]): number {
  let [best, least] = [1, Infinity];
  for (let temperature = 0.6; temperature <= 3; temperature += 0.05) {
    let loss = 0;
    for (const { sample, weights } of left) {
      const found = probabilities(scoresOf(sample.held, sample.possible, weights), temperature);
      loss -= Math.log(
        Math.max(
          1e-6,
          sample.truth.reduce((sum, kind) => sum + (found.get(kind) ?? 0), 0),
        ),
      );
    }
    if (loss < least) [best, least] = [Math.round(temperature * 100) / 100, loss];
  }
  return best;
}
