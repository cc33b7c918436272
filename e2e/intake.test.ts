import { gzipSync } from 'node:zlib';
import ExcelJS from 'exceljs';
import { strToU8, zipSync } from 'fflate';
import { parquetWriteBuffer } from 'hyparquet-writer';
import { afterAll, afterEach, beforeAll, describe, expect, inject, it } from 'vitest';
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
import { freshBrowser } from './fresh';

const PARISHES = 'id;name;people\n1;"Upper; Tarn";1200\n2;Fenwater;800\n3;Marlhope;900\n4;Hawmoor;1100\n';

describe('intake', () => {
  let browser: Browser;
  beforeAll(async () => {
    browser = await openBrowser();
    await browser.driver.get(inject('address'));
    await see(browser.driver, '[data-ready]');
    await seeText(browser.driver, '.scope', 'No extract is open');
  });
  afterAll(async () => browser?.driver.quit());
  const choose = async (label: string, value: string): Promise<void> => {
    const select = await see(browser.driver, `[id^="${label} "]`);
    await select.findElement(By.css(`option[value="${value}"]`)).click();
  };

  it('shows what was guessed of a dropped file, with the first rows, before it is read', async () => {
    const { driver } = browser;
    await drop(driver, { name: 'parishes.csv', text: PARISHES });
    await seeText(driver, '.filecard', 'words stand above numbers');
    await seeText(driver, '.filestable', /parishes\.csv[\s\S]*semicolon[\s\S]*3\s+4/);
    expect(await (await see(driver, '[id^="delimiter "]')).getAttribute('value')).toBe(';');
    await seeText(driver, '.firstrows', 'Upper; Tarn');
  });

  it('follows a changed guess at once', async () => {
    const { driver } = browser;
    await choose('delimiter', ',');
    await seeText(driver, '.filecard', '1 column');
    await choose('delimiter', ';');
    await seeText(driver, '.filecard', '3 columns');
    await choose('header', 'data');
    await seeText(driver, '.firstrows thead', 'column_1');
    await choose('header', 'names');
    await seeText(driver, '.firstrows thead', 'people');
    await press(driver, 'Read the file');
    await seeText(driver, '.scope', '4 rows of parishes');
    await seeText(driver, '[data-name="name"]', 'name');
  });

  it.each([
    ['an empty file', { name: 'empty.csv', text: '' }, 'empty.csv: the file is empty'],
    [
      'a picture renamed',
      { name: 'ship.csv', base64: 'iVBORw0KGgoAAAANSUhEUg==' },
      'ship.csv: this is a PNG picture',
    ],
    [
      'a broken codebook',
      { name: 'book.xml', text: '<codeBook>\n<dataDscr><var name="a"></dataDscr>' },
      'book.xml, line 2',
    ],
  ])('refuses %s with its name, and goes on', async (_, file, says) => {
    const { driver } = browser;
    await drop(driver, file);
    await seeText(driver, '.filestable .notice', says);
    await press(driver, 'Put them all away');
    await seeText(driver, '.scope', '4 rows of parishes');
  });

  it('tells the line where a quote is never closed, keeps the file at hand, and reads it without quotes', async () => {
    const { driver } = browser;
    await drop(driver, { name: 'cut.csv', text: 'a,b\n1,2\n3,"4\n5,6\n' });
    await see(driver, '.firstrows');
    await press(driver, 'Read the file');
    await seeText(driver, '.notice', 'cut.csv, line 3: a quotation mark opens here');
    await choose('quote', '');
    await seeText(driver, '.firstrows', '"4');
    await press(driver, 'Read the file');
    await seeText(driver, '.scope', '3 rows of cut');
  });

  it('notices ragged rows with their line', async () => {
    const { driver } = browser;
    await drop(driver, { name: 'ragged.csv', text: 'a,b,c\n1,2,3\n4,5\n6,7,8,9\n1,2,3\n' });
    await seeText(driver, '.firstrows', 'beyond the last name');
    await press(driver, 'Read the file');
    await seeText(driver, '.scope', '4 rows of ragged');
    await keys(driver, '1');
    await seeText(driver, '.notices', 'ragged.csv, line 3: row has 2 cells, 3 expected');
    await seeText(driver, '.notices', 'line 4: row has 4 cells, 3 expected; not read: 9');
  });

  it('reads several files, gzip among them, with their codebook, as one extract', async () => {
    const { driver } = browser;
    const packed = gzipSync('id,rooms\n3,4\n4,99\n').toString('base64');
    await drop(
      driver,
      { name: 'w_1.csv', text: 'id,rooms\n1,2\n2,3\n' },
      { name: 'w_2.csv.gz', base64: packed },
      {
        name: 'w.xml',
        text: '<codeBook><dataDscr><var name="rooms"><labl>Number of rooms</labl><catgry missing="Y"><catValu>99</catValu><labl>Refused</labl></catgry></var></dataDscr></codeBook>',
      },
    );
    await seeText(driver, '[aria-label="Before reading"]', 'It describes 1 variable');
    await press(driver, 'Read 2 files as one extract');
    await seeText(driver, '.scope', '4 rows of w');
    await (await see(driver, '[data-name="rooms"]')).click();
    await seeText(driver, '#profile', /99\s+Refused/);
  });

  it('shows progress on long work and stops it, losing nothing', async () => {
    const { driver } = browser;
    await drop(driver, { name: 'long.csv', text: `${'12,some words,3.25\n'.repeat(20_000)}`, times: 200 });
    await see(driver, '.firstrows');
    await press(driver, 'Read the file');
    await see(driver, '[role=progressbar]');
    await seeText(driver, '.work', /rows so far/);
    await press(driver, 'Stop');
    await seeText(driver, '.filecard', 'long.csv');
    await seeText(driver, '.scope', '4 rows of w');
    await press(driver, 'Put them all away');
  });

  it('lists kept extracts with size; they can be opened, renamed and removed', async () => {
    const { driver } = browser;
    await seeText(driver, '[aria-labelledby="kept-extracts"]', 'parishes');
    await press(driver, 'Rename parishes');
    await keys(driver, 'Parishes of Ostrey', Key.ENTER);
    await seeText(driver, '[aria-labelledby="kept-extracts"]', 'Parishes of Ostrey');
    await press(driver, 'Open Parishes of Ostrey');
    await seeText(driver, '.scope', '4 rows of Parishes of Ostrey');
    await keys(driver, '1');
    await press(driver, 'Remove cut');
    await seeText(driver, '[aria-labelledby="kept-extracts"]', 'Remove it with its rulings?');
    await keys(driver, Key.ENTER);
    await driver.wait(
      async () => !(await (await see(driver, '[aria-labelledby="kept-extracts"]')).getText()).includes('cut'),
      10_000,
    );
  });
});

