import type { Change } from '@/core/model/edits';
import { pieces, type Stepwise } from '@/core/stepwise';
import { inTurns } from './turn';

/** Edits of up to this many changes are checked, and written out, in one go. */
export const writtenAtOnce = 500;

/** A step as it is sent. */
interface Sent {
  path: 'edits' | 'undo' | 'redo' | 'past';
  clientId: string;
  label: string;
  changes: readonly Change[];
  /** The edit that an undo or a redo means, or that is to be the last one. */
  target: number | null;
}

/** What is sent of a step, by a window that has seen a version; large edits are written out in pieces. */
export async function contentOf(
  { path, clientId, label, changes, target }: Sent,
  seen: number,
  window: string,
): Promise<{ json: unknown } | { body: Blob }> {
  const sent = { seen, clientId, window };
  if (path === 'past') return { json: { ...sent, to: target } };
  if (path !== 'edits') return { json: { ...sent, target } };
  if (changes.length > writtenAtOnce) return { body: await inTurns(writingOut({ ...sent, label }, changes)) };
  return { json: { ...sent, edit: { label, changes } } };
}

/**
 * A large edit as JSON, written out piece by piece: in one go tens of thousands of changes would hold the window up for
 * half a second.
 * @param head what stands beside the changes
 */
export function* writingOut(
  { seen, clientId, window, label }: { seen: number; clientId: string; window: string; label: string },
  changes: readonly Change[],
): Stepwise<Blob> {
  const sent = JSON.stringify({ seen, clientId, window }).slice(0, -1);
  const parts = [`${sent},"edit":{"label":${JSON.stringify(label)},"changes":[`];
  for (const piece of pieces(changes)) {
    parts.push(parts.length === 1 ? '' : ',', JSON.stringify(piece).slice(1, -1));
    yield;
  }
  parts.push(']}}');
  return new Blob(parts, { type: 'application/json' });
}
