import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { buildApplication } from './build';
import { ensureBrowser } from './browser';
import { removeCluster, startCluster } from './postgres';
import { root, runShown, Stop } from './system';
import { makeTemplates } from './templates';

interface Tally {
  passed: number;
  failed: number;
}

/** What is used of the report that Jest writes. */
interface JestReport {
  numPassedTests: number;
  numFailedTests: number;
  numRuntimeErrorTestSuites: number;
  testResults: { assertionResults: { fullName: string; status: string; invocations?: number }[] }[];
}

const bin = (name: string) => join(root, 'node_modules', name);

/** Runs one check that passes or fails as a whole. */
async function check(name: string, args: string[]): Promise<Tally> {
  console.log(`\n${name}`);
  const code = await runShown(process.execPath, args);
  return code === 0 ? { passed: 1, failed: 0 } : { passed: 0, failed: 1 };
}

/** Runs one of Jest's projects and counts its tests; a file that cannot run counts as failed. */
async function jest(project: string, args: string[], env: Record<string, string> = {}): Promise<Tally> {
  const folder = mkdtempSync(join(tmpdir(), 'zircon-test-'));
  const report = join(folder, 'report.json');
  await runShown(
    process.execPath,
    [bin('jest/bin/jest.js'), '--selectProjects', project, '--json', '--outputFile', report, ...args],
    { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, ...env, NODE_OPTIONS: '--no-warnings' } },
  );
  try {
    const told = JSON.parse(readFileSync(report, 'utf8')) as JestReport;
    const { numPassedTests, numFailedTests, numRuntimeErrorTestSuites } = told;
    for (const { fullName, status, invocations = 1 } of told.testResults.flatMap((file) => file.assertionResults))
      if (status === 'passed' && invocations > 1) console.log(`Passed only when tried again: ${fullName}`);
    return { passed: numPassedTests, failed: numFailedTests + numRuntimeErrorTestSuites };
  } catch {
    return { passed: 0, failed: 1 };
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

/** The interface tests: a production build, a browser, and a database made for them and deleted after. */
async function interfaceTests(args: string[]): Promise<Tally> {
  const folder = mkdtempSync(join(tmpdir(), 'zircon-e2e-'));
  const cluster = join(folder, 'db');
  try {
    ensureBrowser();
    await buildApplication();
    const { url } = await startCluster(cluster, { throwAway: true });
    await makeTemplates(url);
    // Every file has a server and a database of its own, and much of its time is waiting: two go side by side.
    return await jest('e2e', ['--maxWorkers=2', '--forceExit', ...args], { DATABASE_URL: url });
  } finally {
    removeCluster(cluster);
    rmSync(folder, { recursive: true, force: true });
  }
}

/** `./run test [format|types|lint|unit|e2e] [pattern]`. @returns 0 where nothing failed */
export async function test([part, ...args]: string[]): Promise<number> {
  const parts: Record<string, () => Promise<Tally>> = {
    format: () => check('Format', [bin('prettier/bin/prettier.cjs'), '--check', '--log-level', 'warn', root]),
    types: () => check('Types', [bin('typescript/bin/tsc'), '--noEmit', '-p', root]),
    lint: () => check('Lint', [bin('eslint/bin/eslint.js'), '--max-warnings', '0', root]),
    unit: () => jest('unit', ['--maxWorkers=2', ...args]),
    e2e: () => interfaceTests(args),
  };
  if (part !== undefined && !parts[part]) {
    console.error(`There is no part "${part}"; expected one of ${Object.keys(parts).join(', ')}.`);
    return 2;
  }
  const total: Tally = { passed: 0, failed: 0 };
  const add = async (name: string): Promise<void> => {
    try {
      const { passed, failed } = await parts[name]();
      total.passed += passed;
      total.failed += failed;
    } catch (error) {
      if (!(error instanceof Stop)) throw error;
      console.error(error.message);
      total.failed += 1;
    }
  };
  // What only reads the code goes side by side; tests take both cores.
  const [checks, tests] =
    part === undefined
      ? [
          ['format', 'types', 'lint'],
          ['unit', 'e2e'],
        ]
      : [[part], []];
  await Promise.all(checks.map(add));
  for (const name of tests) await add(name);
  console.log(`\n${total.passed} passed, ${total.failed} failed`);
  return total.failed === 0 ? 0 : 1;
}
