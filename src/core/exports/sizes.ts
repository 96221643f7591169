import { area } from '@/core/geometry/polygon';
import type { Point } from '@/core/geometry/vector';
import type { ReadModel } from '@/core/handover/model/readModel';
import { bulgedLine, lengthOfLine } from '@/core/kinds/lines';

type Wall = ReadModel['walls'][number];

/** From where to where a column reaches, elevations in metres: its level's storey, where it does not say otherwise. */
export function columnReach({ level, base, top }: ReadModel['columns'][number], model: ReadModel): [number, number] {
  const own = model.levels.find(({ id }) => id === level);
  const from = base ?? own?.elevation ?? 0;
  return [from, top ?? (own === undefined ? from : own.elevation + own.height)];
}

/** The face of a wall that ends under a roof: along it, and up from its base. */
export const elevationOfWall = (profile: readonly Point[], base: number): Point[] => [
  [profile[0][0], 0],
  [profile[profile.length - 1][0], 0],
  ...[...profile].reverse().map(([along, z]): Point => [along, z - base]),
];

/** Sizes of a wall, metres and square metres: of one face, with and without what is cut out of it. */
export interface WallSizes {
  base: number;
  length: number;
  /** The greatest. */
  height: number;
  gross: number;
  net: number;
}

/** How large a wall is. @param elevation of its level, where it stands if it does not say otherwise */
export function wallSizes(
  wall: Wall,
  elevation: number,
  openings: readonly { width: number; height: number }[],
): WallSizes {
  const length = lengthOfLine(bulgedLine(wall.start, wall.end, wall.bulge));
  const base = wall.base ?? elevation;
  const { profile } = wall;
  const slopes = profile !== undefined && profile.length > 1;
  const height = slopes ? Math.max(...profile.map(([, z]) => z)) - base : (wall.top ?? base + wall.height) - base;
  const gross = slopes ? Math.abs(area(elevationOfWall(profile, base))) : length * height;
  const open = openings.reduce((sum, opening) => sum + opening.width * opening.height, 0);
  return { base, length, height, gross, net: Math.max(0, gross - open) };
}

/** An outline without its holes, square metres. */
export const netAreaOf = ({
  outline,
  holes,
}: {
  outline: readonly Point[];
  holes: readonly (readonly Point[])[];
}): number => holes.reduce((sum, hole) => sum - Math.abs(area(hole)), Math.abs(area(outline)));
