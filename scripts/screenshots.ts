/** `npm run screenshots`: one current picture of each main view, from the demo, into docs/screenshots. */
import { spawn } from 'node:child_process';
import { mkdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { Key, By, keys, openBrowser, press, see, seeText } from '../e2e/browser';

const root = join(import.meta.dirname, '..');
const folder = join(root, 'docs', 'screenshots');
const PORT = 3998;
const address = `http://127.0.0.1:${PORT}`;

const server = spawn(process.execPath, ['scripts/start.mjs'], {
  cwd: root,
  env: { ...process.env, PORT: String(PORT) },
  stdio: 'ignore',
});
while (
  !(await fetch(address).then(
    (answer) => answer.ok,
    () => false,
  ))
)
  await new Promise((resolve) => setTimeout(resolve, 300));
mkdirSync(folder, { recursive: true });
const { driver } = await openBrowser();
const settle = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 900));
async function picture(name: string): Promise<void> {
  await settle();
  writeFileSync(join(folder, `${name}.png`), await driver.takeScreenshot(), 'base64');
}
const go = async (words: string): Promise<void> => {
  await keys(driver, '/', words, Key.ENTER);
  await settle();
  await keys(driver, '/', Key.ESCAPE, Key.ESCAPE);
};
try {
  await driver.get(address);
  await see(driver, '[data-ready]');
  await driver.executeScript("document.documentElement.dataset.bsTheme = 'light'");
  await picture('intake');
  const input = await driver.findElement(By.css('input[type=file]'));
  await driver.executeScript(
    `
    return Promise.all(['upkeep_2019.csv', 'upkeep_2020.csv', 'upkeep_2021.csv', 'upkeep_2022.csv', 'upkeep.xml'].map(async (name) => new File([await (await fetch('/demo/' + name)).blob()], name))).then((files) => {
      const carried = new DataTransfer();
      files.forEach((file) => carried.items.add(file));
      arguments[0].files = carried.files;
      arguments[0].dispatchEvent(new Event('change', { bubbles: true }));
    });`,
    input,
  );
  await see(driver, '.firstrows');
  await picture('preview');
  await keys(driver, Key.ENTER);
  await see(driver, '.ledgerrow');
  await seeText(driver, '.kept', 'All kept');
  await keys(driver, '1');
  await picture('received');
  await keys(driver, '2');
  await go('respondent interview');
  await keys(driver, 'c');
  await picture('inventory');
  await go('oft_h');
  await keys(driver, 'w');
  await picture('profile');
  await keys(driver, Key.ESCAPE, 'l');
  await see(driver, '.understood tr');
  await picture('labels');
  await press(driver, 'Leave as it is');
  await driver.wait(async () => (await driver.findElements(By.css('.modal'))).length === 0, 5000);
  await keys(driver, '3');
  await seeText(driver, '.flaglist h2', 'flags to rule on');
  await picture('flags');
  await keys(driver, 's');
  await see(driver, '#standing-code');
  for (const [code, note] of [
    ['-8', 'the archive’s guide, page 4'],
    ['98', ''],
  ]) {
    await (await see(driver, '#standing-code')).sendKeys(code);
    await (await see(driver, '#standing-note')).sendKeys(note, Key.ENTER);
    await settle();
  }
  await picture('standing-rules');
  for (const code of ['-8', '98']) await press(driver, `Remove the rule on ${code}`);
  await keys(driver, Key.ESCAPE);
  await driver.wait(async () => (await driver.findElements(By.css('.modal'))).length === 0, 5000);
  await keys(driver, '2');
  await go('tenure');
  await keys(driver, 'h');
  await see(driver, '#byhand-codes');
  await keys(driver, Key.TAB, '7', Key.ENTER);
  await picture('by-hand');
  await keys(driver, Key.ESCAPE);
  await driver.wait(async () => (await driver.findElements(By.css('.modal'))).length === 0, 5000);
  await keys(driver, '3');
  await keys(driver, 'm');
  await keys(driver, '2', '/', 'agr_', Key.ENTER, 'a', 't');
  await see(driver, '.battery');
  await picture('side-by-side');
  await keys(driver, Key.ESCAPE);
  await driver.wait(async () => (await driver.findElements(By.css('.modal'))).length === 0, 5000);
  await keys(driver, 'a', '/', Key.ESCAPE, Key.ESCAPE);
  await keys(driver, '2', '/', 'boiler', Key.ENTER, 'a', 's');
  await see(driver, '.modal.show #set-name');
  await keys(driver, 'Boilers', Key.ENTER);
  await keys(driver, '/', Key.ESCAPE, Key.ESCAPE);
  await (await see(driver, 'footer option[value=dark]')).click();
  await picture('set-in-view-dark');
  await (await see(driver, 'footer option[value=light]')).click();
  await keys(driver, Key.TAB);
  await driver.executeScript('document.activeElement.blur()');
  await keys(driver, '4');
  await see(driver, '.setblock');
  await picture('sets-proposed');
  await keys(driver, 'Y');
  await seeText(driver, '.setside h2', /2\d sets of/);
  await keys(driver, Key.ARROW_RIGHT, Key.ARROW_RIGHT, Key.ENTER, 'e');
  await see(driver, '.belonging');
  await picture('sets');
  await keys(driver, '0', '5');
  await see(driver, '.recordrow .cell .code');
  // The home's tenure, and two before it the age.
  await keys(driver, '[', ...Array<string>(18).fill(Key.ARROW_RIGHT), Key.ARROW_DOWN, 'k');
  await see(driver, '.condition');
  await keys(driver, Key.ARROW_LEFT, Key.ARROW_LEFT, 'z');
  await see(driver, '#condition-from');
  await keys(driver, '25', Key.TAB, '64');
  await seeText(driver, '.modal-footer', 'with the others');
  await picture('condition');
  await keys(driver, Key.ENTER, 'v');
  await seeText(driver, '.rowsbar', 'rows dropped');
  await picture('rows');
  await keys(driver, 'v', 'Z');
  await seeText(driver, '.scope', 'sieve');
  await keys(driver, '9', '2', 'g');
  await see(driver, '#jump');
  await keys(driver, 'age', Key.ENTER);
  await seeText(driver, '#profile', 'Age of respondent');
  await keys(driver, 'b');
  await see(driver, '.recodedrawn svg:focus');
  await picture('trial-recode');
  await keys(driver, Key.ESCAPE);
  await driver.wait(async () => (await driver.findElements(By.css('.modal'))).length === 0, 5000);
  await keys(driver, '6');
  for (const [key, name] of [
    ['d', 'tenure'],
    ['a', 'stratum'],
    ['m', 'rent'],
  ]) {
    await see(driver, '.crossroom:focus');
    await keys(driver, key);
    await see(driver, '#pick-side');
    await keys(driver, name, Key.ENTER);
    await seeText(driver, '.crosssides', name);
  }
  await see(driver, '.crosstable .box');
  await keys(driver, 'n');
  await picture('cross-check');
  await keys(driver, '7');
  await picture('handoff');
  await press(driver, 'Keys');
  await picture('keys');
} finally {
  await driver.quit();
  server.kill();
}