describe('every form, and several files', () => {
  const browser = freshBrowser();
  afterEach(async () => {
    // What a failed test left waiting is not the next one's.
    for (const button of await browser.driver.findElements(
      By.xpath('//button[contains(., "Put them all away")]'),
    ))
      await button.click();
  });
  const type = async (css: string, text: string): Promise<void> => {
    const field = await see(browser.driver, css);
    await field.clear();
    await field.sendKeys(text);
  };
  const pick = async (css: string, value: string): Promise<void> => {
    await (await see(browser.driver, css)).findElement(By.css(`option[value="${value}"]`)).click();
  };
  const ledgerOf = async (...names: string[]): Promise<void> => {
    for (const name of names) await see(browser.driver, `.ledgerrow[data-name="${name}"]`);
  };

  it('shows a line for each file, what differs, a gap in the years, and lets one be left out and a wave be named', async () => {
    const { driver } = browser;
    await drop(
      driver,
      { name: 'homes_2018.csv', text: 'id,rooms,town\nA1,3,Fenwater\nA2,4,Hawmoor\n' },
      { name: 'homes_2019.csv', text: 'rooms,id,heat\n5,A1,1\n2,A2,2\n3,A3,1\n' },
      { name: 'homes_2021.csv', text: 'id,rooms,town\nA1,3,Fenwater\n' },
    );
    await seeText(
      driver,
      '.filestable',
      'lacks town; has also heat; columns in another order, matched by name',
    );
    await seeText(driver, '.filestable', 'the same columns');
    await seeText(driver, '[aria-label="Before reading"]', 'No file for 2020');
    await press(driver, 'Leave out homes_2021.csv');
    await seeText(driver, '.filestable', 'left out');
    await type('[aria-label="Wave of homes_2019.csv"]', 'nineteen');
    await pick('#wave-from', 'file-name');
    await press(driver, 'Read 2 files as one extract');
    await seeText(driver, '.scope', '5 rows of homes');
    await ledgerOf('id', 'rooms', 'town', 'heat', 'wave');
    await keys(driver, '1');
    await seeText(driver, '.received', /The wave is told by wave, made of what the files are called/);
    await seeText(driver, '.received', /A1 … A2[\s\S]*A1 … A3/);
    await seeText(driver, '.received .notices', 'homes_2019.csv lacks town, which homes_2018.csv has');
    expect(await (await see(driver, '[aria-label="Wave of homes_2019.csv"]')).getAttribute('value')).toBe(
      'nineteen',
    );
  });

  it('takes a file and a codebook that come later into the open extract, its rulings staying', async () => {
    const { driver } = browser;
    await keys(driver, '2');
    await (await see(driver, '.ledgerrow[data-name="rooms"]')).click();
    await keys(driver, 'c');
    await see(driver, '[data-name="rooms"] .kind.confirmed');
    await drop(driver, {
      name: 'homes.xml',
      text: '<codeBook><dataDscr><var name="ROOMS"><labl>Number of rooms</labl></var><var name="gone"><labl>Gone</labl></var></dataDscr></codeBook>',
    });
    await press(driver, 'Add 1 codebook to homes');
    await seeText(driver, '[data-name="rooms"]', 'Number of rooms');
    await drop(driver, { name: 'homes_2021.csv', text: 'id,rooms,town\nA1,3,Fenwater\n' });
    await tap(driver, '#into-added');
    await press(driver, 'Add the file to homes');
    await seeText(driver, '.scope', '6 rows of homes');
    await see(driver, '[data-name="rooms"] .kind.confirmed');
    await keys(driver, '1');
    await seeText(driver, '.received .notices', /describes gone, which no file has/);
    await press(driver, 'Leave out homes_2018.csv');
    await keys(driver, Key.ENTER);
    await seeText(driver, '.scope', '4 rows of homes');
    await seeText(driver, '.kept', 'All kept');
    await driver.navigate().refresh();
    await seeText(driver, '.scope', '4 rows of homes');
    await keys(driver, '2');
    await see(driver, '[data-name="rooms"] .kind.confirmed');
  });

  it('reads only the first rows of some variables, says so, and reads the rest on demand', async () => {
    const { driver } = browser;
    await drop(driver, {
      name: 'wide.csv',
      text: `id,own_a,own_b,rent\n${Array.from({ length: 400 }, (_, i) => `H${1000 + i},${i % 2},${i % 3},${100 + i}`).join('\n')}\n`,
    });
    await tap(driver, '.firstlook summary');
    await type('#first-rows', '25');
    await type('#some-variables', 'id own_* nobody');
    await seeText(driver, '.firstlook', '3 of 4 variables; not there: nobody');
    await press(driver, 'Read the file, in part');
    await seeText(driver, '.scope', /only the first\s+25 rows of wide, 3 variables picked/);
    await (await see(driver, '.ledgerrow[data-name="own_a"]')).click();
    await keys(driver, 'c');
    await see(driver, '[data-name="own_a"] .kind.confirmed');
    await press(driver, 'Read all of it');
    await seeText(driver, '.scope', /all\s+400 rows of wide/);
    await ledgerOf('rent');
    await see(driver, '[data-name="own_a"] .kind.confirmed');
  });

  it('reads a workbook by the sheet chosen, its sheet of codes as codebook', async () => {
    const { driver } = browser;
    const book = new ExcelJS.Workbook();
    book.addWorksheet('About').addRow(['Made for a test']);
    book.addWorksheet('Homes').addRows([
      ['id', 'fuel', 'seen'],
      ['A1', 1, new Date(Date.UTC(2021, 4, 3))],
      ['A2', 2, new Date(Date.UTC(2021, 4, 9))],
      ['A3', 1, new Date(Date.UTC(2021, 5, 30))],
    ]);
    book.addWorksheet('Old').addRows([
      ['k', 'z'],
      ['x', 5],
      ['y', 6],
    ]);
    book.addWorksheet('Codes').addRows([
      ['variable', 'code', 'label'],
      ['fuel', 1, 'Gas'],
      ['fuel', 2, 'Wood'],
    ]);
    await drop(driver, {
      name: 'homes.xlsx',
      base64: Buffer.from(await book.xlsx.writeBuffer()).toString('base64'),
    });
    await pick('[id="sheet homes.xlsx"]', 'Old');
    await seeText(driver, '.firstrows thead', 'z');
    await pick('[id="sheet homes.xlsx"]', 'Homes');
    await seeText(driver, '.filestable', 'homes.xlsx, sheet Codes');
    await seeText(driver, '.firstrows', '2021-05-03');
    await press(driver, 'Read the file with its codebook');
    await (await see(driver, '.ledgerrow[data-name="fuel"]')).click();
    await seeText(driver, '#profile .freq', /1\s+Gas/);
    await seeText(driver, '[data-name="seen"]', 'date');
  });

  it('reads a zip that holds data and codebook, and passes over what is neither', async () => {
    const { driver } = browser;
    const packed = zipSync({
      'study/homes.csv': strToU8('id,fuel\nA1,1\nA2,2\n'),
      'study/homes.xml': strToU8(
        '<codeBook><dataDscr><var name="fuel"><labl>Main fuel</labl></var></dataDscr></codeBook>',
      ),
      'study/map.png': new Uint8Array([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0]),
    });
    await drop(driver, { name: 'study.zip', base64: Buffer.from(packed).toString('base64') });
    await seeText(driver, '.filestable', /map\.png[\s\S]*Passed over/);
    await press(driver, 'Read the file with its codebook');
    await seeText(driver, '[data-name="fuel"]', 'Main fuel');
  });

  it('reads JSON records, Parquet, and fixed width by its codebook', async () => {
    const { driver } = browser;
    await drop(driver, { name: 'lines.ndjson', text: '{"id":"A1","rooms":3}\n{"id":"A2","heat":"gas"}\n' });
    await seeText(driver, '.filestable', 'JSON records');
    await press(driver, 'Read the file');
    await ledgerOf('id', 'rooms', 'heat');
    const parquet = parquetWriteBuffer({
      columnData: [
        { name: 'pid', data: ['A1', 'A2', 'A3'], type: 'STRING' },
        { name: 'km', data: [1.5, 2.25, 3], type: 'DOUBLE' },
      ],
    });
    await drop(driver, { name: 'some.parquet', base64: Buffer.from(parquet).toString('base64') });
    await seeText(driver, '.filestable', 'Parquet');
    await press(driver, 'Read the file');
    await ledgerOf('pid', 'km');
    await drop(
      driver,
      { name: 'fix.dat', text: 'A1 125\nA2 250\nA3 375\n' },
      {
        name: 'fix.xml',
        text: '<codeBook><dataDscr><var name="hid"><location StartPos="1" EndPos="2"/></var><var name="kilom" dcml="2"><location StartPos="4" EndPos="6"/><labl>Kilometres</labl></var></dataDscr></codeBook>',
      },
    );
    await seeText(driver, '.filestable', 'fixed width by a codebook, places from fix.xml');
    await press(driver, 'Read the file with its codebook');
    await (await see(driver, '.ledgerrow[data-name="kilom"]')).click();
    await seeText(driver, '#profile', 'decimal');
    await seeText(driver, '#profile', '3.75');
    expect(await complaints(driver)).toEqual([]);
  });

  it('asks about cells that leave it open, shows the effect at once, and declares ticked marks missing', async () => {
    const { driver } = browser;
    await drop(driver, {
      name: 'cells.csv',
      text: `id;day;amount;rooms\n${Array.from({ length: 24 }, (_, i) => `H${1000 + i};0${1 + (i % 9)}/0${1 + (i % 4)}/2021;1.${500 + i};${i % 6 === 5 ? 'NA' : 1 + (i % 5)}`).join('\n')}\n`,
    });
    await seeText(driver, '.cellbox', /day leaves it open/);
    await seeText(driver, '.cellbox', /NA in 4 cells of one column/);
    await pick('#date-order', 'mdy');
    await seeText(driver, '.firstrows thead', 'dates, month first');
    await pick('#decimal-mark', ',');
    await driver.wait(
      async () => /amount\s+whole numbers/.test(await (await see(driver, '.firstrows thead')).getText()),
      10_000,
      'the decimal mark had no effect',
    );
    await tap(driver, '[id="marker NA"]');
    await press(driver, 'Read the file');
    await (await see(driver, '.ledgerrow[data-name="rooms"]')).click();
    await seeText(driver, '#profile .makeuplist', /missing\s+4/);
    await seeText(driver, '.kept', 'NA (other) declared missing in rooms');
    await (await see(driver, '.ledgerrow[data-name="day"]')).click();
    await seeText(driver, '#profile .figures', /Latest\s+2021-09-/);
  });

  it('takes labels and missing codes that are typed or pasted, line by line', async () => {
    const { driver } = browser;
    await drop(driver, {
      name: 'codes.csv',
      text: `id,ten\n${Array.from({ length: 40 }, (_, i) => `${i + 1},${[1, 2, 3, 8][i % 4]}`).join('\n')}\n`,
    });
    await press(driver, 'Read the file');
    await (await see(driver, '.ledgerrow[data-name="ten"]')).click();
    await keys(driver, 'l');
    await driver.wait(
      async () => (await (await see(driver, '#codes-text')).getAttribute('value')) === '1\n2\n3\n8',
      10_000,
      'the codes were not offered',
    );
    await type('#codes-text', '1 Owned outright / 2 Rented / 3 Rent free\n8 = Refused\nand a line of prose');
    await seeText(driver, '.understood', /1\s+Owned outright\s+10/);
    await seeText(driver, '.understood', '“and a line of prose”: no code found');
    await seeText(driver, '.modal-footer', '1 line not understood');
    await press(driver, 'Accept 4 labels and 1 code as missing');
    await seeText(driver, '#profile .freq', /2\s+Rented/);
    await seeText(driver, '#profile .freq', /8\s+Refused\s+\(missing\)\s+10/);
    await keys(driver, 'u', 'u');
    await seeText(driver, '#profile .freq', /^(?![\s\S]*Rented)[\s\S]*8\s+10/);
  });
});

