import { existsSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Builder, By, Key, logging, until, type WebDriver, type WebElement } from 'selenium-webdriver';
import { Options, ServiceBuilder } from 'selenium-webdriver/chrome';

const CHROMIUM = ['/usr/bin/chromium', '/usr/bin/chromium-browser', '/usr/bin/google-chrome'];
const DRIVER = [
  '/usr/bin/chromedriver',
  '/usr/lib/chromium/chromedriver',
  '/usr/lib/chromium-browser/chromedriver',
];

const first = (paths: readonly string[], what: string): string => {
  const found = paths.find((path) => existsSync(path));
  if (!found) throw new Error(`no ${what} at ${paths.join(' or ')}`);
  return found;
};

export interface Browser {
  driver: WebDriver;
  /** Folder that downloads go to. */
  downloads: string;
}

/** A headless Chromium with a profile of its own. @param profile a folder to use again, for what is kept between visits @param siteData whether pages may keep anything */
export async function openBrowser({
  width = 1280,
  height = 800,
  profile = mkdtempSync(join(tmpdir(), 'dig-profile-')),
  siteData = true,
} = {}): Promise<Browser & { profile: string }> {
  const downloads = mkdtempSync(join(tmpdir(), 'dig-downloads-'));
  const options = new Options();
  options.setChromeBinaryPath(first(CHROMIUM, 'Chromium'));
  options.addArguments(
    '--headless=new',
    '--no-sandbox',
    '--disable-gpu',
    '--disable-quic',
    '--no-first-run',
    '--disable-background-networking',
    '--disable-component-update',
    '--disable-sync',
    '--disable-dev-shm-usage',
    `--user-data-dir=${profile}`,
    `--window-size=${width},${height}`,
  );
  options.setUserPreferences({
    'download.default_directory': downloads,
    'download.prompt_for_download': false,
    // Two is to block: then a page may keep nothing at all.
    ...(siteData ? {} : { 'profile.default_content_setting_values.cookies': 2 }),
  });
  const prefs = new logging.Preferences();
  prefs.setLevel(logging.Type.BROWSER, logging.Level.ALL);
  prefs.setLevel(logging.Type.PERFORMANCE, logging.Level.ALL);
  options.setLoggingPrefs(prefs);
  const driver = await new Builder()
    .forBrowser('chrome')
    .setChromeOptions(options)
    .setChromeService(new ServiceBuilder(first(DRIVER, 'chromedriver')))
    .build();
  // The window includes frames that headless does not draw; the page itself is to have the size asked for.
  const [w, h] = await driver.executeScript<[number, number]>(
    'return [outerWidth - innerWidth, outerHeight - innerHeight]',
  );
  await driver
    .manage()
    .window()
    .setRect({ width: width + w, height: height + h });
  return { driver, downloads, profile };
}

export const PATIENCE = 30_000;

/** Waits for an element and gives it. */
export async function see(driver: WebDriver, css: string, patience = PATIENCE): Promise<WebElement> {
  return driver.wait(until.elementLocated(By.css(css)), patience, `nothing matches ${css}`);
}

/** Waits until the text of an element holds what is expected. */
export async function seeText(
  driver: WebDriver,
  css: string,
  text: string | RegExp,
  patience = PATIENCE,
): Promise<string> {
  let last = '';
  await driver
    .wait(async () => {
      const found = await driver.findElements(By.css(css));
      for (const element of found) {
        last = await element.getText().catch(() => '');
        // Parts of a line that are controls of their own are read as lines of their own.
        const said = [last, last.replace(/\s+/g, ' ')];
        if (said.some((one) => (typeof text === 'string' ? one.includes(text) : text.test(one)))) return true;
      }
      return false;
    }, patience)
    .catch(() => {
      throw new Error(`${css} never read ${String(text)}; last: ${last.slice(0, 400)}`);
    });
  return last;
}

