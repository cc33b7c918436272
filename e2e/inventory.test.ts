import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import {
  By,
  Key,
  chord,
  complaints,
  drop,
  keys,
  openBrowser,
  press,
  see,
  seeText,
  tap,
  type Browser,
  still,
} from './browser';

const row = (name: string): string => `.ledgerrow[data-name="${name}"]`;

describe('getting to know the demo', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await openBrowser();
    const { driver } = browser;
    const cdp = driver as unknown as {
      sendAndGetDevToolsCommand(name: string, args: object): Promise<unknown>;
    };
    await cdp.sendAndGetDevToolsCommand('Browser.grantPermissions', {
      origin: inject('address'),
      permissions: ['clipboardReadWrite', 'clipboardSanitizedWrite'],
    });
    await driver.get(inject('address'));
    await see(driver, '[data-ready]');
    await press(driver, 'Open the demo');
    await see(driver, row('hhid'));
  });
  afterAll(async () => browser?.driver.quit());
  const goTo = async (name: string): Promise<void> => {
    await keys(browser.driver, 'g', name, Key.ENTER);
    await seeText(browser.driver, '#profile h2', name);
  };
  const closed = (): Promise<unknown> =>
    browser.driver.wait(async () => (await browser.driver.findElements(By.css('.modal'))).length === 0, 5000);
  const pick = async (css: string, value: string): Promise<void> =>
    (await see(browser.driver, css)).findElement(By.css(`option[value="${value}"]`)).click();

  it('jumps to any variable by typing its name, from any station', async () => {
    const { driver } = browser;
    await keys(driver, '3');
    await see(driver, '.flaglist');
    await goTo('rep_days');
    await see(driver, `${row('rep_days')}.current`);
    await keys(driver, Key.ARROW_RIGHT);
    await seeText(driver, '#profile h2', 'rep_last');
    await keys(driver, Key.ARROW_LEFT);
    await seeText(driver, '#profile h2', 'rep_days');
  });

  it('searches labels of codes and questions, what fits best coming first', async () => {
    const { driver } = browser;
    await keys(driver, '/', 'houseboat');
    await seeText(driver, '.ledgerbar', '1 of 184 variables');
    await see(driver, row('dwelling'));
    await keys(driver, Key.ESCAPE, '/', 'own home rent');
    await see(driver, row('tenure'));
    await keys(driver, Key.ESCAPE, '/', 'rooms');
    await driver.wait(
      async () =>
        (await (await see(driver, '.ledgerrow[aria-rowindex="2"]')).getAttribute('data-name')) === 'rooms',
      5000,
    );
    await keys(driver, Key.ESCAPE, Key.ESCAPE);
  });

  it('narrows the list by kind, flags and make-up, and lists all again', async () => {
    const { driver } = browser;
    await keys(driver, 'f');
    await pick('#narrow-flags', 'mixed-content');
    await seeText(driver, '.ledgerbar', '1 of 184 variables');
    await see(driver, row('yrs_here'));
    await pick('#narrow-flags', '');
    await pick('#narrow-kind', 'date');
    await seeText(driver, '.ledgerbar', '3 of 184 variables');
    await press(driver, 'List all again');
    // The next key belongs to the rows, however fast it follows.
    await keys(driver, Key.ESCAPE, Key.END);
    await seeText(driver, '.ledgerbar [role=status]', /^184 variables/);
    await see(driver, '.ledgerrow.current[aria-rowindex="185"]');
    await keys(driver, Key.HOME);
    await see(driver, '.ledgerrow.current[aria-rowindex="2"]');
  });

  it('narrows by wave, to what is held in one and to what is not in all', async () => {
    const { driver } = browser;
    const listed = async (): Promise<number> =>
      Number(
        /([\d,]+) of 184/.exec(await seeText(driver, '.ledgerbar [role=status]', / of 184 variables/))?.[1],
      );
    await keys(driver, 'f');
    await pick('#narrow-wave', 'every');
    const always = await listed();
    await pick('#narrow-wave', 'some');
    await driver.wait(async () => (await listed()) + always === 184, 5000, 'the two do not add up to all');
    await pick('#narrow-wave', 'out:2019');
    await seeText(driver, '.ledgerbar [role=status]', / of 184 variables/);
    const out = await listed();
    await pick('#narrow-wave', 'in:2019');
    await driver.wait(
      async () => out > 0 && (await listed()) + out === 184,
      5000,
      'in and out do not add up to all',
    );
    await press(driver, 'List all again');
    await keys(driver, Key.ESCAPE);
  });

  it('weighs by what the scope line says, beside the plain figures, and takes it back', async () => {
    const { driver } = browser;
    await goTo('tenure');
    await tap(driver, '#weight');
    await tap(driver, '#weight + .dropdown-menu [role=menuitemradio]:nth-of-type(2)');
    await seeText(driver, '.scope', 'weighted by wt_hh');
    await seeText(driver, '#profile', 'valid rows, weighted by wt_hh');
    await seeText(driver, '#profile .freq', /weighted/i);
    await driver.executeScript('document.querySelector("#profile").focus()');
    await keys(driver, 'u');
    await seeText(driver, '.scope', 'unweighted');
    await seeText(driver, '#profile .freq', /^(?![\s\S]*weighted)/i);
    await goTo('wt_pop');
    await press(driver, 'Weigh by this');
    await seeText(driver, '.scope', 'weighted by wt_pop');
    await press(driver, 'Weigh by this no more');
    await seeText(driver, '.scope', 'unweighted');
  });

  it('draws a pie on request, of few categories only', async () => {
    const { driver } = browser;
    await goTo('boiler');
    await tap(driver, '.charttools label:nth-of-type(2) input');
    await see(driver, '#profile .apexcharts-pie');
    await goTo('boil_mk');
    await see(driver, '#profile .apexcharts-bar-area');
    expect(await (await see(driver, '.charttools')).getText()).not.toContain('pie');
  });

  it('draws its chart anew where a ruling changes what it shows, and not where it leaves it', async () => {
    const { driver } = browser;
    await goTo('boiler');
    await see(driver, '#profile .apexcharts-bar-area');
    const isSame = (): Promise<boolean> =>
      driver.executeScript<boolean>(
        'return document.querySelector("#profile .apexcharts-bar-area")?.wasThere === true',
      );
    const says = async (): Promise<string> =>
      (await (await see(driver, '#profile .chartroom')).getAttribute('aria-label')) ?? '';
    await driver.executeScript('document.querySelector("#profile .apexcharts-bar-area").wasThere = true');
    const plain = await says();
    await keys(driver, 'c');
    await seeText(driver, '.kept', 'boiler is nominal');
    await seeText(driver, '#profile', 'Confirmed by you');
    expect(await isSame()).toBe(true);
    await keys(driver, 'u');
    await seeText(driver, '#profile', 'Presumed,');
    expect(await isSame()).toBe(true);
    await tap(driver, '#weight');
    await tap(driver, '#weight + .dropdown-menu [role=menuitemradio]:nth-of-type(2)');
    await seeText(driver, '#profile', 'valid rows, weighted by wt_hh');
    await driver.wait(
      async () => !(await isSame()) && (await says()) !== plain,
      5000,
      'it is the same chart',
    );
    await keys(driver, Key.ESCAPE, '8');
    await driver.wait(async () => (await says()) === plain, 5000, 'it is not what it was');
  });

  it('has the columns that a person wants, the label first if they like', async () => {
    const { driver } = browser;
    await press(driver, 'Columns');
    await (await see(driver, '#column-role')).click();
    await (await see(driver, '#first-label')).click();
    await driver.wait(
      async () => /Label[\s\S]*Name[\s\S]*Role/.test(await (await see(driver, '.ledgerhead')).getText()),
      5000,
      'the head did not follow',
    );
    await press(driver, 'As they were at first');
    await driver.wait(
      async () => /Name[\s\S]*Label/.test(await (await see(driver, '.ledgerhead')).getText()),
      5000,
    );
    await keys(driver, Key.ESCAPE);
  });

  it('signs off with one key, one or many, and shows how far one is', async () => {
    const { driver } = browser;
    await keys(driver, '2');
    await goTo('stratum');
    await keys(driver, 'x');
    await see(driver, `${row('stratum')} .cell-standing.done`);
    await keys(driver, '/', 'toss_', Key.ENTER, 'a', 'x');
    await seeText(driver, '.kept', '14 more signed off'.replace('14', '11'));
    expect(await (await see(driver, '.signedoff')).getAttribute('aria-label')).toBe(
      '15 of 184 variables signed off',
    );
    await keys(driver, 'u', 'a', '/', Key.ESCAPE, Key.ESCAPE);
    await driver.wait(
      async () =>
        (await (await see(driver, '.signedoff')).getAttribute('aria-label')) ===
        '1 of 184 variables signed off',
      5000,
    );
  });

  it('keeps a note, a name and a label, the archive’s own beside', async () => {
    const { driver } = browser;
    await goTo('sp_oth.');
    await keys(driver, 'n');
    await see(driver, '.modal.show textarea');
    await keys(driver, 'ask what counts as upkeep');
    await chord(driver, Key.CONTROL, Key.ENTER);
    await seeText(driver, '#profile .noted', 'ask what counts as upkeep');
    await closed();
    await keys(driver, 'r');
    await seeText(driver, '.modal.show', 'it ends in a point');
    await driver.wait(
      async () => (await driver.executeScript('return document.activeElement.id')) === 'new-name',
      5000,
    );
    await still(driver);
    await chord(driver, Key.CONTROL, 'a');
    await keys(driver, 'rooms');
    await seeText(driver, '.modal.show', 'another variable has this name');
    await keys(driver, '_2', Key.TAB, 'Other upkeep');
    await seeText(driver, '.modal.show', 'any software takes it; in the archive it is sp_oth.');
    await keys(driver, Key.ENTER);
    await seeText(
      driver,
      '#profile',
      /rooms_2\s+in the archive sp_oth\.[\s\S]*The archive’s label: Spent on other upkeep/,
    );
    await closed();
    await keys(driver, '/', 'counts as upkeep');
    await seeText(driver, row('sp_oth.'), 'rooms_2');
    await keys(driver, Key.ESCAPE, Key.ESCAPE, 'u', 'u');
    await driver.wait(
      async () => !(await (await see(driver, row('sp_oth.'))).getText()).includes('rooms_2'),
      5000,
    );
  });

  it('chooses every variable like this one', async () => {
    const { driver } = browser;
    await goTo('warm_b');
    await press(driver, 'Like this one');
    await press(driver, 'Choose 5 variables with the same list of codes');
    await seeText(driver, '.chosenbar', '5 chosen');
    await keys(driver, 't');
    await seeText(driver, '.battery', /warm_a[\s\S]*warm_e/);
    await keys(driver, Key.ESCAPE);
    await closed();
    await press(driver, 'Choose none');
  });

  it('sets measures side by side, and says what has no summary in common', async () => {
    const { driver } = browser;
    await keys(driver, '/', 'km_', Key.ENTER, 'a', '/', Key.ESCAPE, Key.ESCAPE);
    await goTo('missed');
    await keys(driver, Key.SPACE, 't');
    await seeText(driver, '.modal.show', /Measures[\s\S]*km_shop[\s\S]*km_tip[\s\S]*km_work/);
    await seeText(
      driver,
      '.modal.show',
      'Not set side by side, since its kind has no summary in common: missed (text)',
    );
    await press(driver, 'Copy the measures');
    await seeText(driver, '.modal.show', 'copied');
    const copied = await driver.executeAsyncScript<string>(
      'navigator.clipboard.readText().then(arguments[0], (error) => arguments[0](String(error)))',
    );
    expect(copied.split('\n')[0]).toMatch(/^Variable\tValid\tof all\tLowest/);
    await keys(driver, Key.ESCAPE);
    await closed();
    await press(driver, 'Choose none');
  });

  it('refuses a kind aloud with the forms that stand in the way, and offers ways on', async () => {
    const { driver } = browser;
    await goTo('town');
    await keys(driver, 'k', 'c');
    await seeText(driver, '.modal.show [role=alert]', 'none of its 11,901 cells can be read as numbers');
    await press(driver, 'Choose another kind');
    await keys(driver, Key.ESCAPE);
    await closed();
    await drop(driver, {
      name: 'mix.csv',
      text: `id,hrs\n${Array.from({ length: 90 }, (_, i) => `H${1000 + i},${i % 3 === 0 ? ['some', 'a few', 'lots', 'plenty', 'most'][(i % 15) / 3] : i % 24}`).join('\n')}\n`,
    });
    await press(driver, 'Read the file');
    await seeText(driver, '.scope', '90 rows of mix');
    await goTo('hrs');
    await keys(driver, 'k', 'q');
    await seeText(driver, '.modal.show [role=alert]', /30 of 90 cells are not numbers: these 5 forms/);
    await press(driver, 'Declare these forms missing, and read the rest as numbers');
    await seeText(driver, '#profile .makeuplist', /missing\s+30/);
    await seeText(driver, '#profile .figures', /Highest\s+23/);
    await closed();
    await keys(driver, 'u', 'u', 'u', 'u');
    await seeText(driver, `${row('hrs')} .kind`, /text|nominal|ordinal/);
  });

  it('orders categories by key, and everything follows', async () => {
    const { driver } = browser;
    await drop(driver, {
      name: 'dose.csv',
      text: `id,dose\n${Array.from({ length: 60 }, (_, i) => `P${1000 + i},${['double', 'none', 'single'][i % 3]}`).join('\n')}\n`,
    });
    await press(driver, 'Read the file');
    await seeText(driver, '.scope', '60 rows of dose');
    await goTo('dose');
    await keys(driver, 'k', 'o');
    await see(driver, `${row('dose')} .kind.confirmed`);
    await closed();
    await keys(driver, 'o');
    const items = await driver.wait(async () => {
      const found = await driver.findElements(By.css('.orderlist li'));
      return found.length === 3 ? found : null;
    }, 5000);
    await driver.executeScript('arguments[0].focus()', items?.[0]);
    await chord(driver, Key.ALT, Key.ARROW_DOWN);
    await driver.wait(
      async () => /none[\s\S]*double[\s\S]*single/.test(await (await see(driver, '.orderlist')).getText()),
      5000,
    );
    // The focus goes with the code that was moved.
    await driver.wait(
      async () => (await driver.switchTo().activeElement().getText()).includes('double'),
      5000,
    );
    await chord(driver, Key.ALT, Key.ARROW_DOWN);
    await driver.wait(
      async () => /none[\s\S]*single[\s\S]*double/.test(await (await see(driver, '.orderlist')).getText()),
      5000,
    );
    await press(driver, 'Keep this order');
    await seeText(driver, '#profile .freq', /none[\s\S]*single[\s\S]*double/);
    await seeText(driver, '#profile .figures', /Median\s+single/);
  });
});

