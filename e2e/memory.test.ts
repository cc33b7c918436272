import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { Key, type WebDriver } from 'selenium-webdriver';
import {
  By,
  complaints,
  drop,
  kept,
  keys,
  openBrowser,
  press,
  see,
  seeText,
  tap,
  type Browser,
} from './browser';
import { freshBrowser } from './fresh';

const WORKS = Array.from(
  { length: 400 },
  (_, i) => `${i},${1 + (i % 2)},${i % 2 ? '' : 1 + (i % 38)},${(i * 7) % 5}`,
);
const HOMES = `id,works,hours,rooms\n${WORKS.join('\n')}\n`;

const MANY = `id,tenure\n${Array.from({ length: 150_000 }, (_, i) => `${i},${1 + (i % 3)}`).join('\n')}\n`;

/** Waits until what was found is kept, for the next time. */
const found = (driver: WebDriver): Promise<unknown> =>
  driver.wait(
    async () => (await kept(driver, 'found', ':found')) !== null,
    30_000,
    'what was found is not kept',
  );

describe('an extract that is opened again', () => {
  const browser = freshBrowser();

  it('is there as it was found, takes rulings at once, and has them the next time', async () => {
    const { driver } = browser;
    await drop(driver, { name: 'homes.csv', text: HOMES });
    await see(driver, '.firstrows');
    await press(driver, 'Read the file');
    await seeText(driver, '.scope', '400 rows of homes');
    await seeText(driver, '.kept', 'All kept');
    await found(driver);
    await driver.navigate().refresh();
    await see(driver, '.ledgerrow[data-name="rooms"]');
    await tap(driver, '.ledgerrow[data-name="rooms"]');
    await keys(driver, 'c');
    await seeText(driver, '.kept', 'Last:');
    await seeText(driver, '.profile h2', 'rooms');
    await seeText(driver, '.profile', 'of all 400 rows');
    await seeText(driver, '.kept', 'All kept');
    await driver.navigate().refresh();
    await see(driver, '.ledgerrow[data-name="rooms"] .kind.confirmed');
    expect(await complaints(driver)).toEqual([]);
  });
});

