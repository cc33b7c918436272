import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { bring, Key, keys, openBrowser, press, see, seeText, type Browser } from './browser';

const ROWS = Array.from(
  { length: 60 },
  (_, i) => `${i + 1},${i === 30 ? 99 : 1 + (i % 3)},${i === 7 ? 99999 : (i * 7) % 50}`,
);

describe('a station that cannot be drawn', () => {
  let browser: Browser & { profile: string };
  beforeAll(async () => {
    browser = await openBrowser();
    await browser.driver.get(inject('address'));
    await see(browser.driver, '[data-ready]');
  });
  afterAll(async () => browser?.driver.quit());

  it('says so and what now, the others go on, and trying again draws it; so does the page', async () => {
    const { driver } = browser;
    await bring(driver, { name: 'homes.csv', text: `id,fuel,hours\n${ROWS.join('\n')}\n` }, 'rows of homes');
    await see(driver, '.ledgerrow');
    await seeText(driver, '.kept', 'All kept in this browser');
    // From now on a whole number cannot be shown: those of rows which only flags name.
    const failAt = (...numbers: number[]): Promise<unknown> =>
      driver.executeScript(`
        const round = (window.round ??= Math.round);
        Math.round = (n) => { if (${JSON.stringify(numbers)}.includes(n)) throw new Error('made to fail'); return round(n); };
      `);
    const mend = (): Promise<unknown> => driver.executeScript('Math.round = window.round;');
    const nothingSaid = async (): Promise<void> =>
      expect(await driver.findElements({ css: '[role=alert]' })).toEqual([]);
    await failAt(8, 31);
    await keys(driver, '3');
    await seeText(driver, '[role=alert]', 'The flags could not be drawn: a defect of ours (made to fail)');
    await keys(driver, '2', '/', 'fuel', Key.ENTER);
    await seeText(driver, '#profile h2', 'fuel');
    await keys(driver, 'c');
    await see(driver, '.ledgerrow[data-name="fuel"] .kind.confirmed');
    await nothingSaid();
    await keys(driver, '3');
    await seeText(driver, '[role=alert]', 'The flags could not be drawn');
    await mend();
    await press(driver, 'Try again');
    await see(driver, '.flagcard');
    await nothingSaid();
    // What the frame of the page shows: the number of rows.
    await failAt(60);
    await keys(driver, '2');
    await seeText(driver, '[role=alert]', 'The page could not be drawn: a defect of ours (made to fail)');
    await mend();
    await press(driver, 'Try again');
    await see(driver, '.ledgerrow[data-name="fuel"] .kind.confirmed');
    await nothingSaid();
  });
});