describe('the profile of a measure', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await openBrowser();
    await browser.driver.get(inject('address'));
    await see(browser.driver, '[data-ready]');
    await press(browser.driver, 'Open the demo');
    await see(browser.driver, row('hhid'));
    await keys(browser.driver, 'g', 'colddeg', Key.ENTER);
    await seeText(browser.driver, '#profile h2', 'colddeg');
  });
  afterAll(async () => browser?.driver.quit());

  it('has a histogram of any width, a normal curve, and saves as SVG and PNG', async () => {
    const { driver, downloads } = browser;
    const bars = async (): Promise<number> =>
      (await driver.findElements(By.css('#profile .apexcharts-bar-area'))).length;
    await see(driver, '#profile .apexcharts-bar-area');
    const before = await bars();
    await (await see(driver, '[aria-label="Bin width"]')).sendKeys('10');
    await driver.wait(async () => (await bars()) < before, 5000, 'the bins stayed as they were');
    await driver.executeScript(
      'arguments[0].scrollIntoView({ block: "center" })',
      await driver.findElement(By.css('.charttools')),
    );
    await (await driver.findElement(By.xpath('//label[contains(., "normal curve")]/input'))).click();
    await see(driver, '#profile .apexcharts-line');
    for (const form of ['svg', 'png']) {
      await press(driver, `Save ${form.toUpperCase()}`);
      const path = join(downloads, `colddeg.${form}`);
      await driver.wait(
        () => existsSync(path) && readFileSync(path).length > 300,
        15_000,
        `${path} was not saved`,
      );
      const bytes = readFileSync(path);
      if (form === 'svg') expect(bytes.toString()).toMatch(/^<svg[\s\S]*<rect/);
      else expect([...bytes.subarray(1, 4)]).toEqual([0x50, 0x4e, 0x47]);
    }
    expect(await complaints(driver)).toEqual([]);
  });

  it('leaves out of the drawing what lies far out, says so, and draws it on request', async () => {
    const { driver } = browser;
    const bars = async (): Promise<number> =>
      (await driver.findElements(By.css('#profile .apexcharts-bar-area'))).length;
    await keys(driver, 'g', 'adults', Key.ENTER);
    await seeText(driver, '#profile h2', 'adults');
    await seeText(driver, '#profile .beyond', /Not drawn, far out: 1 row at 5,?792/);
    await driver.wait(async () => (await bars()) === 5, 5000, 'not a bar for each number');
    await tap(driver, '.charttools label:nth-of-type(3) input');
    await driver.wait(async () => (await driver.findElements(By.css('#profile .beyond'))).length === 0, 5000);
    await driver.executeScript('document.querySelector("#profile").focus()');
    await keys(driver, 'g', 'colddeg', Key.ENTER);
    await seeText(driver, '#profile h2', 'colddeg');
  });

  it('opens the record card of the row that an extreme stands in', async () => {
    const { driver } = browser;
    await tap(driver, '.extremes .btn-bare');
    await seeText(driver, '#record-title', /Row [\d,]+ of upkeep_20\d\d\.csv, line/);
    await seeText(driver, '.recordcard tr.at', 'colddeg');
    const before = await (await see(driver, '#record-title')).getText();
    await keys(driver, Key.ARROW_RIGHT);
    await driver.wait(async () => (await (await see(driver, '#record-title')).getText()) !== before, 5000);
    await (await see(driver, '.recordcard input')).sendKeys('tenure');
    await seeText(driver, '.recordcard tbody', /tenure\s+Tenure of the home\s+\d\s+\w/);
    await keys(driver, Key.ESCAPE);
  });

  it('can be summarised by wave and within the levels of another variable', async () => {
    const { driver } = browser;
    await driver.wait(async () => (await driver.findElements(By.css('.modal'))).length === 0, 5000);
    const choose = async (value: string): Promise<void> =>
      (await see(driver, '.groupby'))
        .findElement(By.xpath(`option[contains(., ${JSON.stringify(value)})]`))
        .click();
    await choose('wave or file');
    await seeText(driver, '[aria-label="By group"]', /2019\s+3,004[\s\S]*2022\s+2,987/);
    await choose('fuel');
    await seeText(driver, '[aria-label="By group"]', /1 Gas[\s\S]*6 None/);
  });

  it('sorts frequencies by code, label and count, with a running share where codes have an order', async () => {
    const { driver } = browser;
    // A key typed while a list has the focus belongs to the list.
    await driver.executeScript('document.querySelector("#profile").focus()');
    await keys(driver, 'g', 'educ', Key.ENTER);
    await seeText(driver, '#profile .freq', /running/);
    await seeText(driver, '#profile .freq', /University\s+[\d,]+\s+[\d.]+ %\s+[\d.]+ %\s+100\.0 %/);
    await tap(driver, '#profile .freq .sorter[title="Sort by count"]');
    await driver.wait(
      async () => !(await (await see(driver, '#profile .freq')).getText()).includes('running'),
      5000,
    );
    await tap(driver, '#profile .freq .sorter[title="Sort by label"]');
    await seeText(driver, '#profile .freq', /Apprenticeship[\s\S]*College[\s\S]*University/);
  });
});
