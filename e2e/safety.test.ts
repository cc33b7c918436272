import { afterEach, beforeEach, describe, expect, inject, it } from 'vitest';
import {
  By,
  Key,
  complaints,
  drop,
  keys,
  openBrowser,
  press,
  see,
  seeText,
  tap,
  type Browser,
} from './browser';

const ROWS = Array.from(
  { length: 120 },
  (_, i) => `${i + 1},${1 + (i % 3)},${(i * 7) % 50},2021-0${1 + (i % 9)}-1${i % 10}`,
);
const HOMES = { name: 'homes.csv', text: `id,fuel,hours,day\n${ROWS.join('\n')}\n` };

describe('what cannot be trusted', () => {
  let browser: Browser & { profile: string };
  const start = async (): Promise<void> => {
    await browser.driver.get(inject('address'));
    await see(browser.driver, '[data-ready]');
  };
  const read = async (...files: { name: string; text: string }[]): Promise<void> => {
    const { driver } = browser;
    await drop(driver, ...files);
    await see(driver, '.firstrows');
    await press(driver, 'Read the file');
    await see(driver, '.ledgerrow');
    await seeText(driver, '.kept', 'All kept in this browser');
  };
  const goTo = async (name: string): Promise<void> => {
    await keys(browser.driver, '2', '/', name, Key.ENTER);
    await seeText(browser.driver, '#profile h2', name);
  };
  /** Changes what the browser keeps, as damage would, from a page that has none of the program in it. @param script has `put(store, key, value)`, `keys(store)` and `id`, the one kept extract */
  const damage = async (script: string): Promise<void> => {
    await browser.driver.get(`${inject('address')}/demo/none`);
    const refused = await browser.driver.executeAsyncScript(`
      const done = arguments[arguments.length - 1];
      const within = (name, mode, work) => new Promise((resolve, reject) => {
        const asked = indexedDB.open('dig-first-' + name);
        asked.onsuccess = () => {
          const store = asked.result.transaction('keyvaluepairs', mode).objectStore('keyvaluepairs');
          const request = work(store);
          request.onsuccess = () => { asked.result.close(); resolve(request.result); };
          request.onerror = () => reject(request.error);
        };
      });
      const put = (name, key, value) => within(name, 'readwrite', (store) => store.put(value, key));
      const keys = (name) => within(name, 'readonly', (store) => store.getAllKeys());
      (async () => {
        const [id] = await keys('extracts');
        ${script}
      })().then(() => done(null), (cause) => done(String(cause)));
    `);
    expect(refused).toBe(null);
    await browser.driver.get(inject('address'));
  };

  beforeEach(async () => {
    browser = await openBrowser();
    await start();
  });
  afterEach(async () => browser?.driver.quit());

  it('labels that are markup stay words in every form of chart', async () => {
    const { driver } = browser;
    const evil = [
      '<img src=x id=pwned onerror=document.title=1>',
      '<meta http-equiv=refresh content=0;url=/gone>',
      '"><b id=pwned>bold</b>',
    ];
    const codes = evil.map((label, i) => `fuel,${i + 1},"${label.replace(/"/g, '""')}"`).join('\n');
    await read(HOMES, { name: 'codes.csv', text: `variable,code,label\n${codes}\n` });
    const address = await driver.getCurrentUrl();
    const touched = new Set<string>();
    const harmless = async (): Promise<void> => {
      // A chart that is drawn anew under the pointer is no reason to fail.
      for (const part of await driver.findElements(By.css('#profile .apexcharts-series path'))) {
        await driver
          .actions()
          .move({ origin: part })
          .perform()
          .catch(() => undefined);
        for (const told of await driver.findElements(By.css('#profile .apexcharts-tooltip')))
          touched.add(String(await told.getAttribute('textContent').catch(() => '')));
      }
      expect(await driver.findElements(By.css('#pwned, body meta, .chartroom b[id]'))).toEqual([]);
      expect(await driver.getCurrentUrl()).toBe(address);
    };
    await goTo('fuel');
    await see(driver, '#profile .apexcharts-bar-area');
    await seeText(driver, '#profile .freq', '<meta http-equiv=refresh');
    await driver.wait(async () => {
      await harmless();
      return [...touched].some((told) => told.includes('<meta http-equiv=refresh'));
    }, 20_000);
    await tap(driver, '#profile .charttools label:nth-of-type(2) input');
    await seeText(driver, '.apexcharts-legend', '<img src=x');
    await harmless();
    for (const name of ['hours', 'day']) {
      await goTo(name);
      await see(driver, '#profile .apexcharts-bar-area');
      await harmless();
    }
    expect(await complaints(driver)).toEqual([]);
  });

  it('records that are damaged are said, and the rest opens', async () => {
    const { driver } = browser;
    await read(HOMES);
    await goTo('fuel');
    await keys(driver, 'c');
    await seeText(driver, '.kept', 'fuel is');
    await seeText(driver, '.kept', 'All kept in this browser');
    // How the screen was left, an entry that is none, and one on a variable that is not there.
    await damage(`
      await put('view', id + ':view', { current: 7, chosen: 'x' });
      await put('log', id + ':00000007', { version: 2, entries: [{ junk: true }, { id: 'g', at: '2026-01-05T10:00:00Z', why: null, type: 'note', variable: 'gone', text: 'x' }, { id: 'k', at: '2026-01-05T10:00:00Z', why: null, type: 'confirm-kind', kinds: [{ variable: 'gone', kind: 'count' }] }] });
    `);
    await seeText(driver, '.ledgerrow[data-name="fuel"] .kind.confirmed', 'nominal');
    await seeText(
      driver,
      '[role=alert]',
      /1 of its 4 decisions cannot be read.*how its screen was left cannot be read/s,
    );
    // Which was open last.
    await damage(`await put('view', 'last-open', 7);`);
    await seeText(driver, '[role=alert]', 'which extract was open last cannot be read');
    await press(driver, 'Open homes');
    await see(driver, '.ledgerrow');
    // Its record: it can be removed, and nothing else is in the way.
    await damage(`await put('extracts', id, { name: 'homes' });`);
    await seeText(driver, '[aria-labelledby=kept-extracts]', 'its record is damaged');
    await press(driver, 'Remove it');
    await driver.wait(
      async () => (await driver.findElements(By.css('[aria-labelledby=kept-extracts]'))).length === 0,
      5000,
    );
    await read(HOMES);
  });

  it('a browser that keeps nothing for a page lets one work in memory, and says so', async () => {
    await browser.driver.quit();
    browser = await openBrowser({ siteData: false });
    await start();
    const { driver } = browser;
    await drop(driver, HOMES);
    await see(driver, '.firstrows');
    await press(driver, 'Read the file');
    await see(driver, '.ledgerrow');
    await seeText(driver, '.kept', 'no storage');
    await goTo('fuel');
    await keys(driver, 'c');
    await seeText(driver, '.ledgerrow[data-name="fuel"] .kind.confirmed', 'nominal');
  });

  it('two windows see what the other does at once, and say when one removes what is open in the other', async () => {
    const { driver } = browser;
    await read(HOMES);
    const [first] = await driver.getAllWindowHandles();
    await driver.switchTo().newWindow('tab');
    const second = await driver.getWindowHandle();
    await start();
    await see(driver, '.ledgerrow[data-name="fuel"]');
    await driver.switchTo().window(first);
    await goTo('fuel');
    await keys(driver, 'c');
    await driver.switchTo().window(second);
    await see(driver, '.ledgerrow[data-name="fuel"] .kind.confirmed');
    await goTo('hours');
    await keys(driver, 'x');
    await driver.switchTo().window(first);
    await seeText(driver, '.kept', 'hours signed off');
    // Reading another file into it in one window shows in the other.
    await drop(driver, { name: 'more.csv', text: HOMES.text });
    await tap(driver, '#into-added');
    await press(driver, 'Add the file');
    await seeText(driver, '.scope', '240 rows');
    await seeText(driver, '.kept', 'All kept in this browser');
    await driver.switchTo().window(second);
    await seeText(driver, '.scope', '240 rows');
    await see(driver, '.ledgerrow[data-name="fuel"] .kind.confirmed');
    await keys(driver, '1');
    await press(driver, 'Remove homes');
    await driver.findElement(By.xpath('//button[normalize-space(.)="Remove"]')).click();
    await driver.switchTo().window(first);
    await seeText(driver, '.kept', 'removed in another window');
    await press(driver, 'Keep it now');
    await seeText(driver, '.kept', 'All kept in this browser');
    await driver.navigate().refresh();
    await see(driver, '.ledgerrow[data-name="fuel"] .kind.confirmed');
  });
});
