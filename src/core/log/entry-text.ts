import { tableSays } from '../cross/kept-table';
import { rowText } from '../extract/row-names';
import { recodeSays } from '../recode/says';
import { conditionSays } from '../sieve/says';
import type { Entry } from './entries';

const list = (items: readonly string[]): string =>
  items.length > 4 ? `${items.slice(0, 3).join(', ')} and ${items.length - 3} more` : items.join(', ');

const number = (variables: readonly string[]): string =>
  variables.length === 1 ? variables[0] : `${variables.length} variables`;

/** How sets and sieves are called now, by their ids. */
export interface NamesById {
  set?: (id: string) => string;
  sieve?: (id: string) => string;
}
const same = (id: string): string => id;

const quoted = (name: string): string => (name ? ` “${name}”` : '');

/** An entry in one plain sentence. */
export function entryText(
  entry: Entry,
  { set: setName = same, sieve: sieveName = same }: NamesById = {},
): string {
  switch (entry.type) {
    case 'confirm-kind':
      return entry.kinds.length === 1
        ? `${entry.kinds[0].variable} is ${entry.kinds[0].kind}`
        : `kinds of ${entry.kinds.length} variables confirmed: ${list(entry.kinds.map(({ variable, kind }) => `${variable} ${kind}`))}`;
    case 'declare-missing':
      return `${list(entry.codes.map(({ code, reason }) => `${code} (${reason})`))} declared missing in ${list(entry.variables)}`;
    case 'label-codes':
      return `${list(entry.labels.map(({ code, label }) => `${code} “${label}”`))} labelled in ${list(entry.variables)}`;
    case 'keep-valid':
      return entry.codes.length
        ? `${list(entry.codes)} kept as valid in ${list(entry.variables)}`
        : `${entry.rule} left as it is${entry.variables.length ? ` in ${list(entry.variables)}` : ''}`;
    case 'merge-codes':
      return `${list(entry.codes.map((code) => `“${code}”`))} taken for “${entry.into}” in ${list(entry.variables)}`;
    case 'set-aside':
      return `${entry.rows.length} ${entry.rows.length === 1 ? 'row' : 'rows'} set aside (${list(entry.rows.map(rowText))})`;
    case 'count-again':
      return `${entry.rows.length} ${entry.rows.length === 1 ? 'row counts' : 'rows count'} again (${list(entry.rows.map(rowText))})`;
    case 'confirm-role':
      return entry.roles.length === 1
        ? `${entry.roles[0].variable} has the role ${entry.roles[0].role}`
        : `roles of ${entry.roles.length} variables confirmed`;
    case 'accept-universe':
      return `${entry.variable} not asked where ${[...(entry.steps ?? []).map(({ by, codes, asked }) => `${by} is ${asked ? 'not ' : ''}${list(codes)}${asked ? ' and' : ' or'}`), `${entry.by} is ${list(entry.shut)}`].join(' ')}`;
    case 'ask-archive':
      return `asked of the archive${entry.variables.length ? ` about ${list(entry.variables)}` : ''}: ${entry.question}`;
    case 'sign-off':
      return `${list(entry.variables)} ${entry.done ? 'signed off' : 'no longer signed off'}`;
    case 'note':
      return entry.text
        ? `note on ${entry.variable}: “${entry.text.length > 60 ? `${entry.text.slice(0, 57)}…` : entry.text}”`
        : `note on ${entry.variable} removed`;
    case 'rename':
      return `${entry.variable} ${[entry.name !== null && `is called ${entry.name}`, entry.label !== null && `is labelled “${entry.label}”`].filter(Boolean).join(' and ') || 'has the archive’s own name and label again'}`;
    case 'order-codes':
      return `codes of ${list(entry.variables)} ordered: ${list(entry.codes)}`;
    case 'weigh':
      return entry.by === null ? 'no weight in force' : `weighted by ${entry.by}`;
    case 'make-set':
      return `set “${entry.name}” made of ${number(entry.variables)}`;
    case 'make-sets':
      return `${entry.sets.length === 1 ? 'a set' : `${entry.sets.length} sets`} made: ${list(entry.sets.map(({ name }) => name))}`;
    case 'rename-set':
      return `set “${setName(entry.set)}” called “${entry.name}”`;
    case 'add-to-set':
      return `${list(entry.variables)} put into “${setName(entry.set)}”`;
    case 'take-from-set':
      return `${list(entry.variables)} taken out of “${setName(entry.set)}”`;
    case 'nest-set':
      return entry.within === null
        ? `set “${setName(entry.set)}” stands by itself`
        : `set “${setName(entry.set)}” is part of “${setName(entry.within)}”`;
    case 'merge-sets':
      return `${list(entry.sets.filter((id) => id !== entry.into).map((id) => `“${setName(id)}”`))} merged into “${setName(entry.into)}”`;
    case 'split-set':
      return `${number(entry.variables)} of “${setName(entry.from)}” made the set “${entry.name}”`;
    case 'send-away':
      return `proposed set “${entry.name}” sent away`;
    case 'view-always':
      return entry.on
        ? 'identifier, wave, weight and design variables always in view'
        : 'identifier, wave, weight and design variables in view only with their sets';
    case 'drop-set':
      return `set “${setName(entry.set)}” removed`;
    case 'view-sets':
      return entry.sets.length ? `in view: ${list(entry.sets.map(setName))}` : 'all variables in view';
    case 'correct-cells':
      return `${entry.cells.length === 1 ? 'a cell' : `${entry.cells.length} cells`} corrected: ${list(entry.cells.map(({ row, variable, from, to }) => `${variable} of ${rowText(row)} from “${from}” to “${to}”`))}`;
    case 'add-rows':
      return `${entry.rows.length === 1 ? 'a row' : `${entry.rows.length} rows`} added`;
    case 'make-sieve':
    case 'change-sieve': {
      const name = entry.type === 'make-sieve' ? entry.name : sieveName(entry.sieve);
      const on = entry.parts.filter((part) => part.on);
      const how = entry.type === 'make-sieve' ? 'made' : 'changed';
      return `sieve${name ? ` “${name}”` : ''} ${how}${entry.use ? ' and in force' : ''}: ${list(on.map(({ condition }) => conditionSays(condition)))}`;
    }
    case 'make-recode':
      return `trial recode ${entry.recode.name} made of ${entry.recode.of}: ${recodeSays(entry.recode)}`;
    case 'drop-recode':
      return `trial recode ${entry.name} removed`;
    case 'keep-table':
      return `table kept: ${tableSays(entry.asked)}`;
    case 'drop-table':
      return 'a kept table removed';
    case 'name-sieve':
      return `a sieve called “${entry.name}”`;
    case 'drop-sieve':
      return `sieve${quoted(sieveName(entry.sieve))} removed`;
    case 'use-sieve':
      return entry.sieve === null
        ? 'no sieve in force: all rows count'
        : `sieve${quoted(sieveName(entry.sieve))} in force`;
    case 'undo':
      return 'taken back';
  }
}
