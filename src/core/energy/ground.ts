import { insideResistance, outsideResistance } from './uValue';

/** What lies on or in the ground: a floor with its area and the length of its edge to outside, metres. */
export interface GroundFloor {
  area: number;
  perimeter: number;
  /** Below the ground beside it; zero of a floor on it. */
  depth: number;
  /** Thickness of the walls at its edge. */
  wall: number;
  /** Of the floor's layers, m2 K/W. */
  resistance: number;
  /** Of the ground, W/(m K). */
  conductivity: number;
}

/** Characteristic dimension: the area over half the exposed perimeter (ISO 13370, 7.1). */
const dimensionOf = ({ area, perimeter }: GroundFloor): number => area / (0.5 * Math.max(perimeter, 1e-9));

/** The U-value of a floor on the ground or of a basement's floor (ISO 13370, 7.2 and 7.4.1). */
export function groundFloorUValue(floor: GroundFloor): number {
  const { conductivity: k, resistance, wall, depth } = floor;
  const b = dimensionOf(floor);
  const thick = wall + k * (insideResistance.down + resistance + outsideResistance) + depth / 2;
  if (thick < b) return ((2 * k) / (Math.PI * b + thick)) * Math.log((Math.PI * b) / thick + 1);
  return k / (0.457 * b + thick);
}

/** The U-value of a wall that stands so deep in the ground (ISO 13370, 7.4.2). @param resistance of its layers */
export function basementWallUValue(
  depth: number,
  resistance: number,
  floor: Pick<GroundFloor, 'wall' | 'resistance' | 'conductivity'>,
): number {
  const k = floor.conductivity;
  const own = k * (insideResistance.across + resistance + outsideResistance);
  const under = floor.wall + k * (insideResistance.down + floor.resistance + outsideResistance);
  const thick = Math.min(own, under);
  const through = ((2 * k) / (Math.PI * depth)) * (1 + (0.5 * thick) / (thick + depth));
  return through * Math.log(depth / own + 1);
}
