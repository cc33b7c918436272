import { gzipSync } from 'node:zlib';
import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { InputError, problemText } from '../extract/problem';
import { Inspector } from '../inspect/inspect';
import { inspectionSchema } from '../inspect/schema';
import { linkCodebooks } from '../codebook/link';
import { sourceOf } from '../read/source';
import { bring } from './bring';
import { readExtract } from './receive';

type Content = string | Uint8Array;

/** What becomes of files: the inspection with all that was noticed, or the problem in words. Anything else is a defect and thrown. */
async function receive(
  ...files: [string, Content][]
): Promise<{ dig: Inspector; notices: string } | { problem: string }> {
  try {
    const { brought, notices } = await bring(
      files.map(([name, content], i) => ({ key: String(i), source: sourceOf(name, content) })),
    );
    const problem = brought.find((one) => one.what === 'problem');
    if (problem) return { problem: problemText(problem.problem) };
    // A changed byte can hide a member of an archive: a codebook alone is then what there is, and no defect.
    if (!brought.some((one) => one.what === 'data')) return { problem: 'brought: no data among it' };
    const extract = await readExtract(
      brought.flatMap((one) =>
        one.what === 'data' ? [{ source: one.source, look: one.look, layout: one.layout }] : [],
      ),
    );
    const dig = new Inspector(
      linkCodebooks(
        extract,
        brought.flatMap((one) => (one.what === 'codebook' ? [one.codebook] : [])),
      ),
    );
    inspectionSchema.parse(JSON.parse(JSON.stringify(dig.document())));
    const said = [
      ...notices,
      ...extract.files.flatMap((file) => file.notices.map(({ line, says }) => `${line ?? ''} ${says}`)),
      ...dig.notices.map(({ says }) => says),
    ];
    return { dig, notices: said.join('\n') };
  } catch (cause) {
    if (cause instanceof InputError) return { problem: problemText(cause.problem) };
    throw cause;
  }
}
const refusal = async (...files: [string, Content][]): Promise<string> => {
  const found = await receive(...files);
  return 'problem' in found ? found.problem : 'it was read';
};
const reading = async (...files: [string, Content][]): Promise<{ dig: Inspector; notices: string }> => {
  const found = await receive(...files);
  if ('problem' in found) throw new Error(found.problem);
  return found;
};

describe('input that cannot be used is refused with file, place and what to do', () => {
  const xml = (inside: string, before = ''): string =>
    `<?xml version="1.0"?>\n${before}<codeBook><dataDscr>\n${inside}</dataDscr></codeBook>`;
  const entities = `<!DOCTYPE codeBook [\n${Array.from({ length: 9 }, (_, i) => `<!ENTITY a${i + 1} "${`&a${i};`.repeat(10)}">`).join('\n')}\n<!ENTITY a0 "lol">]>\n`;
  it.each<[string, [string, Content][], RegExp]>([
    ['an empty file', [['e.csv', '']], /^e\.csv: the file is empty; fetch it again/],
    ['a file of blanks', [['b.csv', ' \n\t\n ']], /^b\.csv.*white space/],
    [
      'a program',
      [['p.csv', Uint8Array.of(0x7f, 0x45, 0x4c, 0x46, 2, 1, 1, 0, 0, 0)]],
      /^p\.csv: .*not delimited text/,
    ],
    [
      'bytes of all kinds',
      [['x.csv', Uint8Array.from({ length: 4000 }, (_, i) => (i * 7919) % 256)]],
      /^x\.csv: /,
    ],
    [
      'a cut gzip',
      [
        [
          'g.csv.gz',
          new Uint8Array(
            gzipSync(`a,b\n${Array.from({ length: 5000 }, (_, i) => `${i},${(i * 7919) % 997}`).join('\n')}`),
          ).subarray(0, 9000),
        ],
      ],
      /^g\.csv\.gz.*(cut|ends|damaged)/,
    ],
    [
      'a zip in a zip bomb’s clothes',
      [['z.zip', zipSync({ 'a.csv': new Uint8Array(0) })]],
      /^z\.zip: .*holds no file/,
    ],
    [
      'entities in XML',
      [['c.xml', xml('<var name="a"><labl>&a9;</labl></var>', entities)]],
      /^c\.xml.*entit/i,
    ],
    [
      'an outside entity',
      [
        [
          'c.xml',
          xml(
            '<var name="a"><labl>&x;</labl></var>',
            '<!DOCTYPE codeBook [<!ENTITY x SYSTEM "file:///etc/passwd">]>\n',
          ),
        ],
      ],
      /^c\.xml.*entit/i,
    ],
    ['XML that is not closed', [['c.xml', xml('<var name="a">\n<labl>A</var>')]], /^c\.xml, line 4.*element/],
    ['JSON that breaks off', [['r.json', '[{"a":1},\n{"a":']], /^r\.json, line 2: the JSON ends/],
    [
      'a quote that stays open',
      [['q.csv', `a,b\n1,2\n3,"4\n${'5,6\n'.repeat(50)}`]],
      /^q\.csv, line 3: a quotation mark opens here/,
    ],
    [
      'a page of the web',
      [['w.csv', '<!doctype html>\n<html><body>Sign in</body></html>']],
      /^w\.csv, line 1: .*HTML/,
    ],
    [
      'lines that never end',
      [['l.csv', 'a,'.repeat(80_000)]],
      /^l\.csv, line 1: the first row has \d+ cells/,
    ],
    ['a codebook alone', [['c.xml', xml('<var name="a"/>')]], /no data|none/i],
  ])('%s', async (_, files, says) => {
    expect(await refusal(...files)).toMatch(says);
  });
});

