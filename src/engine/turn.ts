import { Stopped } from '../core/extract/problem';
import { listen } from '../core/extract/pulse';

/** Long work takes turns: what is asked for later stops what runs, and a person can stop either. */
export class Turn {
  private running = 0;
  private flag: Int32Array | null = null;
  /** Whose stopping is listened for in long loops now. */
  private heard: (() => void) | null = null;

  /** @param shared one 32-bit integer that the page counts up to stop what runs; `null` where memory cannot be shared */
  hear(shared: SharedArrayBuffer | null): void {
    this.flag = shared && new Int32Array(shared);
  }

  stop(): void {
    this.running++;
  }

  /**
   * Runs long work. `breathe`, which it has to call now and then, lets waiting messages in, among them the one that stops.
   * @throws Stopped where the work was stopped, or other work was asked for
   */
  async take<T>(work: (breathe: () => Promise<void>) => Promise<T>): Promise<T> {
    const mine = ++this.running;
    const wishes = this.wishes();
    const check = (): void => {
      if (this.running !== mine || this.wishes() !== wishes) throw new Stopped();
    };
    this.listenFor(check);
    try {
      return await work(async () => {
        // What is asked meanwhile is no part of this work.
        this.listenFor(null);
        await new Promise((resolve) => setTimeout(resolve));
        check();
        this.listenFor(check);
      });
    } finally {
      // Work that was stopped must not stop what comes after it; other work may be under way by now.
      if (this.heard === check) this.listenFor(null);
    }
  }

  private listenFor(check: (() => void) | null): void {
    this.heard = check;
    listen(check);
  }

  private wishes(): number {
    return this.flag ? Atomics.load(this.flag, 0) : 0;
  }
}
