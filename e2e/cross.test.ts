import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterEach, beforeEach, describe, expect, inject, it } from 'vitest';
import {
  chord,
  complaints,
  drop,
  Key,
  keys,
  openBrowser,
  PATIENCE,
  press,
  see,
  seeText,
  tap,
  type Browser,
} from './browser';

/** 300 homes: a boiler in half of them, whose age was asked of those alone but for two; tenure goes with the town. */
const ROWS = Array.from({ length: 300 }, (_, i) => {
  const boiler = 1 + (i % 2);
  const town = ['Fenwater', 'Hawmoor', 'Millford'][i % 3];
  const tenure = i % 3 === 0 && i % 4 ? 1 : 1 + ((i * 7) % 3);
  return [
    `H${1000 + i}`,
    tenure,
    boiler,
    boiler === 1 || i === 11 || i === 41 ? 1 + (i % 4) : '',
    18 + ((i * 37) % 79),
    town,
  ].join(',');
});
const FILE = `hhid,tenure,boiler,boil_kind,age,town\n${ROWS.join('\n')}\n`;
const BOOK = `variable,label,code,meaning\ntenure,Tenure of the home,1,Owned\ntenure,Tenure of the home,2,Rented\ntenure,Tenure of the home,3,Lent\nboiler,Home has a boiler,1,Yes\nboiler,Home has a boiler,2,No\nage,Age in years,,\n`;

