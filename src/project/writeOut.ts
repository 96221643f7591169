import type { Change } from '@/core/model/edits';
import { pieces, type Stepwise } from '@/core/stepwise';

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
