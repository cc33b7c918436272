import { afterAll, beforeAll, describe, expect, inject, it } from 'vitest';
import { By, Key } from 'selenium-webdriver';
import { Cluster } from '../src/testing/postgres';
import { complaints, drop, kept, keys, openBrowser, press, see, seeText, tap, type Browser } from './browser';

describe('a table of a database', () => {
  let cluster: Cluster;
  let browser: Browser;
  beforeAll(async () => {
    cluster = await Cluster.start();
    await cluster.sql(`
      CREATE TABLE homes (home integer PRIMARY KEY, tenure integer, rooms integer, walls text);
      COMMENT ON TABLE homes IS 'Homes of the panel';
      COMMENT ON COLUMN homes.rooms IS 'Rooms that are lived in';
      INSERT INTO homes SELECT i, 1 + i % 3, CASE WHEN i % 40 = 0 THEN 99 ELSE 1 + i % 6 END, 'brick of the wall ' || i % 5 FROM generate_series(1, 800) i;
      CREATE TABLE many AS SELECT i AS id, 1 + i % 3 AS tenure FROM generate_series(1, 150000) i;
      ANALYZE`);
    browser = await openBrowser();
    await browser.driver.get(`${inject('address')}/#start=${inject('secret')}`);
    await see(browser.driver, '[data-ready]');
    expect(await browser.driver.getCurrentUrl()).toBe(`${inject('address')}/`);
  }, 90_000);
  afterAll(async () => {
    await browser?.driver.quit();
    cluster?.drop();
  });
  /** Slow queries that the server works on. */
  const running = async (): Promise<number> =>
    (
      await cluster.sql(
        "SELECT 1 FROM pg_stat_activity WHERE state = 'active' AND query LIKE '%pg_sleep(0.01)%' AND pid <> pg_backend_pid()",
      )
    ).length;
  const connect = async (address: string): Promise<void> => {
    await see(browser.driver, '#database-address:focus');
    await keys(browser.driver, address, Key.ENTER);
  };

  it('is picked from those that the address shows, and what goes wrong is said without the password', async () => {
    const { driver } = browser;
    await press(driver, 'From a database…');
    await connect(cluster.address('postgres', 'dig', 'wrong'));
    await seeText(driver, '.modal [role=alert]', 'the password was refused');
    expect(await (await see(driver, '.modal [role=alert]')).getText()).not.toContain('wrong');
    const field = await see(driver, '#database-address');
    await field.sendKeys(Key.chord(Key.CONTROL, 'a'), cluster.address(), Key.ENTER);
    await seeText(driver, '.modal', /2 tables in 127\.0\.0\.1:\d+\/postgres that you may read/);
    await seeText(driver, '.databasetables', /public\.homes\s+800\s+4\s+Homes of the panel/);
    await keys(driver, 'homes', Key.ENTER);
    await seeText(driver, '.scope', '800 rows of public.homes');
    await seeText(driver, '.ledger', 'Rooms that are lived in');
  });

  it('is worked on like a file, and of it only rulings are kept', async () => {
    const { driver } = browser;
    await tap(driver, '.ledgerrow[data-name="rooms"]');
    await keys(driver, 'c');
    await see(driver, '.ledgerrow[data-name="rooms"] .kind.confirmed');
    await keys(driver, '5');
    await seeText(driver, '.recordtable', 'brick of the wall');
    await seeText(driver, '.kept', 'All rulings kept in this browser, no rows');
    expect(await kept(driver, 'columns', ':0')).toBeNull();
    expect(await kept(driver, 'found', ':found')).toBeNull();
    expect(JSON.stringify(await kept(driver, 'columns', ':description'))).not.toContain('brick of the wall');
    await keys(driver, '1');
    await seeText(driver, '.received', /public\.homes in 127\.0\.0\.1:\d+\/postgres/);
    await drop(driver, { name: 'more.csv', text: 'home,tenure\n1,2\n3,1\n' });
    await see(driver, '.firstrows');
    await press(driver, 'Put them all away');
  });

  it('is opened again from where it is, under its rulings', async () => {
    const { driver } = browser;
    await driver.navigate().refresh();
    await seeText(
      driver,
      '[role=alert]',
      /its rows stay in the database 127\.0\.0\.1:\d+\/postgres; open the table from there/,
    );
    await tap(driver, 'button[aria-label="Open public.homes"]');
    await connect(cluster.address());
    expect(await (await see(driver, '#database-table')).getAttribute('value')).toBe('public.homes');
    await keys(driver, Key.ENTER);
    await seeText(driver, '.scope', '800 rows of public.homes');
    await keys(driver, '2');
    await see(driver, '.ledgerrow[data-name="rooms"] .kind.confirmed');
    expect(
      (await driver.findElements(By.css('button[aria-label="Rename public.homes"]'))).length,
    ).toBeLessThan(2);
  });

  it('of many rows is counted where they are, a query is as good as a table, and a server that is gone is said', async () => {
    const { driver } = browser;
    await keys(driver, '1');
    await press(driver, 'From a database…');
    await connect(cluster.address());
    await see(driver, '#database-table:focus');
    await keys(driver, 'many', Key.ENTER);
    await seeText(driver, '.scope', /all\s+150,000 rows \((?!150)[\d,]+ of them held\)/);
    await keys(driver, '1');
    await seeText(driver, '.notices', /all 150000 rows were counted where they are/);
    // A sieve is of the sample, until the database is asked.
    await keys(driver, '2', 'g');
    await see(driver, '#jump');
    await keys(driver, 'tenure', Key.ENTER);
    await tap(driver, 'input[aria-label="Tick 2 for the sieve"]');
    await press(driver, 'Keep only these rows');
    await keys(driver, '5');
    await see(driver, '.recordtable');
    await keys(driver, 'Z');
    await seeText(driver, '.scope', /in a sample from 150,000/);
    await press(driver, 'Count in all 150,000');
    await seeText(driver, '.scope', /^Based on\s+50,000 of 150,000 rows \(sieve: tenure is 2\)/);
    await keys(driver, '6');
    await see(driver, '.crossroom:focus');
    await keys(driver, 'd');
    await see(driver, '#pick-side');
    await keys(driver, 'tenure', Key.ENTER);
    await seeText(driver, '.crosstable', '50,000');
    await keys(driver, '1');
    await press(driver, 'From a database…');
    await connect(cluster.address());
    const query = await see(driver, '#database-query');
    await query.sendKeys('SELECT tenure, walls FROM homes WHERE home <= 90');
    await press(driver, 'Open the rows of the query');
    await seeText(driver, '.scope', '90 rows of query');
    await keys(driver, '1');
    // What is stopped here is stopped there.
    await press(driver, 'From a database…');
    await connect(cluster.address());
    const slow = await see(driver, '#database-query');
    await slow.sendKeys('SELECT i, pg_sleep(0.01)::text AS slow FROM generate_series(1, 100000) i');
    await press(driver, 'Open the rows of the query');
    await driver.wait(async () => (await running()) > 0, 10_000, 'the query never ran');
    await press(driver, 'Stop');
    await driver.wait(async () => (await running()) === 0, 10_000, 'the query was not stopped');
    await seeText(driver, '.scope', '90 rows of query');
    await press(driver, 'From a database…');
    await connect(cluster.address());
    await see(driver, '#database-table:focus');
    cluster.halt();
    await keys(driver, 'many', Key.ENTER);
    await seeText(driver, '[role=alert]', 'no server answers there');
    await seeText(driver, '.scope', '90 rows of query');
    // What the browser itself notes of answers that refuse is meant.
    expect((await complaints(driver)).filter((one) => !/api\/database/.test(one))).toEqual([]);
  });

  it('is asked for by pages of this program alone', async () => {
    const ask = (headers: Record<string, string>, body = '{"ask":"known"}'): Promise<Response> =>
      fetch(`${inject('address')}/api/database`, { method: 'POST', headers, body });
    const origin = inject('address');
    const type = 'application/json';
    const start = { 'x-dig-start': inject('secret') };
    const status = async (...of: Parameters<typeof ask>): Promise<number> => (await ask(...of)).status;
    expect(await status({ origin, 'content-type': type, ...start })).toBe(200);
    // Whoever is on the same machine can write any header, and does not know the secret.
    const forged = await ask({ origin, 'content-type': type, 'x-dig-start': 'guessed' });
    expect(forged.status).toBe(403);
    expect(await forged.json()).toMatchObject({
      problem: { says: expect.stringContaining('open the address that it printed') as string },
    });
    expect(await status({ origin, 'content-type': type })).toBe(403);
    expect(await status({ 'content-type': type, ...start })).toBe(403);
    expect(await status({ origin: 'http://elsewhere.example', 'content-type': type, ...start })).toBe(403);
    expect(await status({ origin, 'content-type': type, 'sec-fetch-site': 'cross-site', ...start })).toBe(
      403,
    );
    expect(await status({ origin, 'content-type': 'text/plain', ...start })).toBe(415);
    expect(await status({ origin, 'content-type': type, ...start }, '{"ask":"everything"}')).toBe(400);
    const refused = await (
      await ask({ origin, 'content-type': type, ...start }, '{"ask":"tables","address":null}')
    ).json();
    expect(refused).toMatchObject({ problem: { says: expect.stringContaining('give its address') } });
  });
});
