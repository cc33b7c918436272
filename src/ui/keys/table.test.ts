import { describe, expect, it } from 'vitest';
import { COMMANDS, press, type Command, type Handlers, type Where } from './table';

const places = Object.entries(COMMANDS) as [Where, readonly Command[]][];

describe('the keys', () => {
  it('mean one thing in each place, and what holds everywhere is taken nowhere', () => {
    for (const [where, commands] of places) {
      const keys = commands.flatMap((command) => command.keys);
      expect(new Set(keys).size, where).toBe(keys.length);
      expect(new Set(commands.map(({ id }) => id)).size, where).toBe(commands.length);
      if (where === 'everywhere') continue;
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
});
