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

describe('encodings of other scripts', () => {
  it.each([
    [
      'shift_jis',
      '北の村',
      'lNSNhiySbovmLJBFi8YKMSyWa4LMkboslF+LxgoyLJDsgsySrCyLs450CjMsjWCCzJKsLIuZjnSBQZFEiPUKlNSNhiySbovmLJBFi8YKMSyWa4LMkboslF+LxgoyLJDsgsySrCyLs450CjMsjWCCzJKsLIuZjnSBQZFEiPUKlNSNhiySbovmLJBFi8YKMSyWa4LMkboslF+LxgoyLJDsgsySrCyLs450CjMsjWCCzJKsLIuZjnSBQZFEiPUKlNSNhiySbovmLJBFi8YKMSyWa4LMkboslF+LxgoyLJDsgsySrCyLs450CjMsjWCCzJKsLIuZjnSBQZFEiPUK',
    ],
    [
      'euc-kr',
      '북쪽 마을',
      'ufjIoyzB9r+qLMH3vvcKMSy6z8LKILi2wLsss/O6zgoyLLCtsKHAxyC1tb3DLLGzu+e/zSDAx7vnCrn4yKMswfa/qizB9773CjEsus/CyiC4tsC7LLPzus4KMiywrbChwMcgtbW9wyyxs7vnv80gwMe75wq5+MijLMH2v6oswfe+9woxLLrPwsoguLbAuyyz87rOCjIssK2wocDHILW1vcMssbO757/NIMDHu+cKufjIoyzB9r+qLMH3vvcKMSy6z8LKILi2wLsss/O6zgoyLLCtsKHAxyC1tb3DLLGzu+e/zSDAx7vnCg==',
    ],
    [
      'koi8-r',
      'Северная деревня',
      'zs/NxdIsz8LMwdPU2Czawc7R1MnFCjEs88XXxdLOwdEgxMXSxdfO0SzL0sXT1NjRzsnOCjIs58/Sz8Qg1SDSxcvJLNXeydTFzNggySDX0sHeCs7PzcXSLM/CzMHT1Ngs2sHO0dTJxQoxLPPF18XSzsHRIMTF0sXXztEsy9LF09TY0c7JzgoyLOfP0s/EINUg0sXLySzV3snUxczYIMkg19LB3grOz83F0izPwszB09TYLNrBztHUycUKMSzzxdfF0s7B0SDExdLF187RLMvSxdPU2NHOyc4KMiznz9LPxCDVINLFy8ks1d7J1MXM2CDJINfSwd4Kzs/NxdIsz8LMwdPU2Czawc7R1MnFCjEs88XXxdLOwdEgxMXSxdfO0SzL0sXT1NjRzsnOCjIs58/Sz8Qg1SDSxcvJLNXeydTFzNggySDX0sHeCg==',
    ],
    [
      'big5',
      '北方村',
      'vXO4uSymYbDPLMK+t34KMSylX6Top/gsuUGlwQoyLKplw+TC7Syx0K52qU3C5aXNCr1zuLkspmGwzyzCvrd+CjEspV+k6Kf4LLlBpcEKMiyqZcPkwu0ssdCudqlNwuWlzQq9c7i5LKZhsM8swr63fgoxLKVfpOin+Cy5QaXBCjIsqmXD5MLtLLHQrnapTcLlpc0KvXO4uSymYbDPLMK+t34KMSylX6Top/gsuUGlwQoyLKplw+TC7Syx0K52qU3C5aXNCg==',
    ],
    [
      'iso-8859-2',
      'Północna wieś',
      'bnVtZXIsd29qZXfzZHp0d28semF382QKMSxQ87Nub2NuYSB3aWW2LHJvbG5payBpIG2zeW5hcnogvGS8YrNvCjIsbWlhc3RvIG5hZCByemVrsSxuYXVjenljaWVsIL95amUKbnVtZXIsd29qZXfzZHp0d28semF382QKMSxQ87Nub2NuYSB3aWW2LHJvbG5payBpIG2zeW5hcnogvGS8YrNvCjIsbWlhc3RvIG5hZCByemVrsSxuYXVjenljaWVsIL95amUKbnVtZXIsd29qZXfzZHp0d28semF382QKMSxQ87Nub2NuYSB3aWW2LHJvbG5payBpIG2zeW5hcnogvGS8YrNvCjIsbWlhc3RvIG5hZCByemVrsSxuYXVjenljaWVsIL95amUKbnVtZXIsd29qZXfzZHp0d28semF382QKMSxQ87Nub2NuYSB3aWW2LHJvbG5payBpIG2zeW5hcnogvGS8YrNvCjIsbWlhc3RvIG5hZCByemVrsSxuYXVjenljaWVsIL95amUK',
    ],
  ] as const)('are told by their bytes: %s', (encoding, word, base64) => {
    const bytes = new Uint8Array(Buffer.from(base64, 'base64'));
    expect(guessEncoding(bytes).encoding).toBe(encoding);
    expect(new TextDecoder(encoding).decode(bytes)).toContain(word);
  });

  it('are told when they come after a long stretch of ASCII', async () => {
    const bytes = Uint8Array.from([
      ...utf8('id,name\n1,a\n'.repeat(40)),
      ...Buffer.from('7O7s5fAs7uHr4PHy/Cznrg=='.repeat(1), 'base64'),
    ]);
    const { turned } = await text(bytes, 'utf-8', 90);
    expect(turned).toHaveLength(1);
  });

  it('are not seen in a few accents, and Japanese of seven bits is', () => {
    expect(
      guessEncoding(new Uint8Array(Buffer.from('Nr,Ort\n1,M\xfcnchen\n2,K\xf6ln\n', 'latin1'))).encoding,
    ).toBe('windows-1252');
    expect(guessEncoding(Uint8Array.of(0x1b, 0x24, 0x42, 0x46, 0x7c, 0x1b, 0x28, 0x42)).encoding).toBe(
      'iso-2022-jp',
    );
  });
});
