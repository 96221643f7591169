import { boxOf } from '@/core/geometry/boxIndex';
import type { Point } from '@/core/geometry/vector';
import { useBoard } from '@/board/boardStore';
import { useView } from '@/project/view';

/** Looks at some places of a level, with this much about them, metres. */
export function lookAround(points: readonly Point[], levelId: string | null): void {
  useView.getState().set({ faceOn: null, ...(levelId === null ? {} : { levelId }) });
  const [x1, y1, x2, y2] = boxOf(points);
  const margin = Math.max(3, 0.4 * Math.max(x2 - x1, y2 - y1));
  useBoard.getState().lookAt([x1 - margin, y1 - margin, x2 + margin, y2 + margin]);
}
