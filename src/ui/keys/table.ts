/**
 * Every key of the program, in one place: the list that `?` shows, the handlers and the tests are made of it. A command acts
 * where it is listed; `keys` are those of keyboard events, `shown` how a person reads them.
 */
export interface Command {
  id: string;
  keys: readonly string[];
  shown: string;
  says: string;
  /** Only with the shift key, or only without it; either where it is left out. */
  shift?: boolean;
  /** Only with the Alt key; without it where it is left out. */
  alt?: true;
}

export const WHERE = {
  everywhere: 'Everywhere',
  ledger: 'Ledger',
  variable: 'The variable at hand',
  flags: 'Flags',
  sets: 'Sets',
  members: 'Variables of a set',
  rows: 'Rows',
  conditions: 'Conditions of the sieve',
  cross: 'Cross-checks',
  everything: 'Against everything',
  edges: 'Edges of a trial recode',
  ticks: 'Codes of a trial recode',
  record: 'Record card',
} as const;
export type Where = keyof typeof WHERE;

export const COMMANDS = {
  everywhere: [
    { id: 'station', keys: ['1', '2', '3', '4', '5', '6', '7'], shown: '1 – 7', says: 'go to a station' },
    { id: 'jump', keys: ['g'], shown: 'g', says: 'go to any variable by name' },
    { id: 'into', keys: ['i'], shown: 'i', says: 'put what is at hand, or all chosen, into a set' },
    { id: 'scope', keys: ['.'], shown: '.', says: 'choose the sets that are in view' },
    { id: 'sift', keys: ['z'], shown: 'z', says: 'sieve the rows by the variable at hand' },
    { id: 'inForce', keys: ['Z'], shown: 'Z', says: 'put the sieve that is being made in force' },
    { id: 'allInView', keys: ['0'], shown: '0', says: 'every variable in view again' },
    { id: 'allRows', keys: ['9'], shown: '9', says: 'all rows again: no sieve in force' },
    { id: 'noWeight', keys: ['8'], shown: '8', says: 'no weight in force' },
    { id: 'undo', keys: ['u'], shown: 'u', says: 'undo the last ruling' },
    { id: 'help', keys: ['?'], shown: '?', says: 'this list' },
  ],
  ledger: [
    { id: 'previous', keys: ['ArrowUp'], shown: '↑', says: 'previous variable; with Shift, choosing it' },
    { id: 'next', keys: ['ArrowDown'], shown: '↓', says: 'next variable; with Shift, choosing it' },
    {
      id: 'back',
      keys: ['ArrowLeft'],
      shown: '←',
      says: 'previous variable, from the profile too',
      shift: false,
    },
    { id: 'on', keys: ['ArrowRight'], shown: '→', says: 'next variable, from the profile too', shift: false },
    { id: 'screenUp', keys: ['PageUp'], shown: 'PgUp', says: 'a screenful up' },
    { id: 'screenDown', keys: ['PageDown'], shown: 'PgDn', says: 'a screenful down' },
    { id: 'first', keys: ['Home'], shown: 'Home', says: 'first variable' },
    { id: 'last', keys: ['End'], shown: 'End', says: 'last variable' },
    { id: 'profile', keys: ['Enter'], shown: 'Enter', says: 'go into the profile' },
    { id: 'choose', keys: [' '], shown: 'Space', says: 'choose or leave out' },
    { id: 'chooseAll', keys: ['a'], shown: 'a', says: 'choose all listed, or none' },
    { id: 'set', keys: ['s'], shown: 's', says: 'make a set of the chosen' },
    { id: 'together', keys: ['t'], shown: 't', says: 'the chosen side by side' },
    { id: 'narrow', keys: ['f'], shown: 'f', says: 'narrow the list' },
    {
      id: 'search',
      keys: ['/'],
      shown: '/',
      says: 'search names, labels, codes; Esc clears it and goes back',
    },
  ],
  variable: [
    { id: 'confirm', keys: ['c'], shown: 'c', says: 'confirm the kind (of all chosen, if any are)' },
    { id: 'kind', keys: ['k'], shown: 'k', says: 'say another kind' },
    { id: 'codes', keys: ['l'], shown: 'l', says: 'label codes, or declare them missing' },
    {
      id: 'ruling',
      keys: ['h'],
      shown: 'h',
      says: 'a ruling by hand: missing, another code, who was asked, role',
    },
    { id: 'order', keys: ['o'], shown: 'o', says: 'order its codes' },
    { id: 'name', keys: ['r'], shown: 'r', says: 'another name or label' },
    { id: 'note', keys: ['n'], shown: 'n', says: 'note' },
    { id: 'signOff', keys: ['x'], shown: 'x', says: 'sign off, or take that back' },
    {
      id: 'against',
      keys: ['v'],
      shown: 'v',
      says: 'hold it against another; two or more chosen: against each other',
    },
    { id: 'band', keys: ['b'], shown: 'b', says: 'a trial recode of it: bands, bins, picks, groups' },
    { id: 'skip', keys: ['p'], shown: 'p', says: 'does the skip hold? who was asked, as a table' },
    { id: 'wide', keys: ['w'], shown: 'w', says: 'profile on the whole width, and back' },
  ],
  flags: [
    { id: 'previousPattern', keys: ['ArrowUp'], shown: '↑', says: 'previous pattern' },
    { id: 'nextPattern', keys: ['ArrowDown'], shown: '↓', says: 'next pattern' },
    { id: 'profileOfFlag', keys: ['Enter'], shown: 'Enter', says: 'go into the profile' },
    { id: 'missing', keys: ['m'], shown: 'm', says: 'declare its codes missing' },
    { id: 'mend', keys: ['b'], shown: 'b', says: 'merge its spellings, or set its rows aside' },
    { id: 'keep', keys: ['v'], shown: 'v', says: 'keep its codes as valid, or leave as it is' },
    { id: 'ask', keys: ['q'], shown: 'q', says: 'ask the archive' },
    { id: 'reason', keys: ['y'], shown: 'y', says: 'type a reason; Esc goes back' },
    { id: 'standing', keys: ['s'], shown: 's', says: 'your standing rules' },
  ],
  sets: [
    { id: 'setBefore', keys: ['ArrowLeft'], shown: '←', says: 'set before' },
    { id: 'setAfter', keys: ['ArrowRight'], shown: '→', says: 'set after' },
    { id: 'setAbove', keys: ['ArrowUp'], shown: '↑', says: 'set above' },
    { id: 'setBelow', keys: ['ArrowDown'], shown: '↓', says: 'set below' },
    { id: 'openSet', keys: ['Enter'], shown: 'Enter', says: 'open it to its variables' },
    { id: 'closeSet', keys: ['Escape'], shown: 'Esc', says: 'close the one that is open' },
    { id: 'chooseSet', keys: [' '], shown: 'Space', says: 'choose it, or leave it out' },
    { id: 'viewSet', keys: ['v'], shown: 'v', says: 'put it, or the chosen, in view; or out again' },
    { id: 'takeSet', keys: ['y'], shown: 'y', says: 'make a set of a proposal, or of all chosen' },
    { id: 'takeSure', keys: ['Y'], shown: 'Y', says: 'make sets of all sure proposals' },
    { id: 'sendSetAway', keys: ['d'], shown: 'd', says: 'send a proposal away for good' },
    { id: 'mergeSets', keys: ['m'], shown: 'm', says: 'merge the chosen sets' },
    {
      id: 'nestSets',
      keys: ['w'],
      shown: 'w',
      says: 'nest the chosen in the first of them; one alone: out again',
    },
    { id: 'renameSet', keys: ['r'], shown: 'r', says: 'call it otherwise' },
    { id: 'dropSet', keys: ['Delete'], shown: 'Del', says: 'remove it; its variables stay where they are' },
  ],
  members: [
    { id: 'moveUp', keys: ['ArrowUp'], shown: 'Alt ↑', says: 'move it up in the set', alt: true },
    { id: 'moveDown', keys: ['ArrowDown'], shown: 'Alt ↓', says: 'move it down in the set', alt: true },
    { id: 'memberBefore', keys: ['ArrowUp'], shown: '↑', says: 'variable before; with Shift, choosing it' },
    { id: 'memberAfter', keys: ['ArrowDown'], shown: '↓', says: 'variable after; with Shift, choosing it' },
    { id: 'firstMember', keys: ['Home'], shown: 'Home', says: 'first variable' },
    { id: 'lastMember', keys: ['End'], shown: 'End', says: 'last variable' },
    { id: 'chooseMember', keys: [' '], shown: 'Space', says: 'choose it, or leave it out' },
    { id: 'profileOfMember', keys: ['Enter'], shown: 'Enter', says: 'its profile' },
    { id: 'takeOut', keys: ['Delete'], shown: 'Del', says: 'take it, or the chosen, out of the set' },
    { id: 'splitOff', keys: ['p'], shown: 'p', says: 'split it, or the chosen, off as a set' },
    { id: 'belongs', keys: ['e'], shown: 'e', says: 'what else belongs here' },
    { id: 'backToMap', keys: ['Escape'], shown: 'Esc', says: 'back to the map' },
  ],
  rows: [
    { id: 'moveLeft', keys: ['ArrowLeft'], shown: 'Alt ←', says: 'move the column to the left', alt: true },
    {
      id: 'moveRight',
      keys: ['ArrowRight'],
      shown: 'Alt →',
      says: 'move the column to the right',
      alt: true,
    },
    { id: 'cellUp', keys: ['ArrowUp'], shown: '↑', says: 'row above; with Shift, choosing rows' },
    { id: 'cellDown', keys: ['ArrowDown'], shown: '↓', says: 'row below; with Shift, choosing rows' },
    { id: 'cellLeft', keys: ['ArrowLeft'], shown: '←', says: 'variable before' },
    { id: 'cellRight', keys: ['ArrowRight'], shown: '→', says: 'variable after' },
    { id: 'rowsUp', keys: ['PageUp'], shown: 'PgUp', says: 'a screenful up' },
    { id: 'rowsDown', keys: ['PageDown'], shown: 'PgDn', says: 'a screenful down' },
    { id: 'firstColumn', keys: ['['], shown: '[', says: 'first variable' },
    { id: 'lastColumn', keys: [']'], shown: ']', says: 'last variable' },
    { id: 'firstRow', keys: ['Home'], shown: 'Home', says: 'first row' },
    { id: 'lastRow', keys: ['End'], shown: 'End', says: 'last row' },
    { id: 'openRecord', keys: ['Enter'], shown: 'Enter', says: 'record card of the row' },
    { id: 'find', keys: ['/'], shown: '/', says: 'find a value; Enter goes to the next' },
    { id: 'nextFound', keys: ['n'], shown: 'n', says: 'next that was found' },
    { id: 'previousFound', keys: ['N'], shown: 'N', says: 'the one found before' },
    { id: 'goRow', keys: ['r'], shown: 'r', says: 'go to a row by number or identifier' },
    { id: 'sortBy', keys: ['s'], shown: 's', says: 'sort by the variable: up, down, not' },
    { id: 'sortToo', keys: ['S'], shown: 'S', says: 'sort by it too, within the others' },
    { id: 'keepLike', keys: ['k'], shown: 'k', says: 'a condition: keep the rows with this cell’s code' },
    { id: 'dropLike', keys: ['d'], shown: 'd', says: 'a condition: drop them' },
    { id: 'correct', keys: ['e'], shown: 'e', says: 'correct the cell' },
    { id: 'aside', keys: ['b'], shown: 'b', says: 'set the row, or the chosen, aside; or back' },
    { id: 'face', keys: ['l'], shown: 'l', says: 'code and label, label and code, or raw text' },
    { id: 'listKept', keys: ['v'], shown: 'v', says: 'look at the rows dropped, and back' },
    { id: 'copyRows', keys: ['y'], shown: 'y', says: 'copy the chosen rows as a table' },
    { id: 'toConditions', keys: ['c'], shown: 'c', says: 'to the conditions of the sieve' },
  ],
  conditions: [
    { id: 'partUp', keys: ['ArrowUp'], shown: 'Alt ↑', says: 'move it up', alt: true },
    { id: 'partDown', keys: ['ArrowDown'], shown: 'Alt ↓', says: 'move it down', alt: true },
    { id: 'partBefore', keys: ['ArrowUp'], shown: '↑', says: 'condition before' },
    { id: 'partAfter', keys: ['ArrowDown'], shown: '↓', says: 'condition after' },
    { id: 'choosePart', keys: [' '], shown: 'Space', says: 'choose it, or leave it out' },
    { id: 'switchPart', keys: ['s'], shown: 's', says: 'switch it off for a moment, and on again' },
    { id: 'turnPart', keys: ['t'], shown: 't', says: 'turn it round: drop what it keeps' },
    { id: 'groupParts', keys: ['m'], shown: 'm', says: 'of the chosen any one is enough; or apart again' },
    { id: 'changePart', keys: ['e'], shown: 'e', says: 'change it' },
    { id: 'dropPart', keys: ['Delete'], shown: 'Del', says: 'remove it, or the chosen' },
    { id: 'putInForce', keys: ['Enter'], shown: 'Enter', says: 'put them in force' },
    { id: 'toTable', keys: ['Escape'], shown: 'Esc', says: 'back to the rows' },
  ],
  cross: [
    { id: 'lineUp', keys: ['ArrowUp'], shown: '↑', says: 'cell above' },
    { id: 'lineDown', keys: ['ArrowDown'], shown: '↓', says: 'cell below' },
    { id: 'columnLeft', keys: ['ArrowLeft'], shown: '←', says: 'cell to the left' },
    { id: 'columnRight', keys: ['ArrowRight'], shown: '→', says: 'cell to the right' },
    { id: 'firstCell', keys: ['Home'], shown: 'Home', says: 'first cell' },
    { id: 'lastCell', keys: ['End'], shown: 'End', says: 'all of all' },
    { id: 'nextTable', keys: ['PageDown'], shown: 'PgDn', says: 'next of several tables' },
    { id: 'tableBefore', keys: ['PageUp'], shown: 'PgUp', says: 'the table before' },
    { id: 'nextOut', keys: ['n'], shown: 'n', says: 'next cell that stands out' },
    { id: 'outBefore', keys: ['N'], shown: 'N', says: 'the one before' },
    { id: 'rowsOfCell', keys: ['Enter'], shown: 'Enter', says: 'look at the rows of the cell' },
    { id: 'keepCell', keys: ['k'], shown: 'k', says: 'a condition: keep the rows of the cell' },
    { id: 'dropCell', keys: ['x'], shown: 'x', says: 'a condition: drop them' },
    { id: 'fillDown', keys: ['d'], shown: 'd', says: 'what stands down' },
    { id: 'fillAcross', keys: ['a'], shown: 'a', says: 'what stands across' },
    { id: 'fillWithin', keys: ['w'], shown: 'w', says: 'within whose levels the table is repeated' },
    { id: 'fillMeasure', keys: ['m'], shown: 'm', says: 'what is summarised in the cells' },
    { id: 'turn', keys: ['t'], shown: 't', says: 'turn the table round' },
    { id: 'shares', keys: ['s'], shown: 's', says: 'shares of the row, the column, of all, or none' },
    { id: 'states', keys: ['l'], shown: 'l', says: 'lines for what is missing, not asked, blank' },
    { id: 'small', keys: ['h'], shown: 'h', says: 'leave small cells out of what is copied and saved' },
    { id: 'bandSide', keys: ['b'], shown: 'b', says: 'a trial recode of what stands down' },
    { id: 'bandAcross', keys: ['B'], shown: 'B', says: 'the same of what stands across' },
    { id: 'copyTable', keys: ['y'], shown: 'y', says: 'copy the table for a document' },
    { id: 'keepTable', keys: ['v'], shown: 'v', says: 'keep the table for the report, or not' },
    { id: 'againstAll', keys: ['e'], shown: 'e', says: 'one variable against everything' },
  ],
  everything: [
    { id: 'pairBefore', keys: ['ArrowUp'], shown: '↑', says: 'variable before' },
    { id: 'pairAfter', keys: ['ArrowDown'], shown: '↓', says: 'variable after' },
    { id: 'firstPair', keys: ['Home'], shown: 'Home', says: 'the strongest' },
    { id: 'lastPair', keys: ['End'], shown: 'End', says: 'the last' },
    { id: 'openPair', keys: ['Enter'], shown: 'Enter', says: 'its table' },
    { id: 'another', keys: ['e'], shown: 'e', says: 'another variable against everything' },
    { id: 'leavePairs', keys: ['Escape'], shown: 'Esc', says: 'stop, then back to the table' },
  ],
  edges: [
    { id: 'edgeBefore', keys: ['ArrowLeft'], shown: '←', says: 'edge before' },
    { id: 'edgeAfter', keys: ['ArrowRight'], shown: '→', says: 'edge after' },
    { id: 'moveDown', keys: ['ArrowDown'], shown: '↓', says: 'move it down by one; with Shift by a bar' },
    { id: 'moveUp', keys: ['ArrowUp'], shown: '↑', says: 'move it up by one; with Shift by a bar' },
    { id: 'splitBand', keys: ['s'], shown: 's', says: 'split the band above it in the middle of its rows' },
    {
      id: 'mergeBands',
      keys: ['Delete', 'm'],
      shown: 'm',
      says: 'remove it: the bands on either side become one',
    },
  ],
  ticks: [
    { id: 'codeBefore', keys: ['ArrowUp'], shown: '↑', says: 'code before; with Shift, ticking it' },
    { id: 'codeAfter', keys: ['ArrowDown'], shown: '↓', says: 'code after; with Shift, ticking it' },
    { id: 'tick', keys: [' '], shown: 'Space', says: 'tick it, or not' },
    {
      id: 'intoGroup',
      keys: ['1', '2', '3', '4', '5', '6', '7', '8', '9'],
      shown: '1 – 9',
      says: 'put it, or the ticked, into a group',
    },
    { id: 'newGroup', keys: ['n'], shown: 'n', says: 'a new group of it, or of the ticked' },
    { id: 'outOfGroup', keys: ['Delete', '0'], shown: '0', says: 'out of its group again' },
  ],
  record: [
    { id: 'rowBefore', keys: ['ArrowLeft'], shown: '←', says: 'row before' },
    { id: 'rowAfter', keys: ['ArrowRight'], shown: '→', says: 'row after' },
    { id: 'cellInto', keys: ['i'], shown: 'i', says: 'put the variable at hand into a set' },
  ],
} as const satisfies Record<Where, readonly Command[]>;

/** What can be done in one place. */
export type CommandOf<W extends Where> = (typeof COMMANDS)[W][number]['id'];
/** What each command of a place does, all of them. @returns `false` where it does nothing now, and the key is left to others */
export type Handlers<W extends Where> = Record<CommandOf<W>, (pressed: Pressed) => boolean | void>;
export type Pressed = Pick<KeyboardEvent, 'key' | 'shiftKey' | 'target'> & { altKey?: boolean };

/** Acts on a key press. @returns whether the key meant something here */
export function press<W extends Where>(where: W, pressed: Pressed, handlers: Handlers<W>): boolean {
  const commands: readonly Command[] = COMMANDS[where];
  const command = commands.find(
    ({ keys, shift, alt = false }) =>
      keys.includes(pressed.key) &&
      alt === (pressed.altKey ?? false) &&
      (shift === undefined || shift === pressed.shiftKey),
  );
  return command !== undefined && handlers[command.id as CommandOf<W>](pressed) !== false;
}
