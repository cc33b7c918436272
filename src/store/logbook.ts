import type { Entry } from '../core/log/entries';
import { inTime, refusedBy, type Refused } from '../storage/refusal';

/** Storage that does not answer within this many milliseconds is said not to. */
const PATIENCE = 15_000;

/** Where the entries of a logbook are kept. */
export interface Shelf {
  append(entries: readonly Entry[], next: number): Promise<{ others: Entry[]; next: number }>;
}

/**
 * The log of the open extract: entries in the order in which they are kept, and behind them those that wait. An entry is
 * written the moment it is made; what is made while a write is under way goes with the next, all in one.
 */
export class Logbook {
  private kept: Entry[];
  private waiting: Entry[] = [];
  private next: number;
  private writing: Promise<void> | null = null;
  /** Why the last write failed; `null` where it did not. */
  refused: Refused | null = null;

  /**
   * @param shelf `null` until there is a place to keep entries
   * @param changed called whenever something changed: `from` is the zero-based place of the first entry that is another than
   * before, or the number of entries where none is
   */
  constructor(
    entries: readonly Entry[],
    next: number,
    private shelf: Shelf | null,
    private readonly changed: (from: number) => void,
    private readonly tell: (entries: Entry[], next: number) => void = () => undefined,
  ) {
    this.kept = shelf ? [...entries] : [];
    this.waiting = shelf ? [] : [...entries];
    this.next = next;
  }

  get entries(): Entry[] {
    return [...this.kept, ...this.waiting];
  }

  /** Entries that storage has not confirmed yet. */
  get unkept(): readonly Entry[] {
    return this.waiting;
  }

  add(entry: Entry): void {
    const from = this.entries.length;
    this.waiting.push(entry);
    this.changed(from);
    void this.flush();
  }

  /** From now on entries are kept there, those that wait first. */
  keepOn(shelf: Shelf): Promise<void> {
    this.shelf = shelf;
    this.refused = null;
    return this.flush();
  }

  /** What was kept is kept no more; all of it waits for another place. */
  lose(): void {
    this.waiting = this.entries;
    this.kept = [];
    this.next = 0;
    this.shelf = null;
    this.changed(this.waiting.length);
  }

  /** Writes what waits. Resolves when nothing waits any more, or a write was refused. */
  flush(): Promise<void> {
    return (this.writing ??= this.write().finally(() => {
      this.writing = null;
    }));
  }

  /** Takes entries that another window kept. @param next the first free place behind them */
  async heard(entries: readonly Entry[], next: number): Promise<void> {
    if (next === this.next + 1 && this.writing === null) {
      this.insert(entries);
      this.next = next;
    } else if (next > this.next) await this.catchUp();
  }

  /** Reads what others wrote since. */
  async catchUp(): Promise<void> {
    await this.flush();
    if (!this.shelf || this.refused) return;
    try {
      const { others, next } = await inTime(this.shelf.append([], this.next), PATIENCE);
      this.insert(others);
      this.next = next;
    } catch (cause) {
      this.refuse(cause);
    }
  }

  private async write(): Promise<void> {
    while (this.shelf && this.waiting.length) {
      const batch = [...this.waiting];
      try {
        const { others, next } = await inTime(this.shelf.append(batch, this.next), PATIENCE);
        this.insert(others);
        this.kept.push(...this.waiting.splice(0, batch.length));
        this.next = next;
        this.refused = null;
        this.tell(batch, next);
        this.changed(this.entries.length);
      } catch (cause) {
        this.refuse(cause);
        return;
      }
    }
  }

  /** Puts what others kept before what waits here. */
  private insert(others: readonly Entry[]): void {
    const known = new Set(this.entries.map(({ id }) => id));
    const fresh = others.filter(({ id }) => !known.has(id));
    if (fresh.length === 0) return;
    const from = this.kept.length;
    this.kept.push(...fresh);
    this.changed(from);
  }

  private refuse(cause: unknown): void {
    this.refused = refusedBy(cause);
    this.changed(this.entries.length);
  }
}
