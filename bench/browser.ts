import { spawn } from 'node:child_process';
import { statSync } from 'node:fs';
import { join } from 'node:path';
import { By, Key, keys, openBrowser, see, seeText } from '../e2e/browser';
import { whole } from '../src/core/handoff/words';
import { madeFile } from './make';

const PORT = 3999;
const address = `http://127.0.0.1:${PORT}`;

/** From bringing a file to the ledger in Chromium, frames while scrolling it, and the size of the first page load. */
export async function inBrowser(large = false): Promise<void> {
  const server = spawn(process.execPath, ['scripts/start.mjs'], {
    cwd: join(import.meta.dirname, '..'),
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
  const { driver } = await openBrowser();
  try {
    await driver.get(address);
    await see(driver, '[data-ready]');
    await new Promise((resolve) => setTimeout(resolve, 1500));
    const [sent, parts] = await driver.executeScript<[number, number]>(`
      const entries = [...performance.getEntriesByType('navigation'), ...performance.getEntriesByType('resource')];
      return [entries.reduce((sum, entry) => sum + entry.transferSize, 0), entries.length];`);
    console.log(`first page load: ${(sent / 1000).toFixed(0)} kB over the wire in ${parts} requests`);
    for (const [rows, columns] of large
      ? [[3_000_000, 20]]
      : [
          [300_000, 40],
          [600, 2500],
        ]) {
      await keys(driver, '1');
      const path = madeFile(rows, columns);
      const start = performance.now();
      await (await driver.findElement(By.css('input[type=file]'))).sendKeys(path);
      await see(driver, '.firstrows');
      await keys(driver, Key.ENTER);
      await seeText(driver, '.scope', `${whole(rows)} rows of`, 400_000);
      await see(driver, '.ledgerrow', 400_000);
      console.log(
        `${rows} × ${columns} (${(statSync(path).size / 1e6).toFixed(0)} MB): ${((performance.now() - start) / 1000).toFixed(2)} s from bringing the file to the ledger`,
      );
      await seeText(driver, '.kept', 'All kept', 120_000);
      console.log(`  kept in the browser after ${((performance.now() - start) / 1000).toFixed(2)} s`);
      if (columns < 1000) await inRows(rows);
      if (large) continue;
      const before = performance.now();
      await driver.navigate().refresh();
      await see(driver, '.ledgerrow', 120_000);
      console.log(`  opened again after ${((performance.now() - before) / 1000).toFixed(2)} s`);
      if (columns > 1000) await scrolling();
    }
  } finally {
    await driver.quit();
    server.kill();
  }

  /** The record table: opened, sorted, searched, sieved and scrolled. */
  async function inRows(rows: number): Promise<void> {
    const timed = async (what: string, does: () => Promise<unknown>): Promise<void> => {
      const start = performance.now();
      await does();
      console.log(`  ${what}: ${((performance.now() - start) / 1000).toFixed(2)} s`);
    };
    await timed('the record table opens', async () => {
      await keys(driver, '5');
      await see(driver, '.recordrow .cell .code');
    });
    await timed('sorted by one variable', async () => {
      await keys(driver, 's');
      await seeText(driver, '.rowsbar', 'sorted by');
      await seeText(driver, '.cellline', /Row/);
    });
    await timed('found in all variables', async () => {
      await keys(driver, '/', 'Old Hay', Key.ENTER);
      await seeText(driver, '.rowsbar', 'rows found', 120_000);
    });
    await keys(driver, Key.ESCAPE);
    await timed('a sieve put in force: the scope line says it', async () => {
      await keys(driver, 'k');
      await see(driver, '.condition');
      await keys(driver, 'Z');
      await seeText(driver, '.scope', `of ${whole(rows)} rows (sieve`, 120_000);
    });
    await timed('  what the ledger shows is of the rows kept', async () => {
      await keys(driver, '2');
      await driver.wait(
        async () => (await driver.findElements(By.css('.ledgerrow .stale'))).length === 0,
        120_000,
      );
    });
    await timed('  flags too', async () => {
      await seeText(driver, '.rail', /nothing to rule on|to rule on/, 240_000);
    });
    await keys(driver, '9', '5');
    await seeText(driver, '.scope', `all ${whole(rows)} rows`, 120_000);
    await see(driver, '.recordrow .cell .code');
    await scrolling('.recordtable');
    const bytes = await driver.executeScript<number>('return performance.memory?.usedJSHeapSize ?? 0');
    console.log(`  heap of the page: ${(bytes / 1e6).toFixed(0)} MB`);
    await keys(driver, '2');
    // Where one is, is kept a moment after it changed.
    await new Promise((resolve) => setTimeout(resolve, 800));
  }

  async function scrolling(what = '.ledger'): Promise<void> {
    const frames = await driver.executeAsyncScript<number[]>(`
      const done = arguments[arguments.length - 1];
      const ledger = document.querySelector('${what}');
      const times = [];
      const start = performance.now();
      const step = (now) => {
        times.push(now);
        ledger.scrollTop += 180;
        if (now - start < 4000) requestAnimationFrame(step);
        else done(times.slice(1).map((time, i) => time - times[i]));
      };
      requestAnimationFrame(step);`);
    const sorted = [...frames].sort((a, b) => a - b);
    console.log(
      `  scrolling six rows a frame for 4 s: ${(frames.length / 4).toFixed(0)} frames a second, median ${sorted[frames.length >> 1].toFixed(1)} ms, slowest of a hundred ${sorted[Math.floor(frames.length * 0.99)].toFixed(1)} ms`,
    );
  }
}
