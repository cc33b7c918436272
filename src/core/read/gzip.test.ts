import { gzipSync } from 'node:zlib';
import { describe, expect, it } from 'vitest';
import { InputError } from '../extract/problem';
import { unpacked } from './gzip';
import { allBytes, firstBytes, sourceOf, type ByteSource } from './source';

const TEXT = 'id,town\n'.concat(
  Array.from({ length: 5000 }, (_, i) => `${i},Fenwater ${i * 7919}`).join('\n'),
);
const PACKED = new Uint8Array(gzipSync(TEXT));
const text = (bytes: Uint8Array): string => new TextDecoder().decode(bytes);
const cut = (bytes: Uint8Array, size: number): ByteSource => ({
  name: 'x.gz',
  bytes: bytes.length,
  open: async function* () {
    for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
  },
});
const failure = async (bytes: Uint8Array): Promise<unknown> =>
  allBytes((await unpacked(cut(bytes, 1000))).open()).then(
    () => null,
    (cause: unknown) => cause,
  );

describe('gzip', () => {
  it('is unpacked by its content, whatever the name, in parts of any size', async () => {
    for (const size of [700, 4096, 1 << 20]) {
      const source = await unpacked(cut(PACKED, size));
      expect(source.packed).toBe(true);
      expect(text(await allBytes(source.open()))).toBe(TEXT);
      expect(source.consumed()).toBe(PACKED.length);
    }
  });

  it('can be opened again, and only for its first bytes', async () => {
    const source = await unpacked(cut(PACKED, 500));
    const { bytes, whole } = await firstBytes(source.open(), 7);
    expect([text(bytes), whole]).toEqual(['id,town', false]);
    expect(text(await allBytes(source.open()))).toBe(TEXT);
  });

  it('leaves other bytes as they are', async () => {
    const source = await unpacked(sourceOf('plain.gz', 'a,b\n'));
    expect(source.packed).toBe(false);
    expect(text(await allBytes(source.open()))).toBe('a,b\n');
  });

  it('that is cut off or damaged is refused with the name of its file', async () => {
    const damaged = PACKED.slice();
    damaged[damaged.length - 6] ^= 0xff;
    for (const bytes of [
      PACKED.subarray(0, PACKED.length >> 1),
      PACKED.subarray(0, PACKED.length - 3),
      damaged,
    ]) {
      const cause = await failure(bytes);
      expect(cause).toBeInstanceOf(InputError);
      expect((cause as InputError).problem).toMatchObject({
        file: 'x.gz',
        says: expect.stringContaining('damaged or end too early') as string,
      });
    }
  });
});
