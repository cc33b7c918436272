import { execFileSync } from 'node:child_process';
import { describe, expect, inject, it } from 'vitest';
import { drop, openBrowser, press, PATIENCE, see, seeText, type Browser } from './browser';

/** How often the browser is killed; more by `KILLS=20`. */
const KILLS = Number(process.env.KILLS ?? 3);
/** Milliseconds between two rulings: none, a held key, a quick hand; others by `PACES=100,200`. */
const PACES = (process.env.PACES ?? '0,30,100').split(',').map(Number);
/** Milliseconds until the kill, at least; more by `UNTIL=12000`. */
const UNTIL = Number(process.env.UNTIL ?? 1500);
const VARIABLES = 400;

const table = (): string => {
  const names = Array.from({ length: VARIABLES }, (_, i) => `q${i}`);
  const rows = Array.from({ length: 60 }, (_, row) =>
    names.map((_, i) => 1 + ((row * (i + 3)) % 5)).join(','),
  );
  return `${names.join(',')}\n${rows.join('\n')}\n`;
};

/** The last ruling that the page shows, as the number of rulings made, and whether it calls all kept. */
const shown = async ({ driver }: Browser): Promise<{ made: number; kept: boolean }> => {
  const [last, kept] = await driver.executeScript<[string, string]>(
    'return [document.querySelector(".kept .last")?.textContent ?? "", document.querySelector(".kept [role=status]")?.textContent ?? ""]',
  );
  const variable = /q(\d+) is/.exec(last)?.[1];
  return { made: variable === undefined ? 0 : Number(variable) + 1, kept: kept.startsWith('All kept') };
};

/** Kinds that are confirmed, once all is counted. */
const confirmed = async ({ driver }: Browser): Promise<number> => {
  const [left] = await driver.executeScript<string[]>(
    'return [...document.querySelectorAll(".rail li:nth-child(2) button > span")].map((one) => one.textContent)',
  );
  return VARIABLES - Number(/(\d+) kinds presumed/.exec(left)?.[1] ?? 0);
};

/** Ends the browser at once, as a crash or a cut of power does to its processes. */
function kill(profile: string): void {
  const pids = execFileSync('pgrep', ['-f', profile], { encoding: 'utf8' }).trim().split('\n').map(Number);
  for (const pid of pids)
    try {
      process.kill(pid, 'SIGKILL');
    } catch {
      // It went with another.
    }
}

describe('a browser that is killed while rulings are made', () => {
  it('has lost nothing that it called kept', { timeout: 60_000 + KILLS * (UNTIL + 40_000) }, async () => {
    const results: { pace: number; kept: number; lost: number }[] = [];
    for (let i = 0; i < KILLS; i++) {
      const pace = PACES[i % PACES.length];
      const browser = await openBrowser();
      const { driver, profile } = browser;
      await driver.get(inject('address'));
      await see(driver, '[data-ready]');
      await drop(driver, { name: 'wide.csv', text: table() });
      await press(driver, 'Read the file');
      await seeText(driver, '.kept', 'All kept in this browser');
      await driver.executeScript(
        `const pace = arguments[0];
         const key = (key) => (document.querySelector('.ledger') ?? document.body).dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true }));
         key('Home');
         setInterval(() => { key('c'); key('ArrowDown'); }, pace);`,
        pace,
      );
      let kept = 0;
      const until = Date.now() + UNTIL + ((i * 677) % 1700);
      // On a busy machine the first ruling may be kept later than that.
      while (Date.now() < until || (kept === 0 && Date.now() < until + PATIENCE)) {
        const now = await shown(browser);
        if (now.kept) kept = Math.max(kept, now.made);
      }
      kill(profile);
      await driver.quit().catch(() => undefined);
      const again = await openBrowser({ profile });
      await again.driver.get(inject('address'));
      await seeText(again.driver, '.scope', 'wide');
      const found = await confirmed(again);
      await again.driver.quit();
      results.push({ pace, kept, lost: Math.max(0, kept - found) });
    }
    console.warn(
      results.map(({ pace, kept, lost }) => `${pace} ms: ${kept} shown as kept, ${lost} lost`).join('\n'),
    );
    expect(results.some(({ kept }) => kept > 0)).toBe(true);
    expect(results.filter(({ lost }) => lost > 0)).toEqual([]);
  });
});
