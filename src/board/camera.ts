import type { Point } from '@/core/geometry/vector';

/** What the board looks at: the project point in its middle, and how many metres a pixel is. */
export interface Camera {
  x: number;
  y: number;
  metresPerPixel: number;
}

/** The board's size in CSS pixels. */
export interface Size {
  width: number;
  height: number;
}

export const finest = 1e-6;
export const coarsest = 1e4;

export const toScreen = (c: Camera, { width, height }: Size, [x, y]: Point): Point => [
  width / 2 + (x - c.x) / c.metresPerPixel,
  height / 2 - (y - c.y) / c.metresPerPixel,
];

export const toProject = (c: Camera, { width, height }: Size, [px, py]: Point): Point => [
  c.x + (px - width / 2) * c.metresPerPixel,
  c.y - (py - height / 2) * c.metresPerPixel,
];

export const pan = (c: Camera, dx: number, dy: number): Camera => ({
  ...c,
  x: c.x - dx * c.metresPerPixel,
  y: c.y + dy * c.metresPerPixel,
});

/** Zooms so that what is under the cursor stays there. @param factor above 1 comes nearer */
export function zoomAt(c: Camera, size: Size, at: Point, factor: number): Camera {
  const metresPerPixel = Math.min(coarsest, Math.max(finest, c.metresPerPixel / factor));
  const [x, y] = toProject(c, size, at);
  return {
    x: x - (at[0] - size.width / 2) * metresPerPixel,
    y: y + (at[1] - size.height / 2) * metresPerPixel,
    metresPerPixel,
  };
}

/** The view that shows a box (minX, minY, maxX, maxY in metres) with a margin round it. */
export function fit(
  [minX, minY, maxX, maxY]: readonly [number, number, number, number],
  size: Size,
  margin = 48,
): Camera {
  const [width, height] = [Math.max(1, size.width - 2 * margin), Math.max(1, size.height - 2 * margin)];
  const metresPerPixel = Math.max((maxX - minX) / width, (maxY - minY) / height);
  return {
    x: (minX + maxX) / 2,
    y: (minY + maxY) / 2,
    metresPerPixel: Math.min(coarsest, Math.max(finest, metresPerPixel || 0.01)),
  };
}

/** minX, minY, maxX, maxY of what is seen, in metres. */
export const viewBox = (c: Camera, { width, height }: Size): [number, number, number, number] => {
  const [w, h] = [(width / 2) * c.metresPerPixel, (height / 2) * c.metresPerPixel];
  return [c.x - w, c.y - h, c.x + w, c.y + h];
};
