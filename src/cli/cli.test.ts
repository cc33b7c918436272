import { mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { beforeAll, describe, expect, it } from 'vitest';
import { crossSchema, everythingSchema } from '../core/inspect/cross-document';
import { dig, linesOf, scratch } from '../testing/dig';
import { rowsSchema } from '../core/inspect/rows-schema';
import { inspectionSchema } from '../core/inspect/schema';

const path = scratch('cli');
const folder = path('');

describe('dig', () => {
  beforeAll(async () => void (await dig('demo', folder)));

  it('demo makes the folder that it is told, with those above it', async () => {
    const { code, err } = await dig('demo', path('new/one'));
    expect(code).toBe(0);
    expect(readdirSync(path('new/one')).filter((name) => name.endsWith('.csv')).length).toBeGreaterThan(0);
    expect(linesOf(err).length).toBe(readdirSync(path('new/one')).length);
    writeFileSync(path('taken'), '');
    const refused = await dig('demo', path('taken/below'));
    expect(refused.code).toBe(2);
    expect(linesOf(refused.err)).toEqual([expect.stringContaining('cannot be made a folder')]);
  });

  it('inspect --set narrows variables and flags to a set, and says which names are near where there is none', async () => {
    const files = [path('upkeep_2022.csv'), '--codebook', path('upkeep.xml')];
    const whole = inspectionSchema.parse(JSON.parse((await dig('inspect', ...files)).out));
    const group = whole.sets.find(({ name }) => name === 'Heating and rooms');
    const { out } = await dig('inspect', ...files, '--set', 'heating AND rooms');
    const narrowed = inspectionSchema.parse(JSON.parse(out));
    expect(narrowed.variables).toEqual(whole.variables.filter(({ name }) => group?.variables.includes(name)));
    expect(narrowed.flags.length).toBeGreaterThan(0);
    for (const { variables } of narrowed.flags)
      expect(variables.some((name) => group?.variables.includes(name))).toBe(true);
    expect(narrowed.flags.length).toBeLessThan(whole.flags.length);
    writeFileSync(
      path('sets.json'),
      JSON.stringify({
        format: 'dig-first-log',
        version: 3,
        extract: 'upkeep_2022',
        entries: [
          {
            id: 'm',
            at: '2026-01-05T10:00:00Z',
            why: null,
            type: 'make-set',
            set: 's',
            name: 'Mine',
            variables: ['rooms', 'fuel'],
          },
          {
            id: 'd',
            at: '2026-01-05T10:00:00Z',
            why: null,
            type: 'send-away',
            name: 'Weights',
            variables: ['wt_hh', 'wt_pop'],
          },
        ],
      }),
    );
    const ruled = await dig('inspect', ...files, '--rulings', path('sets.json'), '--set', 'Mine');
    const mine = inspectionSchema.parse(JSON.parse(ruled.out));
    expect(mine.variables.map(({ name }) => name)).toEqual(['rooms', 'fuel']);
    expect(mine.sets[0]).toMatchObject({ name: 'Mine', from: 'person', confidence: 1 });
    expect(mine.sets.some(({ name }) => name === 'Weights')).toBe(false);
    const none = await dig('inspect', ...files, '--set', 'Heating');
    expect(none.code).toBe(2);
    expect(linesOf(none.err)).toEqual([expect.stringMatching(/--set Heating.*near are “Heating and rooms”/)]);
  });

  it('inspect --out leaves what stood there where it cannot write, and no half file beside', async () => {
    writeFileSync(path('s.csv'), 'a,b\n1,2\n');
    mkdirSync(path('out'));
    writeFileSync(path('out/o.json'), 'before');
    // A folder stands where the document is to go.
    mkdirSync(path('out/folder'));
    const { code, err } = await dig('inspect', path('s.csv'), '--out', path('out/folder'));
    expect(code).toBe(2);
    expect(linesOf(err)).toEqual([expect.stringMatching(/out\/folder: cannot be written \(\w+\)/)]);
    const bad = await dig('inspect', path('none.csv'), '--out', path('out/o.json'));
    expect(bad.code).toBe(2);
    expect(readFileSync(path('out/o.json'), 'utf8')).toBe('before');
    expect(readdirSync(path('out')).sort()).toEqual(['folder', 'o.json']);
  });

  it('inspect prints the inspection and nothing else', async () => {
    const { code, out } = await dig(
      'inspect',
      ...[2019, 2020, 2021, 2022].map((year) => path(`upkeep_${year}.csv`)),
      '--codebook',
      path('upkeep.xml'),
    );
    expect(code).toBe(0);
    const document = inspectionSchema.parse(JSON.parse(out));
    expect(document).toMatchObject({
      rows: 11_902,
      source: { name: 'upkeep', files: [{ wave: '2019' }, {}, {}, { wave: '2022' }] },
    });
    expect(new Set(document.flags.map(({ rule }) => rule)).size).toBeGreaterThanOrEqual(30);
    expect(document.variables.every(({ confirmed }) => !confirmed)).toBe(true);
  });

  it('inspect --out writes a file, takes several files, and tells notices on standard error', async () => {
    writeFileSync(path('a.csv'), 'x,y\n1,2\n3\n');
    writeFileSync(path('b.csv'), 'x,y,z\n5,6,7\n');
    const { code, out, err } = await dig('inspect', path('a.csv'), path('b.csv'), '--out', path('o.json'));
    expect([code, out]).toEqual([0, '']);
    expect(linesOf(err)).toEqual([
      'a.csv, line 3: row has 1 cell, 2 expected',
      'b.csv has z, which a.csv lacks; the 2 rows before are blank there',
    ]);
    expect(inspectionSchema.parse(JSON.parse(readFileSync(path('o.json'), 'utf8'))).rows).toBe(3);
  });

  it.each([
    [
      'a delimiter, no header, decimal commas',
      'a;1,5\nb;2,25\n',
      ['--delimiter', 'semicolon', '--header', 'no', '--decimal', ','],
      {
        variables: [
          { name: 'column_1' },
          { name: 'column_2', storage: 'decimal', statistics: { max: 2.25 } },
        ],
      },
    ],
    [
      'the order of dates',
      'day\n03/04/2021\n05/06/2021\n',
      ['--date-order', 'mdy'],
      { variables: [{ storage: 'date', statistics: { min: '2021-03-04' } }] },
    ],
    [
      'texts for nothing',
      'x\n1\n2\nNA\n',
      ['--missing', 'NA'],
      {
        variables: [
          {
            counts: { missing: 1, valid: 2 },
            missingCodes: [{ code: 'NA', reason: 'other', declaredBy: 'ruling' }],
          },
        ],
      },
    ],
    [
      'only some rows and columns',
      'a,b,c\n1,2,3\n4,5,6\n7,8,9\n',
      ['--rows', '2', '--columns', 'a,c'],
      {
        rows: 2,
        variables: [{ name: 'a' }, { name: 'c' }],
        source: { part: { rows: 2, names: ['a', 'c'] }, files: [{ partial: true }] },
      },
    ],
    [
      'titles and an encoding',
      'Homes\nof Ostrey\nk\u00e4se,b\n1,2\n',
      ['--titles', '2', '--encoding', 'utf-8'],
      { variables: [{ name: 'käse' }, { name: 'b' }] },
    ],
  ])('inspect takes %s from its options', async (_, text, options, expected) => {
    writeFileSync(path('o.csv'), text);
    const { code, out, err } = await dig('inspect', path('o.csv'), ...options);
    expect([code, code === 0 ? '' : err]).toEqual([0, '']);
    expect(inspectionSchema.parse(JSON.parse(out))).toMatchObject(expected);
  });

  it('inspect --hold sample counts all rows and holds some, and says so; as memory allows it holds all', async () => {
    const rows = Array.from({ length: 2000 }, (_, i) => `${i % 7},${(i * 37) % 1999}`).join('\n');
    writeFileSync(path('l.csv'), `rooms,rent\n${rows}\n`);
    const all = inspectionSchema.parse(JSON.parse((await dig('inspect', path('l.csv'))).out));
    const { out, err } = await dig('inspect', path('l.csv'), '--hold', 'sample');
    const some = inspectionSchema.parse(JSON.parse(out));
    expect([all.source.pass, some.source.pass?.rows]).toEqual([undefined, 2000]);
    expect(some.variables).toEqual(all.variables);
    expect(err).toMatch(
      /all 2000 rows were read and counted once.*\n.*not looked for, since that takes all rows: /,
    );
    expect((await dig('inspect', path('l.csv'), '--hold', 'most')).code).toBe(2);
  });

  it('inspect reads a large file with two threads as with one', async () => {
    const rows = Array.from(
      { length: 240_000 },
      (_, i) =>
        `H${String(i).padStart(7, '0')},${1 + (i % 7)},${((i * 37) % 100_000) / 100},Fenwater ${i % 20},${i % 90},"stone, brick",${i}\n`,
    );
    writeFileSync(path('large.csv'), `home,rooms,rent,place,age,walls,order\n${rows.join('')}`);
    for (const hold of ['all', 'sample']) {
      const [one, two] = [
        await dig('inspect', path('large.csv'), '--hold', hold, '--threads', '1'),
        await dig('inspect', path('large.csv'), '--hold', hold, '--threads', '2'),
      ];
      expect(two).toEqual(one);
      expect(inspectionSchema.parse(JSON.parse(two.out)).rows).toBe(240_000);
    }
  });

  it('inspect proposes by standing rules, and says what is wrong with a file that holds none', async () => {
    writeFileSync(
      path('s.csv'),
      `age,hours\n${Array.from({ length: 60 }, (_, i) => `${i % 10 ? 20 + i : -8},${i % 40}`).join('\n')}\n`,
    );
    writeFileSync(
      path('standing.json'),
      JSON.stringify({
        format: 'dig-first-standing-rules',
        version: 1,
        rules: [{ id: 'a', code: '-8', reason: 'not-asked', names: '*', note: 'the guide' }],
      }),
    );
    const { code, out } = await dig('inspect', path('s.csv'), '--standing-rules', path('standing.json'));
    expect(code).toBe(0);
    expect(
      inspectionSchema.parse(JSON.parse(out)).flags.filter(({ codes }) => codes.includes('-8')),
    ).toMatchObject([
      { rule: 'standing-rule', variables: ['age'], codes: ['-8'], rows: 6, reason: 'not-asked' },
    ]);
    writeFileSync(
      path('standing.json'),
      JSON.stringify({
        format: 'dig-first-standing-rules',
        version: 1,
        rules: [{ id: 'a', code: '-8', reason: 'forgotten', names: '*', note: '' }],
      }),
    );
    const bad = await dig('inspect', path('s.csv'), '--standing-rules', path('standing.json'));
    expect(bad.code).toBe(2);
    expect(linesOf(bad.err)[0]).toMatch(
      /standing\.json.*rules\.0\.reason.*this is no file of standing rules that is known here/,
    );
  });

  it('inspect finds the wave, or makes it', async () => {
    writeFileSync(path('h_2020.csv'), 'id,n\na,1\n');
    writeFileSync(path('h_2021.csv'), 'id,n\na,2\nb,3\n');
    const { out, err } = await dig(
      'inspect',
      path('h_2020.csv'),
      path('h_2021.csv'),
      '--wave-from',
      'file-name',
    );
    expect(inspectionSchema.parse(JSON.parse(out)).variables.at(-1)).toMatchObject({
      name: 'wave',
      frequencies: [
        { code: '2020', count: 1 },
        { code: '2021', count: 2 },
      ],
    });
    expect(linesOf(err)).toEqual(['wave was made of what the files are called: 2020, 2021']);
  });

  it('inspect lays a saved log over the extract first, and tells what does not fit', async () => {
    writeFileSync(
      path('h.csv'),
      `id,rooms,town\n${Array.from({ length: 40 }, (_, i) => `H${100 + i},${i % 8 === 7 ? 99 : 1 + (i % 6)},${i === 3 ? 'fenwater' : 'Fenwater'}`).join('\n')}\n`,
    );
    const entry = (id: string, decision: object): object => ({
      id,
      at: '2026-01-05T10:00:00Z',
      why: null,
      ...decision,
    });
    writeFileSync(
      path('log.json'),
      JSON.stringify({
        format: 'dig-first-log',
        version: 1,
        extract: 'h',
        entries: [
          entry('1', {
            type: 'declare-missing',
            variables: ['rooms', 'gone'],
            codes: [{ code: '99', reason: 'refused' }],
            rule: 'sentinel-code',
          }),
          entry('2', {
            type: 'merge-codes',
            variables: ['town'],
            codes: ['fenwater'],
            into: 'Fenwater',
            rule: 'variant-spelling',
          }),
          entry('3', { type: 'set-aside', rows: [0, 4000], rule: null }),
          entry('4', { type: 'accept-universe', variable: 'rooms', by: 'boiler', shut: ['2'] }),
          entry('5', {
            type: 'merge-codes',
            variables: ['town'],
            codes: ['Fenwatter'],
            into: 'Fenwater',
            rule: null,
          }),
        ],
      }),
    );
    const { code, out, err } = await dig('inspect', path('h.csv'), '--rulings', path('log.json'));
    expect(code).toBe(0);
    const { variables } = inspectionSchema.parse(JSON.parse(out));
    expect(variables.slice(1)).toMatchObject([
      { name: 'rooms', counts: { all: 39, missing: 5 } },
      {
        name: 'town',
        counts: { distinct: 1, valid: 39 },
        frequencies: [{ code: 'Fenwater', count: 39, spellings: ['Fenwater', 'fenwater'] }],
      },
    ]);
    expect(linesOf(err)).toEqual([
      'did not fit: 99 (refused) declared missing in rooms, gone (there is no gone here)',
      'did not fit: rooms not asked where boiler is 2 (there is no boiler here)',
      'did not fit: “Fenwatter” taken for “Fenwater” in town (no row holds Fenwatter)',
      'row 4001 was to be set aside, but there is no row 4001: the extract has 40',
    ]);
    writeFileSync(path('nolog.json'), '{"format":"other"}');
    expect((await dig('inspect', path('h.csv'), '--rulings', path('nolog.json'))).err).toMatch(
      /nolog\.json, element format: this is no dig log/,
    );
  });

  it('inspect reads the fixed-width twin by its codebook', async () => {
    const { code, out } = await dig(
      'inspect',
      path('upkeep_2022_fixed.dat'),
      '--codebook',
      path('upkeep_2022_fixed.xml'),
    );
    expect(code).toBe(0);
    expect(inspectionSchema.parse(JSON.parse(out))).toMatchObject({
      rows: 2987,
      source: { files: [{ form: 'fixed-width', columns: 184 }] },
    });
  });

  it.each([
    ['no such file', () => [path('none.csv')], /none\.csv: there is no such file/],
    [
      'an empty file',
      () => {
        writeFileSync(path('e.csv'), '');
        return [path('e.csv')];
      },
      /e\.csv: the file is empty/,
    ],
    [
      'an unclosed quote',
      () => {
        writeFileSync(path('q.csv'), 'a,b\n1,"2\n');
        return [path('q.csv')];
      },
      /q\.csv, line 2: /,
    ],
    [
      'a broken codebook',
      () => {
        writeFileSync(path('k.xml'), '<codeBook>\n<var>');
        return [path('a.csv'), '--codebook', path('k.xml')];
      },
      /k\.xml, line 2.*element/,
    ],
    [
      'a data file given as codebook',
      () => {
        writeFileSync(path('d.csv'), 'x,y\n1,2\n3,4\n');
        return [path('a.csv'), '--codebook', path('d.csv')];
      },
      /d\.csv: this is no codebook/,
    ],
    [
      'a codebook without data',
      () => {
        writeFileSync(path('c.xml'), '<codeBook><dataDscr><var name="a"/></dataDscr></codeBook>');
        return [path('c.xml')];
      },
      /there is no data here/,
    ],
    ['a sheet that is not there', () => [path('a.csv'), '--sheet', 'Homes', '--form', 'workbook'], /a\.csv/],
    [
      'JSON that breaks off',
      () => {
        writeFileSync(path('j.json'), '[{"a":1},\n{"a"');
        return [path('j.json')];
      },
      /j\.json, line 2: the JSON ends/,
    ],
    ['a delimiter of two signs', () => [path('a.csv'), '--delimiter', '::'], /no single character/],
    ['a folder', () => [folder], /this is no file/],
    ['no file at all', () => [], /name a file, or a table with --database and --table/],
  ])('refuses %s with one line and exit 2', async (_, args, says) => {
    const { code, out, err } = await dig('inspect', ...args());
    expect([code, out]).toEqual([2, '']);
    expect(linesOf(err)).toHaveLength(1);
    expect(err).toMatch(says);
  });

  describe('with a sieve', () => {
    const files = [path('upkeep_2022.csv'), '--codebook', path('upkeep.xml')];
    const sieve = (...conditions: unknown[]): string => {
      const name = path(`sieve-${JSON.stringify(conditions).length}.json`);
      writeFileSync(name, JSON.stringify({ format: 'dig-first-sieve', version: 1, name: 'x', conditions }));
      return name;
    };
    const owned = { variable: 'tenure', codes: ['1', '77'] };
    const roomy = { variable: 'rooms', from: 4, to: 6 };

    it('rows prints the records kept, in order, with the account; codes that no row holds are no error', async () => {
      const { out, err, code } = await dig(
        'rows',
        ...files,
        ...[
          '--sieve',
          sieve(owned, roomy),
          '--variables',
          'rooms,tenure',
          '--sort',
          'rooms:down',
          '--sort',
          'hhid',
        ],
        ...['--take', '3', '--from', '2'],
      );
      expect(code).toBe(0);
      expect(linesOf(err)).toContainEqual(expect.stringContaining('no row holds 77 in tenure'));
      const { rows, sieve: account, found, records } = rowsSchema.parse(JSON.parse(out));
      expect(found).toBe(null);
      expect(rows.all).toBe(2987);
      expect(account.map(({ keeps, drops }) => keeps + drops)).toEqual([2987, 2987]);
      expect(account[1].left).toBe(rows.kept);
      expect(records.length).toBe(3);
      for (const { cells, line, row } of records) {
        expect(line).toBe(row + 1);
        expect(cells.map(({ raw }) => raw)).toEqual(['6', '1']);
        expect(cells[1].label).toBe('Owned outright');
      }
    });

    it('rows --dropped says which conditions a row fails, and --find looks in what is shown', async () => {
      const given = [
        'rows',
        ...files,
        '--sieve',
        sieve(owned, roomy),
        '--variables',
        'rooms,tenure',
        '--dropped',
      ];
      const { records } = rowsSchema.parse(JSON.parse((await dig(...given)).out));
      for (const {
        failed,
        cells: [rooms, tenure],
      } of records)
        expect(failed).toEqual([
          ...(tenure.raw === '1' ? [] : [0]),
          ...(Number(rooms.raw) >= 4 && Number(rooms.raw) <= 6 && rooms.state === 'valid' ? [] : [1]),
        ]);
      const { found } = rowsSchema.parse(
        JSON.parse((await dig(...given, '--find', 'OWNED WITH', '--take', '0')).out),
      );
      expect(found).toBeGreaterThan(100);
    });

    it('inspect counts the rows kept alone, and says so', async () => {
      const all = inspectionSchema.parse(JSON.parse((await dig('inspect', ...files)).out));
      const { rows, source, variables } = inspectionSchema.parse(
        JSON.parse((await dig('inspect', ...files, '--sieve', sieve(owned))).out),
      );
      expect(source.rows).toEqual({ all: 2987, aside: 0, kept: rows });
      const tenure = variables.find(({ name }) => name === 'tenure');
      expect(tenure?.frequencies.map(({ code, count }) => [code, count])).toEqual([['1', rows]]);
      for (const { counts } of variables) expect(counts.all).toBe(rows);
      expect(variables.map(({ kind, storage, role }) => [kind, storage, role])).toEqual(
        all.variables.map(({ kind, storage, role }) => [kind, storage, role]),
      );
    });

    it.each<[string, string[], RegExp]>([
      [
        'a variable that is not there',
        ['rows', '--sieve', sieve({ variable: 'tenur', codes: ['1'] })],
        /conditions\.0: there is no variable tenur; near are tenure/,
      ],
      [
        'ends that do not suit',
        ['inspect', '--sieve', sieve({ variable: 'town', from: 1 })],
        /town: from 1 does not suit it/,
      ],
      ['ends that cross', ['rows', '--sieve', sieve({ variable: 'rooms', from: 9, to: 1 })], /lies above/],
      [
        'an unknown form',
        ['rows', '--sieve', sieve({ variable: 'rooms', near: 1 })],
        /a condition has one test/,
      ],
      ['no sieve to drop by', ['rows', '--dropped'], /without a sieve no row is dropped/],
      [
        'an unknown variable to sort by',
        ['rows', '--sort', 'roms:down'],
        /--sort roms: there is no variable roms; near are rooms/,
      ],
      ['nothing to find', ['rows', '--find', ''], /nothing to look for/],
      ['rows from nought', ['rows', '--from', '0'], /counted from 1/],
    ])('%s ends with 2 and one line', async (_, [command, ...options], says) => {
      const { code, err, out } = await dig(command, path('upkeep_2022.csv'), ...options);
      expect([code, out]).toEqual([2, '']);
      expect(linesOf(err)).toEqual([expect.stringMatching(says)]);
    });
  });

  describe('with trial recodes and cross-checks', () => {
    const files = [path('upkeep_2022.csv'), '--codebook', path('upkeep.xml')];
    const recodes = (name: string, ...made: unknown[]): string => {
      writeFileSync(path(name), JSON.stringify({ format: 'dig-first-recodes', version: 1, recodes: made }));
      return path(name);
    };
    const bands = [
      { to: 39, code: '1', label: 'Younger' },
      { from: 40, code: '2', label: 'Older' },
    ];
    const good = recodes('recodes.json', { name: 'age2', of: 'age', bands });

    it('cross prints a table, a recode down, with measures and weights, and small cells marked', async () => {
      const { out, code } = await dig(
        ...[
          'cross',
          ...files,
          '--recodes',
          good,
          '--down',
          'age2',
          '--across',
          'tenure',
          '--within',
          'intmode',
        ],
        ...['--weight', 'wt_hh', '--measure', 'rooms', '--small', '5'],
      );
      expect(code).toBe(0);
      const { down, within, tables, base, weight } = crossSchema.parse(JSON.parse(out));
      expect(weight).toBe('wt_hh');
      expect(down.codes).toEqual([
        { code: '1', label: 'Younger', state: 'valid' },
        { code: '2', label: 'Older', state: 'valid' },
      ]);
      expect(tables.length).toBe((within?.codes.length ?? 0) + 1);
      expect(tables.at(-1)?.rows).toBe(base.rows);
      expect(base.rows + Object.values(base.leftOut).reduce((sum, n) => sum + n, 0)).toBe(2987);
      for (const { cells } of tables)
        for (const { rows, small } of cells) expect(small).toBe(rows > 0 && rows < 5);
    });

    it('cross --everything ranks all others, and recodes stand at the end of the inspection', async () => {
      const { out } = await dig('cross', ...files, '--down', 'intmode', '--everything');
      const { pairs } = everythingSchema.parse(JSON.parse(out));
      const strength = pairs.map(({ cramersV, etaSquared }) => cramersV ?? Math.sqrt(etaSquared ?? 0));
      expect(strength).toEqual([...strength].sort((a, b) => b - a));
      const told = inspectionSchema.parse(
        JSON.parse((await dig('inspect', ...files, '--recodes', good)).out),
      );
      expect(told.variables.at(-1)).toMatchObject({ name: 'age2', trial: true, kind: 'ordinal' });
    });

    it.each<[string, string[], RegExp]>([
      [
        'bands that overlap',
        [
          'inspect',
          '--recodes',
          recodes('r1.json', { name: 'b', of: 'age', bands: [{ to: 40, code: '1' }, bands[1]] }),
        ],
        /bands 1 and 2 overlap from 40 to 40/,
      ],
      [
        'a name that exists',
        ['rows', '--recodes', recodes('r2.json', { name: 'age', of: 'age', bands })],
        /there is a variable age already/,
      ],
      [
        'a variable that is not there',
        ['cross', '--down', 'tenur'],
        /--down tenur: there is no variable tenur; near are tenure/,
      ],
      ['too many lines', ['cross', '--down', 'age'], /put it into bands first/],
      [
        'a measure that is none',
        ['cross', '--down', 'tenure', '--measure', 'town'],
        /only counts and continuous/,
      ],
      ['nothing to stand down', ['cross'], /--down/],
    ])('%s ends with 2', async (_, [command, ...options], says) => {
      const { code, err, out } = await dig(command, path('upkeep_2022.csv'), ...options);
      expect([code, out]).toEqual([2, '']);
      expect(err).toMatch(says);
    });
  });

  it.each([
    ['--threads', '7', /it has to be 1 or 2/],
    ['--rows', '0', /it has to be 1 or more/],
    ['--columns', ',', /it names no variable/],
    ['--columns', 'age,age', /it names age twice/],
    ['--wave-from', 'zzz', /there is no variable zzz/],
  ])('with %s %s ends with 2 and one line', async (option, value, says) => {
    const { code, err, out } = await dig('inspect', path('upkeep_2022.csv'), option, value);
    expect([code, out]).toEqual([2, '']);
    expect(linesOf(err)).toEqual([expect.stringMatching(says)]);
  });
});
