import { expect, it } from 'vitest';
import { Inspector } from '../inspect/inspect';
import { readExtract } from '../intake/receive';
import { sourceOf } from '../read/source';
import { entryOf } from './entries';
import { foldLog } from './fold';

const wave = async (name: string, shift: number): Promise<Inspector> =>
  new Inspector(
    await readExtract([
      {
        source: sourceOf(
          name,
          `rooms,hours\n${Array.from({ length: 60 }, (_, i) => `${i % 12 === 11 ? 99 : 1 + ((i + shift) % 7)},${(i + shift) % 20}`).join('\n')}\n`,
        ),
      },
    ]),
  );
const log = [
  entryOf(
    {
      type: 'declare-missing',
      variables: ['rooms', 'gone'],
      codes: [{ code: '99', reason: 'refused' }],
      rule: 'sentinel-code',
    },
    '1',
    new Date(0),
  ),
  entryOf({ type: 'confirm-kind', kinds: [{ variable: 'hours', kind: 'count' }] }, '2', new Date(0)),
];

it('the same log folds over another extract, and what it names that is not there does no harm', async () => {
  for (const dig of [await wave('2021.csv', 0), await wave('2022.csv', 3)]) {
    expect(dig.flags.map(({ codes }) => codes)).toEqual([['99']]);
    dig.lay(foldLog(log));
    expect(dig.flags).toEqual([]);
    expect(dig.named('rooms')?.counts).toMatchObject({ all: 60, missing: 5, valid: 55, distinct: 7 });
    expect(dig.named('hours')).toMatchObject({ kind: 'count', confirmed: true });
    expect(dig.document().variables).toHaveLength(2);
  }
});

it('the received cells are the same before and after every ruling', async () => {
  const dig = await wave('2021.csv', 0);
  const cells = (): string[] =>
    dig.extract.variables.flatMap(({ column }) =>
      Array.from({ length: column.rows }, (_, row) => column.text(row)),
    );
  const before = cells();
  dig.lay(foldLog(log));
  expect(cells()).toEqual(before);
});