/** Clicks the button with this text. */
export async function press(driver: WebDriver, name: string): Promise<void> {
  const path = `//button[contains(normalize-space(.), ${JSON.stringify(name)}) or @aria-label=${JSON.stringify(name)}]`;
  const button = await driver.wait(until.elementLocated(By.xpath(path)), PATIENCE, `no button “${name}”`);
  await driver.wait(until.elementIsVisible(button), PATIENCE);
  await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', button);
  await button.click();
}

/** Clicks what matches, wherever on the page it stands. */
export async function tap(driver: WebDriver, css: string): Promise<void> {
  const element = await see(driver, css);
  await driver.executeScript('arguments[0].scrollIntoView({ block: "center" })', element);
  await element.click();
}

/** Types keys into whatever has the focus. */
export async function keys(driver: WebDriver, ...typed: string[]): Promise<void> {
  await driver
    .actions()
    .sendKeys(...typed)
    .perform();
}

/** A key while another is held down. */
export async function chord(driver: WebDriver, held: string, key: string): Promise<void> {
  await driver.actions().keyDown(held).sendKeys(key).keyUp(held).perform();
}

/** Waits until nothing on the page moves any more, as dialogs do while they come and go. */
export async function still(driver: WebDriver): Promise<void> {
  await driver.wait(
    async () => driver.executeScript<boolean>('return document.getAnimations().length === 0'),
    PATIENCE,
    'the page does not come to rest',
  );
}

/** What the browser keeps under a key of one of its stores. @param key its end, which is the same for every extract */
export function kept<T>(driver: WebDriver, store: string, key: string): Promise<T | null> {
  return driver.executeAsyncScript<T | null>(
    `const [name, end, done] = arguments;
     const asked = indexedDB.open('dig-first-' + name);
     asked.onsuccess = () => {
       const values = asked.result.transaction('keyvaluepairs').objectStore('keyvaluepairs');
       const keys = values.getAllKeys();
       keys.onsuccess = () => {
         const found = keys.result.find((one) => one.endsWith(end));
         if (found === undefined) return done(null);
         const value = values.get(found);
         value.onsuccess = () => { asked.result.close(); done(value.result); };
       };
     };`,
    store,
    key,
  );
}

export { By, Key };

/** Drops files on the page as a person does; each is made in the page from its text or its base64 bytes. */
export async function drop(
  driver: WebDriver,
  ...files: { name: string; text?: string; base64?: string; times?: number }[]
): Promise<void> {
  await driver.executeScript(
    `
    const carried = new DataTransfer();
    for (const { name, text, base64, times = 1 } of arguments[0]) {
      const part = base64 === undefined ? text : Uint8Array.from(atob(base64), (c) => c.charCodeAt(0));
      carried.items.add(new File(times > 1 ? Array(times).fill(part) : [part], name));
    }
    document.dispatchEvent(new DragEvent('drop', { dataTransfer: carried, bubbles: true, cancelable: true }));
  `,
    files,
  );
}

/** Drops one file and reads it as it was understood. @param says what the scope line says of it then */
export async function bring(
  driver: WebDriver,
  file: { name: string; text?: string; base64?: string },
  says: string,
): Promise<void> {
  await drop(driver, file);
  await see(driver, '.firstrows');
  await press(driver, 'Read the file');
  await seeText(driver, '.scope', says);
}

/** What the page's console complained about since last asked. */
export async function complaints(driver: WebDriver): Promise<string[]> {
  const entries = await driver.manage().logs().get(logging.Type.BROWSER);
  return entries
    .filter(({ level }) => level.value >= logging.Level.WARNING.value)
    .map(({ message }) => message);
}

/** Addresses that the page asked for since last asked, from the browser's own record. */
export async function requests(driver: WebDriver): Promise<string[]> {
  const entries = await driver.manage().logs().get(logging.Type.PERFORMANCE);
  return entries.flatMap(({ message }) => {
    const {
      message: { method, params },
    } = JSON.parse(message) as { message: { method: string; params: { request?: { url: string } } } };
    return method === 'Network.requestWillBeSent' && params.request ? [params.request.url] : [];
  });
}
