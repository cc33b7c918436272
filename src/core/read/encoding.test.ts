import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { decoded, guessEncoding, type Encoding } from './encoding';
import { looksUtf16, notText } from './signature';

async function* parts(bytes: Uint8Array, size: number): AsyncGenerator<Uint8Array> {
  for (let at = 0; at < bytes.length; at += size) yield bytes.subarray(at, at + size);
}
async function text(
  bytes: Uint8Array,
  encoding: Encoding,
  size = 3,
): Promise<{ text: string; turned: string[] }> {
  const turned: string[] = [];
  let all = '';
  for await (const part of decoded(parts(bytes, size), encoding, (to) => turned.push(to))) all += part;
  return { text: all, turned };
}
const utf8 = (string: string): Uint8Array => new TextEncoder().encode(string);

describe('decoding in parts', () => {
  it('gives the same text wherever the parts are cut', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.string({ unit: fc.constantFrom('a', 'é', '€', '😀', '\n') }),
        fc.integer({ min: 1, max: 7 }),
        async (string, size) => {
          expect(await text(utf8(string), 'utf-8', size)).toEqual({ text: string, turned: [] });
          expect((await text(new Uint8Array(Buffer.from(string, 'utf16le')), 'utf-16le', size)).text).toBe(
            string,
          );
        },
      ),
    );
  });

  it('drops the byte order mark at the start and nowhere else', async () => {
    expect((await text(utf8('\uFEFFa\uFEFFb'), 'utf-8')).text).toBe('a\uFEFFb');
    expect((await text(Uint8Array.of(0xff, 0xfe, 0x61, 0), 'utf-16le')).text).toBe('a');
    expect((await text(Uint8Array.of(0xfe, 0xff, 0, 0x61), 'utf-16be')).text).toBe('a');
  });

  it('turns to Windows-1252 after plain ASCII, and keeps to UTF-8 once it was seen', async () => {
    expect(await text(Uint8Array.of(0x61, 0x62, 0xe9, 0x63), 'utf-8')).toEqual({
      text: 'abéc',
      turned: ['windows-1252'],
    });
    expect(await text(Uint8Array.from([...utf8('éé'), 0xe9, 0x62]), 'utf-8', 2)).toEqual({
      text: 'éé\uFFFDb',
      turned: ['damaged'],
    });
    expect(await text(Uint8Array.from([...utf8('é'), 0xc3]), 'utf-8', 2)).toEqual({
      text: 'é\uFFFD',
      turned: ['damaged'],
    });
  });
});

describe('guessing', () => {
  it('is not misled by a character cut at the end of the sample', () => {
    expect(guessEncoding(utf8('na€').subarray(0, 4)).encoding).toBe('utf-8');
    expect(guessEncoding(Uint8Array.of(0x61, 0xe9, 0x62, 0xfc, 0x63)).encoding).toBe('windows-1252');
    expect(guessEncoding(utf8('a\uFFFDb')).encoding).toBe('utf-8');
  });

  it.each([
    ['a zip', [0x50, 0x4b, 3, 4], 'zip'],
    ['Parquet', [0x50, 0x41, 0x52, 0x31], 'Parquet'],
    ['a PDF', [0x25, 0x50, 0x44, 0x46], 'PDF'],
  ])('knows %s by its first bytes', (_, bytes, name) => {
    expect(notText(Uint8Array.from(bytes))).toContain(name);
  });

  it('takes text for text, and zero bytes at every other place for UTF-16', () => {
    expect(notText(utf8('a,b\r\n\t1,2\f'))).toBeNull();
    expect(looksUtf16(new Uint8Array(Buffer.from('a,b,c,d', 'utf16le')))).toBe('utf-16le');
    expect(looksUtf16(utf8('a,b,c,d'))).toBeNull();
  });
});
