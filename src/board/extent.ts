import type { Box } from '@/core/geometry/boxIndex';
import { boxOf } from '@/core/geometry/boxIndex';
import { apply, determinant, type Transform } from '@/core/geometry/transform';
import type { Point } from '@/core/geometry/vector';
import { mainContentOf } from '@/core/underlay/mainContent';
import type { Primitives } from '@/core/underlay/primitives';
import type { BoardDrawing, BoardScene } from './scene';

const mains = new WeakMap<Primitives, { key: string; box: Box | null }>();

/** The building in a drawing, about its underlay's origin; its main content where no layer has a role yet. */
function mainBox({ underlay: { primitives }, building }: BoardDrawing): Box | null {
  const key = building.join('');
  const known = mains.get(primitives);
  if (known?.key === key) return known.box;
  const main = mainContentOf(primitives, building);
  const [ox, oy] = primitives.origin;
  const box: Box | null = main && [main[0][0] - ox, main[0][1] - oy, main[1][0] - ox, main[1][1] - oy];
  mains.set(primitives, { key, box });
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

/** The box round the building in a drawing, in the project. */
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
