import type { Inspector } from '../core/inspect/inspect';
import type { Sorting } from '../core/inspect/listed';
import type { ListAsk } from '../core/inspect/listing';
import type { WholeListing } from '../core/inspect/whole-listing';
import type { Control } from '../core/read/source';
import type { AllRows } from '../core/rows/all-rows';
import type { TableAt } from './far-rows';
import type { Plan, Tell } from './protocol';
import { Questions } from './questions';
import { Reader, reporting } from './reading';
import { Turn } from './turn';
import { Wholes } from './wholes';

/** What goes through all rows again, of which only a sample is held, to list them and to find in them. */
export abstract class ThroughAll extends Questions {
  protected readonly reader = new Reader();
  protected readonly turn = new Turn();
  private readonly wholes = new Wholes();

  /** Where the open table is asked for that is one of a database. */
  protected abstract get at(): TableAt | null;
  /** The open extract, where it is that opening and so much of the log is laid over it; else `null`. */
  protected abstract under(serial: number, version: number): Inspector | null;

  /**
   * Lists all rows that the sieve in force keeps; with a sieve or an order they are gone through once.
   * @returns the number by which it is asked for, and how many rows it has; `null` where something else is laid by now
   */
  listWhole(
    serial: number,
    version: number,
    plan: Plan | null,
    sort: readonly Sorting[],
    tell: Tell,
  ): Promise<{ whole: number; rows: number } | null> {
    return this.turn.take(async (breathe) => {
      const inspector = this.under(serial, version);
      if (!inspector?.received.pass) return null;
      const control: Control = {
        progress: reporting(inspector.received.files, 'Looking for rows in', tell),
        breathe,
      };
      const all = await this.again(inspector, plan, control);
      const listed = await this.wholes.list(inspector, all, sort, control);
      return this.under(serial, version) === inspector ? listed : null;
    });
  }

  /**
   * Looks for a text in all rows of such a listing, in some variables: they are gone through once.
   * @returns how many hold it; `null` where the listing is another by now
   */
  findWhole(
    serial: number,
    version: number,
    whole: number,
    text: string,
    names: string[],
    tell: Tell,
  ): Promise<number | null> {
    return this.turn.take(async (breathe) => {
      const inspector = this.under(serial, version);
      if (!inspector) return null;
      const progress = reporting(inspector.received.files, `Looking for “${text}” in`, tell);
      return this.wholes.find({ whole }, inspector, { text, names }, { progress, breathe });
    });
  }

  /** Whoever goes through all rows of the open extract again. */
  protected again(inspector: Inspector, plan: Plan | null, control: Control): Promise<AllRows> {
    return this.reader.again(inspector.received, { plan, at: this.at }, control);
  }

  protected wholeOf(ask: Pick<ListAsk, 'whole'>): WholeListing | null {
    return this.wholes.of(ask, this.opened);
  }
  protected foundIn(ask: ListAsk, text: string, names: string[]): Uint32Array | null {
    return this.wholes.found(ask, this.opened, text, names);
  }
}
