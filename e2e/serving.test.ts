import { request } from 'node:http';
import { describe, expect, inject, it } from 'vitest';

interface Answer {
  status: number;
  headers: Record<string, unknown>;
}
const ask = (
  path: string,
  { method = 'GET', host }: { method?: string; host?: string } = {},
): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const { hostname, port } = new URL(inject('address'));
    request({ hostname, port, path, method, ...(host ? { headers: { Host: host } } : {}) }, (answer) => {
      answer.resume();
      answer.on('end', () => resolve({ status: answer.statusCode ?? 0, headers: answer.headers }));
    })
      .on('error', reject)
      .end();
  });

describe('every answer', () => {
  it('is isolated from other origins and carries a policy, pages, scripts and files alike', async () => {
    const page = await fetch(inject('address'));
    const script = /src="(\/_next\/static\/[^"]+\.js)"/.exec(await page.text())?.[1] ?? '';
    for (const path of ['/', script, '/demo/upkeep_2019.csv', '/demo/none', '/icon.svg']) {
      const { headers } = await ask(path);
      expect(headers, path).toMatchObject({
        'cross-origin-opener-policy': 'same-origin',
        'cross-origin-embedder-policy': 'require-corp',
        'cross-origin-resource-policy': 'same-origin',
        'x-content-type-options': 'nosniff',
      });
      expect(String(headers['content-security-policy']), path).toContain("default-src 'none'");
    }
    expect(String((await ask(script)).headers['content-security-policy'])).not.toContain('unsafe');
  });

  it('is refused under a name that is not this machine’s, and to what cannot be asked', async () => {
    expect((await ask('/', { host: 'evil.example' })).status).toBe(421);
    expect((await ask('/demo/upkeep.xml', { host: 'evil.example:80' })).status).toBe(421);
    expect((await ask('/', { host: 'localhost:1' })).status).toBe(200);
    for (const method of ['PUT', 'DELETE']) expect((await ask('/', { method })).status).toBe(405);
    expect((await ask('/demo/%')).status).toBe(400);
  });
});
