import { execFileSync, spawnSync } from 'node:child_process';
import { chownSync, existsSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir, userInfo } from 'node:os';
import { join } from 'node:path';
import pg from 'pg';

const PACKAGES = '/usr/lib/postgresql';
const OWNER = 'dig';
const PASSWORD = 'a word: "with" @ signs/';

/** Where Debian's package puts the server; `null` where it is not installed. */
export function serverPrograms(): string | null {
  if (!existsSync(PACKAGES)) return null;
  const found = readdirSync(PACKAGES)
    .sort((a, b) => Number(b) - Number(a))
    .map((version) => join(PACKAGES, version, 'bin'))
    .find((folder) => existsSync(join(folder, 'initdb')));
  return found ?? null;
}

/** A server that is thrown away: on loopback alone, as an unprivileged user, with its data in a temporary folder. */
export class Cluster {
  private constructor(
    private readonly programs: string,
    private readonly folder: string,
    readonly port: number,
    private readonly as: { uid?: number; gid?: number },
  ) {}

  /** @throws Error where the server is not installed */
  static async start(settings: Readonly<Record<string, string>> = {}): Promise<Cluster> {
    const programs = serverPrograms();
    if (!programs) throw new Error('PostgreSQL is not installed: apt-get install postgresql');
    const folder = mkdtempSync(join(tmpdir(), 'dig-pg-'));
    // The server refuses to run as root.
    const as: { uid?: number; gid?: number } = userInfo().uid === 0 ? unprivileged() : {};
    if (as.uid !== undefined) chownSync(folder, as.uid, as.gid ?? as.uid);
    const words = join(folder, 'password');
    writeFileSync(words, PASSWORD);
    if (as.uid !== undefined) chownSync(words, as.uid, as.gid ?? as.uid);
    const cluster = new Cluster(programs, folder, await freePort(), as);
    cluster.run(
      'initdb',
      '-D',
      cluster.data,
      '-U',
      OWNER,
      '-A',
      'scram-sha-256',
      '--pwfile',
      words,
      '-E',
      'UTF8',
      '--locale=C.UTF-8',
      '--no-sync',
    );
    const given = {
      port: String(cluster.port),
      listen_addresses: "'127.0.0.1'",
      unix_socket_directories: `'${folder}'`,
      fsync: 'off',
      full_page_writes: 'off',
      autovacuum: 'off',
      ...settings,
    };
    writeFileSync(
      join(cluster.data, 'postgresql.auto.conf'),
      Object.entries(given)
        .map(([name, value]) => `${name} = ${value}\n`)
        .join(''),
    );
    cluster.go();
    return cluster;
  }

  private get data(): string {
    return join(this.folder, 'data');
  }

  /** Starts it, or starts it again. */
  go(): void {
    this.run('pg_ctl', '-D', this.data, '-l', join(this.folder, 'log'), '-w', 'start');
  }

  /** Ends it at once, whatever it is doing. */
  halt(): void {
    this.run('pg_ctl', '-D', this.data, '-m', 'immediate', '-w', 'stop');
  }

  /** Ends it and leaves nothing behind. */
  drop(): void {
    spawnSync(join(this.programs, 'pg_ctl'), ['-D', this.data, '-m', 'immediate', 'stop'], {
      ...this.as,
      stdio: 'ignore',
    });
    rmSync(this.folder, { recursive: true, force: true });
  }

  address(database = 'postgres', user = OWNER, password: string | null = PASSWORD): string {
    const word = password === null ? '' : `:${encodeURIComponent(password)}`;
    return `postgres://${user}${word}@127.0.0.1:${this.port}/${database}`;
  }

  /** Runs statements, as the owner of everything. */
  async sql(text: string, database = 'postgres', values?: unknown[]): Promise<unknown[]> {
    const client = new pg.Client({ connectionString: this.address(database) });
    await client.connect();
    try {
      return (await client.query<Record<string, unknown>>(text, values)).rows;
    } finally {
      await client.end();
    }
  }

  /** Loads delimited text with names in its first row, as the server's own `COPY` reads it. */
  load(table: string, text: string, database = 'postgres'): void {
    const psql = spawnSync(
      join(this.programs, 'psql'),
      [
        '-q',
        '-v',
        'ON_ERROR_STOP=1',
        '-d',
        this.address(database),
        '-c',
        `\\copy ${table} FROM STDIN WITH (FORMAT csv, HEADER true)`,
      ],
      { input: text },
    );
    if (psql.status !== 0) throw new Error(String(psql.stderr));
  }

  private run(program: string, ...args: string[]): void {
    execFileSync(join(this.programs, program), args, {
      ...this.as,
      stdio: ['ignore', 'ignore', 'pipe'],
      cwd: this.folder,
    });
  }
}

function unprivileged(): { uid: number; gid: number } {
  const id = (flag: string): number => Number(execFileSync('id', [flag, 'postgres'], { encoding: 'utf8' }));
  return { uid: id('-u'), gid: id('-g') };
}

const freePort = (): Promise<number> =>
  new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const found = probe.address();
      probe.close(() => resolve(typeof found === 'object' && found ? found.port : 0));
    });
  });

/** Columns of a file as a table of nothing but text. */
export const asText = (table: string, names: readonly string[]): string =>
  `CREATE TABLE ${table} (${names.map((name) => `${pg.escapeIdentifier(name)} text`).join(', ')})`;
