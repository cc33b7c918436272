/** How far proposals of sets are those of a person, on made-up studies whose themes are known; and how long they take. */
import { Inspector } from '../src/core/inspect/inspect';
import { f1, measured, together } from '../src/testing/measured-sets';
import { themedExtracts } from '../src/testing/themed';

const cell = (x: number): string => x.toFixed(2).padStart(10);
for (const labelled of [true, false]) {
  console.log(
    `\n${labelled ? 'with labels' : 'without labels'}`.padEnd(22) +
      ['themes', 'beyond', 'batteries', 'sensible'].map((s) => s.padStart(10)).join(''),
  );
  const all = themedExtracts(labelled).map(
    (one) => [one, measured(one, new Inspector(one.extract).proposals)] as const,
  );
  for (const [{ name }, { themes, beyond, batteries, sensible, themed }] of all)
    console.log(
      name.padEnd(22) + [f1(themes), f1(beyond), f1(batteries), sensible / themed].map(cell).join(''),
    );
  const { themes, beyond, batteries, sensible } = together(all);
  console.log('all'.padEnd(22) + [themes, beyond, batteries, sensible].map(cell).join(''));
}