describe('two windows on one extract', () => {
  it('write over no decision of each other', async () => {
    const { driver } = await openBrowser();
    try {
      await driver.get(inject('address'));
      await see(driver, '[data-ready]');
      await drop(driver, { name: 'two.csv', text: 'a,b\n1,5\n2,6\n1,7\n2,8\n' });
      await see(driver, '.firstrows');
      await press(driver, 'Read the file');
      await seeText(driver, '.kept', 'All kept');
      await driver.switchTo().newWindow('tab');
      const [first, second] = await driver.getAllWindowHandles();
      await driver.get(inject('address'));
      await (await see(driver, '[data-name="a"]')).click();
      await keys(driver, 'c');
      await see(driver, '[data-name="a"] .kind.confirmed');
      await driver.switchTo().window(first);
      await (await see(driver, '[data-name="b"]')).click();
      await keys(driver, 'c');
      await see(driver, '[data-name="b"] .kind.confirmed');
      await driver.switchTo().window(second);
      await see(driver, '[data-name="b"] .kind.confirmed');
      await seeText(driver, '.kept', 'All kept in this browser');
      await driver.navigate().refresh();
      await see(driver, '[data-name="a"] .kind.confirmed');
      await see(driver, '[data-name="b"] .kind.confirmed');
    } finally {
      await driver.quit();
    }
  });
});

