import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { COMMANDS } from '../src/ui/keys/table';
import { bring, By, complaints, Key, keys, see, seeText, type Browser } from './browser';
import { freshBrowser } from './fresh';

/** 200 homes: 90 variables of which most are items of one battery, a weight, and an age. */
const COLUMNS: Record<string, (i: number) => string | number> = {
  hhid: (i) => `H${1000 + i}`,
  tenure: (i) => 1 + (i % 3),
  town: (i) => ['Fenwater', 'Hawmoor', 'Millford'][i % 4 === 0 ? 0 : (i * 7) % 3],
  boiler: (i) => 1 + ((i >> 2) % 2),
  age: (i) => 18 + ((i * 37) % 60),
  wt_hh: (i) => (0.5 + ((i * 617) % 1000) / 999).toFixed(4),
  ...Object.fromEntries(
    Array.from({ length: 84 }, (_, k) => [`oft_${k + 1}`, (i: number) => 1 + ((i * (k + 3) + k) % 5)]),
  ),
};
const NAMES = Object.keys(COLUMNS);
const FILE = `${NAMES.join(',')}\n${Array.from({ length: 200 }, (_, i) => NAMES.map((name) => COLUMNS[name](i)).join(',')).join('\n')}\n`;

/** Each test begins where the one before it ended, as a person's work does; the mouse is not touched. */
describe('by keys alone', () => {
  const browser: Browser = freshBrowser();
  const here = (): Browser['driver'] => browser.driver;
  const current = (): Promise<string> =>
    here().executeScript<string>('return document.querySelector(".ledgerrow.current")?.dataset.name ?? ""');
  const focused = (): Promise<string> =>
    here().executeScript<string>('const one = document.activeElement; return one.id || one.className');
  const count = async (css: string): Promise<number> => (await here().findElements(By.css(css))).length;
  const eventually = async <T>(get: () => Promise<T>, wanted: T): Promise<void> => {
    await here()
      .wait(async () => JSON.stringify(await get()) === JSON.stringify(wanted), 10_000)
      .catch(() => undefined);
    expect(await get()).toEqual(wanted);
  };

  beforeAll(async () => {
    await bring(here(), { name: 'homes.csv', text: FILE }, '200 rows of homes');
    await keys(here(), '2');
    await see(here(), '.ledgerrow.current');
  });
  afterAll(async () => expect(await complaints(here())).toEqual([]));

  it('the list of keys holds every command, is read by keys, and gives the focus back', async () => {
    await keys(here(), '?');
    await see(here(), '.modal.show .keylist');
    // One more than in the table: what stops reading is no command of a place.
    const all = Object.values(COMMANDS).flat().length + 1;
    expect(await count('.modal.show .keylist tr')).toBe(all);
    const [said] = await here().executeScript<string[]>(
      'return [document.querySelector(".modal.show .keylist").innerText]',
    );
    for (const { says } of Object.values(COMMANDS).flat()) expect(said).toContain(says);
    await keys(here(), Key.END);
    await keys(here(), Key.ESCAPE);
    await eventually(() => count('.modal.show'), 0);
    await keys(here(), Key.ARROW_DOWN);
    await eventually(current, NAMES[1]);
  });

  it('the ledger is gone through a screenful at a time, to its ends, and from the profile too', async () => {
    await keys(here(), Key.HOME);
    await eventually(current, NAMES[0]);
    await keys(here(), Key.PAGE_DOWN);
    await here().wait(async () => (await current()) !== NAMES[0], 5000);
    const screen = NAMES.indexOf(await current());
    expect(screen).toBeGreaterThan(5);
    await keys(here(), Key.PAGE_DOWN);
    await eventually(current, NAMES[2 * screen]);
    await keys(here(), Key.PAGE_UP, Key.PAGE_UP, Key.PAGE_UP);
    await eventually(current, NAMES[0]);
    await keys(here(), Key.END);
    await eventually(current, NAMES[NAMES.length - 1]);
    await keys(here(), Key.ENTER);
    await eventually(focused, 'profile');
    await keys(here(), Key.ARROW_LEFT);
    await eventually(current, NAMES[NAMES.length - 2]);
    await keys(here(), Key.ESCAPE, Key.HOME);
    await eventually(current, NAMES[0]);
  });

  it('a set is made, put in view from the scope line, and one key brings every variable back', async () => {
    await keys(here(), '/', 'oft_1', Key.ENTER, 'a', 's');
    await see(here(), '.modal.show #set-name');
    await keys(here(), 'Often', Key.ENTER);
    await seeText(here(), '.scope', /of 90 variables \(Often\)/);
    await keys(here(), '0');
    await seeText(here(), '.scope', 'all 90 variables');
    await keys(here(), '.');
    await see(here(), '#sets-in-view[aria-expanded=true]');
    await keys(here(), Key.ESCAPE);
    await eventually(() => count('#sets-in-view[aria-expanded=true]'), 0);
    await keys(here(), '2', '/', Key.ESCAPE);
    await eventually(focused, 'ledger');
  });

  it('a weight is put in force by hand of its profile, and one key takes it out of force', async () => {
    await keys(here(), 'g', 'wt_hh', Key.ENTER);
    await eventually(current, 'wt_hh');
    await seeText(here(), '#profile', 'Weigh by this');
    // Its button is reached with Tab.
    await keys(here(), Key.ENTER);
    for (let presses = 0; presses < 20; presses++) {
      await keys(here(), Key.TAB);
      if (
        await here().executeScript<boolean>('return /Weigh by this/.test(document.activeElement.textContent)')
      )
        break;
    }
    await keys(here(), Key.ENTER);
    await seeText(here(), '.scope', 'weighted by wt_hh');
    await keys(here(), Key.ESCAPE, '8');
    await seeText(here(), '.scope', 'unweighted');
  });

  it('the record table is gone through a screenful at a time, and to its first and last variable', async () => {
    await keys(here(), '5');
    await seeText(here(), '.cellline', /Row 1, line 2/);
    await keys(here(), Key.PAGE_DOWN);
    const [, down] = /Row (\d+),/.exec(await seeText(here(), '.cellline', /Row (?!1,)\d+, line/)) ?? [];
    expect(Number(down)).toBeGreaterThan(5);
    await keys(here(), Key.PAGE_UP);
    await seeText(here(), '.cellline', /Row 1, line 2/);
    await keys(here(), ']');
    await seeText(here(), '.cellline', /oft_84/);
    await keys(here(), '[');
    await seeText(here(), '.cellline', /tenure/);
    // Found: on and back again.
    await keys(here(), '/', 'hawmoor', Key.ENTER);
    await seeText(here(), '.rowsbar', /rows found/);
    const at = (): Promise<string> => seeText(here(), '.cellline', /Row \d+/);
    await keys(here(), Key.ARROW_DOWN);
    await eventually(focused, 'recordtable');
    const first = await at();
    await keys(here(), 'n');
    await here().wait(async () => (await at()) !== first, 10_000);
    await keys(here(), 'N');
    await eventually(at, first);
    await keys(here(), Key.ESCAPE);
  });

  it('several tables are gone through, and what stands out there, forth and back', async () => {
    await keys(here(), '6');
    await see(here(), '.crossroom:focus');
    for (const [key, name] of [
      ['d', 'tenure'],
      ['a', 'town'],
      ['w', 'boiler'],
    ]) {
      await keys(here(), key);
      await see(here(), '#pick-side');
      await keys(here(), name, Key.ENTER);
      await seeText(here(), '.crosssides', name);
    }
    // One for each code of boiler, and one of all.
    await eventually(() => count('.crosstable'), 3);
    const tableAt = (): Promise<number> =>
      here().executeScript<number>(
        'return [...document.querySelectorAll(".crosstable")].findIndex((one) => one.querySelector("td.at"))',
      );
    await keys(here(), Key.HOME);
    await eventually(tableAt, 0);
    await keys(here(), Key.PAGE_DOWN);
    await eventually(tableAt, 1);
    await keys(here(), Key.PAGE_UP);
    await eventually(tableAt, 0);
    const cell = (): Promise<string> => seeText(here(), '.cellline', /tenure/);
    await keys(here(), 'n');
    const one = await cell();
    await keys(here(), 'n');
    await here().wait(async () => (await cell()) !== one, 10_000);
    await keys(here(), 'N');
    await eventually(cell, one);
    // Codes of what stands across become a trial recode by their own key.
    await keys(here(), 'B');
    await seeText(here(), '#recode-title', /town/);
    await keys(here(), Key.ESCAPE);
  });
});
