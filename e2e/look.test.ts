import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { describe, expect, it } from 'vitest';
import { By, Key, drop, keys, press, see, seeText, still } from './browser';
import { freshBrowser } from './fresh';

const axe = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');

describe('how it looks and feels', () => {
  const browser = freshBrowser();

  /** Violations of WCAG 2.2 A and AA in what is on the screen now. */
  async function violations(): Promise<string[]> {
    const { driver } = browser;
    await driver.executeScript(axe);
    const found = await driver.executeAsyncScript<{
      violations: { id: string; nodes: { html: string; failureSummary: string }[] }[];
    }>(`
      const done = arguments[arguments.length - 1];
      axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] }).then(done, (error) => done({ violations: [{ id: String(error), nodes: [] }] }));`);
    return found.violations.map(
      ({ id, nodes }) =>
        `${id}: ${nodes
          .slice(0, 3)
          .map(({ html, failureSummary }) => `${html.slice(0, 200)} — ${failureSummary.slice(0, 200)}`)
          .join(' | ')}`,
    );
  }
  const paper = async (look: string): Promise<void> => {
    await (await see(browser.driver, `footer option[value=${look}]`)).click();
    await see(browser.driver, `html[data-bs-theme=${look}]`);
  };

  it.each(['light', 'dark'])('has no accessibility violation in any view, on %s paper', async (look) => {
    const { driver } = browser;
    await paper(look);
    await keys(driver, Key.ESCAPE);
    if (look === 'light') {
      expect(await violations()).toEqual([]);
      await drop(driver, { name: 'a.csv', text: 'a,b\n1,x\n2,y\n' }, { name: 'empty.csv', text: '' });
      await seeText(driver, '.filestable .notice', 'empty');
      await see(driver, '.firstrows');
      expect(await violations()).toEqual([]);
      await press(driver, 'Put them all away');
      await press(driver, 'Open the demo');
      await seeText(driver, '.scope', 'rows of upkeep');
    }
    await (await see(driver, '.ledger')).click();
    await keys(driver, '2', '/', 'often', Key.ENTER, Key.SPACE, 'c');
    await see(driver, '#profile .apexcharts-bar-area');
    await see(driver, '.kind.confirmed');
    expect(await violations()).toEqual([]);
    await keys(driver, 'k');
    await see(driver, '.modal.show .kindlist');
    await still(driver);
    expect(await violations()).toEqual([]);
    await keys(driver, Key.ESCAPE);
    await driver.wait(async () => (await driver.findElements(By.css('.modal'))).length === 0, 5000);
    await keys(driver, 's');
    await see(driver, '.modal.show #set-name');
    await still(driver);
    expect(await violations()).toEqual([]);
    await keys(driver, Key.ESCAPE);
    await driver.wait(async () => (await driver.findElements(By.css('.modal'))).length === 0, 5000);
    await keys(driver, '?');
    await seeText(driver, '.modal.show', 'previous variable; with Shift, choosing it');
    await still(driver);
    expect(await violations()).toEqual([]);
    await keys(driver, Key.ESCAPE);
    await driver.wait(async () => (await driver.findElements(By.css('.modal'))).length === 0, 5000);
    for (const [station, key, shown] of [
      ['2', 'h', '#byhand-codes'],
      ['2', 'l', '.understood'],
      ['3', 's', '#standing-code'],
    ]) {
      await keys(driver, station, key);
      await see(driver, `.modal.show ${shown}`);
      await still(driver);
      expect(await violations(), key).toEqual([]);
      await keys(driver, Key.ESCAPE);
      await driver.wait(async () => (await driver.findElements(By.css('.modal'))).length === 0, 5000);
    }
    for (const [station, shown] of [
      ['3', '.flagcard.current .evidence'],
      ['4', '.setsmap'],
      ['5', '.recordrow'],
      ['6', '.crossroom'],
      ['7', '.outputs'],
      ['1', '[aria-labelledby=kept-extracts]'],
    ]) {
      await keys(driver, station);
      await see(driver, shown);
      expect(await violations()).toEqual([]);
    }
    await keys(driver, '2', Key.SPACE, 'w');
    await see(driver, '#profile.wide .apexcharts-bar-area');
    expect(await violations()).toEqual([]);
    await keys(driver, Key.ESCAPE, '/', Key.ESCAPE, Key.ESCAPE);
  });

  it('widens the profile by key, and remembers it', async () => {
    const { driver } = browser;
    const width = async (): Promise<number> => (await (await see(driver, '#profile')).getRect()).width;
    await keys(driver, '2');
    const before = await width();
    await driver.executeScript('document.querySelector(".seam").focus()');
    await keys(driver, Key.LEFT, Key.LEFT);
    expect(await width()).toBeGreaterThan(before + 40);
    await driver.navigate().refresh();
    await see(driver, '.ledgerrow');
    await driver.wait(async () => (await width()) > before + 40, 5000);
  });

  it('scrolls and searches 2,500 variables', async () => {
    const { driver } = browser;
    const names = Array.from({ length: 2500 }, (_, i) => `v${i + 1}`).join(',');
    const line = Array.from({ length: 2500 }, (_, i) => i % 9).join(',');
    await drop(driver, { name: 'wide.csv', text: `${names}\n${`${line}\n`.repeat(60)}` });
    await see(driver, '.firstrows');
    await press(driver, 'Read the file');
    await seeText(driver, '.scope', '60 rows of wide');
    await seeText(driver, '.ledgerbar', '2,500 variables');
    await keys(driver, Key.END);
    await see(driver, '[data-name="v2500"].current');
    expect((await driver.findElements(By.css('.ledgerrow'))).length).toBeLessThan(80);
    await keys(driver, '/', 'v1234', Key.ENTER);
    await seeText(driver, '#profile h2', 'v1234');
  });

  it('stays usable on a screen half as wide, as at 200 % zoom', async () => {
    const { driver } = browser;
    await driver.manage().window().setRect({ width: 660, height: 520 });
    await see(driver, '.ledgerrow');
    const overflow = await driver.executeScript<number>(
      'return document.documentElement.scrollWidth - document.documentElement.clientWidth',
    );
    expect(overflow).toBeLessThanOrEqual(0);
    await press(driver, 'Handoff');
    await see(driver, '.outputs');
  });
});
