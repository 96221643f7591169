import { spawn, spawnSync, type SpawnOptions } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The project's own folder. */
export const root = resolve(dirname(fileURLToPath(import.meta.url)), '../..');

export const isRoot = process.getuid?.() === 0;

/** A reason to stop that a person can do something about. */
export class Stop extends Error {}

/** Runs a command to its end, its output shown. @returns the exit code */
export function runShown(command: string, args: string[], options: SpawnOptions = {}): Promise<number> {
  return new Promise((done) => {
    const child = spawn(command, args, { stdio: 'inherit', cwd: root, ...options });
    child.on('error', () => done(127));
    child.on('exit', (code, signal) => done(code ?? (signal ? 130 : 1)));
  });
}

/** Makes sure that a Debian package is there; installs it where that is allowed. */
export function ensurePackage(name: string, present: () => boolean, what: string): void {
  if (present()) return;
  const manual = `${what} is missing. Install it (on Debian: apt-get install ${name}) and run this again.`;
  if (!existsSync('/usr/bin/apt-get')) throw new Stop(manual);
  const [command, prefix] = isRoot ? ['apt-get', []] : ['sudo', ['-n', 'apt-get']];
  console.error(`Installing ${name} ...`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const options = { env, stdio: ['ignore', 'ignore', 'pipe'] as ['ignore', 'ignore', 'pipe'] };
  spawnSync(command, [...prefix, 'update', '-qq'], options);
  const done = spawnSync(command, [...prefix, 'install', '-y', '-qq', name], options);
  if (done.status === 0 && present()) return;
  const why = isRoot
    ? String(done.stderr ?? '')
        .trim()
        .split('\n')
        .pop()
    : 'this user has no right to install packages';
  throw new Stop(`${manual} Installing it by itself did not work: ${why ?? 'unknown reason'}.`);
}

/** Whether a port of the loopback address is free. */
export function portFree(port: number): Promise<boolean> {
  return new Promise((done) => {
    const probe = createServer();
    probe.once('error', () => done(false));
    probe.listen(port, '127.0.0.1', () => probe.close(() => done(true)));
  });
}

/** A port that is free at this moment. */
export function anyPort(): Promise<number> {
  return new Promise((done, failed) => {
    const probe = createServer();
    probe.once('error', failed);
    probe.listen(0, '127.0.0.1', () => {
      const { port } = probe.address() as { port: number };
      probe.close(() => done(port));
    });
  });
}

/** Whether a process lives whose command line holds a word: a number may have been given to another one since. */
export function isAlive(pid: number, word: string): boolean {
  try {
    process.kill(pid, 0);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EPERM') return false;
  }
  try {
    return readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(word);
  } catch {
    // No such folder on this system, or the process ended meanwhile.
    return !existsSync('/proc/self');
  }
}
