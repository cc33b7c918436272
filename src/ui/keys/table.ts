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
  record: 'Record card',
} as const;
export type Where = keyof typeof WHERE;

export const COMMANDS = {
  everywhere: [
    { id: 'station', keys: ['1', '2', '3', '4', '5'], shown: '1 – 5', says: 'go to a station' },
    { id: 'jump', keys: ['g'], shown: 'g', says: 'go to any variable by name' },
    { id: 'into', keys: ['i'], shown: 'i', says: 'put what is at hand, or all chosen, into a set' },
    { id: 'scope', keys: ['.'], shown: '.', says: 'choose the sets that are in view' },
    { id: 'allInView', keys: ['0'], shown: '0', says: 'every variable in view again' },
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