describe('odd input is read, and what is odd about it is noticed', () => {
  it('a header and no rows', async () => {
    const { dig, notices } = await reading(['h.csv', 'a,b,c\n']);
    expect([dig.extract.rows, dig.variables.map(({ kind }) => kind)]).toEqual([
      0,
      ['empty', 'empty', 'empty'],
    ]);
    expect(notices).toContain('a header and no rows');
  });

  it('names that are blank, double, or those of every object', async () => {
    const { dig, notices } = await reading([
      'n.csv',
      '__proto__,constructor,,a,a,hasOwnProperty, a \n1,2,3,4,5,6,7\n2,3,4,5,6,7,8\n',
    ]);
    expect(dig.extract.variables.map(({ name }) => name)).toHaveLength(7);
    expect(new Set(dig.extract.variables.map(({ name }) => name)).size).toBe(7);
    expect(dig.named('__proto__')?.counts).toMatchObject({ all: 2, valid: 2 });
    expect(dig.named('hasOwnProperty')?.levels.levels.map(({ code }) => code)).toEqual(['6', '7']);
    expect(notices).toMatch(/blank|no name/);
    expect(notices).toMatch(/twice|same name|a_2/);
  });

  it('codes and labels named as every object’s own things', async () => {
    const { dig } = await reading(
      ['p.csv', 'x\n__proto__\nconstructor\ntoString\n__proto__\n'],
      [
        'p.xml',
        '<codeBook><dataDscr><var name="x"><catgry missing="Y"><catValu>constructor</catValu><labl>__proto__</labl></catgry></var></dataDscr></codeBook>',
      ],
    );
    expect(dig.named('x')?.counts).toMatchObject({ all: 4, missing: 1, valid: 3, distinct: 2 });
  });

  it('bytes that are no UTF-8 in the midst of it', async () => {
    const bytes = new Uint8Array([
      ...strToU8(`id,town\n${'1,Häfnach\n'.repeat(40_000)}`),
      ...strToU8('2,H'),
      0xff,
      0xfe,
      ...strToU8('x\n3,Fen\n'),
    ]);
    const { dig, notices } = await reading(['u.csv', bytes]);
    expect(dig.extract.rows).toBe(40_002);
    expect(notices).toMatch(/not valid UTF-8/);
    expect(notices).toMatch(/40002 /);
  });

  it('NUL bytes in cells', async () => {
    const found = await receive(['nul.csv', `a,b\n${'1,2\n'.repeat(2000)}3,x\u0000y\n`]);
    if ('problem' in found) expect(found.problem).toMatch(/^nul\.csv/);
    else expect(found.dig.extract.variables[1].column.text(2000)).toBe('x\u0000y');
  });

  it('one line of fifty megabytes', async () => {
    const line = 'word '.repeat(10 << 20);
    expect(await refusal(['long.csv', line])).toMatch(/^long\.csv, line 1: /);
    const { dig } = await reading(['cell.csv', `a,b\n1,2\n3,"${line}"\n4,5\n`]);
    expect(dig.extract.variables[1].column.text(1)).toHaveLength(line.length);
    expect(dig.extract.rows).toBe(3);
  }, 60_000);

  it('two thousand five hundred columns', async () => {
    const names = Array.from({ length: 2500 }, (_, i) => `v${i + 1}`);
    const { dig } = await reading([
      'wide.csv',
      [names, ...Array.from({ length: 30 }, (_, r) => names.map((_, c) => String((r * c) % 7)))]
        .map((row) => row.join(','))
        .join('\n'),
    ]);
    expect([dig.extract.rows, dig.variables.length]).toEqual([30, 2500]);
  });

  it('rows short and long, each with its line', async () => {
    const { notices } = await reading(['r.csv', 'a,b,c\n1,2,3\n4,5\n6,7,8,9\n"x\ny",2,3\n1,2\n']);
    expect(notices).toContain('3 row has 2 cells, 3 expected');
    expect(notices).toContain('4 row has 4 cells, 3 expected; not read: 9');
    expect(notices).toContain('7 row has 2 cells, 3 expected');
  });
});

