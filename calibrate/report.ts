/** What a fit is worth: accuracy by kind, condition and certainty, and what is taken for what. */
import type { Guess } from './fit';

const share = (guesses: readonly Guess[]): string => {
  const right = guesses.filter((one) => one.right).length;
  return `${(right / Math.max(1, guesses.length)).toFixed(3)} (${right} of ${guesses.length})`;
};
const by = (guesses: readonly Guess[], of: (guess: Guess) => string): [string, Guess[]][] => {
  const groups = new Map<string, Guess[]>();
  for (const guess of guesses) groups.set(of(guess), [...(groups.get(of(guess)) ?? []), guess]);
  return [...groups].sort(([a], [b]) => (a < b ? -1 : 1));
};
const table = (title: string, groups: readonly [string, Guess[]][]): string =>
  [title, ...groups.map(([name, guesses]) => `  ${name.padEnd(34)} ${share(guesses)}`)].join('\n');

/** @param told how many of the mistakes are named one by one */
export function report(title: string, guesses: readonly Guess[], told = 0): string {
  const wrong = guesses.filter(({ right }) => !right);
  const confused = by(wrong, ({ sample, kind }) => `${sample.truth[0]} taken for ${kind}`)
    .sort((a, b) => b[1].length - a[1].length)
    .slice(0, 12)
    .map(([what, found]) => `  ${what.padEnd(34)} ${found.length}`);
  const sure = by(guesses, ({ confidence }) =>
    confidence >= 0.9
      ? '0.90 and more'
      : `${(Math.floor(confidence * 5) / 5).toFixed(2)} to ${(Math.floor(confidence * 5) / 5 + 0.2).toFixed(2)}`,
  );
  return [
    `${title}: ${share(guesses)}`,
    table(
      'by kind',
      by(guesses, ({ sample }) => sample.truth[0]),
    ),
    table(
      'by condition',
      by(guesses, ({ sample }) => sample.condition),
    ),
    table('by certainty', sure),
    ['what is taken for what', ...confused].join('\n'),
    ...wrong
      .slice(0, told)
      .map(
        ({ sample, kind, confidence }) =>
          `  ${sample.file} · ${sample.variable} (${sample.condition}): ${kind} ${confidence.toFixed(2)}, not ${sample.truth.join(' or ')} — ${sample.held.map(({ cue, strength }) => `${cue.id}${strength < 1 ? ` ${strength.toFixed(1)}` : ''}`).join(', ')}`,
      ),
  ].join('\n');
}
