import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { bring, Key, chord, keys, openBrowser, press, see, seeText, tap, type Browser } from './browser';

const item = (i: number): string => (i % 20 === 7 ? '9' : String(1 + (i % 5)));
const TOWNS = (i: number): string => (i === 11 ? 'fenwater' : ['Fenwater', 'Hawmoor', 'Pellsey'][i % 3]);
const ROWS = Array.from(
  { length: 200 },
  (_, i) =>
    `H${1000 + i},${item(i)},${item(i + 3)},${item(i + 5)},${TOWNS(i)},${i % 2 ? 1 : 2},${i % 2 ? i % 30 : ''}`,
);
const FILE = `hhid,oft_a,oft_b,oft_c,town,boiler,boil_age\n${ROWS.join('\n')}\nTOTAL,640,640,640,,300,1500\n`;

describe('rulings', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await openBrowser();
    await browser.driver.get(inject('address'));
    await see(browser.driver, '[data-ready]');
    await bring(browser.driver, { name: 'homes.csv', text: FILE }, '201 rows of homes');
    await keys(browser.driver, '3');
    await see(browser.driver, '.flagcard.current');
  });
  afterAll(async () => browser?.driver.quit());

  it('set a row aside that is no observation, after its record card was looked at', async () => {
    const { driver } = browser;
    await seeText(driver, '.flaglist', 'summary-row');
    await tap(driver, '[aria-label="Record card of row 201"]');
    await seeText(driver, '.recordcard', 'TOTAL');
    await keys(driver, Key.ESCAPE);
    await driver.wait(
      async () => (await driver.executeScript('return document.querySelectorAll(".modal").length')) === 0,
      5000,
    );
    await press(driver, 'Set 1 row aside');
    await seeText(driver, '.flaglist .ruled', '1 row set aside (row 201 of homes.csv, hhid TOTAL)');
    await keys(driver, '2');
    await (await see(driver, '.ledgerrow[data-name="boiler"]')).click();
    await seeText(driver, '#profile', 'of all 200 rows');
  });

  it('settle a pattern but for a variable that is excepted', async () => {
    const { driver } = browser;
    await keys(driver, '3');
    await seeText(driver, '.members', /oft_a[\s\S]*oft_b[\s\S]*oft_c/);
    await tap(driver, '.members li:nth-child(2) input');
    await press(driver, 'Declare it missing in 2');
    await seeText(driver, '.flaglist .ruled', '9 (no-answer) declared missing in oft_a, oft_c');
    await seeText(driver, '.flaglist', 'oft_b');
  });

  it('merge spellings, the parts staying in sight', async () => {
    const { driver } = browser;
    await press(driver, 'Count it for “Fenwater”');
    await seeText(driver, '.flaglist .ruled', '“fenwater” taken for “Fenwater” in town');
    await keys(driver, '2');
    await (await see(driver, '.ledgerrow[data-name="town"]')).click();
    await seeText(driver, '#profile .freq', /Fenwater\s+also written fenwater\s+68/);
  });

  it('tell those who were not asked from those who did not answer', async () => {
    const { driver } = browser;
    await keys(driver, '3');
    await tap(driver, '.remarks summary');
    await seeText(driver, '.remarks', 'asked where boiler is 1');
    await press(driver, 'Take these blanks for not asked');
    await seeText(driver, '.flaglist .ruled', 'boil_age not asked where boiler is 2');
    await keys(driver, '2');
    await (await see(driver, '.ledgerrow[data-name="boil_age"]')).click();
    await seeText(driver, '#profile .makeuplist', /not asked\s+100/);
  });

  it('write a question down for the archive, which goes out as a letter; every ruling can be undone', async () => {
    const { driver, downloads } = browser;
    await keys(driver, '3');
    await press(driver, 'Ask the archive…');
    await press(driver, 'Write it down for the letter');
    await seeText(driver, '.flaglist .ruled', 'asked of the archive about oft_b');
    await keys(driver, '7');
    await press(driver, 'homes-questions.txt');
    const path = join(downloads, 'homes-questions.txt');
    await driver.wait(() => existsSync(path) && readFileSync(path).length > 0, 15_000);
    expect(readFileSync(path, 'utf8')).toMatch(/1\. Variable oft_b, code 9/);
    await keys(driver, 'u', 'u', 'u', 'u', 'u');
    await keys(driver, '3');
    await seeText(driver, '.flaglist', 'summary-row');
    await seeText(driver, '.members', /oft_a[\s\S]*oft_b[\s\S]*oft_c/);
  });

  it('show what they rest on, take a reason, and are pressed by their keys', async () => {
    const { driver } = browser;
    await seeText(driver, '.flagcard.current .evidence', /The codes beside it|Rows; each opens/);
    // To the pattern of the items.
    for (
      let i = 0;
      i < 12 && !(await (await see(driver, '.flagcard.current')).getText()).includes('hold 9');
      i++
    )
      await keys(driver, Key.ARROW_DOWN);
    await seeText(driver, '.flagcard.current .near .suspect', /9/);
    expect(await (await see(driver, '.flagcard.current .strip')).getAttribute('aria-label')).toMatch(
      /marked: 9, \d+ rows/,
    );
    await keys(driver, 'y', 'the guide says so', Key.ESCAPE, 'm');
    await seeText(driver, '.flaglist .ruled', 'the guide says so');
    await keys(driver, 'u');
    await driver.wait(
      async () => !(await (await see(driver, '.flaglist')).getText()).includes('the guide says so'),
      5000,
    );
    // A question by key, and the keys mean rulings again.
    await keys(driver, 'q');
    await see(driver, '.flagcard.current textarea');
    await chord(driver, Key.CONTROL, Key.ENTER);
    await seeText(driver, '.flaglist .ruled', 'asked of the archive');
    await driver.wait(
      async () =>
        (await driver.executeScript('return document.activeElement.classList.contains("flaglist")')) === true,
      5000,
      'the list lost the focus',
    );
    await keys(driver, 'u');
    await driver.wait(
      async () => !(await (await see(driver, '.flaglist')).getText()).includes('asked of the archive'),
      5000,
    );
  });

  it('are made by hand on any variable, without a flag', async () => {
    const { driver } = browser;
    const shownDialog = (): Promise<string> => seeText(driver, '.modal.show #byhand-title', 'A ruling on');
    const closed = (): Promise<unknown> =>
      driver.wait(
        async () => (await driver.executeScript('return document.querySelectorAll(".modal").length')) === 0,
        5000,
      );
    await keys(driver, '2');
    await (await see(driver, '.ledgerrow[data-name="town"]')).click();
    await keys(driver, 'h');
    await shownDialog();
    await tap(driver, '#byhand-merge');
    await (await see(driver, '#byhand-codes')).sendKeys('Pellsey', Key.ENTER);
    await (await see(driver, '#byhand-into')).sendKeys('Pelsey');
    await (await see(driver, '#byhand-why')).sendKeys('spelt so on the map');
    await press(driver, 'Count Pellsey for Pelsey: 65 rows');
    await closed();
    await seeText(driver, '#profile .freq', /Pelsey\s+also written Pellsey\s+65/);
    await keys(driver, 'h');
    await shownDialog();
    await tap(driver, '#byhand-role');
    await tap(driver, '#byhand-role-design');
    await press(driver, 'Give it the role design');
    await closed();
    await seeText(driver, '#profile .kindbox', 'design');
    await (await see(driver, '.ledgerrow[data-name="boil_age"]')).click();
    await keys(driver, 'h');
    await shownDialog();
    await tap(driver, '#byhand-universe');
    await (await see(driver, '#byhand-gate')).sendKeys('boiler');
    await (await see(driver, '#byhand-shut')).sendKeys('2', Key.ENTER);
    await press(driver, 'Take blanks for not asked where boiler is 2');
    await closed();
    await seeText(driver, '#profile .askedof', /Taken for asked where boiler is 1: 100 rows not asked/);
    await keys(driver, 'u', 'u', 'u');
    await seeText(driver, '#profile .askedof', 'By its blanks');
  });

  it('set one row aside from its record card, and count it again', async () => {
    const { driver } = browser;
    await tap(driver, '.extremes .btn-bare');
    await press(driver, 'Set this row aside');
    await seeText(driver, '.recordcard', 'set aside, it counts nowhere');
    await press(driver, 'Count this row again');
    await driver.wait(
      async () => !(await (await see(driver, '.recordcard')).getText()).includes('counts nowhere'),
      5000,
    );
    await keys(driver, Key.ESCAPE);
    await driver.wait(
      async () => (await driver.executeScript('return document.querySelectorAll(".modal").length')) === 0,
      5000,
    );
  });

  it('are written down once as standing rules, exported, and proposed in another extract', async () => {
    const { driver, downloads } = browser;
    await keys(driver, '3', 's');
    await seeText(driver, '.modal.show', 'Standing rules');
    await (await see(driver, '#standing-code')).sendKeys('-8');
    await (await see(driver, '#standing-note')).sendKeys('archive guide');
    await (await see(driver, '.standingform button[type=submit]')).click();
    await seeText(driver, '.modal.show tbody', /-8\s+not asked\s+every variable\s+archive guide\s+none/);
    await press(driver, 'Export');
    const path = join(downloads, 'standing-rules.json');
    await driver.wait(() => existsSync(path) && readFileSync(path).length > 0, 15_000);
    await press(driver, 'Remove the rule on -8');
    await driver.wait(
      async () =>
        (await driver.executeScript('return document.querySelectorAll(".modal.show tbody tr").length')) === 0,
      5000,
    );
    const input = await driver.executeScript<never>(
      'const input = document.querySelector(".modal.show input[type=file]"); input.hidden = false; return input;',
    );
    await (input as unknown as { sendKeys(path: string): Promise<void> }).sendKeys(path);
    await seeText(driver, '.modal.show tbody', /-8\s+not asked/);
    await keys(driver, Key.ESCAPE);
    await driver.wait(
      async () => (await driver.executeScript('return document.querySelectorAll(".modal").length')) === 0,
      5000,
    );
    await bring(
      driver,
      {
        name: 'second.csv',
        text: `hhid,hours,days\n${Array.from({ length: 120 }, (_, i) => `H${2000 + i},${i % 9 ? 1 + (i % 40) : -8},${i % 6 ? 1 + (i % 7) : -8}`).join('\n')}\n`,
      },
      '120 rows of second',
    );
    await keys(driver, '3');
    await seeText(driver, '.members', /hours[\s\S]*days/);
    await seeText(driver, '.flaglist', 'by your standing rule not asked (archive guide)');
    await press(driver, 'Declare it missing in 2');
    await seeText(driver, '.flaglist .ruled', '-8 (not-asked) declared missing in hours, days');
    await keys(driver, '2');
    await (await see(driver, '.ledgerrow[data-name="hours"]')).click();
    await seeText(driver, '#profile .makeuplist', /not asked\s+14/);
  });

  it('take over the reason that the evidence tells: a code that stands just where it was not asked', async () => {
    const { driver } = browser;
    await bring(
      driver,
      {
        name: 'third.csv',
        text: `hhid,work,hours\n${Array.from({ length: 240 }, (_, i) => `H${3000 + i},${1 + (i % 3)},${i % 3 ? 999 : i % 12 ? 20 + (i % 30) : 997}`).join('\n')}\n`,
      },
      '240 rows of third',
    );
    await keys(driver, '3');
    await seeText(
      driver,
      '.flagcard.current .says',
      '999 stands just where the question was not asked; it was asked where work is 1',
    );
    await seeText(driver, '.flagcard.current .rulings', /999 as not asked,\s+the rest as/);
    await keys(driver, 'm');
    await seeText(driver, '.flaglist .ruled', /997 \(no-answer\)[\s\S]*999 \(not-asked\)/);
    await keys(driver, '2');
    await (await see(driver, '.ledgerrow[data-name="hours"]')).click();
    await seeText(driver, '#profile .makeuplist', /not asked\s+160/);
  });
});
