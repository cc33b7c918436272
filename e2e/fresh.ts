import { afterAll, beforeAll, inject } from 'vitest';
import { openBrowser, see, type Browser } from './browser';

/** A browser of its own for the tests of a suite, with the program open in it, as it is for somebody new. */
export function freshBrowser(): Browser {
  let browser: Browser | null = null;
  beforeAll(async () => {
    browser = await openBrowser();
    await browser.driver.get(inject('address'));
    await see(browser.driver, '[data-ready]');
  });
  afterAll(async () => browser?.driver.quit());
  const open = (): Browser => {
    if (!browser) throw new Error('the browser is opened before the first test, not before the suite');
    return browser;
  };
  return {
    get driver() {
      return open().driver;
    },
    get downloads() {
      return open().downloads;
    },
  };
}