describe('cross-checks', () => {
  let browser: Browser & { downloads: string };
  const here = (): Browser['driver'] => browser.driver;
  const fill = async (key: string, name: string): Promise<void> => {
    await keys(here(), key);
    await see(here(), '#pick-side');
    await keys(here(), name, Key.ENTER);
    await seeText(here(), '.crosssides', name);
  };
  /** Texts of the table, line by line. */
  const table = (): Promise<string[][]> =>
    here().executeScript<string[][]>(
      'return [...document.querySelector(".crosstable").rows].map((row) => [...row.cells].map((cell) => [...cell.querySelectorAll(".figure, :scope > span:first-child")].map((one) => one.textContent).filter((text, i, all) => all.indexOf(text) === i).join(" ") || cell.textContent.trim()))',
    );

  beforeEach(async () => {
    browser = await openBrowser();
    await here().get(inject('address'));
    await see(here(), '[data-ready]');
    await drop(here(), { name: 'homes.csv', text: FILE }, { name: 'homes-codes.csv', text: BOOK });
    await see(here(), '.firstrows');
    await keys(here(), Key.ENTER);
    await seeText(here(), '.scope', '300 rows of homes');
    await keys(here(), '6');
    await see(here(), '.crossroom:focus');
  });
  afterEach(async () => {
    expect(await complaints(here())).toEqual([]);
    await here().quit();
  });

  it('hold one variable against another by keys alone: shares, margins, what stands out, the rows of a cell, and back', async () => {
    const { driver } = browser;
    await seeText(driver, '.crossroom', 'Hold one variable against another');
    await fill('d', 'tenure');
    await fill('a', 'town');
    await seeText(driver, '.crosstable', '1 Owned');
    const cells = ROWS.map((row) => row.split(','));
    const owned = cells.filter(([, tenure]) => tenure === '1').length;
    const [head, first] = await table();
    expect(head.slice(1)).toEqual(['Fenwater', 'Hawmoor', 'Millford', 'All']);
    const inFenwater = cells.filter(([, tenure, , , , town]) => tenure === '1' && town === 'Fenwater').length;
    expect(first[1]).toBe(`${inFenwater} ${((100 * inFenwater) / owned).toFixed(1)} %`);
    expect(first[4]).toBe(`${owned} 100 %`);
    await seeText(driver, '.based', '300 of 300 rows, unweighted');
    // What stands out: a mark with its number, and the cell in words.
    await keys(driver, 'n');
    await seeText(
      driver,
      '.cellline',
      /tenure 1 Owned × town Fenwater: \d+ rows .*adjusted residual \+\d+\.\d/,
    );
    await see(driver, '.crosstable td.at .stake.more');
    // Shares of the column, then states as lines, then turned round.
    await keys(driver, 's');
    await seeText(driver, '.corner', 'of the column');
    await keys(driver, 't');
    await seeText(driver, '.crosstable .corner', /town\s+by\s+tenure/);
    await keys(driver, 't');
    await seeText(driver, '.crosstable .corner', /tenure\s+by\s+town/);
    await keys(driver, 'n');
    await see(driver, '.crosstable td.at');
    await keys(driver, Key.ENTER);
    await seeText(driver, '.rowsbar', `${inFenwater} rows kept by conditions not in force`);
    await seeText(driver, '.conditions', /tenure is 1 Owned[\s\S]*town is Fenwater/);
    await keys(driver, '6');
    await see(driver, '.crosstable td.at');
    // Another look takes its place; as a condition it stays.
    await keys(driver, Key.ARROW_RIGHT, Key.ENTER);
    await seeText(driver, '.conditions', /tenure is 1 Owned[\s\S]*town is Hawmoor/);
    expect(await driver.executeScript('return document.querySelectorAll(".condition").length')).toBe(2);
    await press(driver, 'Throw away');
    await keys(driver, '6');
    await see(driver, '.crosstable td.at');
    await keys(driver, 'k');
    await seeText(driver, '.scope', '2 conditions not in force');
    await keys(driver, 'Z');
    await seeText(driver, '.scope', /of 300 rows \(sieve: tenure is 1 Owned; town is Hawmoor\)/);
    await seeText(driver, '.based', /of \d+ rows, unweighted/);
    await keys(driver, '9');
    await seeText(driver, '.based', '300 of 300 rows');
  });

  it('keep a table for the report, save it with its base, summarise a measure, and come back as they were left', async () => {
    const { driver, downloads } = browser;
    await fill('d', 'tenure');
    await fill('w', 'boiler');
    await fill('m', 'age');
    await seeText(
      driver,
      '.crossgrids',
      /1 Yes 150 rows[\s\S]*2 No 150 rows[\s\S]*All of boiler together 300 rows/,
    );
    await see(driver, '.crosstable .box');
    await keys(driver, 'v');
    await seeText(driver, '.crossaside', 'tenure, within boiler; age in each cell');
    await tap(driver, '#save-table');
    await press(driver, 'As CSV');
    const file = join(downloads, 'tenure_by_boiler.csv');
    await driver.wait(() => existsSync(file), PATIENCE, 'no table was saved');
    const text = readFileSync(file, 'utf8');
    expect(text).toMatch(/^"?tenure, within boiler; age in each cell"?\r\n1 Yes\r\n/);
    expect(text).toContain('300 rows of all 300 rows.');
    await press(driver, 'As PNG');
    await driver.wait(() => readdirSync(downloads).includes('tenure_by_boiler.png'), PATIENCE);
    await keys(driver, Key.ESCAPE);
    await seeText(driver, '.kept', 'All kept');
    await driver.navigate().refresh();
    await seeText(driver, '.crossgrids', 'All of boiler together 300 rows');
    await seeText(driver, '.crossaside', 'tenure, within boiler');
    await keys(driver, 'u');
    await seeText(driver, '.crossaside', 'None yet. v keeps');
  });

  it('show whether a skip holds, with the rows that break it, and one variable against everything', async () => {
    const { driver } = browser;
    await keys(driver, '2', 'g');
    await see(driver, '#jump');
    await keys(driver, 'boil_kind', Key.ENTER);
    await seeText(driver, '#profile', 'asked where boiler is 1 Yes');
    await keys(driver, 'p');
    await seeText(
      driver,
      '.skipsays',
      /boil_kind is by its blanks asked where boiler is 1 Yes.*2 rows in \d cells? should be in none/,
    );
    await keys(driver, 'n');
    await seeText(driver, '.cellline', /boiler 2 No × boil_kind \d: \d rows?.*should be none/);
    await keys(driver, 'e');
    await see(driver, '#pick-side');
    await keys(driver, 'town', Key.ENTER);
    await seeText(driver, '.everything', /town against everything in view[\s\S]*all \d variables/);
    await seeText(driver, '.pairline', /tenure Tenure of the home/);
    await see(driver, '.pairs:focus');
    await keys(driver, Key.ENTER);
    await seeText(driver, '.crosstable .corner', /town\s+by\s+tenure/);
    // Two chosen in the ledger, one key.
    await keys(driver, '2', Key.HOME, Key.ARROW_DOWN, ' ', Key.ARROW_DOWN, ' ', 'v');
    await seeText(driver, '.crosstable .corner', /tenure\s+by\s+boiler/);
  });

  it('make trial recodes on the drawn distribution and of codes, which are used like any variable and taken back', async () => {
    const { driver } = browser;
    await fill('d', 'age');
    await seeText(driver, '.based', 'stands in bins of');
    await keys(driver, 'b');
    await see(driver, '.recodedrawn svg:focus');
    await press(driver, 'Halves');
    const typed = (place: number, part: string): Promise<string> =>
      driver.executeScript<string>(
        `return document.querySelector('[aria-label="${part} of band ${place}"]')?.value ?? null`,
      );
    const first = Number(await typed(2, 'From'));
    expect(await typed(1, 'To')).toBe(String(first - 1));
    // An edge is moved by keys, and the table says so; typed, and the drawing follows.
    await tap(driver, '.recodedrawn svg');
    await driver.executeScript('document.querySelector(".recodedrawn svg").focus()');
    await press(driver, 'Halves');
    await driver.executeScript('document.querySelector(".recodedrawn svg").focus()');
    await keys(driver, Key.ARROW_UP);
    expect(await typed(2, 'From')).toBe(String(first + 1));
    expect(await typed(1, 'To')).toBe(String(first));
    await keys(driver, 's');
    await driver.wait(async () => (await typed(3, 'From')) !== null, PATIENCE, 'no band was split');
    await keys(driver, 'm');
    await driver.wait(async () => (await typed(3, 'From')) === null, PATIENCE, 'no bands were merged');
    const younger = await driver.executeScript<{ value: string }>(
      'return document.querySelector(\'[aria-label="Label of band 1"]\')',
    );
    await (younger as unknown as { sendKeys: (text: string) => Promise<void> }).sendKeys('Younger');
    await seeText(driver, '.beforeafter', /All 300 valid rows are in one/);
    await chord(driver, Key.CONTROL, Key.ENTER);
    await seeText(driver, '.crosssides', 'age_b');
    await seeText(driver, '.crosstable', '1 Younger');
    await seeText(driver, '.crossaside', /age_b of age up to \d+ → 1 Younger/);
    // Overlapping bands are refused with why, and nothing is made.
    await keys(driver, 'b');
    await see(driver, '[aria-label="To of band 1"]');
    await tap(driver, '[aria-label="To of band 1"]');
    await chord(driver, Key.CONTROL, 'a');
    await keys(driver, '70');
    await seeText(driver, '.modal-footer', /bands 1 and 2 overlap from \d+ to 70/);
    await keys(driver, Key.ESCAPE);
    // Codes that belong together, by digits.
    await keys(driver, '2', 'g');
    await see(driver, '#jump');
    await keys(driver, 'town', Key.ENTER);
    await seeText(driver, '#profile', 'Millford');
    await keys(driver, 'b');
    await see(driver, '.ticklist:focus');
    await keys(driver, '1', '1');
    await seeText(driver, '.beforeafter', /100 of 300 valid rows \(33\.3 %\) are in none/);
    await chord(driver, Key.CONTROL, Key.ENTER);
    await seeText(driver, '#profile', /town_b[\s\S]*On trial, made of town: Fenwater, Hawmoor → 1 Fenwater/);
    await seeText(driver, '.ledger', 'on trial, of town');
    await keys(driver, 'u');
    await seeText(driver, '.scope', 'all 7 variables');
  });
});
