import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import Papa from 'papaparse';
import { describe, expect, inject, it } from 'vitest';
import { inspectionSchema } from '../src/core/inspect/schema';
import { logSchema } from '../src/core/log/entries';
import { By, Key, complaints, keys, press, requests, see, seeText, kept } from './browser';
import { freshBrowser } from './fresh';

const row = (name: string): string => `.ledgerrow[data-name="${name}"]`;

describe('the whole path with the demo, by keyboard where there is a key', () => {
  const browser = freshBrowser();

  it('opens the demo with one click', async () => {
    const { driver } = browser;
    await seeText(driver, '.scope', 'No extract is open');
    await press(driver, 'Open the demo');
    await seeText(driver, '.scope', '11,902 rows of upkeep');
    await seeText(driver, row('hhid'), 'Household identifier');
    await seeText(driver, '.kept', 'All kept in this browser');
  });

  it('searches names and labels, and goes from the field to the rows', async () => {
    const { driver } = browser;
    await keys(driver, '/', 'rooms kitchen');
    await seeText(driver, '.ledgerbar', '1 of 184 variables');
    await keys(driver, Key.ENTER);
    await seeText(driver, '#profile', 'How many rooms does your household have for its own use?');
    await keys(driver, '/', Key.ESCAPE);
    await seeText(driver, '.ledgerbar', /^(?!.*1 of).*184 variables/s);
    await keys(driver, Key.ESCAPE);
    await see(driver, `${row('rooms')}.current`);
  });

  it('moves through the ledger by key, the profile following', async () => {
    const { driver } = browser;
    await keys(driver, Key.HOME);
    await seeText(driver, '#profile h2', 'hhid');
    await keys(driver, Key.END);
    await seeText(driver, '#profile h2', 'vstamp');
    await keys(driver, Key.UP, Key.UP);
    await seeText(driver, '#profile h2', 'fileid');
    await keys(driver, Key.HOME, Key.DOWN, Key.DOWN);
    await seeText(driver, '#profile h2', 'intdate');
    await keys(driver, Key.ENTER);
    expect(await driver.switchTo().activeElement().getAttribute('id')).toBe('profile');
    await keys(driver, Key.ESCAPE);
    expect(await driver.switchTo().activeElement().getAttribute('class')).toContain('ledger');
  });

  it('gives the profile the whole width and back, the keys staying where the eye is', async () => {
    const { driver } = browser;
    await keys(driver, 'w');
    await see(driver, '#profile.wide');
    await keys(driver, Key.ESCAPE);
    await see(driver, '#profile:not(.wide)');
    await keys(driver, Key.DOWN);
    await seeText(driver, '#profile h2', 'intdmy');
    await keys(driver, 'w');
    await see(driver, '#profile.wide');
    await keys(driver, '3');
    await see(driver, '.flaglist .flagcard.current');
    await keys(driver, Key.DOWN);
    await seeText(driver, '#profile h2', 'intmin');
    const focused = async (): Promise<string> =>
      (await driver.switchTo().activeElement().getAttribute('class')) ?? '';
    for (const [station, part] of [
      ['1', 'sheet'],
      ['4', 'setsmap'],
      ['5', 'recordtable'],
      ['7', 'sheet'],
      ['2', 'ledger'],
      ['2', 'ledger'],
    ]) {
      await keys(driver, station);
      expect(await focused()).toContain(part);
      await driver.executeScript('document.activeElement.blur()');
    }
    await keys(driver, '2');
    await see(driver, '.ledgerrow');
  });

  it('sorts by a column and by file order', async () => {
    const { driver } = browser;
    await press(driver, 'Distinct');
    // The variable at hand stays in sight, wherever it went.
    await driver.executeScript('document.querySelector(".ledger").scrollTop = 0');
    await driver.wait(
      async () =>
        (await (await see(driver, '.ledgerrow[aria-rowindex="2"]')).getAttribute('data-name')) === 'wt_pop',
      5000,
    );
    await press(driver, 'Name');
    await driver.executeScript('document.querySelector(".ledger").scrollTop = 0');
    await driver.wait(
      async () =>
        (await (await see(driver, '.ledgerrow[aria-rowindex="2"]')).getAttribute('data-name')) === 'adults',
      5000,
    );
    await press(driver, 'No.');
    await driver.executeScript('document.querySelector(".ledger").scrollTop = 0');
    await driver.wait(
      async () =>
        (await (await see(driver, '.ledgerrow[aria-rowindex="2"]')).getAttribute('data-name')) === 'hhid',
      5000,
    );
  });

  it('confirms a kind with one key, and says another', async () => {
    const { driver } = browser;
    await (await see(driver, row('intday'))).click();
    await seeText(driver, `${row('intday')} .kind`, 'nominal?');
    await keys(driver, 'c');
    await see(driver, `${row('intday')} .kind.confirmed`);
    await seeText(driver, '.kept', 'intday is nominal');
    await keys(driver, 'k');
    await see(driver, '.modal.show .kindlist');
    await keys(driver, 'o');
    await seeText(driver, `${row('intday')} .kind.confirmed`, 'ordinal');
    await seeText(driver, '#profile', 'Confirmed by you. The program presumed nominal');
    await seeText(driver, '.rail', '183 kinds presumed');
  });

  it('shows codes with labels, three parts of statistics, a chart, and the extremes', async () => {
    const { driver } = browser;
    await keys(driver, '/', 'tenure', Key.ENTER);
    await seeText(driver, '#profile .freq', /1\s+Owned outright\s+2,730\s+22\.9 %\s+23\.1 %/);
    await seeText(driver, '#profile .freq', /9\s+No answer\s+\(missing\)\s+92/);
    expect(await (await see(driver, '#profile .figures')).getText()).not.toContain('Mean');
    await see(driver, '#profile .apexcharts-bar-area');
    await keys(driver, '/', 'monthly household income', Key.ENTER);
    await seeText(driver, '#profile .figures', 'Standard deviation');
    await seeText(driver, '#profile .extremes', 'Highest values');
    await keys(driver, '/', Key.ESCAPE, Key.ESCAPE);
  });

  it('settles a pattern by declaring its code missing, and everything recounts; undo brings it back', async () => {
    const { driver } = browser;
    await keys(driver, '3');
    await seeText(driver, '.flaglist h2', '43 flags to rule on in 41 patterns');
    await seeText(driver, '#profile h2', 'oft_c');
    await seeText(driver, '.members', /oft_c[\s\S]*152 rows of 11,900 valid[\s\S]*oft_h[\s\S]*oft_k/);
    await seeText(driver, '#profile .figures', /Highest\s+9/);
    await keys(driver, 'm');
    await seeText(driver, '.flaglist h2', '40 flags to rule on');
    await seeText(driver, '.flaglist .ruled', '9 (no-answer) declared missing in oft_c, oft_h, oft_k');
    await keys(driver, '2');
    await keys(driver, '/', 'often: borrow', Key.ENTER);
    await seeText(driver, '#profile h2', 'oft_c');
    await seeText(driver, '#profile .makeuplist', /missing\s+152/);
    await seeText(driver, '#profile .figures', /Highest\s+5/);
    await keys(driver, 'u');
    await seeText(driver, '#profile .figures', /Highest\s+9/);
    await seeText(driver, `${row('oft_c')} .cell-flags`, '1');
    await keys(driver, '3');
    await seeText(driver, '#profile h2', 'oft_c');
    await keys(driver, 'm');
    await seeText(driver, '.flaglist h2', '40 flags to rule on');
  });

  it('answers a flag by keeping the codes as valid', async () => {
    const { driver } = browser;
    await seeText(driver, '#profile h2', 'intmin');
    await keys(driver, 'v');
    await seeText(driver, '.flaglist h2', '39 flags to rule on');
    await seeText(driver, '.flaglist .ruled', 'kept as valid in intmin');
    await keys(driver, '2', '/', Key.ESCAPE, Key.ESCAPE);
  });

  it('makes a set of chosen variables, puts it in view and takes it out, and the scope line says so', async () => {
    const { driver } = browser;
    await keys(driver, '/', 'boiler', Key.ENTER, 'a');
    await seeText(driver, '.chosenbar', '5 chosen');
    await keys(driver, 's');
    await see(driver, '.modal.show #set-name');
    await keys(driver, 'Boilers', Key.ENTER);
    await seeText(driver, '.scope', '5 of 184 variables (Boilers)');
    await keys(driver, '/', Key.ESCAPE, Key.ESCAPE);
    await seeText(driver, '.ledgerbar', '5 of 184 variables');
    await press(driver, '5 of 184 variables (Boilers)');
    await press(driver, 'Every variable in view');
    await seeText(driver, '.scope', 'all 184 variables');
    await press(driver, 'Boilers 5 variables');
    await seeText(driver, '.scope', '5 of 184 variables (Boilers)');
    await keys(driver, Key.ESCAPE);
    await (await see(driver, row('boil_age'))).click();
    await seeText(driver, '#profile h2', 'boil_age');
    await (await see(driver, `${row('boiler')} .cell-choose`)).click();
  });

  it('finds everything again after the tab was closed', async () => {
    const { driver } = browser;
    await driver.wait(
      async () =>
        (await kept<{ chosen: string[] }>(driver, 'view', ':view'))?.chosen.includes('boiler') ?? false,
      5000,
      'where the screen was left is not kept',
    );
    await driver.switchTo().newWindow('tab');
    const [first, second] = await driver.getAllWindowHandles();
    await driver.switchTo().window(first);
    await driver.close();
    await driver.switchTo().window(second);
    await driver.get(inject('address'));
    await seeText(driver, '.scope', '5 of 184 variables (Boilers)');
    await seeText(driver, '#profile h2', 'boil_age');
    await seeText(driver, '.chosenbar', '1 chosen');
    await seeText(driver, '.rail', '183 kinds presumed');
    await seeText(driver, '.rail', '39 to rule on');
    await press(driver, '5 of 184 variables (Boilers)');
    await press(driver, 'Every variable in view');
    await keys(driver, Key.ESCAPE);
    await keys(driver, '/', 'often: borrow', Key.ENTER);
    await seeText(driver, '#profile .makeuplist', /missing\s+152/);
    await keys(driver, '/', Key.ESCAPE, Key.ESCAPE);
  });

  it('hands off the inventory, the inspection, the report and the log, and each reads back', async () => {
    const { driver, downloads } = browser;
    const saved = async (name: string): Promise<string> => {
      await press(driver, name);
      const path = join(downloads, name);
      await driver.wait(
        () => existsSync(path) && readFileSync(path).length > 0,
        20_000,
        `${name} was not saved`,
      );
      return readFileSync(path, 'utf8');
    };
    await keys(driver, '7');
    const inventory = Papa.parse<Record<string, string>>((await saved('upkeep-inventory.csv')).trim(), {
      header: true,
    });
    expect(inventory.errors).toEqual([]);
    expect(inventory.data).toHaveLength(184);
    expect(inventory.data.find(({ name }) => name === 'oft_c')).toMatchObject({
      missing: '152',
      missing_codes: '9 no-answer (152)',
    });
    expect(inventory.data.find(({ name }) => name === 'intday')).toMatchObject({
      kind: 'ordinal',
      kind_is: 'confirmed',
    });

    const inspection = inspectionSchema.parse(JSON.parse(await saved('upkeep-inspection.json')));
    expect(inspection.flags.filter(({ severity }) => severity !== 'note')).toHaveLength(39);
    const log = logSchema.parse(JSON.parse(await saved('upkeep-dig-log.json')));
    expect(log.entries.some(({ type }) => type === 'undo')).toBe(true);

    const report = await saved('upkeep-report.html');
    await requests(driver);
    await driver.switchTo().newWindow('tab');
    await driver.get(`file://${join(downloads, 'upkeep-report.html')}`);
    await seeText(driver, 'h1', 'upkeep');
    expect((await driver.findElements(By.css('section.variable'))).length).toBe(184);
    expect((await driver.findElements(By.css('section.variable svg.chart rect'))).length).toBeGreaterThan(
      300,
    );
    await seeText(driver, 'ol', '9 (no-answer) declared missing in oft_c');
    expect((await requests(driver)).filter((url) => /^https?:/.test(url))).toEqual([]);
    expect(report).not.toContain('<script');
  });

  it('asked no other host for anything, and nothing broke its policy', async () => {
    const { driver } = browser;
    const [page] = await driver.getAllWindowHandles();
    await driver.switchTo().window(page);
    await driver.navigate().refresh();
    await seeText(driver, '.scope', 'upkeep');
    const asked = (await requests(driver)).filter(
      (url) => !/^(blob|data|chrome[a-z-]*|about|file):/.test(url),
    );
    expect(asked.length).toBeGreaterThan(3);
    expect(asked.filter((url) => !url.startsWith(inject('address')))).toEqual([]);
    expect(await complaints(driver)).toEqual([]);
  });
});
