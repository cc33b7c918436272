/** How far proposals of sets are those of a person, on made-up studies whose themes are known; and how long they take. */
import { linkCodebooks } from '../src/core/codebook/link';
import { parseDdi } from '../src/core/codebook/ddi';
import { readExtract } from '../src/core/intake/receive';
import { sourceOf } from '../src/core/read/source';
import { filesOf } from '../src/demo/files';
import { makePanel } from '../src/demo/panel';
import { Inspector } from '../src/core/inspect/inspect';
import { f1, measured, together } from '../src/testing/measured-sets';
import { themedExtracts } from '../src/testing/themed';

const cell = (x: number): string => x.toFixed(2).padStart(10);
const CONDITIONS = [
  [true, true, 'with labels'],
  [false, true, 'without labels'],
  [true, false, 'labels, shuffled'],
  [false, false, 'neither'],
] as const;
for (const [labelled, ordered, condition] of CONDITIONS) {
  console.log(
    `\n${condition}`.padEnd(22) +
      ['themes', 'beyond', 'batteries', 'sensible'].map((s) => s.padStart(10)).join(''),
  );
  const all = themedExtracts(labelled, ordered).map(
    (one) => [one, measured(one, new Inspector(one.extract).proposals)] as const,
  );
  for (const [{ name }, { themes, beyond, batteries, sensible, themed }] of all)
    console.log(
      name.padEnd(22) + [f1(themes), f1(beyond), f1(batteries), sensible / themed].map(cell).join(''),
    );
  const { themes, beyond, batteries, sensible } = together(all);
  console.log('all'.padEnd(22) + [themes, beyond, batteries, sensible].map(cell).join(''));
}

/** The demo's panel with many more variables, as its files are handed out. */
const wide = filesOf(makePanel({ rows: 600, variables: 2500 })).filter(({ name }) =>
  /^upkeep(_20\d\d\.csv|\.xml)$/.test(name),
);
for (const withBook of [true, false]) {
  const received = await readExtract(
    wide
      .filter(({ name }) => name.endsWith('.csv'))
      .map(({ name, text }) => ({ source: sourceOf(name, text) })),
  );
  const books = wide
    .filter(({ name }) => name.endsWith('.xml'))
    .map(({ name, text }) => ({ ...parseDdi(name, text), groups: [] }));
  const dig = new Inspector(withBook ? linkCodebooks(received, books) : received);
  const flags = dig.flags.length;
  const start = performance.now();
  const { length } = dig.proposals;
  console.log(
    `\n${received.variables.length} variables, ${withBook ? 'with' : 'without'} a codebook: ${length} proposals in ${Math.round(performance.now() - start)} ms (${flags} flags before)`,
  );
}
