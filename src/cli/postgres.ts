import { spawnSync } from 'node:child_process';
import { createHash, randomBytes } from 'node:crypto';
import { chmodSync, existsSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename, dirname, join } from 'node:path';
import { anyPort, ensurePackage, isRoot, Stop } from './system';

/** A private PostgreSQL server on loopback. */
export interface Cluster {
  url: string;
  stop: () => void;
}

interface Kind {
  /** For tests: no password, no care for power cuts. */
  throwAway: boolean;
}

function binaries(): string | null {
  const base = '/usr/lib/postgresql';
  const versions = existsSync(base)
    ? readdirSync(base)
        .filter((name) => existsSync(join(base, name, 'bin/initdb')))
        .sort((a, b) => Number(b) - Number(a))
    : [];
  if (versions.length > 0) return join(base, versions[0], 'bin');
  const found = spawnSync('which', ['initdb'], { encoding: 'utf8' }).stdout?.trim();
  return found ? dirname(found) : null;
}

/** PostgreSQL refuses to run as root; there its commands go through the user `postgres`. */
function pg(command: string, args: string[]): { status: number | null; text: string } {
  const file = join(binaries()!, command);
  const options = {
    cwd: '/',
    encoding: 'utf8' as const,
    env: { ...process.env, LC_ALL: 'C.UTF-8' },
    stdio: ['ignore', 'pipe', 'pipe'] as ['ignore', 'pipe', 'pipe'],
  };
  const done = isRoot
    ? spawnSync('runuser', ['-u', 'postgres', '--', file, ...args], options)
    : spawnSync(file, args, options);
  return { status: done.status, text: `${done.stdout ?? ''}${done.stderr ?? ''}`.trim() };
}

/**
 * Where the cluster's folder is: in the project, or, where the user `postgres` cannot reach that, beside Debian's own
 * clusters.
 */
function folderOf(wanted: string): string {
  if (!isRoot) return wanted;
  mkdirSync(dirname(wanted), { recursive: true });
  const reachable =
    spawnSync('runuser', ['-u', 'postgres', '--', 'test', '-x', dirname(wanted)], { cwd: '/' }).status === 0;
  return reachable
    ? wanted
    : join(
        '/var/lib/postgresql',
        `zircon-${basename(wanted)}-${createHash('sha256').update(wanted).digest('hex').slice(0, 10)}`,
      );
}

const runningPort = (data: string): number | null => {
  try {
    const lines = readFileSync(join(data, 'postmaster.pid'), 'utf8').split('\n');
    process.kill(Number(lines[0]), 0);
    return Number(lines[3]);
  } catch {
    return null;
  }
};

/** Whether a cluster has been made in a folder. */
export const clusterExists = (wanted: string): boolean => existsSync(join(folderOf(wanted), 'data', 'PG_VERSION'));

/**
 * Starts the cluster in a folder, making it the first time; one that still runs is used as it is.
 * @param wanted the folder, absolute
 */
export async function startCluster(wanted: string, kind: Kind, database = 'zircon'): Promise<Cluster> {
  ensurePackage('postgresql', () => binaries() !== null, 'PostgreSQL');
  const folder = folderOf(wanted);
  const [data, secret, log] = [join(folder, 'data'), join(folder, 'password'), join(folder, 'postgres.log')];
  if (!existsSync(join(data, 'PG_VERSION'))) create(folder, data, secret, kind);
  const password = kind.throwAway ? '' : `:${readFileSync(secret, 'utf8').trim()}`;
  let port = runningPort(data);
  if (port === null) {
    port = await anyPort();
    const options =
      `-p ${port} -c listen_addresses=127.0.0.1 -c unix_socket_directories='' ` +
      `-c max_connections=100${kind.throwAway ? ' -c fsync=off -c full_page_writes=off' : ''}`;
    const started = pg('pg_ctl', ['-D', data, '-l', log, '-w', '-t', '60', '-o', options, 'start']);
    if (started.status !== 0) {
      const tail = existsSync(log) ? readFileSync(log, 'utf8').trim().split('\n').slice(-3).join('\n') : started.text;
      const full = /No space left/i.test(tail);
      throw new Stop(
        full
          ? `The disk is full, so PostgreSQL cannot start. Make room on the disk of ${folder} and run this again.`
          : `PostgreSQL did not start. Its log says:\n${tail}\nThe log is at ${log}.`,
      );
    }
  }
  const url = `postgres://zircon${password}@127.0.0.1:${port}/${database}`;
  await ensureDatabase(url);
  return {
    url,
    stop: () => {
      pg('pg_ctl', ['-D', data, '-m', 'fast', '-w', '-t', '30', 'stop']);
    },
  };
}

function create(folder: string, data: string, secret: string, kind: Kind): void {
  mkdirSync(folder, { recursive: true });
  if (isRoot) {
    spawnSync('chown', ['postgres:', folder]);
    chmodSync(folder, 0o700);
  }
  writeFileSync(secret, `${randomBytes(24).toString('hex')}\n`, { mode: 0o600 });
  if (isRoot) spawnSync('chown', ['postgres:', secret]);
  const made = pg('initdb', [
    '-D',
    data,
    '-U',
    'zircon',
    '-E',
    'UTF8',
    '--locale=C.UTF-8',
    ...(kind.throwAway ? ['--auth=trust', '--no-sync'] : ['--auth=scram-sha-256', `--pwfile=${secret}`]),
  ]);
  if (made.status === 0) return;
  rmSync(data, { recursive: true, force: true });
  throw new Stop(
    /No space left/i.test(made.text)
      ? `The disk is full, so the database could not be made in ${folder}. Make room and run this again.`
      : `The database could not be made in ${folder}:\n${made.text.split('\n').slice(-4).join('\n')}`,
  );
}

async function ensureDatabase(url: string): Promise<void> {
  const {
    default: { Client },
  } = await import('pg');
  const target = new URL(url);
  const name = target.pathname.slice(1);
  target.pathname = '/postgres';
  const client = new Client({ connectionString: target.toString() });
  await client.connect();
  try {
    const { rowCount } = await client.query('select 1 from pg_database where datname = $1', [name]);
    if (rowCount === 0) await client.query(`create database "${name.replace(/"/g, '""')}"`);
  } finally {
    await client.end();
  }
}

/** Stops a cluster that runs in the folder, and deletes it. */
export function removeCluster(wanted: string): void {
  if (binaries() === null) return;
  const folder = folderOf(wanted);
  if (runningPort(join(folder, 'data')) !== null)
    pg('pg_ctl', ['-D', join(folder, 'data'), '-m', 'immediate', '-w', 'stop']);
  rmSync(folder, { recursive: true, force: true });
}
