import { createHash } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { manifestSchema } from '../core/handoff/manifest';
import { inspectionSchema } from '../core/inspect/schema';
import { dig, digOnFullDisk, linesOf, scratch } from '../testing/dig';

const path = scratch('handoff');

const ROWS = Array.from(
  { length: 40 },
  (_, i) => `H${1000 + i},${1 + (i % 3)},${18 + i},${i === 3 ? '=1+1' : 'x'}`,
);
writeFileSync(path('homes.csv'), `hhid,tenure,age,remark\n${ROWS.join('\n')}\n`);
writeFileSync(
  path('kept.json'),
  JSON.stringify({
    format: 'dig-first-sieve',
    version: 1,
    name: 'some',
    conditions: [{ variable: 'age', from: 20, to: 21 }],
  }),
);

describe('dig handoff', () => {
  it('never writes over what it reads, however the place is named', async () => {
    mkdirSync(path('own'));
    const own = join(path('own'), 'homes.csv');
    writeFileSync(own, readFileSync(path('homes.csv')));
    const { code, err } = await dig(
      'handoff',
      own,
      '--to',
      join(path('own'), '..', 'own'),
      '--form',
      'delimited',
      '--sieve',
      path('kept.json'),
      '--replace',
    );
    expect(code).toBe(2);
    expect(err).toMatch(/^.*homes\.csv: is what is read here.*--to\n$/m);
    expect(readFileSync(own)).toEqual(readFileSync(path('homes.csv')));
    expect(readdirSync(path('own'))).toEqual(['homes.csv']);
  });

  it('writes what was chosen with codebook, log and manifest, says who goes along, and never over a file unasked', async () => {
    const to = path('out/of');
    const args = [
      'handoff',
      path('homes.csv'),
      '--to',
      to,
      '--form',
      'data-package,json',
      '--variables',
      'age,remark',
      '--sieve',
      path('kept.json'),
      '--harmless',
    ];
    const { code, out, err } = await dig(...args);
    expect(code).toBe(0);
    const manifest = manifestSchema.parse(JSON.parse(out));
    expect(manifest).toMatchObject({
      rows: { all: 40, aside: 0, kept: 2 },
      variables: ['hhid', 'age', 'remark'],
      wentAlong: ['hhid'],
      leftOut: ['tenure'],
    });
    expect(err).toContain('went along without being named: hhid');
    expect(readdirSync(to).sort()).toEqual([
      'datapackage.json',
      'homes-dig-log.json',
      'homes.csv',
      'homes.ndjson',
      'manifest.json',
    ]);
    expect(readFileSync(join(to, 'homes.csv'), 'utf8')).toBe(
      "hhid,age,remark\r\nH1002,20,x\r\nH1003,21,'=1+1\r\n",
    );
    for (const { name, bytes, sha256 } of manifest.files) {
      const written = readFileSync(join(to, name));
      expect([written.length, createHash('sha256').update(written).digest('hex')]).toEqual([bytes, sha256]);
    }
    expect(manifestSchema.parse(JSON.parse(readFileSync(join(to, 'manifest.json'), 'utf8')))).toEqual(
      manifest,
    );
    writeFileSync(join(to, 'homes.csv'), 'mine');
    const again = await dig(...args);
    expect(again.code).toBe(2);
    expect(again.err).toMatch(/is there already.*--replace/);
    expect(readFileSync(join(to, 'homes.csv'), 'utf8')).toBe('mine');
    expect((await dig(...args, '--replace', '--alone')).code).toBe(0);
    expect(readFileSync(join(to, 'homes.csv'), 'utf8')).toMatch(/^age,remark\r\n/);
  }, 60_000);

  it('ends with 2 and one line for what cannot be, and leaves no half file', async () => {
    const strange = await dig('handoff', path('homes.csv'), '--to', path('x'), '--form', 'delimited,tape');
    expect([strange.code, strange.err]).toEqual([
      2,
      expect.stringMatching(/“tape” is no form.*delimited, data-package/),
    ]);
    const near = await dig(
      'handoff',
      path('homes.csv'),
      '--to',
      path('x'),
      '--form',
      'json',
      '--variables',
      'tenur',
    );
    expect([near.code, near.err]).toEqual([2, expect.stringMatching(/tenure/)]);
    // A folder stands where a file is to be.
    const to = path('blocked');
    mkdirSync(join(to, '.homes.ndjson'), { recursive: true });
    mkdirSync(join(to, 'homes-dig-log.json'));
    const blocked = await dig('handoff', path('homes.csv'), '--to', to, '--form', 'json', '--replace');
    expect(blocked.code).toBe(2);
    expect(existsSync(join(to, 'homes.ndjson'))).toBe(false);
    expect(readdirSync(to).filter((name) => name.endsWith('.part'))).toEqual([]);
    chmodSync(to, 0o755);
  }, 60_000);

  it('opens what was handed off under its log again, from the folder', async () => {
    const log = path('log.json');
    const entry = (id: string, more: object): object => ({
      id,
      at: '2026-01-05T10:00:00.000Z',
      why: null,
      ...more,
    });
    writeFileSync(
      log,
      JSON.stringify({
        format: 'dig-first-log',
        version: 5,
        extract: 'homes',
        entries: [
          entry('1', { type: 'confirm-kind', kinds: [{ variable: 'tenure', kind: 'nominal' }] }),
          entry('2', { type: 'rename', variable: 'age', name: 'years', label: 'Age in years' }),
          entry('3', { type: 'note', variable: 'age', text: 'At interview' }),
        ],
      }),
    );
    const to = path('back');
    const files = [path('homes.csv'), '--rulings', log];
    expect((await dig('handoff', ...files, '--to', to, '--form', 'csvw,report')).code).toBe(0);
    const before = inspectionSchema.parse(JSON.parse((await dig('inspect', ...files)).out));
    const { code, out, err } = await dig('inspect', to);
    const after = inspectionSchema.parse(JSON.parse(out));
    expect(code).toBe(0);
    expect(after.variables).toEqual(before.variables);
    expect(after.source.replay?.fits).toHaveLength(3);
    expect(linesOf(err)).toEqual(
      expect.arrayContaining([
        'homes-dig-log.json is laid: 3 rulings',
        expect.stringMatching(/homes-report\.html was passed over/),
      ]),
    );
  }, 60_000);

  it('reads the next file as the log says the last one was read, and says what that changed', async () => {
    writeFileSync(path('old.csv'), 'a;b\n1;2\n3;4\n');
    expect(
      (await dig('handoff', path('old.csv'), '--header', 'no', '--to', path('old'), '--form', 'json')).code,
    ).toBe(0);
    writeFileSync(path('new.csv'), 'a;b\n5;6\n7;8\n');
    const { out, err } = await dig('inspect', path('new.csv'), '--rulings', path('old/old-dig-log.json'));
    expect(inspectionSchema.parse(JSON.parse(out)).rows).toBe(3);
    expect(linesOf(err)).toContain('new.csv: first row: is data, as the earlier extract was read');
  }, 60_000);

  it('ends with 2 where the disk is full, or the folder refused, and leaves nothing behind', async () => {
    writeFileSync(path('long.csv'), `x\n${'abcdefghij\n'.repeat(40_000)}`);
    for (const form of ['delimited', 'workbook', 'parquet']) {
      const to = path(`full-${form}`);
      const full = await digOnFullDisk(
        form === 'delimited' ? 64 : 0,
        'handoff',
        path('long.csv'),
        '--to',
        to,
        '--form',
        form,
      );
      expect([full.code, linesOf(full.err).at(-1)]).toEqual([
        2,
        expect.stringMatching(/long\.\w+: cannot be written \(EFBIG\); nothing was changed there/),
      ]);
      expect(readdirSync(to)).toEqual([]);
    }
    writeFileSync(path('file'), '');
    const refused = await dig('handoff', path('homes.csv'), '--to', path('file/below'), '--form', 'json');
    expect([refused.code, linesOf(refused.err)]).toEqual([
      2,
      [expect.stringContaining('cannot be made a folder (ENOTDIR)')],
    ]);
  }, 60_000);
});