describe('whatever comes in', () => {
  const settled = async (name: string, content: Content): Promise<void> => {
    const found = await receive([name, content]);
    if ('problem' in found) {
      // The file, or the member of an archive, and what is wrong.
      expect(found.problem).toMatch(/^[\w.]+(, [a-z]+ [^:]+)*: \S/);
      return;
    }
    for (const { counts } of found.dig.variables)
      expect(counts.blank + counts.unreadable + counts.missing + counts.notAsked + counts.valid).toBe(
        found.dig.extract.rows,
      );
  };
  const runs = { numRuns: 150 };

  it('bytes of any kind are read or refused, never a defect', async () => {
    await fc.assert(
      fc.asyncProperty(fc.uint8Array({ maxLength: 300 }), (bytes) => settled('any.bin', bytes)),
      runs,
    );
  });

  it('text of any kind', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.string({
          unit: fc.constantFrom(
            'a',
            '1',
            ',',
            ';',
            '\t',
            '"',
            "'",
            '\n',
            '\r',
            ' ',
            '.',
            '-',
            'é',
            '\u0000',
            '<',
            '{',
            '[',
            '|',
            '\uFEFF',
          ),
        }),
        (text) => settled('any.txt', text),
      ),
      { numRuns: 400 },
    );
  });

  it('files that begin as some form does and go on as nothing does', async () => {
    const beginnings = [
      [0x1f, 0x8b, 8, 0],
      [0x50, 0x4b, 3, 4],
      [0x50, 0x41, 0x52, 0x31],
      [...strToU8('<?xml version="1.0"?><codeBook>')],
      [...strToU8('[{"a":')],
      [...strToU8('{"fields":[')],
      [0xff, 0xfe],
      [0xef, 0xbb, 0xbf],
    ];
    await fc.assert(
      fc.asyncProperty(fc.constantFrom(...beginnings), fc.uint8Array({ maxLength: 120 }), (start, rest) =>
        settled('begun', new Uint8Array([...start, ...rest])),
      ),
      runs,
    );
  });

  it('good files with a byte changed or an end cut off', async () => {
    const good: Uint8Array[] = [
      strToU8('id,town,n\n1,"Upper; Tarn",4\n2,Fenwater,5\n'),
      strToU8('[{"a":1,"b":"x"},{"a":2,"b":"y"}]'),
      new Uint8Array(gzipSync('a,b\n1,2\n3,4\n')),
      zipSync({
        'd.csv': strToU8('id,x\n1,2\n'),
        'c.xml': strToU8('<codeBook><dataDscr><var name="x"><labl>X</labl></var></dataDscr></codeBook>'),
      }),
    ];
    await fc.assert(
      fc.asyncProperty(
        fc.constantFrom(...good),
        fc.nat(400),
        fc.nat(255),
        fc.boolean(),
        async (bytes, at, byte, cut) => {
          const changed = cut ? bytes.slice(0, at % bytes.length) : Uint8Array.from(bytes);
          if (!cut) changed[at % bytes.length] = byte;
          await settled('changed', changed);
        },
      ),
      { numRuns: 400 },
    );
  }, 60_000);
});
