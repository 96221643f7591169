import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { build as bundle } from 'esbuild';
import { complain } from './complain';
import { root, runShown, Stop } from './system';

/** Where the parts that are built beside the web application lie. */
export const buildFolder = join(root, '.build');

/** Bundles the server's threads; worker threads cannot run TypeScript by themselves. */
export async function buildThreads(): Promise<void> {
  await bundle({
    entryPoints: [
      'src/workers/readDrawing.thread.ts',
      'src/server/ifc/readBuilding.thread.ts',
      'src/server/desk/desk.thread.ts',
      'src/server/work/work.thread.ts',
    ].map((file) => join(root, file)),
    entryNames: '[name]',
    packages: 'external',
    outdir: buildFolder,
    outExtension: { '.js': '.mjs' },
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    tsconfig: join(root, 'tsconfig.json'),
    logLevel: 'error',
  });
}

/** Builds the application where its sources changed since the last time. */
export async function buildApplication(): Promise<void> {
  const stamp = join(buildFolder, 'stamp');
  const sources = hashOf([
    join(root, 'src'),
    ...['next.config.ts', 'package-lock.json', 'tsconfig.json'].map((name) => join(root, name)),
  ]);
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === sources && existsSync(join(root, '.next/BUILD_ID'))) return;
  console.error('Building ...');
  mkdirSync(buildFolder, { recursive: true });
  await buildThreads();
  const code = await runShown(process.execPath, [join(root, 'node_modules/next/dist/bin/next'), 'build'], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: { ...process.env, NODE_ENV: 'production' },
  });
  if (code !== 0) throw new Stop('The build failed; its messages are above.');
  writeFileSync(stamp, sources);
}

/** `./run build`: what an image is made with. @returns the exit code */
export async function buildAlone(): Promise<number> {
  try {
    await buildApplication();
    return 0;
  } catch (error) {
    if (!(error instanceof Stop)) throw error;
    return complain(1, error.message);
  }
}

function hashOf(paths: string[]): string {
  const hash = createHash('sha256');
  const visit = (path: string) => {
    if (statSync(path).isDirectory()) {
      for (const name of readdirSync(path).sort()) visit(join(path, name));
      return;
    }
    if (/\.test\.tsx?$/.test(path)) return;
    hash.update(path.slice(root.length)).update(readFileSync(path));
  };
  paths.forEach(visit);
  return hash.digest('hex');
}
