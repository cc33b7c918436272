import type { Extract, Notice, Variable } from '../extract/extract';
import { leftOutOf } from '../flags/registry';
import { rowText, type Located } from '../extract/row-names';
import type { Hints } from '../infer/storage';
import { retyped } from './retyped';

/** Everything noticed of the files together, of the codebooks, and of variables that later files write otherwise. */
export const receivedNotices = (received: Extract, hints: (variable: Variable) => Hints): Notice[] => [
  ...passNotices(received),
  ...received.notices,
  ...received.linkNotices,
  ...retyped(received, hints),
];

/** How much is known of all rows, where only a sample of them is held. */
function passNotices(extract: Extract): Notice[] {
  const { pass, rows, variables, database } = extract;
  if (!pass) return [];
  const many = variables.filter((variable) => variable.pass?.others);
  return [
    {
      says: `all ${pass.rows} rows were ${database ? 'counted where they are' : 'read and counted once'}; ${rows} of them, drawn at random, are held for what looks at rows`,
    },
    ...(many.length
      ? [
          {
            says: `${many.length === 1 ? `${many[0].name} holds` : `${many.length} variables hold`} too many different values to ${database ? 'fetch' : 'count'} each: rows, blanks, ends and moments are of all rows, ${database ? 'and so are quartiles and the number of different values; the kind and flags are told by the sample' : 'the number of different values is an estimate, median, quartiles and flags are of the sample'}`,
          },
        ]
      : []),
    { says: `not looked for, since that takes all rows: ${leftOutOf(extract).join(', ')}` },
  ];
}

/** What decisions say that is not so in this extract. @param says of cells and conditions */
export const laidNotices = (rows: readonly Located[], says: readonly string[]): Notice[] => [
  ...rows.map(misfitNotice),
  ...says.map((one) => ({ says: one })),
];

const misfitNotice = ({ name, row, says }: Located): Notice => ({
  says: `${rowText(name)} ${row === null ? 'was to be set aside, but' : 'is set aside:'} ${says}`,
});