describe('a full storage', () => {
  it('is said, and the work goes on in memory', async () => {
    const { driver } = await openBrowser();
    try {
      // Before the page first asks, since the browser remembers for a while how much room there is.
      const cdp = driver as unknown as {
        sendAndGetDevToolsCommand(name: string, args: object): Promise<unknown>;
      };
      await cdp.sendAndGetDevToolsCommand('Storage.overrideQuotaForOrigin', {
        origin: inject('address'),
        quotaSize: 40_000,
      });
      await driver.get(inject('address'));
      await see(driver, '[data-ready]');
      await drop(driver, {
        name: 'big.csv',
        text: `a,b,c\n${Array.from({ length: 30_000 }, (_, i) => `${i},text ${i * 7},${i % 97}`).join('\n')}\n`,
      });
      await see(driver, '.firstrows');
      await press(driver, 'Read the file');
      await seeText(driver, '.scope', '30,000 rows of big');
      await seeText(driver, '.kept', 'storage is full');
      await (await see(driver, '[data-name="c"]')).click();
      await keys(driver, 'c');
      await see(driver, '[data-name="c"] .kind.confirmed');
      await keys(driver, 'u');
      await see(driver, '[data-name="c"] .kind:not(.confirmed)');
    } finally {
      await driver.quit();
    }
  });
});
