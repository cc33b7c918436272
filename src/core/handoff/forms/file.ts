/** A file that goes out. It is made piece by piece, and no more of it is held at a time than one piece. */
export interface FileOut {
  name: string;
  pieces(): AsyncGenerator<Uint8Array> | Generator<Uint8Array>;
}

const encoder = new TextEncoder();
export const bytesOf = (text: string): Uint8Array => encoder.encode(text);

/** A file of one text. */
export const textFile = (name: string, text: () => string): FileOut => ({
  name,
  *pieces() {
    yield bytesOf(text());
  },
});

/** Rows that are written at a time. */
export const BATCH = 5000;

/** Some things in pieces of a batch each. */
export function* batches<T>(all: Iterable<T>): Generator<T[]> {
  let batch: T[] = [];
  for (const one of all) {
    batch.push(one);
    if (batch.length < BATCH) continue;
    yield batch;
    batch = [];
  }
  if (batch.length) yield batch;
}