describe('an extract that would not fit into memory', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await openBrowser();
    const { driver } = browser;
    await (
      driver as WebDriver & { sendDevToolsCommand(name: string, given: object): Promise<void> }
    ).sendDevToolsCommand('Page.addScriptToEvaluateOnNewDocument', {
      source: "Object.defineProperty(Navigator.prototype, 'deviceMemory', { get: () => 0.001 })",
    });
    await driver.get(inject('address'));
    await see(driver, '[data-ready]');
  });
  afterAll(async () => browser?.driver.quit());

  it('is said before reading to be read once, and that can be chosen otherwise', async () => {
    const { driver } = browser;
    await drop(driver, { name: 'homes.csv', text: HOMES });
    await seeText(driver, '.before', /All rows would take more than the .* that a page can count on here/);
    expect(await (await see(driver, '#hold')).getAttribute('value')).toBe('sample');
    await tap(driver, '#hold option[value="all"]');
    await seeText(driver, '.before', 'Everything is exact, as long as memory lasts.');
    await tap(driver, '#hold option[value="sample"]');
    await press(driver, 'Read the file');
    await seeText(driver, '.scope', 'all 400 rows (400 of them held) of homes');
  });

  it('says at each station what is of the sample, and hands off no data', async () => {
    const { driver } = browser;
    await keys(driver, '3');
    await tap(driver, '.remarks summary');
    await seeText(driver, '.remarks', '(in a sample of 400 of 400 rows)');
    await keys(driver, '5');
    await seeText(driver, '.rowsbar', 'of the sample of 400 that is held');
    await keys(driver, '1');
    await seeText(
      driver,
      '.notices',
      /all 400 rows were read and counted once.*not looked for, since that takes all rows/s,
    );
    await keys(driver, '7');
    await seeText(driver, '.handdata', 'the data themselves cannot be written from here');
    const forms = await driver.findElements(By.css('.handdata .forms input'));
    const open = await Promise.all(forms.map((input) => input.isEnabled()));
    expect(open.filter((enabled) => enabled).length).toBe(2);
  });

  it('is opened again as it was', async () => {
    const { driver } = browser;
    await seeText(driver, '.kept', 'All kept');
    await found(driver);
    await driver.navigate().refresh();
    await seeText(driver, '.scope', 'all 400 rows (400 of them held) of homes');
    await keys(driver, '2');
    await seeText(driver, '.profile', 'of all 400 rows');
    expect(await complaints(driver)).toEqual([]);
  });

  it('counts in all rows what a sieve keeps and what a table holds, for as long as the files are at hand', async () => {
    const { driver } = browser;
    await keys(driver, '1');
    await drop(driver, { name: 'many.csv', text: MANY });
    await see(driver, '.firstrows');
    await press(driver, 'Read the file');
    await seeText(driver, '.scope', /all 150,000 rows \((?!150)[\d,]+ of them held\)/);
    await keys(driver, '2', 'g');
    await see(driver, '#jump');
    await keys(driver, 'tenure', Key.ENTER);
    await tap(driver, 'input[aria-label="Tick 2 for the sieve"]');
    await press(driver, 'Keep only these rows');
    await seeText(driver, '.scope', '1 condition not in force');
    await keys(driver, '5');
    await see(driver, '.recordtable');
    await keys(driver, 'Z');
    await seeText(driver, '.scope', /in a sample from 150,000/);
    await press(driver, 'Count in all 150,000');
    await seeText(driver, '.scope', /^Based on\s+50,000 of 150,000 rows \(sieve: tenure is 2\)/);
    await keys(driver, '2');
    await seeText(driver, '.profile', 'all 50000 valid rows hold 2');
    // Rulings on variables that no condition asks about leave it at that.
    await tap(driver, '.ledgerrow[data-name="id"]');
    await keys(driver, 'c');
    await see(driver, '.ledgerrow[data-name="id"] .kind.confirmed');
    await seeText(driver, '.scope', /^Based on\s+50,000 of 150,000 rows/);
    expect(await complaints(driver)).toEqual([]);
  });

  it('shows every record of the files, sieved and sorted, and decides of those that are held alone', async () => {
    const { driver } = browser;
    const lists = async (name: string): Promise<void> => {
      for (const button of await driver.findElements(By.css('.rowsbar .btn-group button')))
        if ((await button.getText()) === name) return button.click();
      throw new Error(`no list is called ${name}`);
    };
    await keys(driver, '5');
    await see(driver, '.recordtable');
    await lists('Kept of all 150,000');
    await seeText(driver, '.rowsbar', '50,000 rows as the files hold them');
    await keys(driver, Key.END);
    await seeText(driver, '.cellline', 'Row 149,999, line 150,000 of many.csv');
    await keys(driver, 'r');
    await see(driver, '#gorow');
    await keys(driver, '75002', Key.ENTER);
    await seeText(driver, '.cellline', 'Row 75,002, line 75,003 of many.csv');
    // Some rows are held, and others are not.
    let held = 0;
    let isSeen = false;
    for (let i = 0; i < 12; i++) {
      const says = await (await see(driver, '.cellline')).getText();
      if (says.includes('not held')) {
        await keys(driver, 'b');
        await seeText(driver, '.cellline', 'nothing decided of it');
        if (!isSeen) {
          isSeen = true;
          // Its card is there too, and goes on to the next row of the file.
          const row = 75_002 + i * 3;
          await keys(driver, Key.ENTER);
          await seeText(driver, '#record-title', `Row ${row.toLocaleString('en')} of many.csv, line`);
          await seeText(driver, '.recordcard', `${row.toLocaleString('en')} of all 150,000 rows; not held`);
          expect(await (await see(driver, '.recordcard')).getText()).not.toContain('Set this row aside');
          await keys(driver, Key.ARROW_RIGHT);
          await seeText(driver, '#record-title', `Row ${(row + 3).toLocaleString('en')} of many.csv`);
          await seeText(driver, '.recordcard tbody', `id ${row + 2}`);
          await keys(driver, Key.ESCAPE);
        }
      } else held++;
      await keys(driver, Key.ARROW_DOWN);
      await seeText(driver, '.cellline', `Row ${(75_005 + i * 3).toLocaleString('en')},`);
    }
    expect(held).toBeGreaterThan(0);
    expect(held).toBeLessThan(12);
    // What is looked for is looked for in all rows, of this sieve those that it keeps.
    await keys(driver, '/', '7500', Key.ENTER);
    await seeText(driver, '.find', '8 rows found');
    await seeText(driver, '.cellline', 'Row 77,501');
    await keys(driver, Key.ARROW_DOWN, 'n', 'n');
    await seeText(driver, '.cellline', 'Row 137,501');
    await tap(driver, '.find input[type="checkbox"]');
    await seeText(driver, '.find', /^(?=.*only in tenure).*0 rows found/s);
    await keys(driver, 's', 's');
    await seeText(driver, '.rowsbar', 'sorted by');
    await lists('Kept');
    await seeText(driver, '.rowsbar', 'of the sample of');
    expect(await complaints(driver)).toEqual([]);
  });
});

describe('a large file', () => {
  const browser = freshBrowser();

  it('is read by two workers that share its columns, every cell as the file holds it', async () => {
    const { driver } = browser;
    const path = join(mkdtempSync(join(tmpdir(), 'dig-large-')), 'large.csv');
    const row = (i: number): string =>
      `H${String(i).padStart(7, '0')},${1 + (i % 7)},${(i * 37) % 100_003},"Fenwater, ${i % 20}",${i / 4}`;
    const rows = Array.from({ length: 380_000 }, (_, i) => row(i));
    writeFileSync(path, `home,rooms,rent,place,order\n${rows.join('\n')}\n`);
    await keys(driver, '1');
    await (await driver.findElement(By.css('input[type=file]'))).sendKeys(path);
    await see(driver, '.firstrows');
    await press(driver, 'Read the file');
    await seeText(driver, '.scope', '380,000 rows of large');
    expect(await driver.findElements(By.css('.ledgerrow'))).toHaveLength(5);
    await keys(driver, '5');
    await see(driver, '.recordrow .cell .code');
    await keys(driver, Key.END);
    await seeText(driver, '.cellline', 'Row 380,000, line 380,001 of large.csv');
    await seeText(driver, '.recordrow.current', /H0379999[\s\S]*Fenwater, 19[\s\S]*94999\.75/);
    expect(await complaints(driver)).toEqual([]);
  });
});
