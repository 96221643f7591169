import type { Box } from '@/core/geometry/boxIndex';
import { boxOf } from '@/core/geometry/boxIndex';
import { apply, determinant, type Transform } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { mainContent } from '@/core/underlay/mainContent';
import type { Primitives } from '@/core/underlay/primitives';
import type { BoardDrawing, BoardScene } from './scene';

const mains = new WeakMap<Primitives, Box | null>();

/**
 * The main content of a drawing, about its underlay's origin: without frame and title block where a plan stands in one.
 */
function mainBox({ underlay: { primitives } }: BoardDrawing): Box | null {
  const known = mains.get(primitives);
  if (known !== undefined) return known;
  const main = mainContent(primitives);
  const [ox, oy] = primitives.origin;
  const box: Box | null = main && [main[0][0] - ox, main[0][1] - oy, main[1][0] - ox, main[1][1] - oy];
  mains.set(primitives, box);
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

/** The box round the main content of a drawing, in the project. */
export function extentOfDrawing(drawing: BoardDrawing): Box | null {
  const box = mainBox(drawing);
  return box && placed(box, drawing.transform);
}

/** The box round everything that the board shows; null where that is nothing. */
export function extentOfScene(scene: BoardScene): Box | null {
  const ofModel = scene.heights === null ? [null, scene.levelId].map((level) => scene.model.index.extent(level)) : [];
  const boxes = [...scene.drawings.map(extentOfDrawing), ...ofModel].filter((box) => box !== null);
  return boxes.length === 0
    ? null
    : boxOf(
        boxes.flatMap(([minX, minY, maxX, maxY]): Point[] => [
          [minX, minY],
          [maxX, maxY],
        ]),
      );
}
