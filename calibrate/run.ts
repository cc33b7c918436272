/**
 * Learns what each cue weighs for each kind, and tells what the weights are worth on files that they were not learnt from.
 *
 *     npm run calibrate                       the studies that ship with the project; says whether the table is theirs
 *     npm run calibrate -- FOLDER             judges labelled extracts by weights learnt without them
 *     npm run calibrate -- --with FOLDER      learns from them too, each file judged by all others
 *     npm run calibrate -- --write            writes the table of weights
 */
import { writeFileSync } from 'node:fs';
import { Command } from 'commander';
import { TEMPERATURE, WEIGHTS } from '../src/core/infer/evidence/weights';
import { fit, guess, leaveOneOut, temperatureOf, type Weights } from './fit';
import { folderSamples } from './folder';
import { report } from './report';
import { shippedSamples, type Sample } from './samples';
import { tableText } from './table-text';

const TABLE = 'src/core/infer/evidence/weights.ts';

const program = new Command('calibrate')
  .argument('[folders...]', 'labelled extracts that are judged and not learnt from')
  .option('--with <folder...>', 'labelled extracts that are learnt from too', [] as string[])
  .option('--write', 'write the table of weights')
  .option('--told <number>', 'how many mistakes are named one by one', Number, 0)
  .parse();
const { with: learnt, write, told } = program.opts<{ with: string[]; write?: boolean; told: number }>();

const samples: Sample[] = shippedSamples();
for (const folder of learnt) samples.push(...(await folderSamples(folder)));
const weights = fit(samples);
const left = leaveOneOut(samples, weights);
const temperature = temperatureOf(left);
console.log(
  report(
    'each file judged by all others',
    left.map((one) => guess(one.sample, one.weights, temperature)),
    told,
  ),
);
for (const folder of program.args)
  console.log(
    `\n${report(
      `${folder}, not learnt from`,
      (await folderSamples(folder)).map((sample) => guess(sample, weights, temperature)),
      told,
    )}`,
  );
console.log(`\ntemperature ${temperature}`);
if (write) {
  writeFileSync(TABLE, tableText(weights, temperature));
  console.log(`${TABLE} is written.`);
} else
  console.log(
    `the table in force differs by at most ${farthest(weights).toFixed(2)} (temperature ${TEMPERATURE}).`,
  );

function farthest(found: Weights): number {
  const ids = new Set([...Object.keys(found), ...Object.keys(WEIGHTS)]);
  return Math.max(
    0,
    ...[...ids].flatMap((id) =>
      [...new Set([...Object.keys(found[id] ?? {}), ...Object.keys(WEIGHTS[id] ?? {})])].map((kind) =>
        Math.abs(
          ((found[id] ?? {}) as Record<string, number>)[kind] -
            ((WEIGHTS[id] ?? {}) as Record<string, number>)[kind] || 0,
        ),
      ),
    ),
  );
}
