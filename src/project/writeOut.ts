import type { Change } from '@/core/model/edits';
import { turn } from './turn';

/** Changes written out in one go: some milliseconds. */
const atOnce = 1000;

/**
 * A large edit as JSON, written out piece by piece with a turn for the window between: in one go tens of thousands of
 * changes would hold it up for half a second.
 * @param head what stands beside the changes
 */
export async function writtenOut(
  { seen, clientId, window, label }: { seen: number; clientId: string; window: string; label: string },
  changes: readonly Change[],
): Promise<Blob> {
  const encoder = new TextEncoder();
  const sent = JSON.stringify({ seen, clientId, window }).slice(0, -1);
  const before = `${sent},"edit":{"label":${JSON.stringify(label)},`;
  const parts: Uint8Array<ArrayBuffer>[] = [encoder.encode(`${before}"changes":[`)];
  for (let i = 0; i < changes.length; i += atOnce) {
    const text = JSON.stringify(changes.slice(i, i + atOnce)).slice(1, -1);
    parts.push(encoder.encode(i === 0 ? text : `,${text}`));
    await turn();
  }
  parts.push(encoder.encode(']}}'));
  return new Blob(parts, { type: 'application/json' });
}
