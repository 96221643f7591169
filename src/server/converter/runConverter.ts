import { spawn } from 'node:child_process';
import { settings } from '../settings';

/** What a converter says is kept up to so many characters, its end where it says more. */
const longestLog = 64_000;

/** How a converter ended: what it said, and why it did not succeed; null where it did. */
export interface Ran {
  log: string;
  problem: string | null;
}

/** The variables of the environment that a converter gets: nothing of the server's own, such as its database. */
const passed = ['PATH', 'HOME', 'LANG', 'TMPDIR'] as const;
const environment = (): NodeJS.ProcessEnv => ({
  NODE_ENV: 'production',
  ...Object.fromEntries(passed.flatMap((name) => (process.env[name] === undefined ? [] : [[name, process.env[name]]]))),
});

/**
 * Runs the office's converter, as a program with its words and without a shell.
 * @param words its command, with {in} and {out} for the two files
 * @param folder where it works
 * @param ending ends it at once
 */
export async function runConverter(
  words: readonly string[],
  files: { in: string; out: string },
  folder: string,
  ending: AbortSignal,
): Promise<Ran> {
  const [program, ...args] = words.map((word) => word.replaceAll('{in}', files.in).replaceAll('{out}', files.out));
  const signal = AbortSignal.any([ending, AbortSignal.timeout(settings.readTimeout)]);
  let log = '';
  const hear = (part: Buffer): void => {
    log = (log + part.toString('utf8')).slice(-longestLog);
  };
  const problem = await new Promise<string | null>((resolve) => {
    const child = spawn(program, args, {
      cwd: folder,
      env: environment(),
      stdio: ['ignore', 'pipe', 'pipe'],
      signal,
      killSignal: 'SIGKILL',
    });
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    child.on('error', (error) =>
      resolve(signal.aborted ? `it took longer than ${settings.readTimeout / 1000} s` : error.message),
    );
    child.on('close', (code, by) => resolve(code === 0 ? null : `it ended with ${by ?? `code ${code}`}`));
  });
  return { log: log.replaceAll('\0', ' '), problem };
}
