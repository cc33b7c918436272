import type { Extract, Notice, Variable } from '../extract/extract';
import { rowText, type Located } from '../extract/row-names';
import type { Hints } from '../infer/storage';
import { retyped } from './retyped';

/** Everything noticed of the files together, of the codebooks, and of variables that later files write otherwise. */
export const receivedNotices = (received: Extract, hints: (variable: Variable) => Hints): Notice[] => [
  ...received.notices,
  ...received.linkNotices,
  ...retyped(received, hints),
];

/** What decisions say that is not so in this extract. @param says of cells and conditions */
export const laidNotices = (rows: readonly Located[], says: readonly string[]): Notice[] => [
  ...rows.map(misfitNotice),
  ...says.map((one) => ({ says: one })),
];

const misfitNotice = ({ name, row, says }: Located): Notice => ({
  says: `${rowText(name)} ${row === null ? 'was to be set aside, but' : 'is set aside:'} ${says}`,
});
