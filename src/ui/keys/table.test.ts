import { describe, expect, it } from 'vitest';
import { COMMANDS, press, type Command, type Handlers, type Where } from './table';

const places = Object.entries(COMMANDS) as [Where, readonly Command[]][];

describe('the keys', () => {
  it('mean one thing in each place, and what holds everywhere is taken nowhere', () => {
    for (const [where, commands] of places) {
      const keys = commands.flatMap(({ keys: own, alt }) => own.map((key) => (alt ? `Alt ${key}` : key)));
      expect(new Set(keys).size, where).toBe(keys.length);
      expect(new Set(commands.map(({ id }) => id)).size, where).toBe(commands.length);
      // While a record card or a dialog is open it has the keys alone.
      if (where === 'everywhere' || where === 'record' || where === 'ticks') continue;
      const everywhere = COMMANDS.everywhere.flatMap((command): readonly string[] => command.keys);
      expect(keys.filter((key) => everywhere.includes(key))).toEqual([]);
    }
    // The ledger and the variable at hand are pressed on the same screen.
    const both = [...COMMANDS.ledger, ...COMMANDS.variable].flatMap(
      (command): readonly string[] => command.keys,
    );
    expect(new Set(both).size).toBe(both.length);
  });

  it('act by the table, and are left to others where they mean nothing', () => {
    const done: string[] = [];
    const handlers = Object.fromEntries(
      COMMANDS.ledger.map(({ id }) => [id, () => (id === 'set' ? false : void done.push(id))]),
    ) as unknown as Handlers<'ledger'>;
    const key = (name: string, shiftKey = false): boolean =>
      press('ledger', { key: name, shiftKey, target: null }, handlers);
    expect([
      key('ArrowDown'),
      key('ArrowDown', true),
      key('a'),
      key('ArrowLeft', true),
      key('s'),
      key('z'),
    ]).toEqual([true, true, true, false, false, false]);
    expect(done).toEqual(['next', 'next', 'chooseAll']);
  });

  it('with Alt mean what is said of Alt, and nothing else', () => {
    const done: string[] = [];
    const handlers = Object.fromEntries(
      COMMANDS.members.map(({ id }) => [id, () => void done.push(id)]),
    ) as unknown as Handlers<'members'>;
    for (const altKey of [false, true])
      for (const key of ['ArrowUp', 'Delete'])
        press('members', { key, shiftKey: false, altKey, target: null }, handlers);
    expect(done).toEqual(['memberBefore', 'takeOut', 'moveUp']);
  });
});
