import type { Extract } from '../core/extract/extract';
import { announce, keepColumns } from '../storage/extracts';
import { refusedBy, type Refused } from '../storage/refusal';

/** Extracts on their way into the browser's storage, by the id under which they will be. */
export class Arriving {
  private readonly extracts = new Map<string, Extract>();

  /** Makes a place for one, whatever is opened meanwhile. @param instead the kept extract whose place it takes */
  async announce(id: string, extract: Extract, instead: string | null): Promise<Refused | null> {
    this.extracts.set(id, extract);
    try {
      await announce(id, extract, instead);
      return null;
    } catch (cause) {
      return refusedBy(cause);
    }
  }

  /** Keeps the columns of one that was announced. */
  async keep(id: string): Promise<Refused | null> {
    const extract = this.extracts.get(id);
    if (!extract) return { why: 'other', message: 'it was not announced' };
    try {
      await keepColumns(id, extract);
      return null;
    } catch (cause) {
      return refusedBy(cause);
    } finally {
      this.extracts.delete(id);
    }
  }
}
