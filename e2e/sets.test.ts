import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, inject, it } from 'vitest';
import {
  bring,
  By,
  chord,
  complaints,
  Key,
  keys,
  openBrowser,
  press,
  see,
  seeText,
  still,
  tap,
  type Browser,
} from './browser';

const TOWNS = ['Fenwater', 'Hawmoor', 'Pellsey', 'Marlhope', 'Ostbeck'];
const COLUMNS: Record<string, (i: number) => string | number> = {
  hhid: (i) => `H${1000 + i}`,
  region: (i) => 1 + (i % 4),
  town: (i) => TOWNS[(i * 7) % 5],
  postcode: (i) => 40100 + ((i * 37) % 90),
  wage: (i) => 900 + ((i * 131) % 3100),
  rent: (i) => 200 + ((i * 53) % 700),
  debts: (i) => (i * 97) % 5000,
  ...Object.fromEntries(
    'abcde'
      .split('')
      .map((item, k) => [`oft_${item}`, (i: number) => (i % 23 === k ? 9 : 1 + ((i + k) % 5))]),
  ),
  ...Object.fromEntries([1, 2, 3, 4].map((item) => [`sat_${item}`, (i: number) => (i * item) % 11])),
  wt_hh: (i) => (0.5 + ((i * 617) % 1000) / 999).toFixed(4),
};
const NAMES = Object.keys(COLUMNS);
const FILE = `${NAMES.join(',')}\n${Array.from({ length: 240 }, (_, i) => NAMES.map((name) => COLUMNS[name](i)).join(',')).join('\n')}\n`;

