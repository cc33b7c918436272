import { expect, it } from 'vitest';
import { columnOf } from '../extract/column';
import { bareEntry, type Codebook, type Extract } from '../extract/extract';
import { Inspector } from '../inspect/inspect';
import { proposeSets } from './propose';

const YES_NO = [
  ['1', 'Yes'],
  ['2', 'No'],
].map(([code, label]) => ({ code, label, missing: false, reason: null, frequency: null }));
function inspector(labels: Record<string, string>): Inspector {
  const extract: Extract = {
    name: 'x',
    files: [],
    codebooks: [],
    notices: [],
    linkNotices: [],
    rows: 6,
    variables: Object.entries(labels).map(([name, label], i) => ({
      name,
      position: i + 1,
      column: columnOf(['1', '2', '1', '2', '2', '1']),
      entry: { ...bareEntry(name), label, categories: YES_NO },
    })),
  };
  return new Inspector(extract);
}
const ITEMS = {
  own_a: 'Household has a kettle',
  own_b: 'Household has a radio',
  own_c: 'Household has a drill',
  sex: 'Sex',
  own_d: 'Household has a cycle',
};
const book = (groups: Codebook['groups']): Codebook => ({
  name: 'c.xml',
  form: 'ddi-codebook',
  title: null,
  cases: null,
  entries: [],
  groups,
  notices: [],
});

it('variables of one stem with the same codes are proposed as a set, named by what their labels share', () => {
  expect(proposeSets(inspector(ITEMS).variables, [])).toEqual([
    {
      name: 'Household has a',
      variables: ['own_a', 'own_b', 'own_c', 'own_d'],
      because: 'same stem, same codes',
    },
  ]);
});

it('fewer than three make none', () => {
  expect(proposeSets(inspector({ own_a: 'Has a kettle', own_b: 'Has a radio' }).variables, [])).toEqual([]);
});

it('groups of the codebook come first, only with what arrived, and are not proposed twice', () => {
  const proposals = proposeSets(inspector(ITEMS).variables, [
    book([
      { name: 'Things owned', variables: ['own_a', 'own_b', 'own_c', 'own_d', 'own_gone'] },
      { name: 'Elsewhere', variables: ['gone'] },
    ]),
  ]);
  expect(proposals).toEqual([
    {
      name: 'Things owned',
      variables: ['own_a', 'own_b', 'own_c', 'own_d'],
      because: 'a group of the codebook c.xml',
    },
  ]);
});
