import type { Point } from '@/core/geometry/vector';

/** How a key moves the view: by pixels, nearer by a factor, or to all there is. */
export type ViewStep = { kind: 'pan'; by: Point } | { kind: 'zoom'; factor: number } | { kind: 'all' };

/** Pixels that an arrow moves the view by, and with Shift. */
const [step, stride] = [60, 200];
/** How much nearer a key comes. */
const nearer = 1.4;

const arrows: Record<string, Point> = {
  ArrowLeft: [1, 0],
  ArrowRight: [-1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** What a key does to the view; null where it does nothing to it. */
export function viewStep({ key, shiftKey }: Pick<KeyboardEvent, 'key' | 'shiftKey'>): ViewStep | null {
  const arrow = arrows[key];
  const far = shiftKey ? stride : step;
  if (arrow !== undefined) return { kind: 'pan', by: [arrow[0] * far, arrow[1] * far] };
  if (key === '+' || key === '=') return { kind: 'zoom', factor: nearer };
  if (key === '-') return { kind: 'zoom', factor: 1 / nearer };
  return key === 'Home' ? { kind: 'all' } : null;
}
