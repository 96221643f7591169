import type { Primitives } from '@/core/underlay/primitives';

/** Fewer texts say nothing. */
const fewest = 3;

/** How many of a drawing's texts read mirror-wise, and whether that makes the drawing one that was mirrored. */
export interface MirrorVerdict {
  mirrored: number;
  texts: number;
  verdict: boolean;
}

/** Counts them. */
export function mirrorWise({ texts }: Pick<Primitives, 'texts'>): MirrorVerdict {
  const mirrored = texts.filter((text) => text.mirrored).length;
  return { mirrored, texts: texts.length, verdict: mirrored >= fewest && mirrored > 0.6 * texts.length };
}
