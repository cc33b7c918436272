import { createHash } from 'node:crypto';
import { execFile } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  writeFileSync,
} from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { describe, expect, it } from 'vitest';
import { manifestSchema } from '../core/handoff/manifest';

const run = promisify(execFile);
const folder = mkdtempSync(join(tmpdir(), 'dig-handoff-'));
const path = (name: string): string => join(folder, name);

async function dig(...args: string[]): Promise<{ code: number; out: string; err: string }> {
  try {
    const { stdout, stderr } = await run('npx', ['tsx', 'src/cli/main.ts', ...args], {
      cwd: join(import.meta.dirname, '../..'),
      maxBuffer: 1 << 28,
    });
    return { code: 0, out: stdout, err: stderr };
  } catch (cause) {
    const { code, stdout, stderr } = cause as { code: number; stdout: string; stderr: string };
    return { code, out: stdout, err: stderr };
  }
}

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
});
