import { fromBinary, textsFromBinary } from '../extract/binary-column';
import type { Spans } from '../extract/cells-in-bytes';
import { InputError, type Problem } from '../extract/problem';
import type { Helper } from './helper';
import type { Batch, Columns, ColumnTakers, Finished, Holds } from './takers';

/** Pieces that a helper may be behind. */
const MOST_BEHIND = 4;
/** Of so many columns one is taken here, where cells are found too. */
const OWN = 3;

/** Columns of which some are taken here and the others by a helper. Each sees the same rows in the same order: the columns are the same as if one had taken all. */
export class SharedColumns implements Columns {
  private readonly isOwn = new Map<string, boolean>();
  /** Names of the columns of the file at hand that the helper takes; `null` for others. */
  private theirs: (string | null)[] = [];
  private behind: Promise<void>[] = [];
  private problem: Problem | null = null;
  private lost: { cause: unknown } | null = null;
  /** Memory of cells that were taken, for the next. */
  private readonly spare: Memory[] = [];

  constructor(
    private readonly own: ColumnTakers,
    private readonly helper: Helper,
    holds: Holds,
  ) {
    this.tell(helper.start(holds));
  }

  expect(rows: number, columns: number): void {
    this.own.expect(rows, columns);
    this.tell(this.helper.expect(rows, columns));
  }

  begin(file: string, names: readonly (string | null)[]): void {
    for (const name of names)
      if (name !== null && !this.isOwn.has(name)) this.isOwn.set(name, this.isOwn.size % OWN === OWN - 1);
    const only = (own: boolean): (string | null)[] =>
      names.map((name) => (name !== null && this.isOwn.get(name) === own ? name : null));
    this.own.begin(file, only(true));
    this.theirs = only(false);
    this.tell(this.helper.begin(file, this.theirs));
  }

  take(batch: Batch): void {
    if (this.problem) throw new InputError(this.problem);
    const memory = this.spare.pop() ?? NO_MEMORY;
    const cells =
      'rows' in batch ? copied(batch, this.theirs.length, memory) : packed(batch, this.theirs, memory);
    this.tell(
      this.helper.take(cells).then((problem) => {
        this.problem ??= problem;
        this.spare.push(cells);
      }),
    );
    this.own.take(batch);
  }

  endFile(): void {
    this.own.endFile();
    this.tell(this.helper.endFile());
  }

  /** Resolves when the helper is not far behind. @throws InputError for what it could not take @throws HelperLost */
  async wait(most = MOST_BEHIND): Promise<void> {
    while (this.behind.length > most) await this.behind[0];
    if (this.lost) throw this.lost.cause;
    if (this.problem) throw new InputError(this.problem);
  }

  /** All columns, in the order in which files had them. */
  async finish(): Promise<Finished[]> {
    await this.wait(0);
    const theirs = this.helper.finish();
    const all = new Map(this.own.finished.map((one) => [one[0], one]));
    for (const { name, column, pass } of await theirs)
      all.set(name, [name, fromBinary(column), pass && { ...pass, texts: textsFromBinary(pass.texts) }]);
    return [...this.isOwn.keys()].map((name) => all.get(name)).filter((one) => one !== undefined);
  }

  private tell(told: Promise<void>): void {
    const done = told
      .catch((cause: unknown) => void (this.lost ??= { cause }))
      .finally(() => {
        this.behind = this.behind.filter((one) => one !== done);
      });
    this.behind.push(done);
  }
}

/** Memory that both threads see: what is handed over for good makes an engine ask at every number whether it is still there. */
type Memory = Pick<Spans, 'bytes' | 'starts' | 'ends'>;
const shared = (bytes: number): SharedArrayBuffer => new SharedArrayBuffer(bytes);
const NO_MEMORY: Memory = { bytes: new Uint8Array(0), starts: new Uint32Array(0), ends: new Uint32Array(0) };

/** Room for so many bytes and cells: what is there, where it is enough. */
function withRoom({ bytes, starts, ends }: Memory, most: number, cells: number): Memory {
  const [room, places] = [Math.ceil(most * 1.25), Math.ceil(cells * 1.25)];
  return {
    bytes: bytes.length < most ? new Uint8Array(shared(room)) : bytes,
    starts: starts.length < cells ? new Uint32Array(shared(places * 4)) : starts,
    ends: ends.length < cells ? new Uint32Array(shared(places * 4)) : ends,
  };
}

/** Cells in memory of their own. */
function copied({ bytes, starts, ends, rows }: Spans, width: number, memory: Memory): Spans {
  const cells = rows * width;
  const most = cells === 0 ? 0 : ends[cells - 1];
  const into = withRoom(memory, most, cells);
  into.bytes.set(bytes.subarray(0, most));
  into.starts.set(starts.subarray(0, cells));
  into.ends.set(ends.subarray(0, cells));
  return { ...into, rows };
}

const encoder = new TextEncoder();

/** Cells as texts in bytes; where a name is `null`, or a row too short, they hold nothing. */
function packed(
  batch: readonly (readonly string[])[],
  names: readonly (string | null)[],
  memory: Memory,
): Spans {
  const at = names.flatMap((name, index) => (name === null ? [] : [index]));
  let most = 0;
  for (const row of batch) for (const index of at) most += (row[index]?.length ?? 0) * 3;
  const into = withRoom(memory, most, batch.length * names.length);
  const { bytes, starts, ends } = into;
  let used = 0;
  batch.forEach((row, i) => {
    for (const index of at) {
      const cell = i * names.length + index;
      starts[cell] = used;
      const text = encoder.encode(row[index] ?? '');
      bytes.set(text, used);
      used += text.length;
      ends[cell] = used;
    }
  });
  return { ...into, rows: batch.length };
}
