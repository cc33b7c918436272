import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, inject, it } from 'vitest';
import {
  By,
  chord,
  complaints,
  drop,
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

/** 300 homes: a code of tenure in three, an age, a town, and some blanks and codes for no answer. */
const ROWS = Array.from({ length: 300 }, (_, i) =>
  [
    `H${1000 + i}`,
    1 + (i % 3),
    i % 20 === 7 ? '' : 18 + ((i * 37) % 60),
    ['Fenwater', 'Hawmoor', 'Millford'][(i * 7) % 3],
    i % 50 === 9 ? 99 : (i * 13) % 30,
  ].join(','),
);
const FILE = `hhid,tenure,age,town,hours\n${ROWS.join('\n')}\n`;
const BOOK = `variable,label,code,meaning\ntenure,Tenure of the home,1,Owned\ntenure,Tenure of the home,2,Rented\ntenure,Tenure of the home,3,Lent\nage,Age in years,,\n`;

describe('rows', () => {
  let browser: Browser & { profile: string };
  const here = (): Browser['driver'] => browser.driver;
  const eventually = async <T>(get: () => Promise<T>, wanted: T): Promise<void> => {
    await here()
      .wait(async () => JSON.stringify(await get()) === JSON.stringify(wanted), 15_000)
      .catch(() => undefined);
    expect(await get()).toEqual(wanted);
  };
  /** Numbers of the first rows that are listed. */
  const numbers = (most = 4): Promise<number[]> =>
    here().executeScript<number[]>(
      `return [...document.querySelectorAll(".recordrow")].map((row) => [Number(row.getAttribute("aria-rowindex")), parseInt(row.querySelector(".margin").textContent)]).sort((a, b) => a[0] - b[0]).slice(0, ${most}).map((one) => one[1])`,
    );
  const cellLine = (): Promise<string> =>
    here().executeScript<string>(
      'return document.querySelector(".cellline").textContent.replace(/\\s+/g, " ")',
    );
  const atTable = (): Promise<void> => tap(here(), '.recordrow .cell').then(() => undefined);

  beforeEach(async () => {
    browser = await openBrowser();
    await here().get(inject('address'));
    await see(here(), '[data-ready]');
    await drop(here(), { name: 'homes.csv', text: FILE }, { name: 'homes-codes.csv', text: BOOK });
    await see(here(), '.firstrows');
    await keys(here(), Key.ENTER);
    await seeText(here(), '.scope', '300 rows of homes');
    await keys(here(), '2');
    await seeText(here(), '.ledger', 'Tenure of the home');
    await keys(here(), '5');
    await see(here(), '.recordrow .cell .code');
  });
  afterEach(async () => {
    expect(await complaints(here())).toEqual([]);
    await here().quit();
  });

  it('are listed, sorted, found and gone to, with the line of each in its file, by keys alone', async () => {
    await seeText(here(), '.cellline', /Row 1, line 2 of homes\.csv/);
    await keys(here(), Key.ARROW_DOWN, Key.ARROW_DOWN);
    await seeText(here(), '.cellline', /Row 3, line 4 of homes\.csv.*tenure.*3 Lent/);
    // Up, then down, ties in file order.
    await keys(here(), 's');
    await eventually(numbers, [1, 4, 7, 10]);
    await keys(here(), 's');
    await eventually(numbers, [3, 6, 9, 12]);
    // Within it by the age too: the oldest of those with 3.
    await keys(here(), Key.ARROW_RIGHT, 'S');
    await seeText(here(), '.rowsbar', /sorted by tenure ↓, age ↑/);
    const [first] = await numbers(1);
    expect(ROWS[first - 1].split(',')[1]).toBe('3');
    expect(Number(ROWS[first - 1].split(',')[2])).toBe(
      Math.min(
        ...ROWS.map((row) => row.split(','))
          .filter((row) => row[1] === '3' && row[2])
          .map((row) => Number(row[2])),
      ),
    );
    await press(here(), 'in file order');
    await atTable();
    await keys(here(), Key.END);
    await seeText(here(), '.cellline', /Row 300, line 301/);
    await keys(here(), 'r');
    await see(here(), '#gorow');
    await keys(here(), 'H1042', Key.ENTER);
    await seeText(here(), '.cellline', /Row 43, line 44/);
    await keys(here(), '/', 'millford', Key.ENTER);
    await seeText(here(), '.rowsbar', '100 rows found');
    await seeText(here(), '.cellline', /town.*Millford/);
    const before = await cellLine();
    await keys(here(), Key.ESCAPE);
    await keys(here(), '/', '99', Key.ENTER);
    await seeText(here(), '.rowsbar', /\d+ rows? found/);
    expect(await cellLine()).not.toBe(before);
    // A stretch of rows is chosen and copied as a table.
    await keys(here(), Key.ESCAPE, Key.HOME);
    await chord(here(), Key.SHIFT, Key.ARROW_DOWN);
    await chord(here(), Key.SHIFT, Key.ARROW_DOWN);
    await seeText(here(), '.cellline', '3 chosen');
    await keys(here(), 'y');
    await seeText(here(), '.cellline', '3 rows copied.');
    // The card of the row, and back.
    await keys(here(), Key.ESCAPE, Key.HOME, Key.ENTER);
    await seeText(here(), '.recordcard', 'Fenwater');
  });

  it('a sieve is made by picking, looked at before it is in force, and then every number is of the rows kept', async () => {
    const { driver } = browser;
    // From a cell: the rows with its code; then without those of another.
    await keys(driver, 'k');
    await seeText(driver, '.condition', /tenure is 1 Owned\s+keeps 100, drops 200, 200 of them it alone/);
    await seeText(driver, '.sieve', 'not in force');
    await seeText(driver, '.scope', '300 rows of homes');
    await eventually(numbers, [1, 4, 7, 10]);
    // By picking: a stretch.
    await keys(driver, Key.ARROW_RIGHT, 'z');
    await see(driver, '#condition-from');
    await keys(driver, '30', Key.TAB, '60');
    await seeText(driver, '.modal-footer', /age is 30 to 60: keeps \d+/);
    await keys(driver, Key.ENTER);
    await seeText(driver, '.warnings', /drops all 15 rows without an answer as well/);
    const kept = ROWS.map((row) => row.split(',')).filter(
      ([, tenure, age]) => tenure === '1' && age !== '' && Number(age) >= 30 && Number(age) <= 60,
    ).length;
    await seeText(driver, '.conditions', `${kept} rows kept`);
    // The dropped ones, each with the conditions that drop it.
    await keys(driver, 'v');
    await seeText(driver, '.rowsbar', `${300 - kept} rows dropped by conditions not in force`);
    await keys(driver, 'v', 'Z');
    await seeText(driver, '.scope', `${kept} of 300 rows (sieve: tenure is 1 Owned; age is 30 to 60)`);
    for (const [key, css] of [
      ['2', '.ledger'],
      ['3', '.flaglist'],
      ['4', '.setsmap'],
      ['5', '.recordtable'],
      ['6', '.crossroom'],
      ['7', '.outputs'],
    ]) {
      await keys(driver, key);
      await see(driver, css);
      await seeText(driver, '.scope', `${kept} of 300 rows`);
    }
    await seeText(driver, '.sheet', `the ${kept} of 300 rows that the sieve keeps`);
    await keys(driver, '2', 'g');
    await see(driver, '#jump');
    await keys(driver, 'tenure', Key.ENTER);
    await seeText(driver, '#profile', `of the ${kept} rows kept`);
    await seeText(driver, '#profile', new RegExp(`1 Owned ${kept} 100\\.0 %`));
    // It is kept, and off and on again.
    await seeText(driver, '.kept', 'All kept');
    await driver.navigate().refresh();
    await seeText(driver, '.scope', `${kept} of 300 rows`);
    await keys(driver, '2');
    await see(driver, '#profile');
    await keys(driver, '9');
    await seeText(driver, '.scope', 'all 300 rows of homes');
    await seeText(driver, '#profile', 'of all 300 rows');
    await keys(driver, 'u');
    await seeText(driver, '.scope', `${kept} of 300 rows`);
  });

  it('conditions are switched off, turned round, made any-of, moved and removed by keys', async () => {
    const { driver } = browser;
    await keys(driver, 'k', Key.ARROW_RIGHT, Key.ARROW_RIGHT, 'd', 'c');
    await seeText(driver, '.conditions', /tenure is 1 Owned[\s\S]*town is not Fenwater/);
    await see(driver, '.conditions:focus');
    const told = (): Promise<string[]> =>
      driver.executeScript<string[]>(
        'return [...document.querySelectorAll(".condition .says")].map((one) => one.firstChild.textContent + one.childNodes[1].textContent.trim())',
      );
    await keys(driver, 's');
    await seeText(driver, '.condition.off', 'switched off');
    await keys(driver, 's', 't');
    await seeText(driver, '.conditions', 'tenure is not 1 Owned');
    await keys(driver, 't', Key.ARROW_DOWN);
    await chord(driver, Key.ALT, Key.ARROW_UP);
    await seeText(driver, '.conditions', /1\. town is not Fenwater[\s\S]*2\. tenure is 1 Owned/);
    expect((await told()).length).toBe(2);
    await keys(driver, ' ', Key.ARROW_DOWN, ' ', 'm');
    await seeText(driver, '.conditions', 'town is not Fenwater, or tenure is 1 Owned');
    await keys(driver, 'm');
    await seeText(driver, '.conditions', /1\. town is not Fenwater[\s\S]*2\. tenure is 1 Owned/);
    await keys(driver, Key.DELETE, Key.DELETE);
    await seeText(driver, '.sieve', 'none: all rows count');
    // One that leaves nobody says so.
    await atTable();
    await keys(driver, 'k', 'd');
    await seeText(driver, '.warnings', 'Nobody is left.');
  });

  it('conditions come from codes ticked in a profile and from a flag, and a sieve is named, saved and taken from a file', async () => {
    const { driver } = browser;
    await keys(driver, '2', 'g');
    await see(driver, '#jump');
    await keys(driver, 'tenure', Key.ENTER);
    await tap(driver, 'input[aria-label="Tick 2 Rented for the sieve"]');
    await tap(driver, 'input[aria-label="Tick 3 Lent for the sieve"]');
    await press(driver, 'Keep only these rows');
    await seeText(driver, '.scope', '1 condition not in force');
    await keys(driver, '3');
    await see(driver, '.flagcard');
    await press(driver, 'without them');
    await press(driver, 'Look at its rows');
    await seeText(driver, '.rowsbar', /6 rows of the flag/);
    await seeText(driver, '.conditions', /tenure is 2 Rented or 3 Lent[\s\S]*hours is not 99/);
    await keys(driver, 'Z');
    await seeText(driver, '.scope', /196 of 300 rows/);
    await press(driver, 'Sieves…');
    await press(driver, 'Name this sieve…');
    await see(driver, '#nameset');
    await still(driver);
    await keys(driver, 'tenants', Key.ENTER);
    await seeText(driver, '.scope', '196 of 300 rows (sieve: tenants)');
    const folder = mkdtempSync(join(tmpdir(), 'dig-sieve-'));
    const path = join(folder, 'sieve.json');
    const sieve = {
      format: 'dig-first-sieve',
      version: 1,
      name: 'odd',
      conditions: [
        { variable: 'gone', answered: true },
        { variable: 'hours', from: 5 },
      ],
    };
    writeFileSync(path, JSON.stringify(sieve));
    await driver.findElement(By.css('input[aria-label="File of a sieve"]')).sendKeys(path);
    await seeText(
      driver,
      '.conditions',
      /does not fit this extract and drops nothing: there is no variable gone/,
    );
    writeFileSync(path, '{"format":"dig-first-sieve","version":1,"conditions":[{"variable":"hours"}]}');
    await driver.findElement(By.css('input[aria-label="File of a sieve"]')).sendKeys(path);
    await seeText(driver, '.rowsside', /sieve\.json.*conditions\.0.*has one test/);
  });

  it('cells are corrected one by one and by a sheet, rows set aside, brought back and added, all of it undone', async () => {
    const { driver } = browser;
    await keys(driver, 'e');
    await see(driver, '#cell-to');
    await still(driver);
    await keys(driver, '3', Key.ENTER);
    await seeText(driver, '.cellline', /tenure.*3 Lent received as “1”/);
    await see(driver, '.cell.corrected');
    await keys(driver, 'b');
    await seeText(driver, '.scope', '299 rows, 1 set aside');
    await keys(driver, 'u');
    await seeText(driver, '.scope', 'all 300 rows of homes');
    await press(driver, 'Cells and rows…');
    await press(driver, 'Paste a sheet of corrections…');
    await see(driver, '#sheet-text');
    await keys(
      driver,
      'H1001;tenure;1',
      Key.RETURN,
      'H1002;tenur;1',
      Key.RETURN,
      'H9;tenure;1',
      Key.RETURN,
      'H1003;hours;39',
    );
    await seeText(driver, '.modal-body', /there is no variable tenur; near are tenure/);
    await seeText(driver, '.modal-body', /no row has hhid H9/);
    await press(driver, 'Correct 2 cells');
    await seeText(driver, '.kept', '2 cells corrected');
    await press(driver, 'Cells and rows…');
    await press(driver, 'Add a row…');
    await see(driver, '.addcells input');
    await driver.findElement(By.css('.addcells input')).sendKeys('H2000');
    await press(driver, 'Add it with 1 cell filled in');
    await seeText(driver, '.scope', '301 rows');
    await seeText(driver, '.cellline', /Row 301, added by hand/);
    await keys(driver, 'u', 'u', 'u');
    await seeText(driver, '.scope', 'all 300 rows of homes');
    await driver.wait(
      async () => (await driver.findElements(By.css('.cell.corrected'))).length === 0,
      10_000,
    );
  });
});
