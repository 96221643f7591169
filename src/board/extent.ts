import type { Box } from '@/core/geometry/boxIndex';
import { boxOf } from '@/core/geometry/boxIndex';
import { apply, determinant, type Transform } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { mainContentOf } from '@/core/underlay/mainContent';
import type { Primitives } from '@/core/underlay/primitives';
import type { BoardDrawing, BoardScene } from './scene';

/** What a view is to show: the building in a drawing, or all of its main content, frame and title block too. */
export type Part = 'building' | 'all';

const mains = new WeakMap<Primitives, Map<string, Box | null>>();

/** That part of a drawing, about its underlay's origin. */
function mainBox({ underlay: { primitives }, building }: BoardDrawing, part: Part): Box | null {
  const counts = part === 'building' ? building : building.map(() => 1);
  const key = counts.join('');
  const known = mains.get(primitives) ?? new Map<string, Box | null>();
  mains.set(primitives, known);
  const before = known.get(key);
  if (before !== undefined) return before;
  const main = mainContentOf(primitives, counts);
  const [ox, oy] = primitives.origin;
  const box: Box | null = main && [main[0][0] - ox, main[0][1] - oy, main[1][0] - ox, main[1][1] - oy];
  known.set(key, box);
  return box;
}

/** A box carried by a map, and the box round what becomes of it. */
function placed(box: Box, transform: Transform): Box {
  if (determinant(transform) === 0) return box;
  const [minX, minY, maxX, maxY] = box;
  const corners: Point[] = [
    [minX, minY],
    [maxX, minY],
    [maxX, maxY],
    [minX, maxY],
  ];
  return boxOf(corners.map((p) => apply(transform, p)));
}

/** The box round that part of a drawing, in the project. */
export function extentOfDrawing(drawing: BoardDrawing, part: Part): Box | null {
  const box = mainBox(drawing, part);
  return box && placed(box, drawing.transform);
}

/** The box round everything that the board shows; null where that is nothing. */
export function extentOfScene(scene: BoardScene, part: Part): Box | null {
  const ofModel = scene.heights === null ? [null, scene.levelId].map((level) => scene.model.index.extent(level)) : [];
  const boxes = [...scene.drawings.map((drawing) => extentOfDrawing(drawing, part)), ...ofModel].filter(
    (box) => box !== null,
  );
  return boxes.length === 0
    ? null
    : boxOf(
        boxes.flatMap(([minX, minY, maxX, maxY]): Point[] => [
          [minX, minY],
          [maxX, maxY],
        ]),
      );
}
