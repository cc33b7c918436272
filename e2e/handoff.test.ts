import { createHash } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { strFromU8, unzipSync } from 'fflate';
import { afterEach, beforeEach, describe, expect, inject, it } from 'vitest';
import { bring as lookAtAll } from '../src/core/intake/bring';
import { readExtract } from '../src/core/intake/receive';
import { sourceOf } from '../src/core/read/source';
import {
  bring,
  By,
  complaints,
  drop,
  Key,
  keys,
  openBrowser,
  PATIENCE,
  press,
  see,
  seeText,
  still,
  tap,
  type Browser,
} from './browser';

const ROWS = Array.from(
  { length: 60 },
  (_, i) => `H${1000 + i},${1 + (i % 3)},${18 + i},${i % 2 ? 'x' : '"a, b"'}`,
);
const FILE = `hhid,tenure,age,remark\n${ROWS.join('\n')}\n`;
const BOOK = `variable,label,code,meaning\ntenure,Tenure of the home,1,Owned\ntenure,Tenure of the home,2,Rented\ntenure,Tenure of the home,3,Lent\n`;

describe('the handoff', () => {
  let browser: Browser & { downloads: string };
  const here = (): Browser['driver'] => browser.driver;
  beforeEach(async () => {
    browser = await openBrowser();
    await here().get(inject('address'));
    await see(here(), '[data-ready]');
    await drop(here(), { name: 'homes.csv', text: FILE }, { name: 'homes-codes.csv', text: BOOK });
    await see(here(), '.firstrows');
    await keys(here(), Key.ENTER);
    await seeText(here(), '.scope', '60 rows of homes');
  });
  afterEach(async () => {
    expect(await complaints(here())).toEqual([]);
    await here().quit();
  });

  it('says what is still open, checks the number, previews, writes one zip that opens again as it was', async () => {
    const { driver, downloads } = browser;
    await keys(driver, 'g');
    await see(driver, '#jump');
    await keys(driver, 'tenure', Key.ENTER);
    await seeText(driver, '#profile', 'Tenure of the home');
    await keys(driver, 'k');
    await see(driver, '.modal.show');
    await keys(driver, 'o');
    await seeText(driver, '.kept', 'tenure is ordinal');
    await keys(driver, '7');
    await seeText(driver, '.stillopen', '3 kinds presumed only');
    await seeText(driver, '.handdata', '4 variables go out');
    await tap(driver, '[aria-label="How many variables I want"]');
    await keys(driver, '3');
    await seeText(driver, '.handdata', '1 too many go out');
    await seeText(driver, '.firstleaving', 'H1000');
    await tap(driver, '.forms label:nth-of-type(6) input');
    await press(driver, 'Save homes-handoff.zip');
    await seeText(driver, '.handdata', '5 files with 4 variables and 60 rows handed off.');
    const file = join(downloads, 'homes-handoff.zip');
    await driver.wait(() => existsSync(file), PATIENCE, 'no zip was saved');
    const members = unzipSync(readFileSync(file));
    expect(Object.keys(members).sort()).toEqual([
      'datapackage.json',
      'homes-codebook.html',
      'homes-dig-log.json',
      'homes.csv',
      'homes.parquet',
      'manifest.json',
    ]);
    expect(strFromU8(members['homes.csv'])).toBe(FILE.replaceAll('\n', '\r\n'));
    // Dropped on the intake it is one file and its codebook, with what was confirmed.
    await keys(driver, '1');
    const zip = { name: 'homes-handoff.zip', base64: readFileSync(file).toString('base64') };
    await bring(driver, zip, '60 rows of homes');
    // The scope line said the same of the one before it.
    await see(driver, '.ledgerrow');
    await keys(driver, '2', 'g');
    await see(driver, '#jump');
    await keys(driver, 'tenure', Key.ENTER);
    await seeText(driver, '#profile', /tenure[\s\S]*Tenure of the home[\s\S]*ordinal\s+confirmed/);
    await seeText(driver, '#profile', '1 Owned');
    // Its rulings are the log's own again.
    await keys(driver, '7');
    await seeText(driver, '.ruled', 'tenure is ordinal');
  });

  it('hands off what is in a set, in every form, and each is read again as it was', async () => {
    const { driver, downloads } = browser;
    for (const name of ['tenure', 'age']) {
      await keys(driver, 'g');
      await see(driver, '#jump');
      await keys(driver, name, Key.ENTER);
      await seeText(driver, '#profile h2', name);
      await keys(driver, 'i');
      await see(driver, '#into');
      await keys(driver, 'Home', Key.ENTER);
      await still(driver);
    }
    await keys(driver, '7');
    await tap(driver, '.handsets input');
    // The identifier goes along.
    await seeText(driver, '.handdata', /3 variables go out, among them[^.]*hhid/);
    for (const label of await driver.findElements(By.css('.forms label'))) {
      const input = await label.findElement(By.css('input'));
      if (!(await input.isSelected())) await input.click();
    }
    await press(driver, 'Save homes-handoff.zip');
    await seeText(driver, '.handdata', '12 files with 3 variables and 60 rows handed off.');
    const file = join(downloads, 'homes-handoff.zip');
    await driver.wait(() => existsSync(file), PATIENCE, 'no zip was saved');
    const members = unzipSync(readFileSync(file));
    const { files } = JSON.parse(strFromU8(members['manifest.json'])) as {
      files: { name: string; sha256: string }[];
    };
    expect(Object.keys(members)).toHaveLength(files.length + 1);
    for (const { name, sha256 } of files)
      expect([name, createHash('sha256').update(members[name]).digest('hex')]).toEqual([name, sha256]);
    for (const names of [
      ['homes.csv', 'homes.xml'],
      ['homes.csv', 'homes.csv-metadata.json'],
      ['homes.csv', 'datapackage.json'],
      ['homes.xlsx'],
      ['homes.parquet'],
      ['homes.ndjson'],
    ]) {
      const { brought } = await lookAtAll(
        names.map((name) => ({ key: name, source: sourceOf(name, members[name]) })),
      );
      const extract = await readExtract(
        brought.flatMap((one) => (one.what === 'data' ? [{ source: one.source, look: one.look }] : [])),
      );
      expect(extract.variables.map(({ name, column }) => [name, column.text(0), column.text(59)])).toEqual([
        ['hhid', 'H1000', 'H1059'],
        ['tenure', '1', '3'],
        ['age', '18', '77'],
      ]);
    }
    // Nothing in a page that one reads runs.
    for (const [name, bytes] of Object.entries(members))
      if (name.endsWith('.html')) expect(strFromU8(bytes)).not.toMatch(/<script|\son\w+=/);
  });

  it('reads the next file as the last one was, shows which rulings fit, and holds both beside each other', async () => {
    const { driver } = browser;
    await keys(driver, 'g');
    await see(driver, '#jump');
    await keys(driver, 'tenure', Key.ENTER);
    await seeText(driver, '#profile', 'Tenure of the home');
    await keys(driver, 'k');
    await see(driver, '.modal.show');
    await keys(driver, 'o');
    await seeText(driver, '.kept', 'tenure is ordinal');
    await seeText(driver, '.kept', 'All kept in this browser');
    await keys(driver, '1');
    const next = FILE.replaceAll(',', ';').replaceAll('"a; b"', 'a').replaceAll(';3;', ';4;');
    await drop(driver, { name: 'homes_later.csv', text: next.replace('remark', 'note') });
    await see(driver, '.firstrows');
    await tap(driver, '#earlier-log');
    await tap(driver, '.loglist .dropdown-item');
    await seeText(driver, '.earlier', 'Read as homes was');
    await seeText(driver, '.before', 'homes_later.csv is read as it looks of itself');
    await press(driver, 'Read the file');
    await seeText(
      driver,
      '.modal.show',
      /1 fit, and something is another here[\s\S]*tenure is ordinal \(tenure would be presumed nominal\)/,
    );
    await tap(driver, '.replaylines input');
    await press(driver, 'Take 1 ruling');
    await driver.wait(
      async () => (await driver.findElements(By.css('.modal'))).length === 0,
      PATIENCE,
      'the dialog stays',
    );
    await seeText(driver, '.scope', 'homes_later');
    await seeText(driver, '.kept', 'tenure is ordinal');
    await keys(driver, '1');
    await press(driver, 'Hold beside homes_later');
    await seeText(
      driver,
      '.modal.show',
      /homes_later beside homes[\s\S]*tenure[\s\S]*holds 4[\s\S]*1 came[\s\S]*note[\s\S]*1 went[\s\S]*remark/,
    );
    await keys(driver, Key.ESCAPE);
  });

  it('holds an earlier log against the extract, takes what fits in one stroke and the rest one by one', async () => {
    const { driver, downloads } = browser;
    const entry = (id: string, more: object): object => ({
      id,
      at: '2026-01-05T10:00:00.000Z',
      why: null,
      ...more,
    });
    const log = join(downloads, 'earlier-dig-log.json');
    writeFileSync(
      log,
      JSON.stringify({
        format: 'dig-first-log',
        version: 5,
        extract: 'homes',
        entries: [
          entry('1', { type: 'confirm-kind', kinds: [{ variable: 'tenure', kind: 'nominal' }] }),
          entry('2', { type: 'label-codes', variables: ['tenure'], labels: [{ code: '1', label: 'Own' }] }),
          entry('3', { type: 'sign-off', variables: ['boiler'], done: true }),
          entry('4', { type: 'note', variable: 'age', text: 'At interview' }),
        ],
      }),
    );
    await keys(driver, '7');
    await see(driver, '.handdata');
    const input = await driver.findElement(
      By.css('main > .sheet:not([hidden]) [aria-label="File of an earlier dig log"]'),
    );
    await input.sendKeys(log);
    await seeText(
      driver,
      '.modal.show',
      /2 fit as they are[\s\S]*1 fit, and something is another here[\s\S]*the codebook calls 1 “Owned”[\s\S]*1 do not fit[\s\S]*there is no boiler here/,
    );
    await press(driver, 'Take 2 rulings');
    await seeText(driver, '.ruled', /tenure is nominal[\s\S]*note on age: “At interview”/);
    expect(await driver.executeScript('return document.querySelectorAll(".ruled li").length')).toBe(2);
    await keys(driver, 'u');
    await driver.wait(
      async () => (await driver.executeScript('return document.querySelectorAll(".ruled li").length')) === 1,
      PATIENCE,
      'nothing was taken back',
    );
  });
});
