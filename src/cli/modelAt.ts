import { readFile } from 'node:fs/promises';
import { readModel, type ReadModel } from '@/core/handover/model/readModel';
import { severities, type Finding } from '@/core/proof/finding';
import { fail, type Result } from '@/core/result';

/** Larger files are no models, bytes. */
const largest = 1 << 29;

/** The model in a file; a sentence why it is none. */
export async function modelAt(file: string): Promise<Result<ReadModel>> {
  try {
    const bytes = await readFile(file);
    if (bytes.length > largest) return fail(`The file has ${bytes.length} bytes; at most ${largest} are read.`);
    return readModel(bytes.toString('utf8'));
  } catch (error) {
    return fail(`The file cannot be read: ${(error as Error).message}. Give the path of a model.json.`);
  }
}

/** How many findings there are of each severity, in words. */
export function countFindings(findings: readonly Finding[]): string {
  if (findings.length === 0) return 'Nothing was found.';
  const counts = severities.map((severity) => {
    const count = findings.filter((finding) => finding.severity === severity).length;
    return `${count} ${severity}${count === 1 ? '' : 's'}`;
  });
  return counts.join(', ');
}
