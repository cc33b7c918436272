import { expect, it } from 'vitest';
import { entryOf } from '../log/entries';
import { letterText } from './letter';

const ask = (id: string, variables: string[], codes: string[], question: string) =>
  entryOf({ type: 'ask-archive', variables, codes, rule: 'undocumented-code', question }, id, new Date(0));

it('gathers the questions in force into one letter, in order', () => {
  const log = [
    ask('1', ['tenure'], ['7'], 'What is 7?'),
    ask('2', [], [], 'Why is there a total?'),
    ask('3', ['fuel'], ['2', '4'], 'Did they change places?'),
    entryOf({ type: 'undo', entry: '2' }, 'u', new Date(0)),
  ];
  expect(letterText('upkeep', ['upkeep.xml'], log)).toMatch(
    /^Questions about the extract upkeep \(codebook: upkeep\.xml\)[\s\S]*2 things[\s\S]*1\. Variable tenure, code 7\n {3}What is 7\?\n\n2\. Variable fuel, codes 2, 4\n {3}Did they change places\?/,
  );
  expect(letterText('upkeep', [], [])).toBeNull();
});