describe('sets', () => {
  let browser: Browser & { profile: string };
  const here = (): Browser['driver'] => browser.driver;
  const listed = async (): Promise<string[]> =>
    here().executeScript<string[]>(
      'return [...document.querySelectorAll(".ledgerrow")].map((row) => row.dataset.name)',
    );
  const blocks = async (): Promise<string[]> =>
    here().executeScript<string[]>(
      'return [...document.querySelectorAll(".setblock")].map((one) => `${one.classList[1]} ${one.querySelector("strong").textContent}`)',
    );
  const members = async (): Promise<string[]> =>
    here().executeScript<string[]>(
      'return [...document.querySelectorAll(".setlist .name")].map((one) => one.textContent)',
    );
  const eventually = async <T>(get: () => Promise<T>, wanted: T): Promise<void> => {
    await here()
      .wait(async () => JSON.stringify(await get()) === JSON.stringify(wanted), 15_000)
      .catch(() => undefined);
    expect(await get()).toEqual(wanted);
  };
  /** Puts what is at hand into a set by key, letters and Enter. */
  const into = async (letters: string): Promise<void> => {
    await keys(here(), 'i');
    await see(here(), '#into');
    await keys(here(), letters, Key.ENTER);
    await still(here());
  };
  const go = async (name: string): Promise<void> => {
    await keys(here(), 'g');
    await see(here(), '#jump');
    await keys(here(), name, Key.ENTER);
    await seeText(here(), '#profile h2', name);
  };
  beforeEach(async () => {
    browser = await openBrowser();
    await here().get(inject('address'));
    await see(here(), '[data-ready]');
    await bring(here(), { name: 'homes.csv', text: FILE }, '240 rows of homes');
    await seeText(here(), '.kept', 'All kept');
  });
  afterEach(() => browser.driver.quit());

  it('are proposed on a map, taken one by one or all sure ones at once, sent away, and taken back', async () => {
    await keys(here(), '4');
    await seeText(here(), '.setside h2', 'A map of 17 variables');
    const proposed = await blocks();
    for (const name of ['found Place', 'found Money', 'rest The whole extract'])
      expect(proposed).toContain(name);
    expect(proposed.some((name) => /oft_a to oft_e/.test(name))).toBe(true);
    // Arrow keys go from set to set, Enter opens one to its variables, y makes it a set.
    while ((await (await see(here(), '.setblock.current strong')).getText()) !== 'Money')
      await keys(here(), Key.ARROW_RIGHT);
    await keys(here(), Key.ENTER);
    await eventually(members, ['wage', 'rent', 'debts']);
    await seeText(here(), '.setopened', /words about one matter/i);
    // Esc leads back to the map, and once more closes what is open.
    await keys(here(), Key.ESCAPE, Key.ESCAPE);
    await here().wait(async () => (await here().findElements(By.css('.setopened'))).length === 0, 5000);
    await keys(here(), 'y');
    await seeText(here(), '.kept', 'a set made: Money');
    expect((await blocks())[0]).toBe('made Money');
    await seeText(here(), '.rail', '1 set, 14 in none');
    await keys(here(), 'Y');
    await here().wait(async () => !(await blocks()).includes('found Place'), 15_000);
    await keys(here(), 'u');
    await eventually(async () => (await blocks()).filter((name) => name.startsWith('made')), ['made Money']);
    // What is sent away comes back only by Undo.
    while ((await (await see(here(), '.setblock.current strong')).getText()) !== 'Place')
      await keys(here(), Key.ARROW_RIGHT);
    await keys(here(), 'd');
    await seeText(here(), '.kept', 'proposed set “Place” sent away');
    expect(await blocks()).not.toContain('found Place');
    await keys(here(), 'u');
    await eventually(async () => (await blocks()).includes('found Place'), true);
  });

  it('take variables from the ledger, the profile, the flags and the record card, by the first letters of a name', async () => {
    await go('wage');
    await into('Purse');
    await seeText(here(), '.kept', 'set “Purse” made of wage');
    await go('rent');
    await keys(here(), ' ', Key.ARROW_DOWN, ' ');
    await into('pu');
    await seeText(here(), '.kept', 'rent, debts put into “Purse”');
    await keys(here(), '3');
    await see(here(), '.flagcard.current');
    await into('Doubtful');
    await seeText(here(), '.kept', /set “Doubtful” made of/);
    await keys(here(), '2');
    await go('debts');
    await tap(here(), '.extremes button');
    // The card is there before all that its row holds is.
    await here().wait(
      () =>
        here().executeScript<boolean>(
          'const row = [...document.querySelectorAll(".recordcard tbody tr")].find((row) => row.querySelector(".code")?.textContent === "town"); row?.click(); return row !== undefined;',
        ),
      20_000,
    );
    await into('doubt');
    await seeText(here(), '.kept', 'town put into “Doubtful”');
    await keys(here(), Key.ESCAPE);
    await still(here());
    // The ledger can show the sets of a variable, and be in their order.
    await here().executeScript(
      'document.querySelector(".sortpick select").value = "sets"; document.querySelector(".sortpick select").dispatchEvent(new Event("change", { bubbles: true }))',
    );
    const order = await listed();
    expect(order.slice(-3)).not.toContain('wage');
    expect(order.indexOf('rent') - order.indexOf('wage')).toBe(1);
    expect(await (await see(here(), '.ledgerrow.heads')).getAttribute('data-name')).not.toBe(order[0]);
  });

  it('in view are all that lists, pickers, searches, counts, flags, cards and the handoff hold, until one key brings all back', async () => {
    await keys(here(), '4');
    while ((await (await see(here(), '.setblock.current strong')).getText()) !== 'Money')
      await keys(here(), Key.ARROW_RIGHT);
    await keys(here(), 'v');
    await seeText(here(), '.scope', '3 of 17 variables (Money)');
    await seeText(here(), '.rail', '17 kinds presumed, 3 of them in view');
    await keys(here(), '2');
    await eventually(listed, ['wage', 'rent', 'debts']);
    await seeText(here(), '.ledgerbar', '3 of 17 variables in view');
    await seeText(here(), '#profile h2', 'wage');
    // A search says what it finds out of sight, and one key shows it.
    await keys(here(), '/', 'sat');
    await seeText(here(), '.ledgerbar', '4 more out of view');
    expect(await listed()).toEqual([]);
    await chord(here(), Key.CONTROL, Key.ENTER);
    await eventually(listed, ['sat_1', 'sat_2', 'sat_3', 'sat_4']);
    await keys(here(), Key.ESCAPE);
    await eventually(listed, ['wage', 'rent', 'debts']);
    // All that are listed are chosen, and nothing else.
    await keys(here(), 'a');
    await seeText(here(), '.chosenbar', '3 chosen');
    await press(here(), 'Choose none');
    // Going to a variable.
    await keys(here(), 'g', 'oft');
    await seeText(here(), '[aria-labelledby=jump-title]', '5 more out of view');
    expect(await here().findElements(By.css('#jump-list li'))).toHaveLength(0);
    await chord(here(), Key.CONTROL, Key.ENTER);
    await here().wait(async () => (await here().findElements(By.css('#jump-list li'))).length === 5, 5000);
    await keys(here(), Key.ESCAPE);
    await still(here());
    // Groups, those like it, and the gate of a ruling.
    await tap(here(), '[data-name=wage]');
    await seeText(here(), '#profile h2', 'wage');
    const groups = await here().executeScript<string[]>(
      'return [...document.querySelectorAll(".groupby option")].map((one) => one.value)',
    );
    expect(groups.filter((name) => ['region', 'town', 'oft_a'].includes(name))).toEqual([]);
    await keys(here(), 'h');
    await see(here(), '.byhand');
    await here().executeScript(
      'document.querySelectorAll(".byhand input[type=radio]").forEach((one) => /asked/i.test(one.parentElement.textContent) && one.click())',
    );
    const gates = await here().executeScript<string[]>(
      'return [...document.querySelectorAll("#byhand-gates option")].map((one) => one.value)',
    );
    expect(gates.every((name) => ['rent', 'debts'].includes(name))).toBe(true);
    await keys(here(), Key.ESCAPE);
    await still(here());
    // A single row.
    await tap(here(), '.extremes button');
    await see(here(), '.recordcard tr');
    expect(await here().findElements(By.css('.recordcard tbody tr:not(.group)'))).toHaveLength(3);
    await press(here(), '14 more out of view');
    await here().wait(
      async () => (await here().findElements(By.css('.recordcard tbody tr:not(.group)'))).length === 17,
      5000,
    );
    await keys(here(), Key.ESCAPE);
    await still(here());
    // Flags, and what goes out.
    await keys(here(), '3');
    await seeText(here(), '.flaglist', /more on variables that are not in view/);
    for (const { text } of await Promise.all(
      (await here().findElements(By.css('.flagcard'))).map(async (one) => ({ text: await one.getText() })),
    ))
      expect(text).not.toMatch(/oft_|sat_/);
    await keys(here(), '7');
    await seeText(here(), '.outputs', 'the 3 of 17 variables in view');
    // What identifies and weighs rows can stay in view always.
    await keys(here(), '.');
    await still(here());
    await press(here(), 'Identifier, wave, weight and design');
    await seeText(here(), '.scope', '5 of 17 variables (Money and what identifies and weighs rows)');
    await keys(here(), Key.ESCAPE);
    await here().wait(async () => (await here().findElements(By.css('.scopemenu.show'))).length === 0, 5000);
    await keys(here(), '2');
    await eventually(listed, ['hhid', 'wage', 'rent', 'debts', 'wt_hh']);
    await keys(here(), '0');
    await seeText(here(), '.scope', 'all 17 variables');
    await eventually(async () => (await listed()).length, 17);
    expect(await complaints(here())).toEqual([]);
  });

  it('are renamed, merged, split, nested, ordered and thinned, by key and by mouse, and stay so', async () => {
    await keys(here(), '4');
    while ((await (await see(here(), '.setblock.current strong')).getText()) !== 'Money')
      await keys(here(), Key.ARROW_RIGHT);
    await keys(here(), 'y');
    await seeText(here(), '.kept', 'a set made: Money');
    while ((await (await see(here(), '.setblock.current strong')).getText()) !== 'Place')
      await keys(here(), Key.ARROW_RIGHT);
    await keys(here(), 'y');
    await seeText(here(), '.kept', 'a set made: Place');
    await eventually(async () => (await blocks()).slice(0, 2), ['made Money', 'made Place']);
    // Renamed.
    while ((await (await see(here(), '.setblock.current strong')).getText()) !== 'Money')
      await keys(here(), Key.ARROW_LEFT);
    await keys(here(), 'r');
    await see(here(), '#nameset');
    await keys(here(), 'Purse', Key.ENTER);
    await seeText(here(), '.kept', 'set “Purse” called “Purse”');
    // Ordered and thinned within.
    await still(here());
    await keys(here(), Key.ENTER);
    await eventually(members, ['wage', 'rent', 'debts']);
    await chord(here(), Key.ALT, Key.ARROW_DOWN);
    await eventually(members, ['rent', 'wage', 'debts']);
    await keys(here(), Key.END, Key.DELETE);
    await eventually(members, ['rent', 'wage']);
    await keys(here(), Key.HOME, 'p');
    await see(here(), '#nameset');
    await keys(here(), 'Homes', Key.ENTER);
    await seeText(here(), '.kept', /rent of “Purse” made the set “Homes”/);
    await eventually(
      async () => (await blocks()).filter((name) => name.startsWith('made')),
      ['made Purse', 'made Place', 'made Homes'],
    );
    await still(here());
    // Two are chosen: the one nested in the other, then out again, then merged.
    await tap(here(), '.setblock:nth-child(1)');
    await keys(here(), ' ', Key.ARROW_RIGHT, Key.ARROW_RIGHT, ' ', 'w');
    await eventually(
      async () => (await blocks()).filter((name) => name.startsWith('made')),
      ['made Purse', 'made Homes', 'made Place'],
    );
    await keys(here(), 'u');
    // By mouse: one set dragged onto another becomes part of it.
    await here().executeScript(`
      const [purse, , homes] = document.querySelectorAll('.setblock');
      const carried = new DataTransfer();
      homes.dispatchEvent(new DragEvent('dragstart', { dataTransfer: carried, bubbles: true }));
      purse.dispatchEvent(new DragEvent('dragover', { dataTransfer: carried, bubbles: true, cancelable: true }));
      purse.dispatchEvent(new DragEvent('drop', { dataTransfer: carried, bubbles: true, cancelable: true }));
    `);
    await eventually(
      async () => (await blocks()).filter((name) => name.startsWith('made')),
      ['made Purse', 'made Place'],
    );
    await seeText(here(), '.kept', 'merged into “Purse”');
    // And a variable onto a set.
    await tap(here(), '.setblock:nth-child(2)');
    await eventually(async () => (await members()).includes('region'), true);
    await here().executeScript(`
      const carried = new DataTransfer();
      document.querySelector('.setlist li').dispatchEvent(new DragEvent('dragstart', { dataTransfer: carried, bubbles: true }));
      document.querySelector('.setblock').dispatchEvent(new DragEvent('drop', { dataTransfer: carried, bubbles: true, cancelable: true }));
    `);
    await seeText(here(), '.kept', 'region put into “Purse”');
    await seeText(here(), '.kept', 'All kept');
    await here().navigate().refresh();
    await see(here(), '[data-ready]');
    await keys(here(), '4');
    await eventually(
      async () => (await blocks()).filter((name) => name.startsWith('made')),
      ['made Purse', 'made Place'],
    );
  });

  it('are saved and taken over into another extract by the names of variables, and what does not fit is said', async () => {
    await go('wage');
    await into('Purse');
    await keys(here(), '4');
    await press(here(), 'Save the sets');
    const saved = join(browser.downloads, 'homes-sets.json');
    await here().wait(async () => {
      try {
        return readFileSync(saved, 'utf8').length > 0;
      } catch {
        return false;
      }
    }, 10_000);
    const document = JSON.parse(readFileSync(saved, 'utf8')) as {
      sets: { name: string; variables: string[]; within: null }[];
    };
    expect(document.sets).toEqual([{ name: 'Purse', variables: ['wage'], within: null }]);
    document.sets.push({ name: 'More', variables: ['rent', 'gone'], within: null });
    const folder = mkdtempSync(join(tmpdir(), 'dig-sets-'));
    const changed = join(folder, 'sets.json');
    writeFileSync(changed, JSON.stringify(document));
    await (await here().findElement(By.css('[data-testid=sets-file]'))).sendKeys(changed);
    await seeText(
      here(),
      '.notice',
      /1 set taken over; “Purse” left out, a set of this name is there; gone of “More” not in this extract/,
    );
    await eventually(
      async () => (await blocks()).filter((name) => name.startsWith('made')),
      ['made Purse', 'made More'],
    );
    writeFileSync(changed, '{"format": "other"}');
    await (await here().findElement(By.css('[data-testid=sets-file]'))).sendKeys(changed);
    await seeText(here(), '.notice', 'sets.json: this holds no sets that are known here');
  });

  it('tell what else belongs to one, with reasons', async () => {
    await go('oft_a');
    await keys(here(), ' ', Key.ARROW_DOWN, ' ', Key.ARROW_DOWN, ' ');
    await into('Habits');
    await keys(here(), '4', Key.ENTER);
    await eventually(members, ['oft_a', 'oft_b', 'oft_c']);
    await keys(here(), 'e');
    await seeText(here(), '.belonging', /oft_d.*names that begin alike|oft_d[\s\S]*names/);
    await tap(here(), '.belonging button');
    await eventually(async () => (await members()).length, 4);
  });
});
