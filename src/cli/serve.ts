import { spawn, type ChildProcess } from 'node:child_process';
import { join } from 'node:path';
import { buildFolder } from './build';
import { root, Stop } from './system';

/** A running server. */
export interface Serving {
  address: string;
  process: ChildProcess;
  stop: () => Promise<void>;
}

/** How a server is started: whether what it writes is shown, when to give up, and who hears of its process. */
interface Start {
  shown?: boolean;
  stopped?: () => boolean;
  begun?: (pid: number | null) => void;
}

/**
 * Starts the web server on 127.0.0.1, or where ZIRCON_LISTEN says, and waits until it answers.
 * @param mode `start` serves the build, `dev` rebuilds while sources change
 */
export async function serve(
  mode: 'start' | 'dev',
  port: number,
  env: Record<string, string>,
  { shown = false, stopped = () => false, begun = () => undefined }: Start = {},
): Promise<Serving> {
  const listen = process.env.ZIRCON_LISTEN || '127.0.0.1';
  const child = spawn(
    process.execPath,
    [join(root, 'node_modules/next/dist/bin/next'), mode, '-H', listen, '-p', String(port)],
    {
      // A process group of its own: Ctrl-C comes to the start command, which ends things in order.
      cwd: root,
      detached: true,
      stdio: ['ignore', shown ? 'inherit' : 'ignore', 'inherit'],
      env: {
        ...process.env,
        ...env,
        NODE_ENV: mode === 'dev' ? 'development' : 'production',
        ZIRCON_BUILD: buildFolder,
      },
    },
  );
  begun(child.pid ?? null);
  const ended = new Promise<void>((done) => {
    child.once('exit', () => done());
  });
  // Where it listens on all addresses it is asked at this one.
  const address = `http://${['0.0.0.0', '::'].includes(listen) ? '127.0.0.1' : listen}:${port}`;
  const stop = async () => {
    if (child.exitCode !== null || child.pid === undefined) return;
    const signal = (name: NodeJS.Signals) => {
      try {
        process.kill(-child.pid!, name);
      } catch {
        /* It is gone. */
      }
    };
    signal('SIGTERM');
    const late = setTimeout(() => signal('SIGKILL'), 4000);
    await ended;
    clearTimeout(late);
  };
  for (let i = 0; i < 600 && !stopped(); i += 1) {
    if (child.exitCode !== null) throw new Stop('The server ended while starting; its messages are above.');
    try {
      if ((await fetch(`${address}/api/projects`)).status < 500) return { address, process: child, stop };
    } catch {
      /* Not yet. */
    }
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  await stop();
  throw new Stop(stopped() ? 'Stopped.' : 'The server did not answer within a minute.');
}
